/**
 * Grows a seeded school to so many landings by copying one pilot's checkout, events and landings under new names. Plain
 * SQL in a file of its own: this is for measuring, never for use.
 */
import path from 'node:path';
import sqlite3 from 'sqlite3';

const TEMPLATE = 'pilot-rui';
const SERIES = (from: number, to: number) =>
  `WITH RECURSIVE n(i) AS (SELECT ${from} UNION ALL SELECT i + 1 FROM n WHERE i < ${to})`;

export function grow(dataFolder: string, landings: number): Promise<number> {
  const db = new sqlite3.Database(path.join(dataFolder, 'jeito.sqlite'));
  const run = (sql: string) => new Promise<void>((resolve, reject) => db.exec(sql, (e) => (e ? reject(e) : resolve())));
  const one = <T>(sql: string) =>
    new Promise<T>((resolve, reject) => db.get(sql, (e, r) => (e ? reject(e) : resolve(r as T))));
  return (async () => {
    await run(
      'PRAGMA journal_mode = WAL; PRAGMA synchronous = OFF; PRAGMA temp_store = MEMORY; PRAGMA cache_size = -200000;',
    );
    const now = await one<{ n: number }>('SELECT COUNT(*) AS n FROM landings');
    const template = await one<{ id: string; n: number }>(
      `SELECT c.id, (SELECT COUNT(*) FROM landings l WHERE l.checkout_id = c.id) AS n FROM checkouts c WHERE c.pilot_id = '${TEMPLATE}' LIMIT 1`,
    );
    const known = await one<{ n: number }>("SELECT COUNT(*) AS n FROM pilots WHERE id LIKE 'grown-%'");
    const more = Math.max(0, Math.ceil((landings - now.n) / template.n));
    if (more > 0) {
      const series = SERIES(known.n + 1, known.n + more);
      const c = `c.id = '${template.id}'`;
      await run(`BEGIN;
        INSERT INTO pilots (id, name, mass_kg, experience, hours, crosswind_credit, experience_since, created_at) ${series} SELECT 'grown-' || i, 'Grown ' || i, mass_kg, experience, hours, crosswind_credit, experience_since, created_at FROM pilots p, n WHERE p.id = '${TEMPLATE}';
        INSERT INTO checkouts (id, pilot_id, instructor_id, airframe_id, airframe_version_id, type_version_id, pack, goals, programme_ids, standard_id, pack_id, house_id, schools, opening, note, status, signed_ledger_id, request_id, created_by, created_at)
          ${series} SELECT 'grown-c-' || i, 'grown-' || i, instructor_id, airframe_id, airframe_version_id, type_version_id, pack, goals, programme_ids, standard_id, pack_id, house_id, schools, opening, note, CASE WHEN i <= 10 THEN 'open' ELSE 'signed' END, NULL, 'grown-' || i, created_by, created_at FROM checkouts c, n WHERE ${c};
        INSERT INTO sorties (id, checkout_id, lesson, flown_on, instructor_id, created_at) ${series} SELECT 'grown-s-' || i || '-' || s.lesson, 'grown-c-' || i, s.lesson, s.flown_on, s.instructor_id, s.created_at FROM sorties s JOIN checkouts c ON c.id = s.checkout_id, n WHERE ${c};
        INSERT INTO landings (id, sortie_id, checkout_id, pilot_id, number, kind, landing_class, intended, gear_group, crosswind_kt, wind_age_min, flown_on, saved_at, author, captured, judged, surface, tailwheel, measured, level, shown, ended_at)
          ${series} SELECT l.id || '-' || i, 'grown-s-' || i || '-' || s.lesson, 'grown-c-' || i, 'grown-' || i, l.number, l.kind, l.landing_class, l.intended, l.gear_group, l.crosswind_kt, l.wind_age_min, l.flown_on, l.saved_at, l.author, l.captured, l.judged, l.surface, l.tailwheel, l.measured, l.level, l.shown, l.ended_at FROM landings l JOIN sorties s ON s.id = l.sortie_id, n WHERE l.checkout_id = '${template.id}';
        INSERT INTO capture_events (event_id, device_id, device_seq, sortie_id, subject_id, author, type, v, device_time, payload, received_at, skew_ms)
          ${series} SELECT e.event_id || '-' || i, e.device_id || '-' || i, e.device_seq, 'grown-s-' || i || '-' || s.lesson, e.subject_id || '-' || i, e.author, e.type, e.v, e.device_time, e.payload, e.received_at, e.skew_ms FROM capture_events e JOIN sorties s ON s.id = e.sortie_id, n WHERE s.checkout_id = '${template.id}' AND e.type = 'landing-saved';
        INSERT INTO stage_tallies ${series} SELECT 'grown-c-' || i, 'grown-' || i, type_code, stage, landings, own, in_standard, part_sum, part_count FROM stage_tallies t, n WHERE t.checkout_id = '${template.id}';
        INSERT INTO side_tallies ${series} SELECT 'grown-c-' || i, author, 'grown-' || i, airframe_id, newest, left_n, line_n, right_n FROM side_tallies t, n WHERE t.checkout_id = '${template.id}';
        COMMIT; ANALYZE;`);
    }
    const after = await one<{ n: number }>('SELECT COUNT(*) AS n FROM landings');
    await new Promise<void>((resolve, reject) => db.close((e) => (e ? reject(e) : resolve())));
    return after.n;
  })();
}
