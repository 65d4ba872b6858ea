import { defineConfig } from '@playwright/test';
import { PORT } from './support/places.js';

const FLAGS =
  '--no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking --disable-component-update --disable-sync --use-fake-device-for-media-stream --use-fake-ui-for-media-stream';

export default defineConfig({
  testDir: '.',
  testMatch: '*.e2e.ts',
  outputDir: '../test-results',
  // One world for all: the tests move its time.
  workers: 1,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Tallinn',
    locale: 'en-GB',
    actionTimeout: 15_000,
    trace: 'retain-on-failure',
    launchOptions: { executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium', args: FLAGS.split(' ') },
  },
  webServer: {
    command: 'node scripts/demo.mjs --fresh',
    cwd: '..',
    env: { PORT: String(PORT), SALT_CIRCLE_DATA: '.cache/e2e' },
    url: `http://localhost:${PORT}/api/health`,
    timeout: 120_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
  },
});
