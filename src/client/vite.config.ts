import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

// `npm run dev` serves the client alone; the service is expected at its usual port.
export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { outDir: '../Fehler.Web/wwwroot', emptyOutDir: true, chunkSizeWarningLimit: 1200 },
  // Modules are loaded afresh test by test, on machines that do other work as well.
  test: { testTimeout: 60_000 },
  server: { proxy: { '/api': 'http://127.0.0.1:5080' } },
})
