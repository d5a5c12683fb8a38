import { defineConfig } from '@playwright/test';

const chromium = {
  browserName: 'chromium' as const,
  viewport: { width: 1280, height: 800 },
  launchOptions: {
    executablePath: '/usr/bin/chromium-headless-shell',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  },
};

// `cargo xtask e2e` sets OAK_DRUM_SERVER and OAK_DRUM_DATABASES, one database a worker.
export default defineConfig({
  testDir: 'e2e',
  workers: (process.env.OAK_DRUM_DATABASES ?? '').split(' ').length,
  fullyParallel: true,
  timeout: 90_000,
  expect: { timeout: 30_000 },
  // What passed only the second time is listed as flaky.
  retries: 1,
  reporter: [['list']],
  // What is not there within this is not coming; a trace of every test would take as long as the tests.
  use: { ...chromium, actionTimeout: 40_000, trace: 'on-first-retry' },
  projects: [
    { name: 'chromium', testMatch: '*.spec.ts' },
    // A trace takes a picture and a copy of the page at every move, which is what would be measured.
    { name: 'measure', testMatch: 'measure.ts', workers: 1, retries: 0, use: { trace: 'off' } },
    { name: 'first-boxes', testMatch: 'first_boxes.ts', workers: 1, retries: 0 },
    { name: 'screenshots', testMatch: 'screenshots.ts', workers: 1 },
  ],
});
