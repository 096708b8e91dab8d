import { analyseTrace, readTrace } from '@/core/trace';
import { flightOf } from './flights/flight';
import { written } from './flights/files';
import { deviceOf, recorded } from './flights/sensors';
import { mark } from './flights/mark';
const groups = new Map<string, { t: number; along: number; sd: number; slack: number }[]>();
for (const seed of process.argv[2]!.split(',').map(Number)) for (let k = 0; k < Number(process.argv[3]); k++) {
  const f = flightOf(seed, k);
  const len = f.rows[f.rows.length - 1]!.t;
  for (let n = 0; n < 2; n++) {
    const own = seed * 100_003 + k * 101 + n * 7919;
    const dev = deviceOf(f, own);
    const rows = recorded(f, dev, own + 1, { fromS: 0, toS: len });
    const file = written(f, dev, rows, own + 2);
    const read = readTrace(file.text);
    if (!read.ok) continue;
    const m = mark(f, analyseTrace(read.trace, f.context), dev, { fromS: 0, toS: len, firstS: rows[0]!.t });
    const times = m.offs.filter((o) => /^time/.test(o.name));
    const alongs = m.offs.filter((o) => /^along/.test(o.name));
    times.forEach((o, i) => {
      const key = `${dev.rateHz >= 4 ? 'fast' : 'slow'} ${process.argv[4] === 'm' ? f.machine.name : `${dev.kind} ${dev.has.alt} ${dev.has.vs ? 'vs' : ''} ${dev.has.g ? 'g' : ''} ${dev.has.attitude ? 'att' : ''}`}`;
      const g = groups.get(key) ?? [];
      g.push({ t: o.error, along: alongs[i]?.error ?? NaN, sd: o.sd ?? NaN, slack: Math.abs(alongs[i]?.error ?? 0) - (alongs[i]?.beyond ?? 0) });
      groups.set(key, g);
    });
  }
}
for (const [key, g] of [...groups].sort()) {
  const t = g.map((x) => x.t).sort((a, b) => a - b);
  const mean = t.reduce((a, b) => a + b, 0) / t.length;
  const rms = Math.sqrt(t.reduce((a, b) => a + b * b, 0) / t.length);
  const sd = g.reduce((a, b) => a + b.sd, 0) / g.length;
  const ok = g.filter((x) => Math.abs(x.along) - x.slack <= 15).length;
  console.log(key.padEnd(40), 'n', String(t.length).padStart(3), 'mean', mean.toFixed(2), 'median', t[t.length >> 1]!.toFixed(2), 'rms', rms.toFixed(2), 'said', sd.toFixed(2), 'place ok', (100 * ok / g.length).toFixed(0));
}
for (const w of ['fast', 'slow']) {
  const g = [...groups].filter(([k]) => k.startsWith(w)).flatMap(([, v]) => v);
  const q = (f: (x: { t: number; along: number; sd: number; slack: number }) => boolean) => ((100 * g.filter(f).length) / g.length).toFixed(1);
  console.log('SUM', w, g.length, 'rms', Math.sqrt(g.reduce((a, x) => a + x.t * x.t, 0) / g.length).toFixed(3), 'median', g.map((x) => Math.abs(x.t)).sort((a, b) => a - b)[g.length >> 1]!.toFixed(2), 'ok t', q((x) => Math.abs(x.t) <= (w === 'fast' ? 1 : 2)), 'place', q((x) => Math.abs(x.along) - x.slack <= 15), '1sd', q((x) => Math.abs(x.t) <= x.sd), '2sd', q((x) => Math.abs(x.t) <= 2 * x.sd));
}
