import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './scripts/lib/server';

export default defineConfig({
  testDir: 'e2e',
  timeout: 120_000,
  expect: { timeout: 10_000 },
  workers: 2,
  fullyParallel: false,
  retries: 0,
  globalSetup: './e2e/setup.ts',
  reporter: [['line'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: { viewport: { width: 1280, height: 800 }, launchOptions: CHROMIUM, trace: 'off' },
});
