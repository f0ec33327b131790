import vue from '@vitejs/plugin-vue'
import ElementPlus from 'unplugin-element-plus/vite'
import { defineConfig } from 'vitest/config'

// ./dev says where the server listens.
const server = process.env.DEEPBAIZE_SERVER ?? 'http://127.0.0.1:5080'

export default defineConfig({
  // Of Element Plus only the styles of what is used.
  plugins: [vue(), ElementPlus({})],
  build: { outDir: '../src/DeepBaize.Web/wwwroot', emptyOutDir: true, chunkSizeWarningLimit: 800 },
  server: { host: '127.0.0.1', proxy: { '/api': server, '/openapi': server, '/health': server } },
  test: { environment: 'happy-dom', pool: 'threads', maxWorkers: 2, server: { deps: { inline: ['element-plus'] } }, include: ['src/**/*.test.ts'] },
})
