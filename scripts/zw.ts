import { flightOf } from './flights/flight';
for (const a of process.argv.slice(2)) {
  const [s, k] = a.split('.').map(Number) as [number, number];
  const f = flightOf(s, k);
  const e = f.context.aerodrome.runways[0];
  console.log(a, f.machine.name, e?.ends.map((x) => `${x.ident} ${x.elevationFt.toFixed(0)} ft`).join(', '), e?.lengthM, 'm, end', f.rows[f.rows.length - 1]?.t.toFixed(0));
  for (const p of f.passes) console.log('  ', p.kind, p.runway, p.atS.toFixed(1), p.doubt ?? '', p.touch ? `along ${p.touch.alongM.toFixed(0)} sink ${p.touch.sinkFpm.toFixed(0)} b ${p.touch.bounces} lift ${p.liftoffS?.toFixed(1)}` : p.lowestFt?.toFixed(0));
}
