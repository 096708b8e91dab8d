import type { FitSaid } from './schedule-words';
import { SLACK } from '../constants';
import { isNumber, needNumbers } from '../guard';
import type { Span } from './slots';

/** What a lesson asks of the wind. Knots across, gusts counted. */
export interface WindNeed {
  /** At least so much, for a lesson that is about wind; null = any, the less the better. */
  wantsKt: number | null;
  /** At most: the least of the pilot's step, the house, the instructor, the aeroplane, a limitation. */
  mostKt: number;
  /** Whose limit that is, in words. */
  mostOf: string;
  /** That limit is the pilot's own step in dual flight: half a knot over it is rounding, and no reason to cancel. */
  step?: boolean;
  /** Without an instructor: nothing is known of what this pilot holds in wind, so no wind is said to fit. */
  notProven?: boolean;
}
export interface WindAt {
  crosswindKt: number;
  runwayEnd: string;
  /** 1 = a forecast for these hours, less the further away, 0 = nothing known. */
  sureness: number;
}
export type FitWord = 'wanted' | 'fits' | 'light' | 'too-much' | 'unknown';
export interface WindFit {
  score: number;
  word: FitWord;
  said: FitSaid;
}
/** A forecast is whole knots: as much as this over a step is not known to be over it. */
const ROUNDING_KT = 0.5;
/** A slot of which nothing is known of the wind stands between a good one and a bad one. */
const UNKNOWN = 50;

/**
 * How well the wind of a slot suits a lesson, 0 to 100. A lesson about wind wants it, every other likes it calm; more
 * than the limit is never good.
 * @returns 0 to 100, a word, and the reason by code
 * @throws BadNumber when a number handed in is none
 * @example
 * windFit({ crosswindKt: 2, runwayEnd: '22', sureness: 1 }, { wantsKt: 6, mostKt: 10, mostOf: 'the step' })
 * // { score: 47, word: 'light', said: { code: 'light', params: { crosswindKt: 2, runwayEnd: '22',
 * // wantsKt: 6 } } }
 */
export function windFit(wind: WindAt | null, need: WindNeed): WindFit {
  needNumbers('windFit', { wants: need.wantsKt, most: need.mostKt });
  if (wind === null || !isNumber(wind.crosswindKt) || !(wind.sureness > 0) || !isNumber(wind.sureness))
    return { score: UNKNOWN, word: 'unknown', said: { code: 'no-forecast' } };
  const x = wind.crosswindKt;
  const at = { crosswindKt: x, runwayEnd: wind.runwayEnd };
  const mixed = (score: number) => Math.round(score * wind.sureness + UNKNOWN * (1 - wind.sureness));
  if (x > need.mostKt + (need.step ? ROUNDING_KT : SLACK)) {
    return {
      score: mixed(Math.max(0, 20 - 5 * (x - need.mostKt))),
      word: 'too-much',
      said: { code: 'over-limit', params: { ...at, limitKt: need.mostKt, limitOf: need.mostOf } },
    };
  }
  if (need.notProven) return { score: UNKNOWN, word: 'unknown', said: { code: 'not-proven', params: at } };
  if (need.wantsKt !== null) {
    if (x >= need.wantsKt - 0.5)
      return { score: mixed(100), word: 'wanted', said: { code: 'wanted', params: { ...at, wantsKt: need.wantsKt } } };
    return {
      score: mixed(30 + (50 * x) / Math.max(1, need.wantsKt)),
      word: 'light',
      said: { code: 'light', params: { ...at, wantsKt: need.wantsKt } },
    };
  }
  return { score: mixed(100 - (35 * x) / Math.max(1, need.mostKt)), word: 'fits', said: { code: 'fits', params: at } };
}

export interface RankedSlot extends Span {
  fit: WindFit;
}
/**
 * The best so many, well apart from each other; of two as good the earlier. In order of goodness.
 * @returns at most so many
 */
export function bestSlots<S extends RankedSlot>(slots: readonly S[], n = 3, apartMin = 120): S[] {
  const chosen: S[] = [];
  const ranked = [...slots].sort((a, b) => b.fit.score - a.fit.score || a.from.localeCompare(b.from));
  for (const s of ranked) {
    if (chosen.length === n) break;
    if (chosen.every((c) => Math.abs(Date.parse(c.from) - Date.parse(s.from)) >= apartMin * 60_000)) chosen.push(s);
  }
  return chosen;
}
