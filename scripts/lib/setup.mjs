/**
 * What `npm run demo` and `npm test` both need on a fresh clone. Plain Node: nothing is installed yet when this runs.
 */
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import path from 'node:path';

const has = (command) => spawnSync('sh', ['-c', `command -v ${command}`], { stdio: 'ignore' }).status === 0;

export function run(command, args, { env = {}, quiet = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    });
    let kept = '';
    child.stdout?.on('data', (d) => (kept += d));
    child.stderr?.on('data', (d) => (kept += d));
    child.on('error', reject);
    child.on('close', (code) =>
      code === 0
        ? resolve(kept)
        : reject(
            Object.assign(new Error(`${command} ${args.join(' ')} ended with ${code}\n${kept.slice(-3000)}`), { code }),
          ),
    );
  });
}

const hashOf = (text) => createHash('sha256').update(text).digest('hex');

/** Installs the packages of the lock file when they are missing or older than it. */
export async function installPackages() {
  const stamp = 'node_modules/.jeito-lock';
  const lock = hashOf(readFileSync('package-lock.json', 'utf8'));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  const missing = ['python3', 'make', 'g++'].filter((c) => !has(c));
  if (missing.length > 0)
    console.log(
      `Note: ${missing.join(', ')} not found; sqlite3 is compiled at install and needs python3, make and g++.`,
    );
  const env = {};
  const headers = path.join(path.dirname(process.execPath), '..');
  if (existsSync(path.join(headers, 'include/node/node.h'))) env.npm_config_nodedir = headers;
  console.log('Installing packages (sqlite3 compiles: about three minutes the first time) ...');
  await run('npm', ['ci', '--include=dev', '--no-audit', '--no-fund', '--loglevel=error'], { env, quiet: true });
  writeFileSync(stamp, lock);
}

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
  for (const file of ['package-lock.json', 'next.config.ts', 'tsconfig.json', 'scripts/service-worker.mjs'])
    parts.push(file, hashOf(readFileSync(file)));
  return hashOf(parts.join('\n'));
}

/** Builds when the sources differ from what was built. */
export async function build() {
  const stamp = '.next/.jeito-build';
  const now = sourcesHash();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  console.log('Building ...');
  await run('npm', ['run', '-s', 'build'], { quiet: true, env: { NEXT_TELEMETRY_DISABLED: '1' } });
  writeFileSync(stamp, now);
}

/** Debian's Chromium; installed by apt when absent and we are root. */
export async function chromium() {
  if (existsSync('/usr/bin/chromium')) return;
  if (process.getuid?.() !== 0) {
    console.error('The browser tests need Chromium. Install it as root: apt-get install chromium');
    process.exit(1);
  }
  console.log('Installing Chromium ...');
  await run('apt-get', ['update', '-qq'], { quiet: true });
  await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], {
    quiet: true,
    env: { DEBIAN_FRONTEND: 'noninteractive' },
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

export const ensure = (dir) => mkdirSync(dir, { recursive: true });
