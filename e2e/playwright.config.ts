import { defineConfig } from '@playwright/test';
import { browserPath } from '../scripts/run.mjs';

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
  // A slow machine is not a fault: nothing that is waited for has less than two minutes.
  timeout: 1_200_000,
  retries: 1,
  expect: { timeout: 120_000 },
  reporter: [['list'], ['./support/slowest.ts']],
  use: {
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Tallinn',
    locale: 'en-GB',
    actionTimeout: 120_000,
    // Keeping a trace takes a third of the time again: only what failed is tried once more, with one. That is no pass
    // without a word: the run names it as flaky, and what is flaky is a fault to find.
    trace: { mode: 'on-first-retry', screenshots: false, snapshots: true, sources: false },
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: { executablePath: browserPath() ?? '/usr/bin/chromium', args: FLAGS.split(' ') },
  },
});
