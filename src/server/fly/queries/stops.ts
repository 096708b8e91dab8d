import type { Transaction } from 'sequelize';
import type { BriefResult } from '@/core/approach';
import { usableEnds } from '@/core/approach';
import { dateText } from '@/core/format';
import { lampMeaning } from '@/core/water';
import { convertReference } from '@/core/wind';
import type { GroundingKind, Stop, StopRules } from '@/domain/stops';
import type { House } from '@/domain/programme';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import { LIMIT_NAME, type LimitChannel, say } from '@/domain/words';
import { toUser, type UserRow } from '../../floor/auth/session-user';
import { contentById } from '../../rules/content';
import { row, rows } from '../../floor/connection';
import type { CheckoutHead } from '../../checkout/queries/checkout';
import { teachState } from '../../people/queries/recency';

/** What one flight is held against: the sheet, the house and the limits as they were briefed. */
export function stopRules(
  sheet: TypeSheet,
  house: House,
  aerodrome: Aerodrome,
  snapshot: Pick<BriefResult, 'limits'> | null,
  schoolOverridden: boolean,
): StopRules {
  const sheetTail = sheet.crosswind.tailwindLimitKt;
  return {
    elevationFt: aerodrome.elevationFt,
    failureFloorFt: house.failureFloorFt,
    demonstrationFt: house.demonstrationFt,
    energyFloorFt: house.energyFloorFt,
    twin: sheet.twin ? { vsse: sheet.twin.vsse.value, vmca: sheet.twin.vmca.value } : null,
    // An amphibian whose sheet has no lamps cannot be checked, and that is not agreement.
    lamps: sheet.surface === 'amphibian' ? lampMeaning(sheet.gear.lamps) : null,
    runways: usableEnds(aerodrome, 'amphibian').map((e) => ({
      ident: e.ident,
      magneticDeg: convertReference(e.trueBearingDeg, 'true', 'magnetic', aerodrome.variationDeg),
      surface: e.surface,
    })),
    limits: snapshot?.limits ?? [],
    tailwind: sheetTail
      ? { valueKt: sheetTail.value, kind: 'limitation', source: sheetTail.ref }
      : { valueKt: house.tailwindLimitKt, kind: 'house', source: house.reference },
    gustSpreadKt: house.gustSpreadLimitKt,
    schoolOverridden,
  };
}

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

/** What the instructor of a flight lacks on a day, in words; empty = current and authorised for this aeroplane and goal. */
export async function instructorLacks(
  instructorId: string,
  head: CheckoutHead,
  onDate: string,
  t?: Transaction,
): Promise<{ name: string; lacks: string[]; unknown: string[]; holdsTo: string | null }> {
  const found = await row<UserRow>('SELECT * FROM users WHERE id = :instructorId', { instructorId }, t);
  if (!found) return { name: '', lacks: ['is not in the book of people'], unknown: [], holdsTo: null };
  const user = toUser(found);
  const teach = await teachState(
    user,
    {
      sheet: head.sheet,
      pack: await contentById('pack', head.packId, t),
      house: await contentById('house', head.houseId, t),
      goals: head.goals,
    },
    onDate,
    t,
  );
  const unauthorised = head.goals.filter((g) => !user.authorised.includes(g));
  return {
    name: user.name,
    lacks: [
      ...(unauthorised.length > 0 ? [`not authorised for ${unauthorised.map(say).join(', ')}`] : []),
      ...(teach.lacks.length > 0 ? [`does not hold ${teach.lacks.map(say).join(', ')}`] : []),
      ...teach.notRecent.map((r) => `out of recency, ${r.restore} restore it (${r.citation})`),
      ...(teach.certificateUntil !== null && teach.certificateUntil < onDate
        ? [`certificate ended ${dateText(teach.certificateUntil)}`]
        : []),
      ...(teach.modelHours && teach.modelHours.have < teach.modelHours.needed
        ? [
            `${Math.floor(teach.modelHours.have * 10) / 10} of ${teach.modelHours.needed} h in the model (${teach.modelHours.citation})`,
          ]
        : []),
    ],
    unknown: teach.certificateUntil === null ? ['the end of the certificate is not in the book of people'] : [],
    holdsTo: teach.recency?.rules.flatMap((r) => r.validThrough ?? []).sort()[0] ?? null,
  };
}

/** Stops of a flight itself: who teaches it, and an aeroplane grounded at one of the moments given. */
export async function flightStops(
  head: CheckoutHead,
  sortie: { instructorId: string; flownOn: string },
  momentsMs: readonly number[],
  t?: Transaction,
): Promise<Stop[]> {
  const { name, lacks } = await instructorLacks(sortie.instructorId, head, sortie.flownOn, t);
  const during = (await groundings({ registration: head.registration }, t)).find((g) =>
    momentsMs.some((ms) => ms >= Date.parse(g.placedAt) && (g.ended === null || ms < Date.parse(g.ended.at))),
  );
  return [
    ...(during
      ? [
          {
            code: 'grounded' as const,
            facts: { registration: head.registration, why: during.why, since: during.placedAt },
          },
        ]
      : []),
    ...(lacks.length > 0 ? [{ code: 'instructor' as const, facts: { name, reasons: lacks } }] : []),
  ];
}
