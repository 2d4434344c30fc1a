import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const source = (part: string) => fileURLToPath(new URL(`../${part}/src/`, import.meta.url));

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [react(), tailwindcss()],
  resolve: {
    alias: [
      { find: /^@rakuen\/core\/(.*)$/, replacement: `${source('core')}$1.ts` },
      { find: /^@rakuen\/contract\/(.*)$/, replacement: `${source('contract')}$1.ts` },
    ],
  },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    // Everything is a file of its own: the content policy allows no inline scripts, styles or fonts.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1500,
  },
  server: {
    proxy: { '/api': { target: process.env.RAKUEN_API ?? 'http://127.0.0.1:4870', changeOrigin: true } },
  },
});
