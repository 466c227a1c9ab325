import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { compression } from 'vite-plugin-compression2'
import { VitePWA } from 'vite-plugin-pwa'

export default defineConfig({
  plugins: [
    react(),
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src',
      filename: 'sw.ts',
      injectRegister: false,
      // The page itself is kept as it was served: its headers and its styles belong together.
      injectManifest: { globPatterns: ['assets/*.{js,css,woff2,json}', 'icon*.{svg,png}'], maximumFileSizeToCacheInBytes: 4_000_000 },
      manifest: {
        name: 'Omnifer',
        short_name: 'Omnifer',
        description: 'Carrying everything on a bicycle for weeks or months',
        start_url: '/',
        scope: '/',
        display: 'standalone',
        background_color: '#E1EBEA',
        theme_color: '#11272B',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
          { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
        ],
      },
    }),
    compression({ algorithms: ['gzip'], include: /\.(js|css)$/, exclude: /sw\.js$/, threshold: 1024 }),
  ],
  html: { cspNonce: 'NONCE_PLACEHOLDER' },
  build: { assetsInlineLimit: 0, modulePreload: { polyfill: false }, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:8470' } },
})
