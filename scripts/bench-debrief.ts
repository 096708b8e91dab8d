/**
 * `npm run bench:debrief`: the debrief as the school grows. At 1000, 10 000 and 200 000 landings: the page's server
 * time (median of 50 after warm-up,
 * against the same page at 1000), and what the debrief reads (every query of the record and the findings, nothing
 * cached) against the same statements bare on a connection of their own. `--most N` stops earlier.
 */
import './lib/help.mjs';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import sqlite3 from 'sqlite3';
import { grow } from './lib/grow';
import { FIXED_NOW, seedFolder, signInCookie, startServer } from './lib/server';

const { values } = parseArgs({ options: { most: { type: 'string', default: '200000' } } });
const median = (xs: number[]): number => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)] ?? NaN;
const folder = mkdtempSync(path.join(tmpdir(), 'jeito-grow-'));
seedFolder(folder);
process.env.JEITO_DATA = folder;
process.env.JEITO_NOW = FIXED_NOW;
const { closeDatabase, database } = await import('@/server/floor/connection');
const { rows } = await import('./lib/raw');
const { checkoutHead } = await import('@/server/checkout/queries/head');
const { landingsOf } = await import('@/server/checkout/queries/flights');
const { readCheckoutRecord } = await import('@/server/checkout/queries/record');
const { debriefFacts } = await import('@/server/debrief/queries/debrief');
const { refreshAggregates } = await import('@/server/checkout/commands/tallies');

const bare = (db: sqlite3.Database, sql: string) =>
  new Promise<unknown[]>((resolve, reject) => db.all(sql, (e, r) => (e ? reject(e) : resolve(r))));
const fixed = (x: number | undefined, digits = 2): string => (x ?? NaN).toFixed(digits);
/** Medians of several pieces of work, done in turn. */
async function inTurn(
  works: readonly (() => Promise<unknown>)[],
  warm: number,
  times: number,
): Promise<[number, number, ...number[]]> {
  const seen = works.map((): number[] => []);
  for (let i = 0; i < warm + times; i++)
    for (const [k, work] of works.entries()) {
      const t = performance.now();
      await work();
      if (i >= warm) seen[k]?.push(performance.now() - t);
    }
  return seen.map(median) as [number, number, ...number[]];
}

const sizes = [1000, 10_000, 200_000].filter((n) => n <= Number(values.most));
const folders = sizes.map(() => mkdtempSync(path.join(tmpdir(), 'jeito-grow-')));
const ids: string[] = [];
for (const [k, size] of sizes.entries()) {
  const here = folders[k] ?? '';
  cpSync(folder, here, { recursive: true });
  rmSync(path.join(here, 'server.lock'), { force: true });
  process.env.JEITO_DATA = here;
  const started = performance.now();
  const n = await grow(here, size);
  const [ines] = await rows<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = 'pilot-ines'");
  const id = ines?.id ?? '';
  ids.push(id);
  await refreshAggregates([id]);
  const head = await checkoutHead(id);
  if (!head) throw new Error('no checkout');
  console.log(`${n} landings (grown in ${((performance.now() - started) / 1000).toFixed(0)} s)`);
  // The same statements, as they were sent, bare.
  const said: string[] = [];
  const sequelize = database().sequelize as unknown as { options: { logging: false | ((sql: string) => void) } };
  const read = async () => debriefFacts(await readCheckoutRecord(head));
  sequelize.options.logging = (sql) => {
    said.push(sql.replace(/^Executing \([^)]*\): /, ''));
  };
  await read();
  sequelize.options.logging = false;
  const connection = new sqlite3.Database(path.join(here, 'jeito.sqlite'), sqlite3.OPEN_READONLY);
  const landingsSql =
    said.find((s) => /FROM (landings l|`landings`)/.test(s) && s.includes('captured') && s.includes('lesson')) ?? '';
  const [landings, landingsFloor] = await inTurn([() => landingsOf(id), () => bare(connection, landingsSql)], 20, 100);
  const [whole, floor] = await inTurn(
    [
      read,
      async () => {
        for (const sql of said) await bare(connection, sql);
      },
    ],
    10,
    50,
  );
  console.log(
    `  debrief query: landings ${fixed(landings)} ms, bare ${fixed(landingsFloor)} ms, ${fixed(landings / landingsFloor)} x floor; everything a debrief reads, judged and found, ${fixed(whole)} ms in ${said.length} statements, bare ${fixed(floor)} ms, ${fixed(whole / floor)} x floor`,
  );
  await new Promise<void>((r) => connection.close(() => r()));
  await closeDatabase();
}

const servers = await Promise.all(folders.map((f) => startServer(f)));
const cookies: string[] = [];
for (const server of servers) cookies.push(await signInCookie(server.url, 'helena@pedra-alva.example'));
// Each size in turn, so that a busy machine is busy for all of them.
for (const view of ['debrief', 'progress', 'plan']) {
  const ms = await inTurn(
    servers.map((server, k) => async () => {
      const r = await fetch(`${server.url}/checkouts/${ids[k] ?? ''}/${view}`, {
        headers: { cookie: cookies[k] ?? '' },
      });
      await r.arrayBuffer();
      if (r.status !== 200) throw new Error(`${view} answered ${r.status}`);
    }),
    25,
    50,
  );
  console.log(
    `/checkouts/[id]/${view}`.padEnd(26),
    sizes
      .map(
        (n, k) => `${n}: ${fixed(ms[k] ?? NaN, 1)} ms${k > 0 ? `, ${fixed((ms[k] ?? NaN) / (ms[0] ?? NaN))} x` : ''}`,
      )
      .join('   '),
  );
}
for (const server of servers) await server.stop();
for (const f of [folder, ...folders]) rmSync(f, { recursive: true, force: true });
