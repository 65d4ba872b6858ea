import { defineConfig } from '@playwright/test';

const FLAGS =
  '--no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking --disable-component-update --disable-sync --use-fake-device-for-media-stream --use-fake-ui-for-media-stream';

export default defineConfig({
  testDir: '.',
  testMatch: '*.e2e.ts',
  outputDir: '../test-results',
  globalSetup: './support/servers.ts',
  // Each worker has a world of its own, which its tests share: each leaves it so that any other can follow.
  workers: 2,
  fullyParallel: true,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['list'], ['./support/slowest.ts']],
  use: {
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Tallinn',
    locale: 'en-GB',
    actionTimeout: 15_000,
    trace: 'retain-on-failure',
    launchOptions: { executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium', args: FLAGS.split(' ') },
  },
});
