import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { compression } from 'vite-plugin-compression2'

export default defineConfig({
  plugins: [react(), compression({ algorithms: ['gzip'], include: /\.(js|css)$/, threshold: 1024 })],
  html: { cspNonce: 'NONCE_PLACEHOLDER' },
  build: { assetsInlineLimit: 0, modulePreload: { polyfill: false }, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:8470' } },
})
