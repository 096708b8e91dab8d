/**
 * Power cuts, not only kills: runs the real commands with every write to the data folder recorded, then replays that record
 * up to points of it, loses what was not synced (all of it, or by chance some), and starts on what is left.
 *   npm run power [-- --points 40 --seed 1]
 * What was said to be done must be there: events, entries, the recording with its file, the key. The ledger must verify, its
 * head must fit, and the server must start. Needs a C compiler, as installing does. Ends with `N held, M fell`.
 */
import './lib/help.mjs';
import { ledgerProblemWords } from '@/core/ledger';
import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { seeded } from '@/core/random';
import { closeDatabase } from '@/server/floor/connection';
import { row } from './lib/raw';
import { checkLedger, ledgerKeyId } from '@/server/ledger/entries';
import { keyState, publicKeys } from '@/server/ledger/keys';
import { prepareServer } from '@/server/running/start';
import { hashOf, keptFile } from '@/server/traces/files';
import { seedFolder } from './lib/server';
import { Disk, type Step, readSteps } from './power/disk';
import type { Ack } from './power/work';

const { values } = parseArgs({
  options: { points: { type: 'string', default: '60' }, seed: { type: 'string', default: '1' } },
});
const random = seeded(Number(values.seed));
process.env.JEITO_NOW = '2026-11-24T14:30:00.000Z';
process.env.JEITO_LOG = 'silent';
const root = mkdtempSync(path.join(tmpdir(), 'jeito-power-'));
const shim = path.join(root, 'record.so');
const made = spawnSync('cc', ['-shared', '-fPIC', '-O1', '-o', shim, 'scripts/power/record.c', '-ldl', '-lpthread'], {
  encoding: 'utf8',
});
if (made.status !== 0) {
  console.error(`The recorder could not be compiled: ${made.stderr || 'there is no cc'}`);
  console.log('0 held, 1 fell');
  process.exit(1);
}

const said: Ack[] = [];
let held = 0;
let fell = 0;
for (const scene of ['new', 'demo'] as const) {
  const base = path.join(root, `${scene}-base`);
  if (scene === 'demo') seedFolder(base);
  else mkdirSync(path.join(base, 'keys'), { recursive: true });
  const live = path.join(root, `${scene}-live`);
  cpSync(base, live, { recursive: true });
  const log = path.join(root, `${scene}.log`);
  const done = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/power/work.ts', scene], {
    encoding: 'utf8',
    env: {
      ...process.env,
      LD_PRELOAD: shim,
      POWER_FOLDER: live,
      POWER_LOG: log,
      UV_USE_IO_URING: '0',
      JEITO_DATA: live,
      JEITO_SEED_CACHE: '',
    },
  });
  if (done.status !== 0) throw new Error(`the work failed\n${done.stdout}\n${done.stderr}`);
  const steps = readSteps(log);
  const acks = steps.filter((s) => s.at === '/acks' && s.what === 'write').length;
  if (acks < 5) throw new Error(`only ${acks} things were said to be done: the recorder saw nothing`);
  const points = pointsOf(steps, Number(values.points));
  const before = held + fell;
  const disk = new Disk(base);
  let next = 0;
  for (const [i, step] of steps.entries()) {
    if (step.at === '/acks') {
      // What was said is with whoever heard it: it is no file.
      if (step.what === 'write') said.push(JSON.parse(step.bytes.toString('utf8')) as Ack);
    } else disk.take(step);
    if (points[next] !== i) continue;
    next++;
    for (const chance of [null, random]) await cut(scene, i, disk, chance);
  }
  said.length = 0;
  console.log(`${scene}: ${steps.length} steps, ${acks} things said to be done, ${held + fell - before} power cuts`);
}
rmSync(root, { recursive: true, force: true });
console.log(`${held} held, ${fell} fell`);
process.exit(fell > 0 ? 1 : 0);

/** After every sync, rename and acknowledgement there is something new to lose; so many of those, spread by chance. */
function pointsOf(steps: readonly Step[], most: number): number[] {
  const all = steps.flatMap((s, i) =>
    s.at === '/acks' || s.what === 'sync' || s.what === 'rename' || s.what === 'create' ? [i] : [],
  );
  const acked = all.filter((i) => steps[i]?.at === '/acks' && steps[i]?.what === 'write');
  const rest = all.filter((i) => !acked.includes(i));
  while (rest.length + acked.length > most && rest.length > 0) rest.splice(Math.floor(random() * rest.length), 1);
  return [...acked, ...rest].sort((a, b) => a - b);
}

async function cut(scene: string, at: number, disk: Disk, chance: (() => number) | null): Promise<void> {
  const folder = path.join(root, 'cut');
  disk.after(folder, chance);
  process.env.JEITO_DATA = folder;
  await closeDatabase();
  try {
    await prepareServer();
    const wrong = await lost();
    if (wrong.length > 0) throw new Error(wrong.join('; '));
    held++;
  } catch (error) {
    fell++;
    console.log(
      `FELL  ${scene} after step ${at}, ${chance ? 'by chance' : 'all unsynced lost'}: ${error instanceof Error ? error.message : String(error)}`,
    );
  } finally {
    await closeDatabase();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function lost(): Promise<string[]> {
  const wrong: string[] = [];
  for (const a of said) {
    if (a.kind === 'event' && !(await row('SELECT event_id FROM capture_events WHERE event_id = :id', { id: a.id })))
      wrong.push(`the event ${a.id} is lost`);
    if (a.kind === 'entry' && !(await row('SELECT id FROM ledger WHERE id = :id', { id: a.id })))
      wrong.push(`the entry ${a.id} is lost`);
    if (a.kind === 'trace' && !(await row('SELECT id FROM traces WHERE id = :id', { id: a.id })))
      wrong.push(`the recording ${a.id} is lost`);
    if (a.kind === 'key' && !(a.id in publicKeys())) wrong.push(`the public key ${a.id} is lost`);
  }
  const named = await rowsOfTraces();
  for (const hash of named) {
    const bytes = await keptFile(hash).catch(() => null);
    if (!bytes || hashOf(bytes) !== hash) wrong.push(`the file of the recording ${hash.slice(0, 12)} is lost or torn`);
  }
  const { problems, entries } = await checkLedger();
  for (const p of problems) wrong.push(ledgerProblemWords(p));
  const state = keyState(await ledgerKeyId());
  if (entries > 0 && state !== 'ready') wrong.push(`the key is ${state}`);
  if (!existsSync(path.join(process.env.JEITO_DATA ?? '', 'keys'))) wrong.push('the keys are gone');
  return wrong;
}
async function rowsOfTraces(): Promise<string[]> {
  const found = await row<{ all: string }>('SELECT json_group_array(DISTINCT hash) AS "all" FROM traces');
  return JSON.parse(found?.all ?? '[]') as string[];
}
