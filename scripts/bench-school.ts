/**
 * `npm run bench:school`: a school of 500 people with two years of flying, and one of twenty years. Recency of
 * everybody by every rule, read afresh, and the board,
 * as ratios to a floor measured in the same run: the same rows read bare for the one, the sign-in page for the other.
 */
import './lib/help.mjs';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { FIXED_NOW, seedFolder, signInCookie, startServer } from './lib/server';
import { grow } from './lib/grow';

process.env.JEITO_NOW = FIXED_NOW;
const median = (xs: number[]): number => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)] ?? NaN;
const folder = mkdtempSync(path.join(tmpdir(), 'jeito-school-'));
seedFolder(folder);
const PEOPLE = 500;
const FLOWN_EVERY_DAYS = 17;
await spread(folder);

process.env.JEITO_DATA = folder;
const { houseRules } = await import('@/server/people/queries/house-rules');
const { readStandings, everybodysStanding } = await import('@/server/people/queries/standings');
const { closeDatabase } = await import('@/server/floor/connection');
const { rows } = await import('./lib/raw');
const rules = await houseRules();
const time = async (n: number, f: () => Promise<unknown>): Promise<number[]> => {
  const seen: number[] = [];
  for (let i = 0; i < n; i++) {
    const started = performance.now();
    await f();
    seen.push(performance.now() - started);
  }
  return seen;
};
const bare = () =>
  rows(
    "SELECT l.pilot_id, l.flown_on, l.kind, l.surface, COUNT(*) AS n FROM landings l WHERE l.flown_on >= '2026-01-28' GROUP BY 1, 2, 3, 4",
  );
await time(3, bare);
const floor = median(await time(15, bare));
await time(3, () => readStandings(rules, '2026-11-24'));
const fresh = await time(15, () => readStandings(rules, '2026-11-24'));
const again = await time(15, () => readStandings(rules, '2026-11-24', true));
const kept = median(await time(15, () => everybodysStanding(rules, '2026-11-24')));
const all = await readStandings(rules, '2026-11-24');
console.log(
  `recency of ${all.length} people, ${all.reduce((a, p) => a + p.lapses.length, 0)} lines, ${(await rows<{ n: number }>('SELECT COUNT(*) AS n FROM landings'))[0]?.n ?? 0} landings: read afresh median ${median(fresh).toFixed(0)} ms, worst ${Math.max(...fresh).toFixed(0)} ms, ${(median(fresh) / floor).toFixed(1)} x floor (${floor.toFixed(0)} ms, the rows bare); every rule anew over flying that is kept: median ${median(again.slice(1)).toFixed(0)} ms, worst ${Math.max(...again.slice(1)).toFixed(0)} ms; unchanged since ${kept.toFixed(1)} ms`,
);
await closeDatabase();

// Twenty years: as many landings as a busy school flies.
const landings = await grow(folder, 120_000);
await age(folder);
const server = await startServer(folder);
try {
  for (const who of ['helena', 'bento', 'duarte']) {
    const cookie = await signInCookie(server.url, `${who}@pedra-alva.example`);
    const page = async (route: string, headers: Record<string, string>) => {
      const r = await fetch(server.url + route, { headers, redirect: 'manual' });
      await r.arrayBuffer();
      if (r.status !== 200) throw new Error(`${route} answered ${r.status}`);
    };
    const first = (await time(1, () => page('/board', { cookie })))[0] ?? NaN;
    await time(8, () => page('/board', { cookie }));
    const base = median(await time(30, () => page('/sign-in', {})));
    for (const route of ['/board', ...(who === 'duarte' ? [] : ['/people']), '/schedule']) {
      await time(5, () => page(route, { cookie }));
      const seen = await time(30, () => page(route, { cookie }));
      console.log(
        `${who} ${route.padEnd(10)} at ${landings} landings over twenty years, ${PEOPLE} people: median ${median(seen).toFixed(0)} ms, worst ${Math.max(...seen).toFixed(0)} ms, ${(median(seen) / base).toFixed(1)} x floor${route === '/board' ? `; the first after a start ${first.toFixed(0)} ms` : ''}`,
      );
    }
  }
} finally {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}

/** 500 pilots, each with landings every so many days over two years, copied in shape from the demo’s. */
async function spread(data: string): Promise<void> {
  await sql(
    data,
    `BEGIN;
    CREATE TEMP TABLE n(i INTEGER); WITH RECURSIVE s(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM s WHERE i < ${PEOPLE - 18}) INSERT INTO n SELECT i FROM s;
    CREATE TEMP TABLE d(k INTEGER); WITH RECURSIVE s(k) AS (SELECT 0 UNION ALL SELECT k + 1 FROM s WHERE k < ${Math.floor(730 / FLOWN_EVERY_DAYS)}) INSERT INTO d SELECT k FROM s;
    CREATE TEMP TABLE t AS SELECT c.* FROM checkouts c WHERE c.pilot_id = 'pilot-rui' LIMIT 1;
    INSERT INTO pilots (id, name, mass_kg, experience, hours, crosswind_credit, experience_since, created_at) SELECT 'many-' || i, 'Many ' || i, 80, '', 100, NULL, '{}', '2024-11-01' FROM n;
    INSERT INTO person_dates SELECT 'md-' || i, 'many-' || i, 'medical', 'Medical', NULL, date('2026-11-01', '+' || (i % 500) || ' days'), '', 'user-bento', '2026-01-01', 1, NULL FROM n;
    INSERT INTO qualifications (id, pilot_id, kind, gained_on, note) SELECT 'mq-' || i, 'many-' || i, 'single-engine-land', '2020-01-01', '' FROM n;
    INSERT INTO checkouts (id, pilot_id, instructor_id, airframe_id, airframe_version_id, type_version_id, pack, goals, programme_ids, standard_id, pack_id, house_id, schools, opening, note, status, request_id, created_by, created_at)
      SELECT 'many-c-' || i, 'many-' || i, instructor_id, airframe_id, airframe_version_id, type_version_id, pack, goals, programme_ids, standard_id, pack_id, house_id, schools, opening, note, 'signed', 'many-' || i, created_by, '2024-11-01' FROM t, n;
    INSERT INTO sorties (id, checkout_id, lesson, flown_on, instructor_id, created_at) SELECT 'many-s-' || i || '-' || k, 'many-c-' || i, k + 1, date('2026-11-20', '-' || (k * ${FLOWN_EVERY_DAYS} + i % 60) || ' days'), 'user-helena', '2024-11-01' FROM n, d;
    INSERT INTO landings (id, sortie_id, checkout_id, pilot_id, number, kind, landing_class, intended, gear_group, crosswind_kt, wind_age_min, flown_on, saved_at, author, captured, judged, surface, tailwheel, level, shown, ended_at)
      SELECT 'many-l-' || i || '-' || k || '-' || j, 'many-s-' || i || '-' || k, 'many-c-' || i, 'many-' || i, j, l.kind, l.landing_class, l.intended, l.gear_group, l.crosswind_kt, l.wind_age_min, s.flown_on, s.flown_on || 'T15:30:00.000Z', l.author, l.captured, l.judged, l.surface, l.tailwheel, 0, 0, s.flown_on || CASE WHEN k % 5 = 0 THEN 'T18:20:00.000Z' ELSE 'T11:30:00.000Z' END
      FROM n, d, (SELECT 1 AS j UNION ALL SELECT 2 UNION ALL SELECT 3) JOIN sorties s ON s.id = 'many-s-' || i || '-' || k JOIN (SELECT * FROM landings WHERE pilot_id = 'pilot-rui' AND kind = 'full-stop' LIMIT 1) l;
    COMMIT; ANALYZE;`,
  );
}
/** What was grown at one day is put back over twenty years. */
async function age(data: string): Promise<void> {
  await sql(
    data,
    `BEGIN; UPDATE sorties SET flown_on = date(flown_on, '-' || (abs(random()) % 7200) || ' days') WHERE id LIKE 'grown-%' AND checkout_id IN (SELECT id FROM checkouts WHERE status = 'signed'); UPDATE landings SET flown_on = (SELECT flown_on FROM sorties s WHERE s.id = landings.sortie_id) WHERE sortie_id LIKE 'grown-%'; COMMIT; ANALYZE;`,
  );
}
function sql(data: string, text: string): Promise<void> {
  const db = new sqlite3.Database(path.join(data, 'jeito.sqlite'));
  return new Promise((resolve, reject) => db.exec(text, (e) => db.close(() => (e ? reject(e) : resolve()))));
}
