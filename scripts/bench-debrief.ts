/**
 * `npm run bench:debrief`: the debrief as the school grows. At 1000, 10 000 and 200 000 landings: the page's server time (median of 50 after warm-up,
 * against the same page at 1000), and what the debrief reads (every query of the record and the findings, nothing cached) against the same statements
 * bare on a connection of their own. `--most N` stops earlier.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import sqlite3 from 'sqlite3';
import { grow } from './lib/grow';
import { CHROMIUM, FIXED_NOW, seedFolder, startServer } from './lib/server';

const { values } = parseArgs({ options: { most: { type: 'string', default: '200000' } } });
const median = (xs: number[]): number => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)] ?? NaN;
const folder = mkdtempSync(path.join(tmpdir(), 'jeito-grow-'));
seedFolder(folder);
process.env.JEITO_DATA = folder;
process.env.JEITO_NOW = FIXED_NOW;
const { closeDatabase, database, rows } = await import('@/server/db/connection');
const { checkoutHead, readCheckoutRecord } = await import('@/server/queries/checkout');
const { debriefFacts } = await import('@/server/queries/debrief');
const { refreshAggregates } = await import('@/server/aggregates');

const bare = (db: sqlite3.Database, sql: string) => new Promise<unknown[]>((resolve, reject) => db.all(sql, (e, r) => (e ? reject(e) : resolve(r))));
const timed = async (work: () => Promise<unknown>, warm: number, times: number): Promise<number> => {
  for (let i = 0; i < warm; i++) await work();
  const seen: number[] = [];
  for (let i = 0; i < times; i++) { const t = performance.now(); await work(); seen.push(performance.now() - t); }
  return median(seen);
};

let cookie = '';
const first: Record<string, number> = {};
for (const size of [1000, 10_000, 200_000].filter((n) => n <= Number(values.most))) {
  const started = performance.now();
  const n = await grow(folder, size);
  const [ines] = await rows<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = 'pilot-ines'");
  const id = ines?.id ?? '';
  await refreshAggregates([id]);
  const head = await checkoutHead(id);
  if (!head) throw new Error('no checkout');
  console.log(`\n${n} landings (grown in ${((performance.now() - started) / 1000).toFixed(0)} s)`);
  // The same statements, as they were sent, bare.
  const said: string[] = [];
  const sequelize = database().sequelize as unknown as { options: { logging: false | ((sql: string) => void) } };
  const read = async () => debriefFacts(await readCheckoutRecord(head));
  sequelize.options.logging = (sql) => { said.push(sql.replace(/^Executing \([^)]*\): /, '')); };
  await read();
  sequelize.options.logging = false;
  const connection = new sqlite3.Database(path.join(folder, 'jeito.sqlite'), sqlite3.OPEN_READONLY);
  const floor = await timed(async () => { for (const sql of said) await bare(connection, sql); }, 5, 50);
  const whole = await timed(read, 5, 50);
  const landingsSql = said.find((s) => s.includes('FROM landings l JOIN sorties s')) ?? '';
  const landingsFloor = await timed(() => bare(connection, landingsSql), 5, 50);
  const { landingsOf } = await import('@/server/queries/checkout');
  const landings = await timed(() => landingsOf(id), 5, 50);
  console.log(`debrief query: landings ${landings.toFixed(2)} ms, bare ${landingsFloor.toFixed(2)} ms, ${(landings / landingsFloor).toFixed(2)} x floor; everything a debrief reads, judged and found, ${whole.toFixed(2)} ms in ${said.length} statements, bare ${floor.toFixed(2)} ms, ${(whole / floor).toFixed(2)} x floor`);
  await new Promise<void>((r) => connection.close(() => r()));
  await closeDatabase();

  const server = await startServer(folder);
  if (!cookie) {
    const { chromium } = await import('@playwright/test');
    const browser = await chromium.launch(CHROMIUM);
    const page = await browser.newPage({ baseURL: server.url });
    await page.goto('/sign-in');
    await page.getByLabel('E-mail').fill('helena@pedra-alva.example');
    await page.getByLabel('Password').fill('pedra-alva-2026');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.waitForURL('**/board');
    cookie = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ');
    await browser.close();
  }
  for (const view of ['debrief', 'progress', 'plan']) {
    const ms = await timed(async () => { const r = await fetch(`${server.url}/checkouts/${id}/${view}`, { headers: { cookie } }); await r.arrayBuffer(); if (r.status !== 200) throw new Error(`${view} answered ${r.status}`); }, 10, 50);
    first[view] ??= ms;
    console.log(`/checkouts/[id]/${view}`.padEnd(26), `${ms.toFixed(1)} ms, ${(ms / (first[view] ?? ms)).toFixed(2)} x the same at 1000`);
  }
  await server.stop();
}
rmSync(folder, { recursive: true, force: true });
