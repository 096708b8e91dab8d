import type { Transaction } from 'sequelize';
import { type StageTally, stageMedians, stageTallies } from '@/core/assess';
import { nowIso } from '../../floor/clock';
import { database, row, rows } from '../../floor/connection';
import { write } from '../../floor/write';
import { log } from '../../floor/log';

/**
 * Counts that pages read instead of every landing of the school: a pilot's stages, the school's medians, the sides an
 * instructor has seen. Refreshed after the commit that touched a checkout, in a write of its own; nothing is judged by
 * them and they can be rebuilt at any time.
 */
declare global {
  var __jeitoAggregates: { waiting: Set<string>; tail: Promise<void> } | undefined;
}
const state = () => (globalThis.__jeitoAggregates ??= { waiting: new Set(), tail: Promise.resolve() });

/** Asks for a refresh soon; checkouts asked for meanwhile are taken together. */
export function refreshLater(checkoutIds: readonly string[]): void {
  if (checkoutIds.length === 0) return;
  const s = state();
  const idle = s.waiting.size === 0;
  for (const id of checkoutIds) s.waiting.add(id);
  if (!idle) return;
  s.tail = s.tail
    .then(async () => {
      const ids = [...s.waiting];
      s.waiting.clear();
      await refreshAggregates(ids);
    })
    .catch((error: unknown) => log.warn({ error: String(error) }, 'aggregates not refreshed'));
}

/** Resolves when nothing waits to be refreshed. */
export async function aggregatesSettled(): Promise<void> {
  const s = state();
  while (s.waiting.size > 0) await s.tail;
  await s.tail;
}

/** Checkouts with landings and no counts: after an upgrade, or when a refresh was lost. */
export async function refreshMissing(): Promise<number> {
  const missing = await rows<{ id: string }>(
    'SELECT c.id FROM checkouts c WHERE EXISTS (SELECT 1 FROM landings l WHERE l.checkout_id = c.id) AND NOT EXISTS (SELECT 1 FROM stage_tallies s WHERE s.checkout_id = c.id) AND NOT EXISTS (SELECT 1 FROM side_tallies s WHERE s.checkout_id = c.id)',
  );
  refreshLater(missing.map((m) => m.id));
  return missing.length;
}

interface LandingCount {
  landing_class: string;
  intervention: number | null;
  lateral: string | null;
  demonstration: number;
  author: string;
  flown_on: string;
  saved_at: string;
}

export async function refreshAggregates(checkoutIds: readonly string[]): Promise<void> {
  await write(async (t) => {
    const types = new Set<string>();
    for (const id of checkoutIds) {
      const type = await refreshCheckout(id, t);
      if (type) types.add(type);
    }
    for (const type of types) await refreshMedians(type, t);
  });
}

const run = async (sql: string, replacements: Record<string, unknown>, t: Transaction): Promise<void> =>
  void (await database().sequelize.query(sql, { replacements, transaction: t }));

async function refreshCheckout(id: string, t: Transaction): Promise<string | null> {
  const c = await row<{ pilot_id: string; airframe_id: string; code: string }>(
    'SELECT c.pilot_id, c.airframe_id, ty.code FROM checkouts c JOIN airframes a ON a.id = c.airframe_id JOIN types ty ON ty.id = a.type_id WHERE c.id = :id',
    { id },
    t,
  );
  if (!c) return null;
  const landings = await rows<LandingCount>(
    `SELECT l.landing_class, json_extract(l.captured, '$.intervention') AS intervention, json_extract(l.captured, '$.lateral') AS lateral, json_extract(l.captured, '$.demonstration') AS demonstration, l.author, l.flown_on, l.saved_at
     FROM landings l JOIN sorties s ON s.id = l.sortie_id WHERE l.checkout_id = :id ORDER BY s.lesson, l.number`,
    { id },
    t,
  );
  await run('DELETE FROM stage_tallies WHERE checkout_id = :id', { id }, t);
  await run('DELETE FROM side_tallies WHERE checkout_id = :id', { id }, t);
  for (const s of stageTallies(
    c.pilot_id,
    landings.map((l) => ({ landingClass: l.landing_class, intervention: l.intervention })),
  )) {
    await run(
      'INSERT INTO stage_tallies (checkout_id, pilot_id, type_code, stage, landings, own, in_standard, part_sum, part_count) VALUES (:id, :pilot, :type, :stage, :landings, :own, :inStandard, :partSum, :partCount)',
      { id, pilot: c.pilot_id, type: c.code, ...s },
      t,
    );
  }
  const byAuthor = new Map<string, { left: number; line: number; right: number; newest: string }>();
  for (const l of landings) {
    const side = sideOf(l);
    if (side === null || l.demonstration === 1 || (l.intervention ?? 0) >= 2) continue;
    const a = byAuthor.get(l.author) ?? { left: 0, line: 0, right: 0, newest: '' };
    byAuthor.set(l.author, a);
    a[side]++;
    if (l.flown_on > a.newest) a.newest = l.flown_on;
  }
  for (const [author, a] of byAuthor)
    await run(
      'INSERT INTO side_tallies (checkout_id, author, pilot_id, airframe_id, newest, left_n, line_n, right_n) VALUES (:id, :author, :pilot, :airframe, :newest, :left, :line, :right)',
      { id, author, pilot: c.pilot_id, airframe: c.airframe_id, ...a },
      t,
    );
  return c.code;
}

/** What the instructor's eye saw; a measured place says nothing of the eye. */
function sideOf(l: Pick<LandingCount, 'lateral'>): 'left' | 'line' | 'right' | null {
  return l.lateral === null ? null : l.lateral === 'line' ? 'line' : l.lateral.endsWith('left') ? 'left' : 'right';
}

async function refreshMedians(type: string, t: Transaction): Promise<void> {
  const tallies = await rows<{
    pilot_id: string;
    stage: number;
    landings: number;
    own: number;
    in_standard: number;
    part_sum: number;
    part_count: number;
  }>(
    'SELECT pilot_id, stage, landings, own, in_standard, part_sum, part_count FROM stage_tallies WHERE type_code = :type',
    { type },
    t,
  );
  await run('DELETE FROM stage_medians WHERE type_code = :type', { type }, t);
  for (const m of stageMedians(
    tallies.map((x): StageTally => ({
      pilotId: x.pilot_id,
      stage: x.stage,
      landings: x.landings,
      own: x.own,
      inStandard: x.in_standard,
      partSum: x.part_sum,
      partCount: x.part_count,
    })),
  )) {
    await run(
      'INSERT INTO stage_medians (type_code, stage, pilots, own, in_standard, part, refreshed_at) VALUES (:type, :stage, :pilots, :own, :inStandard, :part, :at)',
      { type, ...m, at: nowIso() },
      t,
    );
  }
}
