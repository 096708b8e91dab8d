import { isNight } from '@/core/sun';
import { localTime } from '@/core/format';
import { fuelToday, usableEnds } from '@/core/approach';
import { type LessonInput, attitudeOwned } from '@/core/plan';
import { wholeDaysSince } from '@/core/differences';
import { chooseRunway, components } from '@/core/wind';
import { forecastParts } from '../../weather/weather';
import type { Attitude } from '@/domain/words';
import { nowIso } from '../../floor/clock';
import { nextAerodrome } from '../../checkout/queries/where';
import type { CheckoutRecord } from '../../checkout/queries/record';
import { ladderOf } from '../../checkout/queries/ladder';
import { flownLessons } from '../../checkout/queries/stage';
import { type DebriefFacts, standing } from './debrief';
import { labOffer } from './lab';

export interface PlanSlot {
  key: string;
  name: string;
  crosswindKt: number;
  runwayEnd: string;
  gust: boolean;
  /** Begins in the dark, or ends in it: taken by who means to fly at night, and never proposed. */
  dark: boolean;
}
/** What a lesson is proposed from, and the parts of the station's forecast it could be flown in. */
export async function planFacts(
  record: CheckoutRecord,
  facts: DebriefFacts,
): Promise<{
  input: Omit<LessonInput, 'forecastKt' | 'bookingMin' | 'fuelMin'>;
  slots: PlanSlot[];
  firstSlot: string;
  bookingMin: number;
  fuelMin: number;
  fuelWords: string;
}> {
  const { head, house, items, sorties } = record;
  const now = nowIso();
  const aerodrome = await nextAerodrome(record, now);
  const ladder = await ladderOf(head.pilotId, head.sheet, now);
  const flown = [
    ...new Set(
      record.landings.flatMap((l) => (l.kind === 'full-stop' || l.kind === 'touch-and-go' ? (l.intended ?? []) : [])),
    ),
  ] as Attitude[];
  const lessons = flownLessons(record);
  const last = [...sorties].reverse().find((s) => lessons.has(s.lesson));
  const usable = usableEnds(aerodrome, head.sheet.surface);
  const usual = last?.brief?.choices.runwayEnd ?? null;
  const slots = forecastParts(aerodrome.ident, now).map((part, i): PlanSlot => {
    const chosen = chooseRunway(
      { windFromDeg: part.fromDeg, windKt: part.kt, gustKt: part.gustKt },
      { tailwindLimitKt: house.tailwindLimitKt, requiredLengthM: 0 },
      usable.map((e) => ({ id: e.ident, headingDeg: e.trueBearingDeg, lengthM: e.lengthM })),
    ).chosenId;
    const end =
      usable.find(
        (e) =>
          e.ident === usual &&
          components(part.fromDeg, part.kt, null, e.trueBearingDeg).headwindKt >= -house.tailwindLimitKt,
      ) ??
      usable.find((e) => e.ident === chosen) ??
      usable[0];
    const across = end ? components(part.fromDeg, part.kt, part.gustKt, end.trueBearingDeg) : null;
    return {
      key: String(i),
      name: `${localTime(part.fromIso, aerodrome.timeZone)} to ${localTime(part.toIso, aerodrome.timeZone)}`,
      crosswindKt: Math.abs(across?.gustCrosswindKt ?? across?.crosswindKt ?? 0),
      runwayEnd: end?.ident ?? '',
      gust: part.gustKt !== null,
      dark: [part.fromIso, part.toIso].some((at) => isNight(at, aerodrome, record.pack.night.logging)),
    };
  });
  const byDay = slots.some((s) => !s.dark) ? slots.filter((s) => !s.dark) : slots;
  const within = byDay.filter((s) => s.crosswindKt <= ladder.ladderKt);
  const first =
    [...within].sort((a, b) => b.crosswindKt - a.crosswindKt)[0] ??
    [...byDay].sort((a, b) => a.crosswindKt - b.crosswindKt)[0];
  const choices = [...sorties].reverse().find((s) => s.brief)?.brief?.choices;
  const room =
    head.sheet.masses.maxTakeoffKg.value -
    head.sheet.masses.emptyKg.value -
    head.pilotMassKg -
    (choices?.instructorKg ?? 80);
  const fuelL = choices?.fuelL ?? Math.max(0, Math.min(head.sheet.engine.usableFuelL.value, Math.floor(room / 0.72)));
  const fuel = fuelToday(
    head.sheet,
    house,
    { fuelL, night: choices?.night ?? false, bookingMin: choices?.bookingMin ?? house.bookingMin },
    [],
  );
  return {
    input: {
      items,
      findings: standing(facts.findings),
      labs: standing(facts.findings).flatMap((f) => labOffer(record, facts.landings, f) ?? []),
      firstLanding: head.schools['first-landing'] ?? head.sheet.landing.usualAttitude,
      wheelAllowed: head.sheet.landing.wheelLandings === 'allowed',
      flown,
      owned: flown.filter((a) => attitudeOwned(record.landings, a)),
      ladder: { provenKt: ladder.provenKt, ladderKt: ladder.ladderKt },
      groundMin: house.groundMin,
      circuitMin: house.circuitMin,
      lessonsFlown: lessons.size,
      daysAway: last ? wholeDaysSince(last.flownOn, now) : null,
    },
    slots,
    firstSlot: first?.key ?? '',
    bookingMin: choices?.bookingMin ?? house.bookingMin,
    fuelMin: Math.floor(fuel.endurance.usableMin),
    fuelWords: `${Math.round(fuelL)} L at ${Math.round(fuel.flowLPerH)} L/h${choices ? ', as last briefed' : ', what the mass allows'}`,
  };
}
