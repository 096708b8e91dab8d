/** Flights of a seed flown, recorded, written, read, analysed and marked; tables of what came out. */
import { type Trace, analyseJoined, analyseTrace, readTrace } from '@/core/trace';
import { type Flight, flightOf } from './flight';
import { written } from './files';
import { type Mark, mark } from './mark';
import { type Device, deviceOf, recorded } from './sensors';

export interface Trial {
  name: string;
  shape: string;
  what: string;
  mark: Mark | null;
  /** Why the file could not be read. */
  unread: string | null;
}
/** Files of one flight: the same flight through two devices. */
export function trialsOf(seed: number, k: number, files = 2): Trial[] {
  const f = flightOf(seed, k);
  const lengthS = f.rows[f.rows.length - 1]?.t ?? 0;
  return Array.from({ length: files }, (_, n): Trial => {
    const own = seed * 100_003 + k * 101 + n * 7919;
    const dev = deviceOf(f, own);
    // Some begin or end in the air.
    const fromS = own % 11 === 0 ? 0.3 * lengthS : 0;
    const toS = own % 13 === 0 ? 0.8 * lengthS : lengthS;
    const rows = recorded(f, dev, own + 1, { fromS, toS });
    const file = written(f, dev, rows, own + 2);
    const what = `${dev.kind} ${dev.rateHz} Hz ${file.format}${dev.gaps.length > 0 ? ' with gaps' : ''}, ${Object.entries(
      dev.has,
    )
      .filter(([, v]) => v === true)
      .map(([c]) => c)
      .join(' ')}, ${dev.has.alt}`;
    const read = readTrace(file.text);
    if (!read.ok) return { name: f.name, shape: file.shape, what, mark: null, unread: read.code };
    const analysis = analyseTrace(read.trace, f.context);
    return {
      name: f.name,
      shape: file.shape,
      what,
      unread: null,
      mark: mark(f, analysis, dev, { fromS, toS, firstS: rows[0]?.t ?? 0 }),
    };
  });
}

/** A recording of a flight by its n-th device, part of it, by a clock that is ahead. */
export function recordingOf(
  f: Flight,
  own: number,
  part: readonly [from: number, to: number],
  aheadS: number,
): { trace: Trace; dev: Device; firstS: number; toS: number } | null {
  const lengthS = f.rows[f.rows.length - 1]?.t ?? 0;
  const dev = deviceOf(f, own);
  const toS = part[1] * lengthS;
  const rows = recorded(f, dev, own + 1, { fromS: part[0] * lengthS, toS });
  const read = readTrace(written({ ...f, startMs: f.startMs + aheadS * 1000 }, dev, rows, own + 2).text);
  return read.ok ? { trace: read.trace, dev, firstS: rows[0]?.t ?? 0, toS } : null;
}
export interface JoinTrial {
  joined: ReturnType<typeof analyseJoined>;
  /** By how much the second's zero was found off, seconds. */
  offS: number;
  /** Each alone, and joined. */
  marks: [one: Mark, two: Mark, joined: Mark | null];
}
const PARTS = [
  [0, 1],
  [0.3, 1],
  [0, 0.7],
  [0.2, 0.6],
] as const;
const AHEAD_S = [0, 3.7, -25, 3600];
/** A flight by two devices, the second with a clock of its own and often only a part of it, joined. */
export function joinOf(seed: number, k: number): JoinTrial | null {
  const f = flightOf(seed, k);
  const [a, b] = [0, 1].map((n) =>
    recordingOf(
      f,
      seed * 100_003 + k * 101 + n * 7919,
      n === 0 ? [0, 1] : (PARTS[(k + seed) % 4] ?? [0, 1]),
      n === 0 ? 0 : (AHEAD_S[k % 4] ?? 0),
    ),
  );
  if (!a || !b) return null;
  const joined = analyseJoined([a.trace, b.trace], ['one', 'two'], f.context);
  const alone = ({ trace, dev, firstS, toS }: typeof a) =>
    mark(f, analyseTrace(trace, f.context), dev, { fromS: 0, toS, firstS });
  const has = Object.fromEntries(
    Object.entries(a.dev.has).map(([what, there]) => [what, there || b.dev.has[what as keyof Device['has']]]),
  ) as Device['has'];
  const dev: Device = { ...a.dev, has, rateHz: Math.max(a.dev.rateHz, b.dev.rateHz), gaps: [] };
  return {
    joined,
    offS: joined.ok ? joined.aligned.offsetS - (b.firstS - a.firstS) : Number.NaN,
    marks: [
      alone(a),
      alone(b),
      joined.ok ? mark(f, joined.analysis, dev, { fromS: 0, toS: a.toS, firstS: a.firstS - joined.startsS[0] }) : null,
    ],
  };
}
/** What two recordings of each flight show alone and joined. */
export function joinTable(trials: readonly JoinTrial[]): string {
  const done = trials.filter((t) => t.joined.ok);
  const offs = done.map((t) => Math.abs(t.offS)).sort((x, y) => x - y);
  const line = (name: string, marks: readonly (Mark | null)[]) => {
    const m = marks.flatMap((x) => x ?? []);
    const places = m.flatMap((x) => x.offs.filter((o) => o.name.startsWith('along')));
    const n = (of: (x: Mark) => number) => m.reduce((sum, x) => sum + of(x), 0);
    return `${name.padEnd(8)} found ${n((x) => x.events.length + x.airwork.length)}, missed ${n((x) => x.missed.length + x.airworkMissed.length)}, invented ${n((x) => x.invented.length + x.airworkInvented.length)}, limits ${n((x) => x.limits.length)} of ${n((x) => x.limits.length + x.limitsMissed.length)}, ${n((x) => x.limitsInvented.length)} invented, place within 15 m beyond the sensors ${places.filter((o) => o.beyond <= 15).length} of ${places.length}`;
  };
  return [
    `${trials.length} flights by two recorders: ${done.length} joined; aligned within ${(offs[offs.length >> 1] ?? 0).toFixed(2)} s (median), ${(offs[offs.length - 1] ?? 0).toFixed(2)} s (worst)`,
    line(
      'first',
      done.map((t) => t.marks[0]),
    ),
    line(
      'second',
      done.map((t) => t.marks[1]),
    ),
    line(
      'joined',
      done.map((t) => t.marks[2]),
    ),
    ...trials.flatMap((t, i) => (t.joined.ok ? [] : [`not joined: ${i}, ${t.joined.code}`])),
  ].join('\n');
}

export interface Tally {
  flown: number;
  found: number;
  invented: number;
}
export interface Report {
  files: number;
  unread: string[];
  events: Map<string, Tally>;
  airwork: Map<string, Tally>;
  limits: Map<string, Tally>;
  offs: Map<string, { error: number; sd: number | null; beyond: number }[]>;
  notes: string[];
}
export const emptyReport = (): Report => ({
  files: 0,
  unread: [],
  events: new Map(),
  airwork: new Map(),
  limits: new Map(),
  offs: new Map(),
  notes: [],
});

export function addTrial(r: Report, t: Trial): void {
  r.files++;
  if (!t.mark) {
    r.unread.push(`${t.name}: ${t.unread}: ${t.shape}`);
    return;
  }
  const add = (m: Map<string, Tally>, kind: string, what: keyof Tally) => {
    const x = m.get(kind) ?? { flown: 0, found: 0, invented: 0 };
    x[what]++;
    m.set(kind, x);
  };
  const { mark: k } = t;
  const note = (s: string) => r.notes.push(`${t.name}, ${t.what}: ${s}`);
  for (const e of k.events) for (const w of ['flown', 'found'] as const) add(r.events, e.flown.kind, w);
  for (const e of k.missed) {
    add(r.events, e.kind, 'flown');
    note(`missed ${e.kind} at ${e.atS.toFixed(0)} s`);
  }
  for (const e of k.invented) {
    add(r.events, e.kind, 'invented');
    note(`invented ${e.kind} at ${(e.touchdown?.tS ?? e.lowestS ?? e.liftoff?.tS ?? e.startS).toFixed(0)} s`);
  }
  for (const e of k.airwork) for (const w of ['flown', 'found'] as const) add(r.airwork, e.flown.kind, w);
  for (const e of k.airworkMissed) {
    add(r.airwork, e.kind, 'flown');
    note(`missed ${e.kind} at ${e.startS.toFixed(0)}-${e.endS.toFixed(0)} s`);
  }
  for (const e of k.airworkInvented) {
    add(r.airwork, e.kind, 'invented');
    note(`invented ${e.kind} at ${e.startS.toFixed(0)}-${e.endS.toFixed(0)} s`);
  }
  for (const e of k.limits) for (const w of ['flown', 'found'] as const) add(r.limits, e.channel, w);
  for (const e of k.limitsMissed) {
    add(r.limits, e.channel, 'flown');
    note(
      `missed limit ${e.channel} at ${e.startS.toFixed(0)} s, ${e.by.toFixed(1)} for ${(e.endS - e.startS).toFixed(1)} s`,
    );
  }
  for (const e of k.limitsInvented) {
    add(r.limits, e.channel, 'invented');
    note(`invented limit ${e.channel} at ${e.startS.toFixed(0)} s, peak ${e.peak} of ${e.limit}`);
  }
  for (const o of k.offs)
    if (/^sink/.test(o.name) && Math.abs(o.error) > 150) note(`sink ${o.error.toFixed(0)} off (said ${o.sd})`);
  for (const o of k.offs)
    if (/^time/.test(o.name) && Math.abs(o.error) > 1.5)
      note(`touch ${o.error.toFixed(1)} s off (said ${o.sd === null ? '-' : o.sd.toFixed(1)})`);
  for (const o of k.offs) r.offs.set(o.name, [...(r.offs.get(o.name) ?? []), o]);
}

export const sum = (m: Map<string, Tally>): Tally =>
  [...m.values()].reduce(
    (a, b) => ({ flown: a.flown + b.flown, found: a.found + b.found, invented: a.invented + b.invented }),
    { flown: 0, found: 0, invented: 0 },
  );
export const recall = (t: Tally): number => (t.flown === 0 ? 1 : t.found / t.flown);
export const precision = (t: Tally): number => (t.found + t.invented === 0 ? 1 : t.found / (t.found + t.invented));
const percent = (x: number) => `${(100 * x).toFixed(1)} %`.padStart(8);

export function tables(r: Report): string {
  const lines: string[] = [`${r.files} files, ${r.unread.length} not read`];
  for (const [name, m] of [
    ['events', r.events],
    ['airwork', r.airwork],
    ['limits', r.limits],
  ] as const) {
    lines.push('', `${name.padEnd(20)} flown found  recall precision`);
    for (const [kind, t] of [...[...m].sort(), ['all', sum(m)] as const])
      lines.push(
        `${kind.padEnd(20)} ${String(t.flown).padStart(5)} ${String(t.found).padStart(5)}${percent(recall(t))}${percent(precision(t))}`,
      );
  }
  lines.push('', 'error                     median    90 %   worst     n   within 1 sd, 2 sd');
  for (const [name, os] of [...r.offs].sort()) {
    const e = os.map((o) => Math.abs(o.error)).sort((a, b) => a - b);
    const q = (p: number) => (e[Math.min(e.length - 1, Math.floor(p * e.length))] ?? 0).toFixed(2).padStart(8);
    const told = os.filter((o) => o.sd !== null && o.sd > 0);
    const within = (k: number) =>
      `${((100 * told.filter((o) => Math.abs(o.error) <= k * (o.sd ?? 0)).length) / told.length).toFixed(0)} %`;
    lines.push(
      `${name.padEnd(24)}${q(0.5)}${q(0.9)}${q(1)} ${String(e.length).padStart(5)}   ${told.length > 0 ? `${within(1)}, ${within(2)}` : 'not told'}`,
    );
  }
  const share = (name: RegExp, ok: (o: { error: number; beyond: number }) => boolean) => {
    const all = [...r.offs].filter(([n]) => name.test(n)).flatMap(([, o]) => o);
    return all.length === 0 ? '    -' : percent(all.filter(ok).length / all.length);
  };
  lines.push(
    '',
    `touch within 1 s (4 Hz and more) ${share(/^time, 4/, (o) => Math.abs(o.error) <= 1)}, within 2 s (below) ${share(/^time, b/, (o) => Math.abs(o.error) <= 2)}, place within 15 m beyond the sensors ${share(/^along/, (o) => o.beyond <= 15)} (${share(/^along, 4/, (o) => o.beyond <= 15)} and ${share(/^along, b/, (o) => o.beyond <= 15)}), 1 m across ${share(/^across/, (o) => o.beyond <= 1)}, sink within 60 fpm ${share(/^sink/, (o) => Math.abs(o.error) <= 60)}, swing within 3 deg ${share(/^swing/, (o) => Math.abs(o.error) <= 3)}`,
  );
  return lines.join('\n');
}
