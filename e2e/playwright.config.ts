import { defineConfig } from '@playwright/test';

/** How Debian's Chromium is started, without a word to anybody outside. */
export const CHROMIUM = {
  executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  timeout: 400_000,
  expect: { timeout: 90_000 },
  workers: 1,
  // Each test has a server, a database and pages of its own; they may stand beside each other.
  fullyParallel: true,
  retries: process.env['IPSONOMO_RETRY'] === '1' ? 1 : 0,
  reporter: [['list']],
  outputDir: '../test-results',
  use: {
    browserName: 'chromium',
    launchOptions: CHROMIUM,
    // To record costs a third of a test's time: only what failed is recorded, at its second try.
    trace: 'on-first-retry',
    actionTimeout: 120_000,
  },
});
