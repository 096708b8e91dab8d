import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const at = (folder: string) => fileURLToPath(new URL(folder, import.meta.url));

export default defineConfig({
  resolve: { alias: { '@content': at('./content'), '@demo': at('./demo'), '@': at('./src') } },
  test: {
    include: ['src/**/*.test.ts', 'tests/**/*.test.ts', 'demo/**/*.test.ts'],
    globalSetup: ['tests/seed-cache.ts'],
    testTimeout: 30_000,
    hookTimeout: 60_000,
    pool: 'forks',
  },
});
