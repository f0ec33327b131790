import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  build: { outDir: '../src/DeepBaize.Web/wwwroot', emptyOutDir: true, chunkSizeWarningLimit: 1500 },
  server: { host: '127.0.0.1', proxy: { '/api': 'http://127.0.0.1:5080', '/openapi': 'http://127.0.0.1:5080' } },
  test: { environment: 'happy-dom', include: ['src/**/*.test.ts'] },
})
