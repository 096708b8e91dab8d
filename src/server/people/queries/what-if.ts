import { type Lapse, lapsesOf, loggedEvents } from '@/core/recency';
import { houseRules } from './house-rules';
import { personFacts, personType } from './person';

export interface PlannedFlight {
  flownOn: string;
  typeCode: string;
  landings: number;
  fullStops: number;
  night: boolean;
  surface: 'land' | 'water';
}
/** What one pilot would have on a day after flying what is planned, beside what they have without. */
export async function whatIfOf(
  pilotId: string,
  planned: readonly PlannedFlight[],
  onDate: string,
): Promise<{ before: Lapse[]; after: Lapse[] } | null> {
  const rules = await houseRules();
  const person = await personFacts(pilotId, rules, onDate);
  if (!person) return null;
  const events = planned.flatMap((p, i) => {
    const t = rules.types.get(p.typeCode);
    return t
      ? loggedEvents(
          {
            id: `planned-${i}`,
            date: p.flownOn,
            takeoffs: p.landings,
            landings: p.landings,
            fullStops: p.fullStops,
            night: p.night,
            surface: p.surface,
          },
          { typeCode: p.typeCode, engines: t.sheet.engine.count, tailwheel: t.sheet.gear.layout === 'tailwheel' },
        )
      : [];
  });
  const known = new Set(person.types.map((t) => t.code));
  const extra = [...new Set(planned.map((p) => p.typeCode))]
    .filter((c) => !known.has(c))
    .flatMap((c) => personType(c, rules, [], []) ?? []);
  const with_ = { ...person, types: [...person.types, ...extra] };
  return {
    before: lapsesOf(person, rules.rulebook, onDate),
    after: lapsesOf({ ...with_, events: [...person.events, ...events] }, rules.rulebook, onDate),
  };
}
