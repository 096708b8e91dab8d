/**
 * `npm run chaos`: random flights recorded against random trouble, compared at the end. *Lost* is what the device
 * confirmed and the field has
 * not; *doubled* is what the field has twice, or counts twice. The real outbox on an in-memory IndexedDB against the
 * real command and database in a child process that is killed with -9; ten cases more, end to end in a real browser
 * against the built application. `--cases N` (240), `--browser N` of them (10), `--seed S`.
 */
import './lib/help.mjs';
import 'fake-indexeddb/auto';
import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { seeded, seededId } from '@demo/random';
import Dexie from 'dexie';
import { IDBFactory, IDBKeyRange, IDBObjectStore } from 'fake-indexeddb';
import { type StoredEvent, closeStore, flush, storeEvent, store, waitingCount } from '@/offline/client';
import { type SortiePack, fold } from '@/offline/protocol';
import { canonicalText } from '@/core/ledger';
import type { CaptureEvent } from '@/domain/capture';
import { freshDraft, toCaptured } from '@/ui/fly/draft';
import { browserCases } from './lib/chaos-browser';
import { seedFolder } from './lib/server';

const { values } = parseArgs({
  options: {
    cases: { type: 'string', default: '240' },
    seed: { type: 'string', default: '1' },
    browser: { type: 'string', default: '10' },
  },
});
const total = Number(values.cases);
const real = Math.min(total, Number(values.browser));
const random = seeded(Number(values.seed));
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
const chance = (p: number) => random() < p;

const folder = mkdtempSync(path.join(tmpdir(), 'jeito-chaos-'));
seedFolder(folder);

const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer();
    probe.listen(0, () => {
      const a = probe.address();
      probe.close(() => resolve(typeof a === 'object' && a ? a.port : 0));
    });
  });
const port = await freePort();
let child: ChildProcess | null = null;
let kills = 0;

async function up(): Promise<void> {
  if (child) return;
  const started = spawn(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/lib/chaos-field.ts'], {
    env: { ...process.env, JEITO_DATA: folder, PORT: String(port), JEITO_LOG: 'silent' },
    stdio: ['ignore', 'pipe', 'inherit'],
    detached: true,
  });
  child = started;
  await new Promise<void>((resolve, reject) => {
    started.stdout?.on('data', (d) => {
      if (/ready/.test(String(d))) resolve();
    });
    started.once('exit', () => reject(new Error('the field did not start')));
  });
}
/** tsx runs the field in a child of its own: the whole group goes. */
async function down(): Promise<void> {
  const dying = child;
  child = null;
  if (!dying?.pid) return;
  const gone = new Promise((resolve) => dying.once('close', resolve));
  process.kill(-dying.pid, 'SIGKILL');
  await gone;
  kills++;
}

/** Flights of their own for the cases, beside one another in a checkout of the demo. */
async function makeSorties(n: number): Promise<string[]> {
  const { default: sqlite3 } = await import('sqlite3');
  const ids = Array.from({ length: n }, () => seededId(random));
  const db = new sqlite3.Database(path.join(folder, 'jeito.sqlite'));
  const run = (sql: string, ...params: unknown[]) =>
    new Promise<void>((resolve, reject) => db.run(sql, params, (e) => (e ? reject(e) : resolve())));
  const checkout = await new Promise<string>((resolve) =>
    db.get<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = 'pilot-tome'", (_e, r) => resolve(r.id)),
  );
  await run('BEGIN');
  for (const [i, id] of ids.entries())
    await run(
      'INSERT INTO sorties (id, checkout_id, lesson, flown_on, instructor_id, created_at) VALUES (?, ?, ?, ?, ?, ?)',
      id,
      checkout,
      1000 + i,
      '2026-11-24',
      'user-helena',
      '2026-11-24T09:00:00.000Z',
    );
  await run('COMMIT');
  await new Promise((resolve) => db.close(resolve));
  return ids;
}

type Weather = 'ok' | 'down' | 'drop-answer' | 'error' | 'signed-out' | 'kill-before' | 'kill-after';
const CALM: readonly Weather[] = ['ok', 'ok', 'ok', 'down', 'drop-answer', 'error', 'signed-out'];

/** One request through the weather. A kill leaves the request without an answer, before or after the commit. */
const sendIn =
  (weather: Weather, trueMs: number): typeof fetch =>
  async (_url, init) => {
    if (weather === 'down') throw new TypeError('no network');
    if (weather === 'error') return new Response('oops', { status: 500 });
    if (weather === 'signed-out') return new Response('{}', { status: 401 });
    await up();
    const held = weather === 'kill-before' || weather === 'kill-after';
    const request = fetch(`http://localhost:${port}/api/sync`, {
      ...init,
      headers: {
        ...(init?.headers as Record<string, string>),
        'x-true-time': String(trueMs),
        ...(held ? { 'x-hold': weather.slice(5) } : {}),
      },
    });
    if (held) {
      setTimeout(() => void down(), 60);
      return request;
    }
    const response = await request;
    if (weather === 'drop-answer') throw new TypeError('connection lost');
    return response;
  };

interface Device {
  factory: IDBFactory;
  skewMs: number;
}
const open = (d: Device) => {
  closeStore();
  Dexie.dependencies.indexedDB = d.factory;
  Dexie.dependencies.IDBKeyRange = IDBKeyRange;
};
const realAdd = IDBObjectStore.prototype.add;
const full = (on: boolean) => {
  IDBObjectStore.prototype.add = on
    ? () => {
        throw new DOMException('the device is full', 'QuotaExceededError');
      }
    : realAdd;
};

interface Verdict {
  lost: number;
  doubled: number;
  wrong: string[];
}

async function oneCase(sortieId: string): Promise<Verdict> {
  const pack: SortiePack = {
    sortieId,
    checkoutId: 'c',
    lesson: 1,
    flownOn: '2026-11-24',
    author: 'user-helena',
    authorName: 'Helena',
    pilotName: 'Tomé',
    registration: 'ZP-URZ',
    typeName: 'Urze',
    pack: 'us',
    unit: 'mph',
    tailwheel: true,
    hasFlapOrGear: false,
    runwayEnd: '22',
    runways: [],
    aimPointM: 60,
    box: { before: 0, past: 122 },
    fenceTarget: 57,
    intended: 'three-point',
    focus: '',
    windText: '',
    triggers: [],
    items: [],
    preparedAt: '',
    events: [],
  };
  const devices: Device[] = Array.from({ length: chance(0.35) ? 2 : 1 }, () => ({
    factory: new IDBFactory(),
    skewMs: chance(0.3) ? Math.round((random() - 0.5) * 7_200_000) : 0,
  }));
  const confirmed: StoredEvent[] = [];
  const subjects: string[] = [];
  let clock = Date.parse('2026-11-24T10:00:00Z');
  let here = devices[0] as Device;
  open(here);
  const send = (weather: Weather) => flush(sendIn(weather, clock), () => new Date(clock + here.skewMs));
  const keep = async (type: CaptureEvent['type'], subject: string, payload: unknown) => {
    clock += 1000 + Math.floor(random() * 20_000);
    const event = await storeEvent(pack, type, subject, payload, new Date(clock + here.skewMs)).catch(() => null);
    // What it means is judged by the true clock, which the device does not know.
    if (event) confirmed.push({ ...event, skewMs: -here.skewMs });
    return event;
  };
  const landing = () =>
    toCaptured(
      {
        ...freshDraft(pack),
        touched: pick(['three-point', 'flat', 'tail-first'] as const),
        along: pick(['short', 'in-the-box', 'long', null] as const),
        intervention: pick([0, 1, 2, 3, null]),
      },
      null,
      '22',
    );
  const steps = 3 + Math.floor(random() * 9);
  for (let i = 0; i < steps; i++) {
    const roll = random();
    if (roll < 0.4) {
      const id = seededId(random);
      subjects.push(id);
      // A double tap: the same landing saved twice at once.
      await (chance(0.25)
        ? Promise.all([keep('landing-saved', id, landing()), keep('landing-saved', id, landing())])
        : keep('landing-saved', id, landing()));
    } else if (roll < 0.55)
      await keep('field-set', chance(0.5) && subjects.length > 0 ? pick(subjects) : seededId(random), {
        field: 'touched',
        value: pick(['flat', 'three-point']),
      });
    else if (roll < 0.65 && subjects.length > 0) await keep('corrected', pick(subjects), landing());
    else if (roll < 0.72 && subjects.length > 0) await keep('undone', pick(subjects), {});
    else if (roll < 0.8)
      await keep('item-observed', seededId(random), { itemId: 'F1', verdict: 'within', intervention: 0, note: '' });
    else if (roll < 0.86) {
      full(true);
      await keep('landing-saved', seededId(random), landing());
      full(false);
    } else if (roll < 0.93 && devices.length > 1) {
      here = pick(devices);
      open(here);
    } else open(here); // closed and opened again
    if (chance(0.5)) {
      const kill = chance(0.012);
      const going = send(kill ? pick(['kill-before', 'kill-after'] as const) : pick(CALM));
      // Sometimes the page is closed while it sends.
      if (!kill && chance(0.2)) {
        closeStore();
        await going.catch(() => undefined);
        open(here);
      } else await going;
    }
  }
  await up();
  for (const d of devices) {
    here = d;
    open(d);
    for (let i = 0; i < 4 && (await waitingCount()) > 0; i++) await send('ok');
  }
  return compare(sortieId, confirmed, devices);
}

async function compare(
  sortieId: string,
  confirmed: readonly StoredEvent[],
  devices: readonly Device[],
): Promise<Verdict> {
  const answer = (await (await fetch(`http://localhost:${port}/?sortie=${sortieId}`)).json()) as {
    events: (CaptureEvent & { payload: string })[];
    landings: { id: string }[];
  };
  const there = answer.events.map((e): CaptureEvent => ({ ...e, payload: JSON.parse(e.payload) as unknown }));
  const ids = new Set(there.map((e) => e.eventId));
  const lost = confirmed.filter((e) => !ids.has(e.eventId)).length;
  const doubled = there.length - ids.size + (there.length > confirmed.length ? there.length - confirmed.length : 0);
  const wrong: string[] = [];
  const expected = fold(confirmed);
  const found = fold(there);
  const order = (f: typeof found) =>
    canonicalText([f.landings.map((l) => [l.id, l.landing]), f.items.map((i) => i.id), f.drafts]);
  if (lost === 0 && doubled === 0 && order(found) !== order(expected))
    wrong.push(`${sortieId}: same events, another meaning\n  device ${order(expected)}\n  field  ${order(found)}`);
  if (answer.landings.length !== expected.landings.length)
    wrong.push(
      `${sortieId}: ${answer.landings.length} landings at the field, ${expected.landings.length} on the device`,
    );
  let kept = 0;
  for (const d of devices) {
    open(d);
    kept += await store().events.count();
    if ((await waitingCount()) > 0) wrong.push(`${sortieId}: something still waits on a device`);
  }
  if (kept !== confirmed.length) wrong.push(`${sortieId}: ${kept} kept on devices, ${confirmed.length} confirmed`);
  return { lost, doubled, wrong };
}

const started = Date.now();
const sum: Verdict = { lost: 0, doubled: 0, wrong: [] };
const add = (v: Verdict) => {
  sum.lost += v.lost;
  sum.doubled += v.doubled;
  sum.wrong.push(...v.wrong);
};
const sorties = await makeSorties(Math.max(0, total - real));
// Side by side: a browser waits most of the time.
const [seen] = await Promise.all([
  real > 0 ? browserCases(real, seeded(Number(values.seed) + 1), folder) : null,
  (async () => {
    for (const id of sorties) add(await oneCase(id));
  })(),
]);
if (seen) {
  add(seen);
  console.log(`${real} of them end to end in a real browser: ${seen.kinds.join(', ')}`);
}
await down();
rmSync(folder, { recursive: true, force: true });
for (const w of sum.wrong) console.log(w);
console.log(`the field was killed ${kills - 1} times; ${Math.round((Date.now() - started) / 1000)} s`);
console.log(`${total} cases, lost ${sum.lost}, doubled ${sum.doubled}`);
process.exit(sum.lost > 0 || sum.doubled > 0 || sum.wrong.length > 0 ? 1 : 0);
