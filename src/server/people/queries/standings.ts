import { addDays, firstLapse, type Lapse, lapsesOf, standingOf } from '@/core/recency';
import type { Role } from '@/domain/words';
import { Pilots } from '../../account/tables';
import { derived } from '../../floor/derived';
import * as ask from '../../floor/statements/people';
import { LedgerEntries } from '../../ledger/tables';
import { PersonDates, PilotHours as EnteredHours, Qualifications } from '../tables';
import { FLYING_TABLES, flyingKept, flyingSince } from './flying';
import type { HouseRules } from './house-rules';
import { READ_DAYS, TYPES_KEPT_DAYS } from './person';
import { aroundFlying, personOf } from './person';

export interface PersonStanding {
  pilotId: string;
  name: string;
  userId: string | null;
  roles: Role[];
  hours: number;
  lapses: Lapse[];
  standing: ReturnType<typeof standingOf>;
  first: Lapse | null;
  lastFlown: string | null;
}
/** What everybody's recent experience is read from. */
export const STANDING_TABLES = [...FLYING_TABLES, Pilots, EnteredHours, Qualifications, PersonDates, LedgerEntries];
/** Everybody's recent experience on a day, read once until something it rests on moves. */
export const everybodysStanding = derived({
  name: 'people.standings',
  dependsOn: STANDING_TABLES,
  key: (_rules: HouseRules, onDate: string) => onDate,
  most: 12,
  read: (rules: HouseRules, onDate: string) => readStandings(rules, onDate, true),
});

/** The same, every rule asked anew; with the flying read afresh, or as it is kept. */
export async function readStandings(rules: HouseRules, onDate: string, keptFlying = false): Promise<PersonStanding[]> {
  const since = addDays(onDate, -READ_DAYS);
  const [pilots, flown, around] = await Promise.all([
    ask.readStandings.all(),
    (keptFlying ? flyingKept : flyingSince)(since, rules.pack.night.recency),
    aroundFlying(null, addDays(onDate, -TYPES_KEPT_DAYS)),
  ]);
  return pilots.map((p): PersonStanding => {
    const all = flown.get(p.id) ?? [];
    const events = (all[0]?.date ?? since) < since ? all.filter((e) => e.date >= since) : all;
    const lapses = lapsesOf(personOf(p.id, events, around, rules), rules.rulebook, onDate);
    const last = events.filter((e) => e.date <= onDate).at(-1)?.date ?? null;
    return {
      pilotId: p.id,
      name: p.name,
      userId: p.userId,
      roles: p.roles ?? [],
      hours: p.hours,
      lapses,
      standing: standingOf(lapses),
      first: firstLapse(lapses),
      lastFlown: last,
    };
  });
}
