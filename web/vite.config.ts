import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

// ./dev says where the server listens.
const server = process.env.DEEPBAIZE_SERVER ?? 'http://127.0.0.1:5080'

export default defineConfig({
  plugins: [vue()],
  build: { outDir: '../src/DeepBaize.Web/wwwroot', emptyOutDir: true, chunkSizeWarningLimit: 1500 },
  server: { host: '127.0.0.1', proxy: { '/api': server, '/openapi': server, '/health': server } },
  test: { environment: 'happy-dom', pool: 'threads', maxWorkers: 2, include: ['src/**/*.test.ts'] },
})
