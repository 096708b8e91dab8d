/**
 * What `npm run demo` and `npm test` both need on a fresh clone. Plain Node: nothing is installed yet when this runs.
 */
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { constants, setPriority } from 'node:os';
import path from 'node:path';

const has = (command) => spawnSync('sh', ['-c', `command -v ${command}`], { stdio: 'ignore' }).status === 0;

export function run(command, args, { env = {}, quiet = false, gentle = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    });
    if (gentle && child.pid)
      try {
        setPriority(child.pid, constants.priority.PRIORITY_BELOW_NORMAL);
      } catch {
        // Only a courtesy to what runs beside it.
      }
    let kept = '';
    child.stdout?.on('data', (d) => (kept += d));
    child.stderr?.on('data', (d) => (kept += d));
    child.on('error', reject);
    child.on('close', (code) =>
      code === 0
        ? resolve(kept)
        : reject(
            Object.assign(new Error(`${command} ${args.join(' ')} ended with ${code}\n${kept.slice(-3000)}`), {
              code,
              said: kept.slice(-20_000),
            }),
          ),
    );
  });
}

/** Nobody watches a silent screen for longer than this without taking it for a hang. */
const SAID_EVERY_MS = 9_000;

/**
 * Says what is being done, that it still is, and how long it took.
 * @param every ms between two lines @param say where the lines go
 */
export async function told(what, work, { every = SAID_EVERY_MS, say = console.log } = {}) {
  const began = Date.now();
  const after = () => `${Math.round((Date.now() - began) / 1000)} s`;
  say(`${what} ...`);
  const still = setInterval(() => say(`  still: ${what.charAt(0).toLowerCase()}${what.slice(1)}, ${after()}`), every);
  try {
    const result = await work();
    say(`  done in ${after()}`);
    return result;
  } catch (error) {
    say(`  failed after ${after()}`);
    throw error;
  } finally {
    clearInterval(still);
  }
}

const hashOf = (text) => createHash('sha256').update(text).digest('hex');

/**
 * Installs the packages of the lock file when they are missing or older than it.
 * @returns what still runs: the packages that compile. Nothing that opens the database may start before it has ended.
 */
export async function unpackPackages() {
  const stamp = 'node_modules/.jeito-lock';
  const lock = hashOf(readFileSync('package-lock.json', 'utf8'));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return { compiled: Promise.resolve() };
  const missing = ['python3', 'make', 'g++'].filter((c) => !has(c));
  if (missing.length > 0)
    console.log(
      `Note: ${missing.join(', ')} not found; sqlite3 is compiled at install and needs python3, make and g++.`,
    );
  const env = {};
  const headers = path.join(path.dirname(process.execPath), '..');
  if (existsSync(path.join(headers, 'include/node/node.h'))) env.npm_config_nodedir = headers;
  const quietly = ['--no-audit', '--no-fund', '--loglevel=error'];
  await told('Unpacking packages', () =>
    run('npm', ['ci', '--include=dev', '--ignore-scripts', ...quietly], { env, quiet: true }),
  );
  // A ready-made sqlite3 is taken where one can be fetched; otherwise it compiles here.
  const compiled = told(
    'Preparing sqlite3 (compiled here where no ready-made one can be had: about three minutes)',
    () => run('npm', ['rebuild', ...quietly], { env, quiet: true }),
  )
    .then(() => run('npm', ['run', '-s', 'prepare'], { quiet: true }))
    .then(() => writeFileSync(stamp, lock));
  // Whoever waits for it hears of a failure; until then it is nobody's.
  compiled.catch(() => undefined);
  return { compiled };
}

/** The same, to its end. */
export const installPackages = async () => (await unpackPackages()).compiled;

function sourcesHash() {
  const parts = [];
  const walk = (dir) => {
    for (const name of readdirSync(dir).sort()) {
      const file = path.join(dir, name);
      if (statSync(file).isDirectory()) walk(file);
      else if (!/\.test\.tsx?$|^sw\.js$/.test(name)) parts.push(file, hashOf(readFileSync(file)));
    }
  };
  for (const dir of ['src', 'content', 'public'].filter((d) => existsSync(d))) walk(dir);
  for (const file of [
    'package-lock.json',
    'next.config.ts',
    'tsconfig.json',
    'scripts/service-worker.mjs',
    'scripts/threads.mjs',
    'scripts/inline-scripts.mjs',
  ])
    parts.push(file, hashOf(readFileSync(file)));
  return hashOf(parts.join('\n'));
}

/** Builds when the sources differ from what was built. */
export async function build() {
  const stamp = '.next/.jeito-build';
  const now = sourcesHash();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  await told('Building the application', () =>
    run('npm', ['run', '-s', 'build'], { quiet: true, env: { NEXT_TELEMETRY_DISABLED: '1' } }),
  );
  writeFileSync(stamp, now);
}

/**
 * Debian's Chromium: its shell without a window, or the browser where there is no such package; installed by apt when
 * absent and we are root.
 */
export async function chromium() {
  const there = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];
  if (there.some((f) => existsSync(f))) return;
  if (process.getuid?.() !== 0)
    throw new Error(
      'The browser tests need Chromium. Install it as root: apt-get install chromium-headless-shell (or chromium)',
    );
  const apt = (...args) => run('apt-get', args, { quiet: true, env: { DEBIAN_FRONTEND: 'noninteractive' } });
  const install = (name) => apt('install', '-y', '-qq', '--no-install-recommends', name);
  await told('Installing Chromium', async () => {
    await apt('update', '-qq');
    await install('chromium-headless-shell').catch(() => install('chromium'));
  });
}

/** The first free port from `from` on. */
export function freePort(from) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(freePort(from + 1)));
    probe.listen(from, () => probe.close(() => resolve(from)));
  });
}

/** Who may sign in where the demo was filled in. */
export const WHO = `Sign in with the password  pedra-alva-2026  as
  helena@pedra-alva.example   instructor
  bento@pedra-alva.example    chief instructor
  vasco@pedra-alva.example    instructor who is himself being checked out
  duarte@pedra-alva.example   pilot`;

export const ensure = (dir) => mkdirSync(dir, { recursive: true });

const STOP_MS = 15_000;
/**
 * Stops a server with this command. Open pages keep asking it, and one that is asked waits for them: after a while, or
 * at a second Ctrl-C, it is ended; what is committed is in the data folder.
 */
export function stopWith(server) {
  let asked = false;
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => {
      server.kill(asked ? 'SIGKILL' : signal);
      asked = true;
      setTimeout(() => server.kill('SIGKILL'), STOP_MS).unref();
    });
}
