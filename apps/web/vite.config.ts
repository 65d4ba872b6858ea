import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { pdfAssets } from './pdfAssets.js';

const source = (name: string) => fileURLToPath(new URL(`../../packages/${name}/src/index.ts`, import.meta.url));

export default defineConfig({
  plugins: [react(), tailwindcss(), pdfAssets()],
  resolve: { alias: { '@salt-circle/core': source('core'), '@salt-circle/contracts': source('contracts') } },
  build: {
    outDir: 'dist',
    // Inlined files would need data: sources in the content policy.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
  },
  server: { port: 4601, proxy: { '/api': { target: 'http://localhost:4600', changeOrigin: false } } },
});
