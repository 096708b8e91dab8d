import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { createServer } from 'node:net';
import path from 'node:path';

/** The fixed instant of pictures and browser tests. */
export const FIXED_NOW = '2026-11-24T14:30:00.000Z';

export interface RunningServer { url: string; dataFolder: string; child: ChildProcess; stop: () => Promise<void> }

const freePort = (): Promise<number> => new Promise((resolve, reject) => {
  const probe = createServer();
  probe.once('error', reject);
  probe.listen(0, () => {
    const address = probe.address();
    probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
  });
});

export function seedFolder(dataFolder: string, now = FIXED_NOW): void {
  const done = spawnSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/seed.ts', '--demo', '--fresh'], { env: { ...process.env, JEITO_DATA: dataFolder, JEITO_NOW: now }, encoding: 'utf8' });
  if (done.status !== 0) throw new Error(`seeding failed\n${done.stdout}\n${done.stderr}`);
}

/** Starts the built application on its own data folder and waits until it answers. */
export async function startServer(dataFolder: string, env: Record<string, string> = {}): Promise<RunningServer> {
  const port = await freePort();
  const child = spawn(process.execPath, [path.join('node_modules', 'next', 'dist', 'bin', 'next'), 'start', '-p', String(port)], {
    env: { ...process.env, JEITO_DATA: dataFolder, JEITO_NOW: FIXED_NOW, JEITO_LOG: 'error', NEXT_TELEMETRY_DISABLED: '1', ...env }, stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  child.stdout?.on('data', (d) => { said += String(d); });
  child.stderr?.on('data', (d) => { said += String(d); });
  const url = `http://localhost:${port}`;
  for (let i = 0; i < 150; i++) {
    if (child.exitCode !== null) break;
    const answered = await fetch(`${url}/sign-in`).then((r) => r.ok, () => false);
    if (answered) return { url, dataFolder, child, stop: () => stopChild(child) };
    await new Promise((r) => setTimeout(r, 200));
  }
  child.kill('SIGKILL');
  throw new Error(`the server did not start\n${said.slice(-2000)}`);
}

function stopChild(child: ChildProcess): Promise<void> {
  return new Promise((resolve) => {
    if (child.exitCode !== null) return resolve();
    child.once('close', () => resolve());
    child.kill('SIGTERM');
  });
}

export const CHROMIUM = { executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'] };
