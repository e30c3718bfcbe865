import { defineConfig } from '@playwright/test';

// Not in a browser: the same runner for tests that need real adapters in network namespaces.
export default defineConfig({
  testDir: '.',
  testMatch: '*.wire.ts',
  timeout: 400_000 * Number(process.env['IPSONOMO_SOAK'] ?? 1),
  workers: 1,
  retries: process.env['IPSONOMO_RETRY'] === '1' ? 1 : 0,
  outputDir: '../../test-results/wire',
  reporter: [['list']],
});
