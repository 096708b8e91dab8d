/**
 * One command: installs, builds, migrates, fills the Pedra Alva demo when empty, starts on a free port. `-- --fresh`
 * starts over.
 */
import './lib/help.mjs';
import { spawn } from 'node:child_process';
import { WHO, build, freePort, installPackages, run, stopWith, told } from './lib/setup.mjs';

const fresh = process.argv.includes('--fresh');
const env = {
  JEITO_DATA: process.env.JEITO_DATA ?? 'data/demo',
  NEXT_TELEMETRY_DISABLED: '1',
  JEITO_LOG: process.env.JEITO_LOG ?? 'warn',
};
try {
  await installPackages();
  await build();
  const filled = await told('Preparing the demo’s data', () =>
    run('npx', ['tsx', 'scripts/seed.ts', '--demo', ...(fresh ? ['--fresh'] : [])], { env, quiet: true }),
  );
  if (filled.trim()) console.log(filled.trim());
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
// This machine alone, unless told: the demo's password is printed for everybody.
const host = process.env.JEITO_HOST ?? 'localhost';
const port = await freePort(Number(process.env.PORT ?? 3000));
console.log('Starting the server ...');
const server = spawn(process.execPath, ['node_modules/next/dist/bin/next', 'start', '-H', host, '-p', String(port)], {
  env: { ...process.env, ...env },
  stdio: ['ignore', 'pipe', 'inherit'],
});
server.stdout.on('data', (chunk) => {
  if (!/Ready/.test(String(chunk))) return;
  console.log(`
Jeito is at http://localhost:${port}

${WHO}

Stop it with Ctrl-C. What you enter is kept; "npm run demo -- --fresh" starts over.
`);
});
stopWith(server);
server.on('close', (code) => process.exit(code ?? 0));
