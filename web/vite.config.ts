import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  // The content security policy allows no data: fonts or scripts.
  build: { assetsInlineLimit: 0, target: 'es2022', chunkSizeWarningLimit: 900 },
  logLevel: 'warn',
  server: { host: '127.0.0.1', proxy: { '/api': { target: 'http://127.0.0.1:7373', changeOrigin: true } } },
  test: { environment: 'jsdom', include: ['src/**/*.test.{ts,tsx}'] },
});
