import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'
import { generateSW } from 'workbox-build'

const out = fileURLToPath(new URL('../Fehler.Web/wwwroot', import.meta.url))

/** The service worker: every page opens without a connection; the core for the device is kept once it was fetched. */
const withoutConnection: Plugin = {
  name: 'without-connection',
  apply: 'build',
  async closeBundle() {
    await generateSW({
      globDirectory: out,
      globPatterns: ['index.html', 'icon.svg', 'app.webmanifest', 'assets/*.{js,css,woff2}'],
      globIgnores: ['field/**'],
      swDest: `${out}/sw.js`,
      navigateFallback: '/index.html',
      navigateFallbackDenylist: [/^\/api\//],
      runtimeCaching: [
        {
          urlPattern: /\/field\/.+\//,
          handler: 'CacheFirst',
          options: { cacheName: 'field' },
        },
      ],
      clientsClaim: true,
      skipWaiting: true,
      cleanupOutdatedCaches: true,
      sourcemap: false,
      inlineWorkboxRuntime: true,
    })
  },
}

// `npm run dev` serves the client alone; the service is expected at its usual port.
export default defineConfig({
  plugins: [vue(), withoutConnection],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  worker: { format: 'es' },
  build: { outDir: '../Fehler.Web/wwwroot', emptyOutDir: true, chunkSizeWarningLimit: 1200 },
  // Modules are loaded afresh test by test, on machines that do other work as well.
  test: { testTimeout: 60_000 },
  server: { proxy: { '/api': 'http://127.0.0.1:5080', '/field': 'http://127.0.0.1:5080' } },
})
