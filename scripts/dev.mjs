/**
 * The loop of a developer, on a fresh clone too: installs what is missing, fills a folder of its own with the demo when
 * it is empty, says who may sign in, and starts Next's development server. `-- --fresh` starts the folder over.
 */
import './lib/help.mjs';
import { spawn } from 'node:child_process';
import { WHO, freePort, installPackages, run, stopWith, told } from './lib/setup.mjs';

const env = {
  JEITO_DATA: process.env.JEITO_DATA ?? 'data/dev',
  JEITO_LOG: process.env.JEITO_LOG ?? 'warn',
  NEXT_TELEMETRY_DISABLED: '1',
};
try {
  await installPackages();
  await told('Preparing the demo’s data', () =>
    run('npx', ['tsx', 'scripts/seed.ts', '--demo', ...(process.argv.includes('--fresh') ? ['--fresh'] : [])], { env }),
  );
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
const port = await freePort(Number(process.env.PORT ?? 3000));
console.log(`\nData folder ${env.JEITO_DATA}. A page is compiled when it is first asked for.\n${WHO}\n`);
const server = spawn(process.execPath, ['node_modules/next/dist/bin/next', 'dev', '-p', String(port)], {
  env: { ...process.env, ...env },
  stdio: 'inherit',
});
stopWith(server);
server.on('close', (code) => process.exit(code ?? 0));
