import type { Transaction } from 'sequelize';
import type { BriefResult } from '@/core/approach';
import { usableEnds } from '@/core/approach';
import { dateText } from '@/core/format';
import { lampMeaning } from '@/core/water';
import { convertReference } from '@/core/wind';
import type { Stop, StopRules } from '@/domain/stops';
import type { House } from '@/domain/programme';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import { say } from '@/domain/words';
import { USER, toUser } from '../../floor/auth/session-user';
import { contentById } from '../../rules/content';
import { Users } from '../../account/tables';
import { groundings } from '../../hangar/queries/groundings';
import type { CheckoutHead } from '../../checkout/queries/head';
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

/** What the instructor of a flight lacks on a day, in words; empty = current and authorised for this aeroplane and goal. */
export async function instructorLacks(
  instructorId: string,
  head: CheckoutHead,
  onDate: string,
  t?: Transaction,
): Promise<{ name: string; lacks: string[]; unknown: string[]; holdsTo: string | null }> {
  const found = await Users.first({ where: { id: instructorId }, pick: USER }, t);
  if (!found) return { name: '', lacks: ['is not on record'], unknown: [], holdsTo: null };
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
    unknown: teach.certificateUntil === null ? ['the end of the certificate is not on record'] : [],
    holdsTo: teach.recency?.rules.flatMap((r) => r.validThrough ?? []).sort()[0] ?? null,
  };
}

/** Stops of a flight itself: who teaches it, and an aeroplane grounded at one of the moments given. */
export async function flightStops(
  head: CheckoutHead,
  sortie: { id: string; instructorId: string; flownOn: string },
  momentsMs: readonly number[],
  t?: Transaction,
): Promise<Stop[]> {
  const { name, lacks } = await instructorLacks(sortie.instructorId, head, sortie.flownOn, t);
  // A limit passed in this very flight grounds the next one: this one is flown home.
  const placed = (await groundings({ registration: head.registration }, t)).filter((g) => g.sortieId !== sortie.id);
  const during = placed.find((g) =>
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
