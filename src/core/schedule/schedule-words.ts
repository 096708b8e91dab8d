/** The catalogue of the schedule: what a limitation forbids, how the wind of a slot suits a lesson. */
import { type Coded, sentence } from '@/domain/coded';
import { besideLimit, fixed } from '../format';

/** Until when a limitation binds; null = for good. */
export interface UntilHours {
  untilHours: number;
  flownHours: number;
}
interface Bound {
  until: UntilHours | null;
}
const untilWords = (u: UntilHours | null): string =>
  u === null
    ? ''
    : ` until ${fixed(u.untilHours, Number.isInteger(u.untilHours) ? 0 : 1)} h; ${fixed(u.flownHours, 1)} h are flown`;

export const LIMITATION_WORDS = {
  solo: ({ until }: Bound) => `signed as sole occupant only${untilWords(until)}: remove the passengers`,
  'no-passengers': ({ until }: Bound) => `signed without passengers${untilWords(until)}: remove them`,
  surface: ({ surface, until }: Bound & { surface: string }) =>
    `signed on ${surface} only${untilWords(until)}: choose such a runway`,
  crosswind: ({ limitKt, forecastKt, until }: Bound & { limitKt: number; forecastKt: number }) => {
    const [limit = '', forecast = ''] = besideLimit(limitKt, forecastKt);
    return `signed for a crosswind of up to ${limit} kt${untilWords(until)}: the forecast has ${forecast} kt. Choose a calmer time`;
  },
};
/** A limitation that forbids a flight. */
export type LimitationProblem = Coded<typeof LIMITATION_WORDS>;
export const limitationWords = (p: LimitationProblem): string => sentence(LIMITATION_WORDS, p);

interface Wind {
  crosswindKt: number;
  runwayEnd: string;
}
const windWords = ({ crosswindKt, runwayEnd }: Wind): string => `crosswind ${fixed(crosswindKt)} kt on ${runwayEnd}`;
export const FIT_WORDS = {
  'no-forecast': () => 'too far ahead for a forecast',
  'over-limit': ({ limitKt, limitOf, ...wind }: Wind & { limitKt: number; limitOf: string }) => {
    const [limit = '', across = ''] = besideLimit(limitKt, wind.crosswindKt);
    return `crosswind ${across} kt on ${wind.runwayEnd}, over the ${limit} kt of ${limitOf}`;
  },
  'not-proven': (wind: Wind) => `${windWords(wind)}; none on record for this pilot without an instructor`,
  wanted: ({ wantsKt, ...wind }: Wind & { wantsKt: number }) =>
    `${windWords(wind)}: the lesson needs ${fixed(wantsKt)} kt`,
  light: ({ wantsKt, ...wind }: Wind & { wantsKt: number }) =>
    `${windWords(wind)}, less than the ${fixed(wantsKt)} kt the lesson needs`,
  fits: windWords,
};
export type FitSaid = Coded<typeof FIT_WORDS>;
export const fitWords = (said: FitSaid): string => sentence(FIT_WORDS, said);
