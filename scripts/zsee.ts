import { flightOf } from './flights/flight';
const [seed, k, from, to, each] = process.argv.slice(2).map(Number) as [number, number, number, number, number];
const f = flightOf(seed, k);
console.log(JSON.stringify(f.items.map((i) => [i.kind, i.startS | 0, i.endS | 0])), JSON.stringify(f.passes.map((p) => [p.kind, p.runway, p.atS | 0, p.doubt])), f.context.airframe.vs0Kt, f.context.airframe.vs1Kt);
let next = from;
for (const r of f.rows) if (r.t >= next && r.t <= to) { next = r.t + (each || 2); console.log(r.t.toFixed(0), 'ias', r.ias.toFixed(0), 'gs', r.gs.toFixed(0), 'z', (r.z / 0.3048).toFixed(0), 'vs', r.vs.toFixed(0), 'pitch', r.pitch.toFixed(1), 'bank', r.bank.toFixed(0), 'g', r.g.toFixed(2), 'rpm', r.rpm[0].toFixed(0), 'flap', r.flap.toFixed(0)); }
