/**
 * One command that passes on a fresh clone: installs what is missing, then lint, types, unit tests, worked values,
 * build, browser tests.
 */
import { readFileSync, rmSync } from 'node:fs';
import { build, chromium, ensure, installPackages, run } from './lib/setup.mjs';

const RESULTS = 'test-results';
const env = { NEXT_TELEMETRY_DISABLED: '1', JEITO_LOG: 'error', JEITO_DATA: '.tmp/test-data' };
const failures = [];
let passed = 0;
let failed = 0;

/** Runs one step to its end whatever the others did, so that one run shows everything that is wrong. */
async function step(name, command, args, count) {
  console.log(`\n== ${name}`);
  const started = Date.now();
  const ok = await run(command, args, { env }).then(
    () => true,
    (error) => {
      console.error(error.message);
      return false;
    },
  );
  if (!ok) failures.push(name);
  const counted = count?.() ?? { passed: ok ? 1 : 0, failed: ok ? 0 : 1 };
  passed += counted.passed;
  failed += Math.max(counted.failed, ok ? 0 : 1);
  console.log(`== ${name}: ${ok ? 'ok' : 'FAILED'} in ${Math.round((Date.now() - started) / 1000)} s`);
}

const json = (file) => JSON.parse(readFileSync(`${RESULTS}/${file}`, 'utf8'));
const tally = (file, read) => () => {
  try {
    return read(json(file));
  } catch {
    return { passed: 0, failed: 1 };
  }
};

try {
  await installPackages();
  await chromium();
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
rmSync(RESULTS, { recursive: true, force: true });
ensure(RESULTS);
await step('lint', 'npm', ['run', '-s', 'lint']);
await step('types', 'npm', ['run', '-s', 'types']);
await step(
  'unit tests',
  'npx',
  ['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${RESULTS}/unit.json`],
  tally('unit.json', (r) => ({ passed: r.numPassedTests, failed: r.numFailedTests })),
);
await step(
  'worked values',
  'npm',
  ['run', '-s', 'test:vectors', '--', '--json', `${RESULTS}/vectors.json`],
  tally('vectors.json', (r) => ({ passed: r.passed, failed: r.failed })),
);
console.log('\n== build');
const built = await build().then(
  () => true,
  (error) => {
    console.error(error.message);
    return false;
  },
);
if (built) {
  await step(
    'browser tests',
    'npx',
    ['playwright', 'test'],
    tally('e2e.json', (r) => ({ passed: r.stats.expected, failed: r.stats.unexpected + r.stats.flaky })),
  );
} else {
  failures.push('build');
  failed += 1;
}
if (failures.length > 0) console.log(`\nFailed: ${failures.join(', ')}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failures.length > 0 || failed > 0 ? 1 : 0);
