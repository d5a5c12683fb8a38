import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

// The server takes changes from its own origin only, so the development server speaks in its name.
const DEMO = 'http://127.0.0.1:7373';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  // The content security policy allows no data: fonts or scripts.
  build: {
    assetsInlineLimit: 0,
    target: 'es2022',
    chunkSizeWarningLimit: 1400,
    rolldownOptions: {
      output: {
        // What every page of a build needs is one file, because many small ones compress worse; not what is fetched when it is opened.
        codeSplitting: {
          groups: [
            {
              name: 'bench',
              test: /\/src\/(model|api|lanes)\/(?!picture|ValuesDialog|RangeDialog|TimeLane|places|presets|way|differences|pipes|start_draft|photos|meanings\.json|glossary|queries\/(signal|place|jobs|plan|cut|library))/,
            },
          ],
        },
      },
    },
  },
  logLevel: 'warn',
  server: {
    host: '127.0.0.1',
    proxy: { '/api': { target: DEMO, changeOrigin: true, headers: { origin: DEMO } } },
  },
  // A browser's environment takes longer to set up than most tests to run: files that need one say so in their first line.
  test: {
    environment: 'node',
    pool: 'threads',
    include: ['src/**/*.test.{ts,tsx}'],
    testTimeout: 30_000,
  },
});
