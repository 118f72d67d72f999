import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';

export default defineConfig({
  // Compressed once, here, as well as it goes; the server hands these out.
  plugins: [react(), tailwindcss(), compression({ algorithms: ['brotliCompress', 'gzip'], include: /\.(js|css|html|svg)$/ })],
  worker: { format: 'es' },
  server: { port: 4516, proxy: { '/api': 'http://localhost:4517' } },
  build: { target: 'es2022', chunkSizeWarningLimit: 1200 },
});
