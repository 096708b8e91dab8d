import { readdirSync } from 'node:fs';
import { defineConfig } from '@playwright/test';
import { seeded } from './src/core/random';
import { CHROMIUM } from './scripts/lib/server';

/** Files share nothing, so their order is free: drawn from `JEITO_TEST_SEED`, which `npm test` prints. */
const random = seeded(Number(process.env.JEITO_TEST_SEED ?? 1));
const files = readdirSync('e2e')
  .filter((f) => f.endsWith('.spec.ts'))
  .sort()
  .map((file) => ({ file, at: random() }))
  .sort((a, b) => a.at - b.at);

export default defineConfig({
  testDir: 'e2e',
  // Emptied at the start of a run: a folder of its own, because the other lane writes its results meanwhile.
  outputDir: '.tmp/playwright',
  timeout: 180_000,
  expect: { timeout: 15_000 },
  // One waits while two compute: a page is a browser, a server and a test that take turns.
  workers: 3,
  fullyParallel: false,
  retries: 0,
  globalSetup: './e2e/setup.ts',
  reporter: [['line'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    trace: 'off',
    contextOptions: { reducedMotion: 'reduce' },
  },
  projects: files.map(({ file }) => ({ name: file.replace('.spec.ts', ''), testMatch: file })),
});
