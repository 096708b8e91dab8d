import type { Transaction } from 'sequelize';
import type { GroundingKind } from '@/domain/stops';
import { LIMIT_NAME, type LimitChannel } from '@/domain/words';
import { rows } from '../../floor/connection';

export interface Grounding {
  id: string;
  airframeId: string;
  registration: string;
  kind: GroundingKind | 'limit';
  why: string;
  placedBy: string;
  placedAt: string;
  /** Of a limit passed: where it is seen and released. */
  traceId: string | null;
  ended: GroundingEnd | null;
}
export interface GroundingEnd {
  by: string;
  at: string;
  done: string;
  certifier: string | null;
  certificate: string | null;
}
/** The end of a grounding, or of a limit passed, as its row holds it; null = it is open. */
export const endOf = (r: {
  at: string | null;
  by: string | null;
  done: string | null;
  certifier: string | null;
  certificate: string | null;
}): GroundingEnd | null =>
  r.at === null
    ? null
    : { by: r.by ?? '', at: r.at, done: r.done ?? '', certifier: r.certifier, certificate: r.certificate };

/**
 * What holds aeroplanes on the ground, open or ended: findings of airworthiness, holds of the school, and limits passed.
 */
export async function groundings(
  of: { registration?: string; openOnly?: boolean } = {},
  t?: Transaction,
): Promise<Grounding[]> {
  const which = of.registration ? 'AND a.registration = :registration' : '';
  const placed = await rows<{
    id: string;
    airframe_id: string;
    registration: string;
    kind: GroundingKind;
    why: string;
    placed_at: string;
    placed_by: string;
    ended_at: string | null;
    ended_by: string | null;
    done: string | null;
    certifier: string | null;
    certificate: string | null;
  }>(
    `SELECT g.id, g.airframe_id, a.registration, g.kind, g.why, g.placed_at, p.name AS placed_by, e.ended_at, u.name AS ended_by, e.done, e.certifier, e.certificate
     FROM groundings g JOIN airframes a ON a.id = g.airframe_id JOIN users p ON p.id = g.placed_by LEFT JOIN grounding_ends e ON e.grounding_id = g.id LEFT JOIN users u ON u.id = e.ended_by
     WHERE 1 = 1 ${which} ${of.openOnly ? 'AND e.id IS NULL' : ''} ORDER BY g.placed_at DESC`,
    of,
    t,
  );
  const limits = await rows<{
    id: string;
    airframe_id: string;
    registration: string;
    channel: LimitChannel;
    trace_id: string;
    found_at: string;
    released_at: string | null;
    released_by: string | null;
    done: string | null;
    certifier: string | null;
    certificate: string | null;
  }>(
    `SELECT x.id, x.airframe_id, a.registration, x.channel, x.trace_id, x.found_at, r.released_at, u.name AS released_by, r.done, r.certifier, r.certificate
     FROM exceedances x JOIN airframes a ON a.id = x.airframe_id LEFT JOIN exceedance_releases r ON r.exceedance_id = x.id LEFT JOIN users u ON u.id = r.released_by
     WHERE 1 = 1 ${which} ${of.openOnly ? 'AND r.id IS NULL' : ''} ORDER BY x.found_at DESC`,
    of,
    t,
  );
  return [
    ...placed.map((g): Grounding => ({
      id: g.id,
      airframeId: g.airframe_id,
      registration: g.registration,
      kind: g.kind,
      why: g.why,
      placedBy: g.placed_by,
      placedAt: g.placed_at,
      traceId: null,
      ended: endOf({ ...g, at: g.ended_at, by: g.ended_by }),
    })),
    ...limits.map((l): Grounding => ({
      id: l.id,
      airframeId: l.airframe_id,
      registration: l.registration,
      kind: 'limit',
      why: `${LIMIT_NAME[l.channel]} passed and not released`,
      placedBy: '',
      placedAt: l.found_at,
      traceId: l.trace_id,
      ended: endOf({ ...l, at: l.released_at, by: l.released_by }),
    })),
  ];
}
