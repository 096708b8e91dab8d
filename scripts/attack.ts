/**
 * Attacks a server of its own, as somebody who wants to break it, and says what held:  npm run attack [-- --short]
 * [--only 5,11]. Numbers are those of docs/security.md. It needs the built application (npm run build). Ends with
 * `N held, M fell`, and with 1 when something fell.
 */
import './lib/help.mjs';
import { rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { doorAttacks } from './attack/doors';
import { type Facts, prepareFacts } from './attack/facts';
import { flightAttacks } from './attack/flight';
import { peopleAttacks } from './attack/people';
import { startAttacks } from './attack/start';
import { Fell, openWorld } from './attack/world';

const { values } = parseArgs({
  options: { short: { type: 'boolean' }, only: { type: 'string' }, json: { type: 'string' } },
});
const only = values.only?.split(',') ?? null;

let facts: Facts | null = null;
const world = await openWorld(async (folder) => {
  facts = await prepareFacts(folder);
});
if (!facts) throw new Error('nothing was prepared');
const attacks = [
  ...flightAttacks(world, facts, !values.short),
  ...startAttacks(world),
  ...doorAttacks(world, facts, !values.short),
  // These change who may sign in as whom, so they come last.
  ...peopleAttacks(world, facts),
].filter((a) => only === null || only.includes(a.no));
let held = 0;
const fell: string[] = [];
for (const { no, name, run } of attacks) {
  const began = Date.now();
  try {
    const measured = await run();
    held++;
    console.log(`held  ${no.padEnd(4)} ${name}: ${measured} (${((Date.now() - began) / 1000).toFixed(1)} s)`);
  } catch (error) {
    const why = error instanceof Fell ? error.message : error instanceof Error ? (error.stack ?? error.message) : error;
    fell.push(`${no} ${name}`);
    console.log(`FELL  ${no.padEnd(4)} ${name}: ${String(why)}`);
  }
}
await world.server.stop();
rmSync(path.dirname(world.folder), { recursive: true, force: true });
if (fell.length > 0) console.log(`\nFell: ${fell.join('; ')}`);
if (values.json) writeFileSync(values.json, JSON.stringify({ held, fell: fell.length }));
console.log(`${held} held, ${fell.length} fell`);
process.exit(fell.length > 0 ? 1 : 0);
