/** `npm run chaos`, on a fresh clone too: installs and builds what is missing, then runs the cases. */
import './lib/help.mjs';
import { spawn } from 'node:child_process';
import { build, chromium, installPackages } from './lib/setup.mjs';

try {
  await installPackages();
  await chromium();
  await build();
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
spawn(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/chaos.ts', ...process.argv.slice(2)], {
  stdio: 'inherit',
}).on('close', (code) => process.exit(code ?? 1));
