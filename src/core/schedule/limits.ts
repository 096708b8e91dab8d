import type { Limitations } from '@/domain/ledger';
import { needNumbers } from '../guard';
import type { LimitationProblem } from './schedule-words';

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

/**
 * Limitations of a sign-off that forbid a flight. With an instructor on board none of them binds. A limit on
 * hours ends every other once they are flown. A forecast over the limit forbids; no forecast does not.
 * @returns one code a limitation
 * @throws BadNumber when a number handed in is none
 * @example
 * limitationProblems({ alone: false, noPassengers: false, crosswindKt: 8, attitude: 'any', surface: 'any',
 * untilHours: 2.1 }, { dual: false, passengers: 1, surfaces: ['asphalt', 'grass'], crosswindKt: 9,
 * hoursSince: 2 })
 * // [{ code: 'crosswind', params: { limitKt: 8, forecastKt: 9, until: { untilHours: 2.1, flownHours: 2 } } }]
 */
export function limitationProblems(l: Limitations, flight: LimitedFlight): LimitationProblem[] {
  if (flight.dual || (l.untilHours !== null && flight.hoursSince >= l.untilHours)) return [];
  needNumbers('limitationProblems', { crosswindKt: l.crosswindKt, flight });
  const until = l.untilHours === null ? null : { untilHours: l.untilHours, flownHours: flight.hoursSince };
  const problems: LimitationProblem[] = [];
  if (flight.passengers > 0 && (l.alone || l.noPassengers))
    problems.push({ code: l.alone ? 'solo' : 'no-passengers', params: { until } });
  if (l.surface !== 'any' && !flight.surfaces.every((s) => s === l.surface))
    problems.push({ code: 'surface', params: { surface: l.surface, until } });
  if (l.crosswindKt !== null && flight.crosswindKt !== null && flight.crosswindKt > l.crosswindKt)
    problems.push({
      code: 'crosswind',
      params: { limitKt: l.crosswindKt, forecastKt: flight.crosswindKt, until },
    });
  return problems;
}
