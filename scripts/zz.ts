import { parseArgs } from 'node:util';
import { addTrial, emptyReport, tables, trialsOf } from './flights/bench';
const { values } = parseArgs({
  options: { seed: { type: 'string' }, flights: { type: 'string' }, list: { type: 'boolean' } },
});
const r = emptyReport();
const t = performance.now();
for (const seed of (values.seed ?? '1').split(',').map(Number))
  for (let k = 0; k < Number(values.flights ?? 12); k++) for (const x of trialsOf(seed, k)) addTrial(r, x);
console.log(tables(r));
console.log(((performance.now() - t) / 1000).toFixed(1), 's');
if (values.list) console.log(r.unread.join('\n') + '\n' + r.notes.join('\n'));
