/** Installs and builds this release, then brings the data folder to it: scripts/upgrade.ts says how. */
import './lib/help.mjs';
import { build, installPackages, run } from './lib/setup.mjs';

try {
  await installPackages();
  await build();
} catch (error) {
  console.error(`Nothing was changed. ${(error.said ?? '').trim() || error.message}`);
  process.exit(1);
}
const env = { JEITO_DATA: process.env.JEITO_DATA ?? 'data/school', JEITO_LOG: process.env.JEITO_LOG ?? 'warn' };
await run('npx', ['tsx', 'scripts/upgrade.ts'], { env }).catch((error) => process.exit(error.code ?? 1));
