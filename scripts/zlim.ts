import { analyseTrace, readTrace } from '@/core/trace';
import { flightOf } from './flights/flight';
import { written } from './flights/files';
import { deviceOf, recorded } from './flights/sensors';
for (const arg of process.argv.slice(2)) {
  const [seed, k, n] = arg.split('/').map(Number) as [number, number, number];
  const f = flightOf(seed, k);
  const lengthS = f.rows[f.rows.length - 1]?.t ?? 0;
  const own = seed * 100_003 + k * 101 + n * 7919;
  const dev = deviceOf(f, own);
  const fromS = own % 11 === 0 ? 0.3 * lengthS : 0;
  const toS = own % 13 === 0 ? 0.8 * lengthS : lengthS;
  const rows = recorded(f, dev, own + 1, { fromS, toS });
  const file = written(f, dev, rows, own + 2);
  console.log(file.text.slice(0, 900));
  const read = readTrace(file.text);
  if (!read.ok) throw new Error(read.code);
  console.log(JSON.stringify(dev), JSON.stringify(f.limits));
  console.log((read.trace.columns ?? []).map((c) => `${c.header}>${c.as} ${c.by} ${c.confidence} ${c.unit} ${c.unitBy}`).join('\n'));
  const a = analyseTrace(read.trace, f.context);
  console.log(JSON.stringify(a.exceedances), JSON.stringify(f.context.airframe), JSON.stringify(a.source.warnings));
  for (const l of f.limits) {
    const t0 = l.startS - (rows[0]?.t ?? 0);
    const out = [];
    for (let i = 0; i < read.trace.rows; i++) {
      const t = read.trace.tS[i] ?? 0;
      if (t > t0 - 3 && t < t0 + l.endS - l.startS + 3) out.push(`${t.toFixed(1)}: ias ${read.trace.channels.ias?.[i]?.toFixed(1)} g ${read.trace.channels.nz?.[i]?.toFixed(2)} rpm ${read.trace.channels.rpm?.[i]} fl ${read.trace.channels.flap?.[i]}`);
    }
    console.log(l.channel, out.slice(0, 30).join(' | '));
  }
}
