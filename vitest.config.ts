import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const at = (folder: string) => fileURLToPath(new URL(folder, import.meta.url));

export default defineConfig({
  resolve: { alias: { '@content': at('./content'), '@demo': at('./demo'), '@': at('./src') } },
  test: {
    testTimeout: 60_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
    projects: [
      {
        extends: true,
        // Pure functions: files share a process, so that what they import is read once.
        test: { name: 'unit', include: ['tests/unit/**/*.test.ts'], pool: 'forks', isolate: false },
      },
      {
        extends: true,
        // A data folder and a clock of its own for each file.
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          pool: 'forks',
          globalSetup: ['tests/seed-cache.ts'],
        },
      },
    ],
  },
});
