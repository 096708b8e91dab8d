/**
 * `npm run bench:growth`: each core function that a page or a worker calls over a whole record, at 500 and at 5000
 * landings. Ten times the record may take at most twelve times as long; the ratio is what is told, never asserted.
 */
import './lib/help.mjs';
import { bias, ewma, runRule, share, theilSen, touchdownSpread } from '@/core/assess';
import { evaluateRecency } from '@/core/recency';
import { seeded } from '@/core/random';
import { pilotLadder } from '@/core/wind';

const random = seeded(20261129);
const at = (i: number) => new Date(Date.UTC(2020, 0, 1) + (i / 5) * 86_400_000).toISOString().slice(0, 10);

function record(n: number) {
  const alongM = Array.from({ length: n }, () => 60 * random() - 20);
  const lateralM = alongM.map(() => 4 * random() - 2);
  const order = alongM.map((_, i) => i);
  const landings = order.map((i) => ({
    date: at(i),
    group: 'g',
    crosswindKt: Math.round(160 * random()) / 10,
    windAgeMin: 3,
    intervention: random() < 0.85 ? 0 : 2,
    demonstration: false,
    criteria: { drift: random() < 0.9 ? ('within' as const) : ('outside' as const) },
  }));
  const run = order.map((i) => ({
    sortieId: `s${Math.floor(i / 6)}`,
    date: at(i),
    firstOfSortie: i % 6 === 0,
    group: 'g',
    attitude: 'three-point',
    crosswindKt: 5,
    landingClass: 'own',
  }));
  const events = order.map((i) => ({ id: `e${i}`, date: at(i), kind: 'landing' as const, fullStop: true }));
  return { alongM, lateralM, order, landings, run, events };
}
type Record_ = ReturnType<typeof record>;
const JOBS: Record<string, (r: Record_) => unknown> = {
  theilSen: (r) => theilSen(r.order, r.alongM),
  touchdownSpread: (r) => touchdownSpread(r.lateralM, r.alongM),
  bias: (r) => bias(r.lateralM, 0.5),
  ewma: (r) => ewma(r.alongM, 0, 10),
  share: (r) => share(Math.floor(r.order.length * 0.7), r.order.length),
  runRule: (r) =>
    runRule({ landings: r.run, needed: 5, group: 'g', attitude: 'three-point', windKt: 4, accuracyItem: false }),
  pilotLadder: (r) => pilotLadder({ landings: r.landings, group: 'g', onDate: '2026-11-29', stepKt: 3, credit: null }),
  evaluateRecency: (r) =>
    evaluateRecency({
      rules: [
        {
          id: 'x',
          kind: 'landing',
          count: 3,
          windowDays: 90,
          fullStop: true,
          night: false,
          tailwheel: false,
          soleManipulator: true,
          surface: null,
          classes: null,
        },
      ],
      events: r.events,
      onDate: at(r.order.length),
    }),
};
/** The least of several: what the machine does beside it only ever adds. */
function least(job: () => unknown): number {
  let best = Infinity;
  for (let i = 0; i < 7; i++) {
    const began = performance.now();
    job();
    best = Math.min(best, performance.now() - began);
  }
  return best;
}
const [few, many] = [record(500), record(5000)];
console.log('function             500 landings   5000 landings   ratio (12 at most)');
for (const [name, job] of Object.entries(JOBS)) {
  const [a, b] = [least(() => job(few)), least(() => job(many))];
  console.log(
    `${name.padEnd(18)} ${a.toFixed(2).padStart(11)} ms ${b.toFixed(2).padStart(12)} ms ${(b / a).toFixed(1).padStart(7)}${b / a > 12 ? '  too steep' : ''}`,
  );
}
