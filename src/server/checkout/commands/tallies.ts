import type { Transaction } from 'sequelize';
import { type StageTally, stageMedians, stageTallies } from '@/core/assess';
import { nowIso } from '../../floor/clock';
import { write } from '../../floor/write';
import { log } from '../../floor/log';
import * as ask from '../../floor/statements/checkout';
import { Checkouts, SideTallies, StageMedians, StageTallies } from '../tables';

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
  const missing = await ask.refreshMissing.all();
  refreshLater(missing.map((m) => m.id));
  return missing.length;
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

async function refreshCheckout(id: string, t: Transaction): Promise<string | null> {
  const c = await Checkouts.first(
    { where: { id }, pick: ['pilotId', 'airframeId'], with: { airframe: { pick: [], with: { type: ['code'] } } } },
    t,
  );
  if (!c) return null;
  const landings = await ask.refreshCheckout.all({ id }, t);
  const { pilotId, airframeId } = c;
  const typeCode = c.airframe.type.code;
  await StageTallies.delete({ checkoutId: id }, t);
  await SideTallies.delete({ checkoutId: id }, t);
  for (const s of stageTallies(
    c.pilotId,
    landings.map((l) => ({ landingClass: l.landingClass, intervention: l.intervention })),
  ))
    await StageTallies.insert({ checkoutId: id, typeCode, ...s }, t);
  const byAuthor = new Map<string, { left: number; line: number; right: number; newest: string }>();
  for (const l of landings) {
    const side = sideOf(l);
    if (side === null || l.demonstration === 1 || (l.intervention ?? 0) >= 2) continue;
    const a = byAuthor.get(l.author) ?? { left: 0, line: 0, right: 0, newest: '' };
    byAuthor.set(l.author, a);
    a[side]++;
    if (l.flownOn > a.newest) a.newest = l.flownOn;
  }
  for (const [author, a] of byAuthor)
    await SideTallies.insert(
      { checkoutId: id, author, pilotId, airframeId, newest: a.newest, leftN: a.left, lineN: a.line, rightN: a.right },
      t,
    );
  return typeCode;
}

/** What the instructor's eye saw; a measured place says nothing of the eye. */
function sideOf(l: { lateral: string | null }): 'left' | 'line' | 'right' | null {
  return l.lateral === null ? null : l.lateral === 'line' ? 'line' : l.lateral.endsWith('left') ? 'left' : 'right';
}

async function refreshMedians(type: string, t: Transaction): Promise<void> {
  const tallies = await StageTallies.find(
    { where: { typeCode: type }, pick: ['pilotId', 'stage', 'landings', 'own', 'inStandard', 'partSum', 'partCount'] },
    t,
  );
  await StageMedians.delete({ typeCode: type }, t);
  for (const m of stageMedians(
    tallies.map((x): StageTally => ({
      pilotId: x.pilotId,
      stage: x.stage,
      landings: x.landings,
      own: x.own,
      inStandard: x.inStandard,
      partSum: x.partSum,
      partCount: x.partCount,
    })),
  ))
    await StageMedians.insert({ typeCode: type, ...m, refreshedAt: nowIso() }, t);
}
