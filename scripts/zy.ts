import { flightOf } from './flights/flight';
const [seed, k, a, b, step] = process.argv.slice(2).map(Number) as [number, number, number, number, number];
const f = flightOf(seed, k);
const e = f.context.aerodrome;
for (const r of f.rows) if (r.t >= a && r.t <= b && Math.abs(r.t / step - Math.round(r.t / step)) < 0.02 / step) console.log(r.t.toFixed(1), 'h', ((r.z - f.elevationM) / 0.3048).toFixed(1), 'gs', r.gs.toFixed(1), 'ias', r.ias.toFixed(1), 'vs', r.vs.toFixed(0), 'bank', r.bank.toFixed(0), 'hdg', r.heading.toFixed(0), 'pitch', r.pitch.toFixed(0), 'rpm', r.rpm[0].toFixed(0), 'g', r.g.toFixed(2), 'flap', r.flap.toFixed(0));
