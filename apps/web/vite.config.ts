import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import { pdfAssets } from './pdfAssets.js';

const source = (path: string) => fileURLToPath(new URL(`../../packages/${path}`, import.meta.url));

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    pdfAssets(),
    // What makes a review that was opened readable without a connection; registered by its desk alone.
    VitePWA({
      strategies: 'injectManifest',
      mode: 'production',
      srcDir: 'worker',
      filename: 'sw.ts',
      injectRegister: false,
      manifest: false,
      injectManifest: {
        globPatterns: ['**/*.{html,js,mjs,css,woff2,svg}'],
        // Letters of rare scripts: as many again as the whole application.
        globIgnores: ['assets/pdf/**'],
        maximumFileSizeToCacheInBytes: 4_000_000,
      },
    }),
  ],
  resolve: {
    alias: [
      { find: /^@salt-circle\/(core|contracts)$/, replacement: source('$1/src/index.ts') },
      { find: '@salt-circle/contracts/plain', replacement: source('contracts/src/plain.ts') },
    ],
  },
  build: {
    outDir: 'dist',
    // Inlined files would need data: sources in the content policy.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
  },
  server: { port: 4601, proxy: { '/api': { target: 'http://localhost:4600', changeOrigin: false } } },
});
