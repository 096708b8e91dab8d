import { readTrace } from '@/core/trace';
import { flightOf } from './flights/flight';
import { written } from './flights/files';
import { deviceOf, recorded } from './flights/sensors';
const seeds = process.argv.slice(2).map(Number);
let [right, wrong, none, said] = [0, 0, 0, 0];
for (const seed of seeds) for (let k = 0; k < 12; k++) {
  const f = flightOf(seed, k);
  for (let n = 0; n < 2; n++) {
    const own = seed * 100_003 + k * 101 + n * 7919;
    const dev = deviceOf(f, own);
    if (!dev.has.ias) continue;
    const rows = recorded(f, dev, own + 1, { fromS: 0, toS: 1e9 });
    const file = written(f, dev, rows, own + 2);
    const read = readTrace(file.text);
    if (!read.ok) continue;
    const c = read.trace.columns?.find((x) => x.as === 'ias');
    if (!c) continue;
    if (c.unitBy === 'header') { said++; continue; }
    const r = read.trace.channels.ias!;
    // true by time
    const q: number[] = [];
    const t0 = rows[0]!.t;
    let j = 0;
    for (let i = 0; i < read.trace.rows; i += 5) {
      const t = t0 + read.trace.tS[i]!;
      while (j < f.rows.length - 1 && f.rows[j]!.t < t) j++;
      const v = (f.rows[j] as unknown as { ias: number }).ias;
      if (v > 40 && r[i]! > 5) q.push(r[i]! / v);
    }
    q.sort((a, b) => a - b);
    const m = q[q.length >> 1] ?? NaN;
    if (Math.abs(m - 1) < 0.06) c.unitBy === 'values' ? right++ : none++;
    else { wrong++; console.log(seed, k, n, c.unit, c.unitBy, m.toFixed(3), dev.kind, dev.rateHz, f.name); }
  }
}
console.log({ right, wrong, none, said });
