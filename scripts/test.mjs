/**
 * One command that passes on a fresh clone. Installs what is missing, then three lanes beside each other: what needs the
 * built application (build, browser tests, chaos), which is the longest; what computes (unit and server tests,
 * worked values, tampering); and, with what they leave of the machine, what only reads (types, lint,
 * format, arrows).
 * `-- --seed N` runs the tests in another order; the order of a run is printed.
 */
import './lib/help.mjs';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { parseArgs, stripVTControlCharacters } from 'node:util';
import { build, chromium, ensure, run, unpackPackages } from './lib/setup.mjs';

const { values } = parseArgs({ options: { seed: { type: 'string' } } });
const seed = Number(values.seed ?? Date.now() % 100_000);
const RESULTS = 'test-results';
const SEEDED = path.resolve('.tmp/seeded');
const env = {
  NEXT_TELEMETRY_DISABLED: '1',
  JEITO_LOG: 'error',
  JEITO_DATA: '.tmp/test-data',
  JEITO_TEST_SEED: String(seed),
};
const began = Date.now();
const failures = [];
/** Each failed test with the first line of what it said: a long output is often read from its end. */
const named = [];
let passed = 0;
let failed = 0;
const since = (t) => `${Math.round((Date.now() - t) / 1000)} s`;

/** What runs now, said every half minute when nothing else was. */
const running = new Set();
setInterval(() => {
  if (running.size > 0) console.log(`   still: ${[...running].join(', ')} (at ${since(began)})`);
}, 30_000).unref();

/** Runs one step to its end whatever the others did, and prints it whole, so that the lanes do not mix on the screen. */
async function step(name, work, count) {
  const started = Date.now();
  running.add(name);
  console.log(`.. ${name} (at ${since(began)})`);
  const { ok, said } = await work().then(
    (said) => ({ ok: true, said }),
    (error) => ({ ok: false, said: error.said ?? error.message }),
  );
  running.delete(name);
  if (!ok) failures.push(name);
  const counted = count?.() ?? { passed: ok ? 1 : 0, failed: ok ? 0 : 1 };
  passed += counted.passed;
  failed += Math.max(counted.failed, ok ? 0 : 1);
  named.push(...(counted.named ?? []));
  if (!ok && said) console.log(said);
  console.log(`== ${name}: ${ok ? 'ok' : 'FAILED'} in ${since(started)}`);
  return ok;
}
const npx = (...args) => run('npx', args, { env, quiet: true });
const script = (name, ...args) => run('npm', ['run', '-s', name, '--', ...args], { env, quiet: true });
const tally = (file, read) => () => {
  try {
    return read(JSON.parse(readFileSync(`${RESULTS}/${file}`, 'utf8')));
  } catch {
    return { passed: 0, failed: 1 };
  }
};

const browser = chromium();
browser.catch(() => undefined);
let compiled;
try {
  ({ compiled } = await unpackPackages());
} catch (error) {
  console.error(error.message);
  console.log('0 passed, 1 failed');
  process.exit(1);
}
console.log(`Unpacked after ${since(began)}; order ${seed}.`);
for (const f of [RESULTS, SEEDED]) rmSync(f, { recursive: true, force: true });
for (const f of [RESULTS, SEEDED]) ensure(f);

/** The demo is filled in once; every test that needs it takes a copy. */
const seeded = compiled.then(async () => {
  await run('npx', ['tsx', 'scripts/seed.ts', '--demo', '--fresh'], {
    env: { ...env, JEITO_DATA: path.join(SEEDED, 'demo'), JEITO_NOW: '2026-11-24T14:30:00.000Z' },
    quiet: true,
  });
  mkdirSync(path.join(SEEDED, 'lock'));
  writeFileSync(path.join(SEEDED, 'done'), '');
  env.JEITO_SEED_CACHE = SEEDED;
});
seeded.catch(() => undefined);

const application = step('build', () => compiled.then(() => build()));

const firstLines = (name, message) =>
  `${name}\n    ${stripVTControlCharacters(message ?? '')
    .split('\n', 4)
    .join('\n    ')}`;
const vitestFailures = (r) =>
  r.testResults.flatMap((file) => [
    ...(file.assertionResults.length === 0 ? [firstLines(path.relative('.', file.name), file.message)] : []),
    ...file.assertionResults
      .filter((t) => t.status === 'failed')
      .map((t) => firstLines(`${path.relative('.', file.name)} › ${t.fullName}`, t.failureMessages[0])),
  ]);
const walkFailures = (suites = []) =>
  suites.flatMap((s) => [
    ...walkFailures(s.suites),
    ...(s.specs ?? [])
      .filter((spec) => !spec.ok)
      .map((spec) =>
        firstLines(
          `${spec.file} › ${spec.title}`,
          spec.tests.flatMap((t) => t.results).find((x) => x.error)?.error.message,
        ),
      ),
  ]);
const vitest = (project, ...more) => [
  () =>
    npx(
      'vitest',
      'run',
      '--project',
      project,
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${RESULTS}/${project}.json`,
      `--sequence.seed=${seed}`,
      '--sequence.shuffle.files=true',
      ...more,
    ),
  tally(`${project}.json`, (r) => ({ passed: r.numPassedTests, failed: r.numFailedTests, named: vitestFailures(r) })),
];

async function read() {
  // Types and the build write into one folder.
  await application;
  for (const [name, what] of [
    ['types', 'types'],
    ['lint', 'lint:code'],
    ['format', 'format:check'],
    ['arrows', 'lint:arrows'],
  ])
    await step(name, () => run('npm', ['run', '-s', what], { env, quiet: true, gentle: true }));
}

async function computed() {
  // Pure: these need no database, so they do not wait for it to be compiled.
  await step('unit tests', ...vitest('unit'));
  await step(
    'worked values',
    () => script('test:vectors', '--json', `${RESULTS}/vectors.json`),
    tally('vectors.json', (r) => ({ passed: r.passed, failed: r.failed })),
  );
  if (!(await step('seed', () => seeded))) return;
  await step('server tests', ...vitest('server'));
  await step('tampering, short', () =>
    script('test:tamper', '--trials', '200', '--entries', '150', '--database', '12'),
  );
  // In the lane that is free first.
  await step('power cuts, short', () => script('power', '--points', '14'));
  if (!(await application)) return;
  await step('sizes', () => script('size'));
  await step(
    'attack, short',
    () => script('attack', '--short', '--json', `${RESULTS}/attack.json`),
    tally('attack.json', (r) => ({ passed: r.held, failed: r.fell })),
  );
}

async function built() {
  if (!(await application)) return;
  if (!(await step('Chromium', () => browser))) return;
  await seeded.catch(() => undefined);
  await step(
    'browser tests',
    () => npx('playwright', 'test'),
    tally('e2e.json', (r) => ({
      passed: r.stats.expected,
      failed: r.stats.unexpected + r.stats.flaky,
      named: walkFailures(r.suites),
    })),
  );
  await step('chaos, short', () => script('chaos', '--cases', '12', '--browser', '1'));
}

await Promise.all([computed(), built(), read()]);
if (failures.length > 0) console.log(`\nFailed: ${failures.join(', ')}`);
for (const n of named) console.log(`- ${n}`);
console.log(`\nAll of it took ${since(began)}; order ${seed}.`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failures.length > 0 || failed > 0 ? 1 : 0);
