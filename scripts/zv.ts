import { analyseTrace, placeTrace, readTrace } from '@/core/trace';
import { flightOf } from './flights/flight';
import { written } from './flights/files';
import { deviceOf, recorded } from './flights/sensors';
const [seed, k, n, a, b, each] = process.argv.slice(2).map(Number) as [number, number, number, number, number, number];
const f = flightOf(seed, k);
const own = seed * 100_003 + k * 101 + n * 7919;
const dev = deviceOf(f, own);
const end = f.rows[f.rows.length - 1]?.t ?? 0;
const fromS = own % 11 === 0 ? 0.3 * end : 0;
const rows = recorded(f, dev, own + 1, { fromS, toS: own % 13 === 0 ? 0.8 * end : end });
const w = written(f, dev, rows, own + 2);
const r = readTrace(w.text);
if (!r.ok) throw new Error('unread');
const first = rows[0]?.t ?? 0;
const p = placeTrace(r.trace, f.context);
console.log('first', first, 'gaps', dev.gaps, JSON.stringify(dev.has), JSON.stringify(dev.sigma), 'noise', p?.heightNoiseFt, 'rate', r.trace.rateHz, 'cal', p?.calibrated);
if (process.env.D) { const [x, y] = process.env.D.split(',').map(Number) as [number, number]; (globalThis as any).DBG = (t: number) => t + first > x && t + first < y; }
const an = analyseTrace(r.trace, f.context);
for (const e of an.events) console.log(e.kind, e.runway, (e.startS + first).toFixed(1), e.touchdown && `touch ${(e.touchdown.tS + first).toFixed(1)} along ${e.touchdown.alongM} sink ${e.touchdown.sinkFpm} ${JSON.stringify(e.touchdown.uncertainty)}`, e.liftoff && `lift ${(e.liftoff.tS + first).toFixed(1)}`, e.lowestHeightFt, e.lowestS && (e.lowestS + first).toFixed(1), JSON.stringify(e.rollout));
for (const x of f.passes) console.log('  T', x.kind, x.atS.toFixed(1), x.touch && `along ${x.touch.alongM.toFixed(0)} sink ${x.touch.sinkFpm.toFixed(0)} b ${x.touch.bounces}`, x.liftoffS?.toFixed(1), x.lowestFt?.toFixed(0), x.doubt ?? '');
for (const x of an.airwork) console.log('air', x.kind, (x.startS + first).toFixed(0), (x.endS + first).toFixed(0));
for (const x of f.items) console.log('  T', x.kind, x.startS.toFixed(0), x.endS.toFixed(0));
if (p) for (let i = 0; i < p.n; i++) { const t = (p.tS[i] ?? 0) + first; if (t >= a && t <= b && i % (each || 1) === 0) { const tr = f.rows.find((x) => x.t >= t); console.log(t.toFixed(2), 'h', p.heightFt?.[i]?.toFixed(1), 'true', (((tr?.z ?? 0) - f.elevationM) / 0.3048).toFixed(1), 'gs', p.gsKt[i]?.toFixed(1), 'ias', p.iasKt?.[i]?.toFixed(1), 'vs', p.trace.channels.vs?.[i]?.toFixed(0), 'nz', p.nz?.[i]?.toFixed(2), 'bank', p.trace.channels.bank?.[i]?.toFixed(1), 'along', p.frames[0]?.along[i]?.toFixed(0), 'lat', p.frames[0]?.lateral[i]?.toFixed(1)); } }
