import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import { compression } from 'vite-plugin-compression2';

/** What looks at pictures: a library of its own, loaded only where photos are. */
const VISION = /vision\.worker-[\w-]+\.js$/;

export default defineConfig({
  // Compressed once, here, as well as it goes; the server hands these out.
  plugins: [
    react(),
    tailwindcss(),
    // Kept on a phone that opened the walk: its pages open without a network. Of the data the worker keeps only what lies round a session of work; trees and the walk are kept by their own pages.
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: null,
      manifest: {
        name: 'Ustle',
        short_name: 'Ustle',
        start_url: '/walk',
        display: 'standalone',
        background_color: '#F3EEE2',
        theme_color: '#F3EEE2',
        icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        // What looks at pictures is large: it is kept once it was used.
        globIgnores: ['**/vision.worker-*'],
        navigateFallbackDenylist: [/^\/api\//],
        maximumFileSizeToCacheInBytes: 4_000_000,
        runtimeCaching: [
          { urlPattern: /\/assets\/vision\.worker-/, handler: 'CacheFirst', options: { cacheName: 'ustle-vision', expiration: { maxEntries: 1 } } },
          {
            urlPattern: /\/api\/(access|yard|rack|people|pace|trees\/[^/]+\/known)$/,
            handler: 'NetworkFirst',
            options: { cacheName: 'ustle-work', expiration: { maxEntries: 60 } },
          },
          {
            // A picture's address tells what it shows: it never changes.
            urlPattern: /\/api\/trees\/[^/]+\/silhouette\?/,
            handler: 'CacheFirst',
            options: { cacheName: 'ustle-pictures', expiration: { maxEntries: 400 } },
          },
        ],
      },
    }),
    compression({ algorithms: ['brotliCompress', 'gzip'], include: /\.(js|css|html|svg)$/, exclude: VISION }),
    // Of ten megabytes the last tenth would take half a minute at every build.
    compression({ algorithms: ['gzip'], include: VISION }),
  ],
  worker: { format: 'es' },
  server: { port: 4516, proxy: { '/api': 'http://localhost:4517' } },
  build: { target: 'es2022', chunkSizeWarningLimit: 1200 },
});
