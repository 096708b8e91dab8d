import { median } from '../constants';
import { needNumbers } from '../guard';

/** How a booking is spent: brief on the ground, preparing, flying, debrief. Minutes. */
export interface Split {
  brief: number;
  prepare: number;
  flight: number;
  debrief: number;
}
export interface LearnedSplit extends Split {
  /** Lessons it was learned from; 0 = the house's usual. */
  lessons: number;
}
export const USUAL: Split = { brief: 15, prepare: 20, flight: 50, debrief: 20 };
/** Fewer lessons than this teach nothing. */
export const LEAST_LESSONS = 5;
const PARTS = ['brief', 'prepare', 'flight', 'debrief'] as const;

const to5 = (x: number): number => Math.max(5, Math.round(x / 5) * 5);

/**
 * Medians of what lessons really took, in steps of 5 min; the usual of a part that too few lessons tell of. @param
 * lessons minutes; null = not told
 * @returns min of each part, and of how many lessons
 * @example
 * learnSplit([{ brief: 10, prepare: 12, flight: 40, debrief: null }])
 * // { brief: 15, prepare: 20, flight: 50, debrief: 20, lessons: 0 }
 */
export function learnSplit(
  lessons: readonly { [K in keyof Split]: number | null }[],
  usual: Split = USUAL,
): LearnedSplit {
  const of = (part: keyof Split) =>
    lessons.flatMap((l) => (l[part] !== null && l[part] > 0 && l[part] < 300 ? [l[part]] : []));
  const learned = Object.fromEntries(
    PARTS.map((p) => {
      const xs = of(p);
      return [p, xs.length < LEAST_LESSONS ? usual[p] : to5(median(xs))];
    }),
  ) as unknown as Split;
  const told = Math.max(...PARTS.map((p) => of(p).length));
  return { ...learned, lessons: told < LEAST_LESSONS ? 0 : told };
}

/**
 * Minutes a lesson asks for, in quarters of an hour.
 * @returns min
 * @example bookingMinutes({ brief: 10, prepare: 15, flight: 60, debrief: 20 }) // 105
 */
export const bookingMinutes = (s: Split): number => Math.ceil((s.brief + s.prepare + s.flight + s.debrief) / 15) * 15;

/**
 * A booking of a length, split: the ground parts keep their medians and the flight has the rest; where that leaves less
 * than `leastFlight`, every part shrinks alike. The parts sum to the whole.
 * @returns min of each part
 * @throws BadNumber when a number handed in is none
 * @example
 * splitBooking(31, { brief: 6, prepare: 9, flight: 14, debrief: 6 })
 * // { brief: 5, prepare: 7, flight: 14, debrief: 5 }
 */
export function splitBooking(minutes: number, s: Split, leastFlight = 25): Split {
  needNumbers('splitBooking', { minutes, s, leastFlight });
  const ground = s.brief + s.prepare + s.debrief;
  if (minutes - ground >= leastFlight)
    return { brief: s.brief, prepare: s.prepare, flight: minutes - ground, debrief: s.debrief };
  const whole = ground + s.flight;
  const [brief, prepare, debrief] = [s.brief, s.prepare, s.debrief].map((x) => Math.floor((x * minutes) / whole)) as [
    number,
    number,
    number,
  ];
  return { brief, prepare, flight: minutes - brief - prepare - debrief, debrief };
}
