import { analyseTrace, readTrace } from '@/core/trace';
import { flightOf } from './flights/flight';
import { written } from './flights/files';
import { deviceOf, recorded } from './flights/sensors';
for (const arg of process.argv.slice(2)) {
  const [seed, k, n, at] = arg.split('/').map(Number) as [number, number, number, number];
  const f = flightOf(seed, k);
  const own = seed * 100_003 + k * 101 + n * 7919;
  const dev = deviceOf(f, own);
  const rows = recorded(f, dev, own + 1, { fromS: 0, toS: f.rows[f.rows.length - 1]!.t });
  const file = written(f, dev, rows, own + 2);
  const read = readTrace(file.text);
  if (!read.ok) throw new Error(read.code);
  console.log('==', arg, dev.kind, dev.rateHz, dev.has.alt, JSON.stringify(dev.sigma), 'first', rows[0]?.t);
  const a = analyseTrace(read.trace, f.context);
  const t0 = rows[0]!.t;
  console.log(a.events.filter((e) => Math.abs((e.touchdown?.tS ?? e.lowestS ?? 0) + t0 - at) < 20).map((e) => JSON.stringify([e.kind, (e.touchdown?.tS ?? e.lowestS ?? 0) + t0, e.lowestHeightFt, e.touchdown?.uncertainty?.tS, (e.liftoff?.tS ?? 0) + t0])).join('\n'));
  const alt = read.trace.channels.altGps ?? read.trace.channels.altMsl ?? read.trace.channels.altPressure ?? read.trace.channels.altEllipsoid;
  const out = [];
  for (let i = 0; i < read.trace.rows; i++) { const t = read.trace.tS[i]! + t0; if (Math.abs(t - at) < 9) out.push(`${t.toFixed(1)}:${alt?.[i]?.toFixed(0)}${read.trace.channels.nz ? '/' + read.trace.channels.nz[i]!.toFixed(2) : ''}`); }
  const each = Math.ceil(out.length / 60);
  console.log(out.filter((_, i) => i % each === 0).join(' '));
}
