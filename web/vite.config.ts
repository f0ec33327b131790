import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import ElementPlus from 'unplugin-element-plus/vite'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

// ./dev says where the server listens.
const server = process.env.DEEPBAIZE_SERVER ?? 'http://127.0.0.1:5080'
// Under the page's own name: of another the server would take it for a foreign page.
const proxied = { target: server, changeOrigin: false }
const out = '../src/DeepBaize.Web/wwwroot'

/** Scripts and styles as small as they get, once, instead of somewhat smaller at every request; the server hands them out. */
const compressed = (): Plugin => ({
  name: 'compressed',
  apply: 'build',
  closeBundle() {
    const assets = join(import.meta.dirname, out, 'assets')
    for (const file of readdirSync(assets).filter((f) => /\.(js|css)$/.test(f)))
      writeFileSync(join(assets, `${file}.br`), brotliCompressSync(readFileSync(join(assets, file))))
  },
})

export default defineConfig({
  // Of Element Plus only the styles of what is used.
  plugins: [vue(), ElementPlus({}), compressed()],
  build: {
    outDir: out,
    emptyOutDir: true,
    chunkSizeWarningLimit: 800,
    rolldownOptions: {
      output: {
        // What is needed in every place, in one file instead of twenty.
        codeSplitting: {
          groups: [
            { name: 'vue', test: /node_modules[\\/](@?vue|vue-router|pinia|@vueuse|openapi-fetch)/ },
            { name: 'common', test: /src[\\/](api|lib|domain|position|ui[\\/](LineButton|OneOf|BallDot))/, minShareCount: 2 },
          ],
        },
      },
    },
  },
  server: { host: '127.0.0.1', proxy: Object.fromEntries(['/api', '/openapi', '/health'].map((path) => [path, proxied])) },
  test: {
    environment: 'happy-dom',
    pool: 'threads',
    maxWorkers: 2,
    server: { deps: { inline: ['element-plus'] } },
    include: ['src/**/*.test.ts'],
  },
})
