import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { cpSync, existsSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import path from 'node:path';

/** The fixed instant of pictures and browser tests. */
export const FIXED_NOW = '2026-11-24T14:30:00.000Z';

export interface RunningServer {
  url: string;
  port: number;
  dataFolder: string;
  child: ChildProcess;
  stop: () => Promise<void>;
  /** As a power cut would. */
  kill: () => Promise<void>;
}

const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

/**
 * Fills a folder with the demo. Where the test run has filled one already (`JEITO_SEED_CACHE`), that one is copied: the
 * demo is made by code with a fixed seed and stands the same.
 */
export function seedFolder(dataFolder: string, now = FIXED_NOW): void {
  const made = process.env.JEITO_SEED_CACHE;
  if (made && now === FIXED_NOW && existsSync(path.join(made, 'done'))) {
    rmSync(dataFolder, { recursive: true, force: true });
    cpSync(path.join(made, 'demo'), dataFolder, { recursive: true });
    rmSync(path.join(dataFolder, 'server.lock'), { force: true });
    return;
  }
  const done = spawnSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/seed.ts', '--demo', '--fresh'], {
    env: { ...process.env, JEITO_DATA: dataFolder, JEITO_NOW: now },
    encoding: 'utf8',
  });
  if (done.status !== 0) throw new Error(`seeding failed\n${done.stdout}\n${done.stderr}`);
}

/** Cookies of somebody who has turned the hints of a first visit off. */
export const NO_HINTS = ['localhost', '127.0.0.1'].map((domain) => ({
  name: 'jeito_hints',
  value: 'off',
  domain,
  path: '/',
}));

/** Starts the built application on its own data folder and waits until it answers. */
export async function startServer(
  dataFolder: string,
  env: Record<string, string> = {},
  onPort?: number,
): Promise<RunningServer> {
  const port = onPort ?? (await freePort());
  const child = spawn(
    process.execPath,
    [
      path.join('node_modules', 'next', 'dist', 'bin', 'next'),
      'start',
      '-p',
      String(port),
      '--keepAliveTimeout',
      '120000',
    ],
    {
      env: {
        ...process.env,
        JEITO_DATA: dataFolder,
        JEITO_NOW: FIXED_NOW,
        JEITO_LOG: 'error',
        NEXT_TELEMETRY_DISABLED: '1',
        ...env,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    },
  );
  let said = '';
  child.stdout?.on('data', (d) => {
    said += String(d);
  });
  child.stderr?.on('data', (d) => {
    said += String(d);
  });
  const url = `http://localhost:${port}`;
  for (let i = 0; i < 300; i++) {
    if (child.exitCode !== null) break;
    const answered = await fetch(`${url}/sign-in`).then(
      (r) => r.ok,
      () => false,
    );
    if (answered)
      return { url, port, dataFolder, child, stop: () => stopChild(child), kill: () => killHard(child, dataFolder) };
    await new Promise((r) => setTimeout(r, 100));
  }
  child.kill('SIGKILL');
  throw new Error(`the server did not start\n${said.slice(-2000)}`);
}

function stopChild(child: ChildProcess, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  return new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) return resolve();
    child.once('close', () => resolve());
    child.kill(signal);
  });
}

/**
 * The process that holds the data folder may be a child of the one started here: both go, at once and without a word.
 */
async function killHard(child: ChildProcess, dataFolder: string): Promise<void> {
  try {
    process.kill(Number(readFileSync(path.join(dataFolder, 'server.lock'), 'utf8').split('\n')[0]), 'SIGKILL');
  } catch {
    // No lock, or it is gone already.
  }
  await stopChild(child, 'SIGKILL');
}

/** The shell without a window where it is installed: the same engine for two thirds of the work. */
const SHELL = '/usr/bin/chromium-headless-shell';
export const CHROMIUM = {
  executablePath: existsSync(SHELL) ? SHELL : '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
  ],
};

/** The session cookie of one of the demo's people, signed in as they would. */
export async function signInCookie(url: string, email: string): Promise<string> {
  const { chromium } = await import('@playwright/test');
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage({ baseURL: url });
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill('pedra-alva-2026');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/board');
  const cookie = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ');
  await browser.close();
  return cookie;
}
