import type { Limitations } from '@/domain/book';
import { fixed } from '../format';
import { needNumbers } from '../guard';

/** What a flight is to be, as far as a limitation of a sign-off speaks of it. */
export interface LimitedFlight {
  dual: boolean;
  passengers: number;
  surfaces: readonly string[];
  /** Forecast across, gusts counted; null = not known so far ahead. */
  crosswindKt: number | null;
  /** Hours flown in the type since the sign-off. */
  hoursSince: number;
}

/** A limitation that forbids a flight: what of the booking it is about, and in words. */
export interface LimitationProblem {
  about: 'passengers' | 'surface' | 'crosswind';
  words: string;
}
/**
 * Limitations of a sign-off that forbid a flight. With an instructor on board none of them binds. A limit on
 * hours ends every other once they are flown. A forecast over the limit forbids; no forecast does not.
 */
export function limitationProblems(l: Limitations, flight: LimitedFlight): LimitationProblem[] {
  if (flight.dual || (l.untilHours !== null && flight.hoursSince >= l.untilHours)) return [];
  needNumbers('limitationProblems', { crosswindKt: l.crosswindKt, flight });
  const until =
    l.untilHours === null ? '' : ` until ${fixed(l.untilHours)} h; ${fixed(flight.hoursSince, 1)} h are flown`;
  const problems: LimitationProblem[] = [];
  const forbid = (about: LimitationProblem['about'], words: string) => problems.push({ about, words });
  if (l.alone && flight.passengers > 0) forbid('passengers', `signed alone on board${until}: take the passengers out`);
  else if (l.noPassengers && flight.passengers > 0)
    forbid('passengers', `signed without passengers${until}: take them out`);
  if (l.surface !== 'any' && !flight.surfaces.every((s) => s === l.surface))
    forbid('surface', `signed on ${l.surface} only${until}: choose such a runway`);
  if (l.crosswindKt !== null && flight.crosswindKt !== null && flight.crosswindKt > l.crosswindKt)
    forbid(
      'crosswind',
      `signed to ${fixed(l.crosswindKt)} kt across${until}: the forecast has ${fixed(flight.crosswindKt)}. Choose a calmer time`,
    );
  return problems;
}
