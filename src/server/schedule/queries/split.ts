import { type LearnedSplit, learnSplit, type Split, splitBooking } from '@/core/schedule';
import type { House } from '@/domain/programme';
import type { BookingKind } from '@/domain/schedule';
import type { Transaction } from 'sequelize';
import { Briefs, Checkouts, Sorties } from '../../checkout/tables';
import { Debriefs, SelfAssessments } from '../../debrief/tables';
import { derived } from '../../floor/derived';
import * as ask from '../../floor/statements/schedule';
import { Landings } from '../../fly/tables';
import { Types, TypeVersions } from '../../hangar/tables';

const LEARN_FROM = 200;
async function readLearnedSplit(typeCode: string, house: House, t?: Transaction): Promise<LearnedSplit> {
  const found = await ask.lessonTimes.all({ typeCode, most: LEARN_FROM }, t);
  const min = (a: string | null, b: string | null, less = 0) =>
    a === null || b === null ? null : Math.round((Date.parse(b) - Date.parse(a)) / 60_000) - less;
  const { schedule } = house;
  return learnSplit(
    found.map((f) => ({
      brief: min(f.briefed, f.acknowledged),
      prepare: min(f.acknowledged, f.first, house.circuitMin),
      flight: min(f.first, f.last, -house.circuitMin),
      debrief: min(f.told, f.debriefed),
    })),
    {
      brief: schedule.briefMin,
      prepare: schedule.prepareMin,
      flight: schedule.flightMin,
      debrief: schedule.debriefMin,
    },
  );
}
const keptSplit = derived({
  name: 'schedule.split',
  dependsOn: [Briefs, Landings, Debriefs, SelfAssessments, Sorties, Checkouts, Types, TypeVersions],
  key: (typeCode: string, house: House) => `${typeCode} ${JSON.stringify([house.circuitMin, house.schedule])}`,
  read: (typeCode: string, house: House) => readLearnedSplit(typeCode, house),
});
/**
 * What lessons of a type took so far: from the brief as saved to its acknowledgement, from there to the first circuit,
 * to the last landing, and from the pilot’s own word to the debrief as kept.
 */
export const learnedSplit = (typeCode: string, house: House, t?: Transaction): Promise<LearnedSplit> =>
  t ? readLearnedSplit(typeCode, house, t) : keptSplit(typeCode, house);

/** How a booking of a kind is spent: without an instructor there is neither brief nor debrief. */
export function splitOf(kind: BookingKind, minutes: number, learned: Split): Split {
  if (kind !== 'lesson') {
    const prepare = Math.min(learned.prepare, Math.floor(minutes / 3));
    return { brief: 0, prepare, flight: minutes - prepare, debrief: 0 };
  }
  return splitBooking(minutes, learned);
}
