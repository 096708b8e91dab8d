import { usableEnds } from '@/core/approach';
import { gearMassGroup, schoolCrosswind } from '@/core/plan';
import type { WindAt, WindNeed } from '@/core/schedule';
import { chooseRunway, components, knownAlone } from '@/core/wind';
import type { House } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { Pilots } from '../../account/tables';
import { ladderOf } from '../../checkout/queries/ladder';
import type { CheckoutRecord } from '../../checkout/queries/record';
import type { CurrentUser } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { windOutlook } from '../../weather/weather';
import { derived } from '../../floor/derived';
import { Landings } from '../../fly/tables';
import type { SchoolFacts } from './day';

/** A pilot's own crosswind step in a gear-and-mass group on a day. */
const keptLadder = derived({
  name: 'schedule.ladder',
  dependsOn: [Landings, Pilots],
  key: (pilotId: string, sheet: TypeSheet, onDate: string) => `${pilotId} ${gearMassGroup(sheet)} ${onDate}`,
  read: (pilotId: string, sheet: TypeSheet, onDate: string) => ladderOf(pilotId, sheet, onDate),
});

/** Wind across on the runway that would be used, for a planned instant. */
export function windAtSlot(school: SchoolFacts, sheet: TypeSheet, at: string, surface: string = 'any'): WindAt | null {
  const wind = windOutlook(school.aerodrome.ident, nowIso(), at);
  if (wind === null) return null;
  const all = usableEnds(school.aerodrome, sheet.surface);
  const ends = surface === 'any' ? all : all.filter((e) => e.surface === surface);
  const chosen = chooseRunway(
    { windFromDeg: wind.fromDeg, windKt: wind.kt, gustKt: wind.gustKt },
    { tailwindLimitKt: sheet.crosswind.tailwindLimitKt?.value ?? school.house.tailwindLimitKt, requiredLengthM: 0 },
    ends.map((e) => ({ id: e.ident, headingDeg: e.trueBearingDeg, lengthM: e.lengthM })),
  ).chosenId;
  const end = ends.find((e) => e.ident === chosen) ?? ends[0];
  if (!end) return null;
  const across = components(wind.fromDeg, wind.kt, wind.gustKt, end.trueBearingDeg);
  return {
    crosswindKt: Math.abs(across.gustCrosswindKt ?? across.crosswindKt),
    runwayEnd: end.ident,
    sureness: wind.sureness,
  };
}

/** What the next lesson of a checkout asks of the wind: an open item about wind whose turn has come wants it. */
export async function lessonNeed(
  record: CheckoutRecord,
  instructor: Pick<CurrentUser, 'ownCrosswindKt'> | null,
  onDate: string,
  house: House,
): Promise<WindNeed> {
  const { head } = record;
  const ladder = await keptLadder(head.pilotId, head.sheet, onDate);
  const met = new Set(record.items.filter((i) => i.met).map((i) => i.item.id));
  const asked = record.items.flatMap(({ item, met: done, missing }) => {
    if (done || !item.prerequisites.every((p) => met.has(p))) return [];
    // A run gathers landings in any wind and asks for its wind once.
    const kt =
      item.evidence.kind === 'count'
        ? item.evidence.minCrosswindKt
        : item.evidence.kind === 'run'
          ? missing.some((m) => m.code === 'one-in-wind')
            ? item.evidence.windKt
            : null
          : (item.needsWindKt ?? null);
    return kt === null ? [] : [kt];
  });
  const flownSome = record.landings.length > 0;
  const rest = leastLimit([
    [schoolCrosswind(house.crosswindKt, gearMassGroup(head.sheet))?.kt ?? null, 'the school'],
    [instructor?.ownCrosswindKt ?? null, 'the instructor'],
  ]);
  const step = ladder.ladderKt < rest.mostKt;
  return {
    wantsKt: flownSome && asked.length > 0 ? Math.min(Math.max(...asked), ladder.ladderKt) : null,
    ...(step ? { mostKt: ladder.ladderKt, mostOf: 'the pilot’s step', step } : rest),
  };
}
/** What wind a flight without an instructor takes: what the pilot has proven in the group, and the school's limit. */
export async function aloneNeed(
  pilotId: string | null,
  sheet: TypeSheet,
  onDate: string,
  house: House,
): Promise<WindNeed> {
  const group = gearMassGroup(sheet);
  const school: [number | null, string] = [schoolCrosswind(house.crosswindKt, group)?.kt ?? null, 'the school'];
  if (pilotId === null) return { wantsKt: null, ...leastLimit([school]) };
  const ladder = await keptLadder(pilotId, sheet, onDate);
  return knownAlone(ladder)
    ? { wantsKt: null, ...leastLimit([[ladder.provenKt, 'what is proven'], school]) }
    : { wantsKt: null, ...leastLimit([school]), notProven: true };
}
/** The least of several limits, and whose it is. */
export function leastLimit(limits: readonly [number | null, string][]): { mostKt: number; mostOf: string } {
  let least: [number, string] = [99, 'no limit'];
  for (const [kt, of] of limits) if (kt !== null && kt < least[0]) least = [kt, of];
  return { mostKt: least[0], mostOf: least[1] };
}
