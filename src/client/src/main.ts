import '@fontsource/barlow/400.css'
import '@fontsource/barlow/500.css'
import '@fontsource/barlow/600.css'
import '@fontsource/barlow-semi-condensed/500.css'
import '@fontsource/barlow-semi-condensed/600.css'
import 'primeicons/primeicons.css'
import './styles.css'
import PrimeVue from 'primevue/config'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { workshop } from './theme'

// Every page opens without a connection too, once it was opened with one.
if (import.meta.env.PROD && 'serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js')

createApp(App)
  .use(router)
  .use(PrimeVue, { theme: { preset: workshop, options: { darkModeSelector: '.dark' } } })
  .mount('#app')
