/**
 * A school's own Jeito: installs what is missing, builds, prepares the data folder (`JEITO_DATA`, else data/school),
 * prints a one-time link for the first chief instructor while nobody can sign in, and starts. Port: `PORT`, else 3000;
 * who may reach it: `JEITO_HOST`, else this computer alone.
 */
import './lib/help.mjs';
import { spawn } from 'node:child_process';
import { build, freePort, installPackages, run, stopWith, told } from './lib/setup.mjs';

const data = process.env.JEITO_DATA ?? 'data/school';
const env = {
  JEITO_DATA: data,
  // Beside the folder and not in it: on another disk where there is one.
  JEITO_BACKUPS: process.env.JEITO_BACKUPS ?? `${data}-backups`,
  NEXT_TELEMETRY_DISABLED: '1',
  JEITO_LOG: process.env.JEITO_LOG ?? 'info',
};
let token;
try {
  await installPackages();
  await build();
  const said = await told(`Preparing the data folder ${env.JEITO_DATA}`, () =>
    run('npx', ['tsx', 'scripts/set-up-link.ts'], { env, quiet: true }),
  );
  token = /^set-up (\S+)$/m.exec(said)?.[1];
} catch (error) {
  console.error((error.said ?? '').trim() || error.message);
  process.exit(error.code ?? 1);
}
const host = process.env.JEITO_HOST ?? 'localhost';
const wanted = Number(process.env.PORT ?? 3000);
const port = await freePort(wanted);
if (port !== wanted) console.log(`Port ${wanted} is taken; ${port} is used instead. Set PORT to choose one.`);
const address = process.env.JEITO_ORIGIN ?? `http://${host === '0.0.0.0' ? 'localhost' : host}:${port}`;
console.log('Starting the server ...');
const server = spawn(process.execPath, ['node_modules/next/dist/bin/next', 'start', '-H', host, '-p', String(port)], {
  env: { ...process.env, ...env },
  stdio: ['ignore', 'pipe', 'inherit'],
});
server.stdout.on('data', (chunk) => {
  process.stdout.write(chunk);
  if (!/Ready/.test(String(chunk))) return;
  console.log(`
Jeito is at ${address}
${
  token
    ? `
Nobody can sign in yet. The first chief instructor begins here, once; starting again prints a new link:

  ${address}/set-up/${token}
`
    : ''
}
${
  host === 'localhost'
    ? 'Only this computer reaches it. Start with JEITO_HOST=0.0.0.0 to let the school’s network in.'
    : `Whoever reaches this computer on port ${port} reaches the sign-in page.`
}
${
  process.env.JEITO_HTTPS === '1'
    ? 'Cookies are sent over TLS only (JEITO_HTTPS=1): put a server that speaks TLS in front.'
    : 'Tablets keep flights only on a secure address: put a server that speaks TLS in front and set JEITO_HTTPS=1.'
}
Everything is in ${env.JEITO_DATA}. A backup is made every day in ${env.JEITO_BACKUPS}: put that on another disk.
Stop with Ctrl-C.
`);
});
stopWith(server);
server.on('close', (code) => process.exit(code ?? 0));
