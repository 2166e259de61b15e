import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

// No inline scripts and no data: addresses, so that the page's Content-Security-Policy can stay strict.
export default defineConfig({
  plugins: [vue()],
  server: { fs: { allow: ['.', '../docs'] } }, // the guide, which the help tells
  build: {
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 700,
    rolldownOptions: { input: ['index.html', 'away.html'] },
  },
  test: { environment: 'happy-dom', include: ['tests/**/*.test.ts'], restoreMocks: true, unstubGlobals: true },
})
