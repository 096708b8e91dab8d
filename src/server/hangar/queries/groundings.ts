import type { Transaction } from 'sequelize';
import type { GroundingKind } from '@/domain/stops';
import { LIMIT_NAME, type LimitChannel } from '@/domain/words';
import * as ask from '../../floor/statements/hangar';

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
  /** Of a limit passed: the flight it was passed in. */
  sortieId: string | null;
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

/** Why a limit passed holds an aeroplane. */
export const limitHeld = (channel: LimitChannel, traceId: string | null): string =>
  `${LIMIT_NAME[channel]} exceeded${traceId === null ? ', seen by eye,' : ''} and not released`;

/**
 * What holds aeroplanes on the ground, open or ended: findings of airworthiness, holds of the school, and limits passed.
 */
export async function groundings(
  of: { registration?: string; openOnly?: boolean } = {},
  t?: Transaction,
): Promise<Grounding[]> {
  const which = { registration: of.registration ?? null, openOnly: of.openOnly ? 1 : 0 };
  const placed = await ask.groundingsPlaced.all(which, t);
  const limits = await ask.limitsHolding.all(which, t);
  return [
    ...placed.map((g): Grounding => ({
      id: g.id,
      airframeId: g.airframeId,
      registration: g.registration,
      kind: g.kind,
      why: g.why,
      placedBy: g.placedBy,
      placedAt: g.placedAt,
      traceId: null,
      sortieId: null,
      ended: endOf({ ...g, at: g.endedAt, by: g.endedBy }),
    })),
    ...limits.map((l): Grounding => ({
      id: l.id,
      airframeId: l.airframeId,
      registration: l.registration,
      kind: 'limit',
      why: limitHeld(l.channel, l.traceId),
      placedBy: l.seenBy ?? '',
      placedAt: l.foundAt,
      traceId: l.traceId,
      sortieId: l.sortieId,
      ended: endOf({ ...l, at: l.endedAt, by: l.endedBy }),
    })),
  ];
}
