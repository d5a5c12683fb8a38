import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

// The page for phones: served by a listener of its own, with nothing of the application beside it.
export default defineConfig({
  plugins: [react(), tailwindcss()],
  publicDir: false,
  build: {
    outDir: 'dist-companion',
    assetsInlineLimit: 0,
    target: 'es2022',
    modulePreload: false,
    rolldownOptions: { input: 'companion.html' },
  },
  logLevel: 'warn',
});
