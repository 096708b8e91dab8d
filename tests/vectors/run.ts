/**
 * Compares core with worked values of an independent implementation.
 *   npm run test:vectors                             the blocks of tests/vectors.done.json; the rest is counted as not
 * implemented
 *   npm run test:vectors -- --blocks N2,stats.share  just these blocks or functions; a missing function fails
 *   npm run test:vectors -- --json FILE              also writes the counts there
 * JEITO_VECTORS names another reference file.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { type Tolerance, differences } from './compare';
import { VECTOR_FUNCTIONS } from './map';

interface VectorCase {
  block: string;
  fn: string;
  case: string;
  input: unknown;
  expected: unknown;
  tolerance: Tolerance;
}

const here = (name: string) => new URL(name, import.meta.url);
const { values } = parseArgs({ options: { blocks: { type: 'string' }, json: { type: 'string' } } });
const file = process.env.JEITO_VECTORS ?? here('../fixtures/vectors.json');
const { cases } = JSON.parse(readFileSync(file, 'utf8')) as { cases: VectorCase[] };
const done = JSON.parse(readFileSync(here('../vectors.done.json'), 'utf8')) as string[];
const wanted = values.blocks
  ? values.blocks
      .split(',')
      .map((s) => s.trim())
      .filter(Boolean)
  : done;

const unknownNames = wanted.filter((w) => !cases.some((c) => c.block === w || c.fn === w));
if (unknownNames.length > 0) {
  console.error(`No block or function of the reference file is called ${unknownNames.join(', ')}.`);
  process.exit(2);
}

let passed = 0;
let failed = 0;
let missing = 0;
const failures: string[] = [];
for (const c of cases) {
  const asked = wanted.includes(c.block) || wanted.includes(c.fn);
  const fn = VECTOR_FUNCTIONS[c.fn];
  if (!asked) {
    missing++;
    continue;
  }
  if (!fn) {
    failed++;
    failures.push(`${c.fn} | ${c.case}: no such function yet`);
    continue;
  }
  let problems: string[];
  try {
    problems = differences(c.expected, fn(c.input), c.tolerance);
  } catch (error) {
    problems = [`threw ${String(error)}`];
  }
  if (problems.length === 0) passed++;
  else {
    failed++;
    failures.push(`${c.fn} | ${c.case}\n    ${problems.join('\n    ')}`);
  }
}
for (const f of failures) console.log(`FAIL ${f}`);
const label = values.blocks ? 'not asked' : 'not implemented';
console.log(`vectors: ${passed + failed} run, ${passed} passed, ${failed} failed, ${missing} ${label}`);
if (values.json) writeFileSync(values.json, JSON.stringify({ passed, failed, missing }));
if (failed > 0 || passed === 0) process.exit(1);
