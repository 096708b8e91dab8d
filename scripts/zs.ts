import { analyseTrace, readTrace, placeTrace } from '@/core/trace';
import { longFlight } from './lib/trace-speed';
import { suiteFlight, flyCircuits, sense, csvOf } from '@/core/recorder';
import { seeded } from '@demo/random';
const f = suiteFlight(6, seeded(7));
const flown = flyCircuits({ ...f.plan, arrivals: [...Array.from({ length: 24 }, () => f.plan.arrivals[0]!), ...f.plan.arrivals.slice(-1)] });
const text = csvOf(sense(flown, f.plan.runway, { ...f.sensors, rateHz: 10 }, seeded(8)).slice(0, 72000), f.startUtcMs);
void longFlight;
for (let k = 0; k < 4; k++) {
  const t0 = performance.now(); const r = readTrace(text); const t1 = performance.now(); if (!r.ok) throw 1;
  placeTrace(r.trace, f.context); const t2 = performance.now(); const a = analyseTrace(r.trace, f.context); const t3 = performance.now();
  console.log(r.trace.rows, 'read', (t1 - t0).toFixed(0), 'place', (t2 - t1).toFixed(0), 'analyse', (t3 - t2).toFixed(0), a.events.length);
}
