/**
 * `npm run bench:traces -- --seed N --flights M [--list]`: flights of the second recorder (scripts/flights), which shares
 * nothing with the product's own: what was found of what was flown, how far off the measures are, and whether they are
 * as far off as they say. Several seeds as `--seed 1,2,3`. With `--join` also what two recorders of each flight show
 * alone and joined.
 *
 * `npm run bench:traces [-- --list]`: the product's own recorder's trial. Flies every flight, writes its file, reads and analyses it,
 * and prints what was found of what was
 * flown (recall), what of the found was flown (precision), and how far off the measures are. Exit 1 when an event is
 * missed or invented.
 */
import './lib/help.mjs';
import { parseArgs } from 'node:util';
import { seeded } from '@demo/random';
import { SUITE_SIZE, csvOf, flyCircuits, gpxOf, igcOf, kindOf, score, sense, suiteFlight } from '@/core/recorder';
import { analyseTrace, readTrace } from '@/core/trace';
import { addTrial, emptyReport, joinOf, joinTable, tables, trialsOf } from './flights/bench';
import { traceSpeed } from './lib/trace-speed';

const { values } = parseArgs({
  options: {
    seed: { type: 'string' },
    flights: { type: 'string', default: '12' },
    list: { type: 'boolean' },
    join: { type: 'boolean' },
    from: { type: 'string' },
    to: { type: 'string' },
    round: { type: 'string' },
  },
});
if (values.seed !== undefined) {
  const report = emptyReport();
  for (const seed of values.seed.split(',').map(Number))
    for (let k = 0; k < Number(values.flights); k++) for (const t of trialsOf(seed, k)) addTrial(report, t);
  console.log(tables(report));
  if (values.join)
    console.log(
      `\n${joinTable(values.seed.split(',').flatMap((seed) => Array.from({ length: Number(values.flights) }, (_, k) => joinOf(Number(seed), k) ?? []).flat()))}`,
    );
  if (values.list) console.log(['', ...report.unread, ...report.notes].join('\n'));
  process.exit(0);
}
const tally = new Map<string, { flown: number; found: number; invented: number }>();
const count = (kind: string, change: Partial<{ flown: number; found: number; invented: number }>) => {
  const t = tally.get(kind) ?? { flown: 0, found: 0, invented: 0 };
  tally.set(kind, {
    flown: t.flown + (change.flown ?? 0),
    found: t.found + (change.found ?? 0),
    invented: t.invented + (change.invented ?? 0),
  });
};
const errors = new Map<string, number[]>();
const off = (name: string, e: number | null) => {
  if (e !== null && Number.isFinite(e)) errors.set(name, [...(errors.get(name) ?? []), Math.abs(e)]);
};
let wrong = 0;
for (let k = Number(values.from ?? 0); k < Number(values.to ?? SUITE_SIZE); k++) {
  const f = suiteFlight(k, seeded(k + 1 + 1000 * Number(values.round ?? 0)));
  const flown = flyCircuits(f.plan);
  const rows = sense(flown, f.plan.runway, f.sensors, seeded(f.seed + 7 * Number(values.round ?? 0)));
  const text =
    f.format === 'gpx'
      ? gpxOf(rows, f.startUtcMs)
      : f.format === 'igc'
        ? igcOf(rows, f.startUtcMs)
        : csvOf(rows, f.startUtcMs, f.airData, f.style);
  const read = readTrace(text);
  if (!read.ok) throw new Error(`${f.name}: ${read.why.code}`);
  const a = analyseTrace(read.trace, f.context);
  const s = score(flown, a, rows[0]?.tS ?? 0);
  for (const e of flown.events) count(kindOf(e), { flown: 1 });
  for (const e of flown.airwork) count(e.kind, { flown: 1 });
  for (const e of s.invented) count(e.kind, { invented: 1 });
  for (const e of s.airworkInvented) count(e.kind, { invented: 1 });
  const slow = f.sensors.rateHz < 4 ? 'below 4 Hz' : '4 Hz and more';
  for (const { flown: t, found: e } of s.events) {
    count(e.kind, { found: 1 });
    if (t.touchdownS !== null && e.touchdown) {
      off(`touchdown time, ${slow} [s]`, e.touchdown.tS - t.touchdownS);
      off(
        `touchdown along, ${slow} [m]`,
        e.touchdown.alongM === null || t.alongM === null ? null : e.touchdown.alongM - t.alongM,
      );
      off(
        'touchdown across [m]',
        e.touchdown.lateralM === null || t.lateralM === null ? null : e.touchdown.lateralM - t.lateralM,
      );
      off(
        'touchdown IAS [kt]',
        e.touchdown.iasKt === null || t.touchKt === null ? null : e.touchdown.iasKt - t.touchKt,
      );
      off('sink [fpm]', e.touchdown.sinkFpm === null ? null : e.touchdown.sinkFpm - t.sinkFpm);
      off('crab [deg]', e.touchdown.crabDeg === null ? null : e.touchdown.crabDeg - t.crabDeg);
      off('bounces', e.touchdown.bounces === null ? null : e.touchdown.bounces - t.bounces);
    }
    if (t.liftoffS !== null && e.liftoff) off(`lift-off time, ${slow} [s]`, e.liftoff.tS - t.liftoffS);
    if (t.lowestFt !== null && e.lowestHeightFt !== undefined && e.lowestHeightFt !== null)
      off('lowest height [ft]', e.lowestHeightFt - t.lowestFt);
  }
  for (const { flown: t, found: e } of s.airwork) {
    count(e.kind, { found: 1 });
    off(`${e.kind} start [s]`, e.startS - t.startS);
    off(`${e.kind} end [s]`, e.endS - t.endS);
    if (/steep|reversal/.test(e.kind)) off('bank [deg]', e.maxBankDeg === null ? null : e.maxBankDeg - t.maxBankDeg);
    off(
      'height extremes [ft]',
      e.heightDeviationFt.min === null
        ? null
        : Math.max(
            Math.abs(e.heightDeviationFt.min - t.heightDeviationFt.min),
            Math.abs((e.heightDeviationFt.max ?? 0) - t.heightDeviationFt.max),
          ),
    );
    if (t.rolloutErrorDeg !== null)
      off('roll-out error [deg]', e.rolloutErrorDeg === null ? null : e.rolloutErrorDeg - t.rolloutErrorDeg);
    if (t.direction && t.direction !== e.direction) {
      wrong++;
      console.log(`${f.name}: ${e.kind} direction ${e.direction}, flown ${t.direction}`);
    }
  }
  const bad = s.missed.length + s.invented.length + s.airworkMissed.length + s.airworkInvented.length;
  wrong += bad;
  if (values.list || bad > 0)
    console.log(
      `${f.name}: ${[...s.missed.map((e) => `missed ${kindOf(e)} at ${(e.touchdownS ?? e.lowestS ?? e.liftoffS ?? 0).toFixed(0)} s${e.lowestFt === null ? '' : ` (${e.lowestFt.toFixed(0)} ft)`}`), ...s.invented.map((e) => `invented ${e.kind} at ${(e.touchdown?.tS ?? e.lowestS ?? e.liftoff?.tS ?? 0).toFixed(0)} s`), ...s.airworkMissed.map((e) => `missed ${e.kind} at ${e.startS.toFixed(0)}-${e.endS.toFixed(0)} s`), ...s.airworkInvented.map((e) => `invented ${e.kind} at ${e.startS.toFixed(0)}-${e.endS.toFixed(0)} s`)].join(', ') || 'all'}`,
    );
}
const percent = (a: number, b: number) => (b === 0 ? '   -' : `${((100 * a) / b).toFixed(0)} %`.padStart(5));
console.log('\nkind                flown  found  recall  precision');
for (const [kind, t] of [...tally].sort())
  console.log(
    `${kind.padEnd(18)} ${String(t.flown).padStart(6)} ${String(t.found).padStart(6)}  ${percent(t.found, t.flown)}  ${percent(t.found, t.found + t.invented)}`,
  );
console.log('\nerror                                    median   90 %    worst      n');
for (const [name, e] of [...errors].sort()) {
  const s = e.sort((a, b) => a - b);
  const q = (p: number) => (s[Math.min(s.length - 1, Math.floor(p * s.length))] ?? 0).toFixed(2).padStart(8);
  console.log(`${name.padEnd(38)} ${q(0.5)}${q(0.9)}${q(1)} ${String(s.length).padStart(6)}`);
}
console.log(`\nspeed: ${traceSpeed()}`);
if (wrong > 0) process.exitCode = 1;
