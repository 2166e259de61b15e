import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

// No inline scripts and no data: addresses, so that the page's Content-Security-Policy can stay strict.
export default defineConfig({
  plugins: [vue()],
  build: { assetsInlineLimit: 0, modulePreload: { polyfill: false }, chunkSizeWarningLimit: 700 },
})
