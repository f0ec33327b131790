import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import { VitePWA } from 'vite-plugin-pwa'
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

/** What a first visit loads: the page itself, the table, and the step Break, in which a break is planned. */
const first = ['src/app/TablePlace.vue', 'src/features/break/BreakPanel.vue', 'src/features/break/BreakStrip.vue']
/** Bars for it, bytes as they are sent. */
const bars = { js: 200_000, css: 35_000 }

/** Weighs what a first visit loads, and fails above the bars. */
const weighed = (): Plugin => ({
  name: 'weighed',
  apply: 'build',
  generateBundle(_, bundle) {
    const chunks = Object.values(bundle).filter((c) => c.type === 'chunk')
    const files = new Set<string>()
    const take = (name: string) => {
      const chunk = bundle[name]
      if (files.has(name) || chunk?.type !== 'chunk') return
      files.add(name)
      chunk.imports.forEach(take)
      for (const css of (chunk as { viteMetadata?: { importedCss: Set<string> } }).viteMetadata?.importedCss ?? []) files.add(css)
    }
    const begins = chunks.filter((c) => c.isEntry || first.some((f) => c.facadeModuleId?.endsWith(f)))
    if (begins.length !== first.length + 1) this.error('What a first visit loads is not found among the pieces of the page.')
    begins.forEach((c) => take(c.fileName))
    const sum = (ending: string) =>
      [...files]
        .filter((f) => f.endsWith(ending))
        .reduce((bytes, f) => {
          const file = bundle[f]
          const text = file.type === 'chunk' ? file.code : file.source
          return bytes + brotliCompressSync(text).length
        }, 0)
    for (const [kind, most] of Object.entries(bars)) {
      const bytes = sum(`.${kind}`)
      this.info(`A first visit loads ${(bytes / 1000).toFixed(0)} kB of ${kind} (at most ${most / 1000}).`)
      if (bytes > most) this.error(`A first visit loads ${bytes} bytes of ${kind}, more than ${most}.`)
    }
  },
})

/** What the table side needs without a network: the page itself, and the newest answers that it begins with. */
const atTheTable = VitePWA({
  registerType: 'prompt',
  // Asked for by the page when somebody practises, and not before.
  injectRegister: false,
  manifest: {
    name: 'Deep Baize',
    short_name: 'Deep Baize',
    description: 'Snooker worked out: shots, breaks, safety, practice.',
    start_url: '/practice',
    display: 'standalone',
    background_color: '#0d1718',
    theme_color: '#142224',
    icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,woff2,svg}'],
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/(api|openapi|health|metrics)/],
    cleanupOutdatedCaches: true,
    // So that the visit on which it is installed is kept too.
    clientsClaim: true,
    runtimeCaching: [
      {
        // From the server as long as it answers; what it said last when it does not.
        urlPattern: ({ url, request }) =>
          request.method === 'GET' && /^\/api\/(reference|in-hand|player|positions(\/[^/]+)?|practice\/sessions)$/.test(url.pathname),
        handler: 'NetworkFirst',
        options: { cacheName: 'answers', networkTimeoutSeconds: 4, cacheableResponse: { statuses: [200] }, expiration: { maxEntries: 40 } },
      },
    ],
  },
})

const ownWindow = ['src/position/position.test.ts', 'src/features/shot/shotDrawing.test.ts']

/** Answers that the page keeps over a reload are read back only by a page with the same shapes. */
const api = createHash('sha256').update(readFileSync(join(import.meta.dirname, '../docs/openapi.json'))).digest('hex').slice(0, 12)

export default defineConfig({
  define: { __API__: JSON.stringify(api) },
  // Of Element Plus only the styles of what is used.
  plugins: [vue(), ElementPlus({}), atTheTable, weighed(), compressed()],
  build: {
    outDir: out,
    emptyOutDir: true,
    chunkSizeWarningLimit: 800,
    rolldownOptions: {
      output: {
        // What is needed in every place, in one file instead of twenty.
        codeSplitting: {
          groups: [
            { name: 'vue', test: /node_modules[\\/](@vue|vue|vue-router|pinia|@vueuse|openapi-fetch|eventsource-parser)[\\/]/ },
            { name: 'common', test: /src[\\/](api|lib|domain|position(?![\\/](links|CompareButton|BallRail|BallPanel))|ui[\\/](LineButton|OneOf|BallDot))/, minShareCount: 2 },
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
    // For a machine that is busy with something else: a test that passes does not wait for it.
    testTimeout: 30_000,
    setupFiles: ['src/lib/forgetting.fixture.ts'],
    server: { deps: { inline: ['element-plus'] } },
    // Most files share one environment, which halves the time; those that look at the window's own state have one each.
    projects: [
      { extends: true, test: { name: 'shared', isolate: false, include: ['src/**/*.test.ts'], exclude: ownWindow } },
      { extends: true, test: { name: 'own window', include: ownWindow } },
    ],
  },
})
