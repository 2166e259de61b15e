import '@fontsource/andika/latin-400.css'
import '@fontsource/andika/latin-700.css'
import './styles/tokens.css'
import './styles/base.css'

import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import ConfirmationService from 'primevue/confirmationservice'
import ToastService from 'primevue/toastservice'
import { createApp } from 'vue'

import App from './App.vue'
import inks from './parts/inks.json'
import { router } from './router'
import { desk } from './theme'

// Twice, so that what is drawn on paper can take its own inks back where the wall has others.
for (const [role, ink] of Object.entries(inks.roles)) {
  for (const name of ['role', 'ink']) document.documentElement.style.setProperty(`--${name}-${role}`, ink.colour)
}

// Has a page of ours ready for when the server is away.
if ('serviceWorker' in navigator) navigator.serviceWorker.register('/service-worker.js').catch(() => null)

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content

createApp(App)
  .use(createPinia())
  .use(router)
  .use(PrimeVue, {
    csp: { nonce },
    theme: {
      preset: desk,
      options: { darkModeSelector: '.never-dark', cssLayer: { name: 'primevue', order: 'reset, primevue' } },
    },
  })
  .use(ToastService)
  .use(ConfirmationService)
  .mount('#app')
