/**
 * How often what was flown: one function counts, and every page, card, file and signed entry takes its numbers from it.
 * A go-around or a low pass is no landing, a demonstration is the instructor's.
 */
import { needNumbers } from '../guard';
import { list, plural } from '../format';

/** Something recorded, or so many alike. */
export interface Flown {
  kind: string;
  demonstration: boolean;
  times?: number;
}
export interface FlownCount {
  /** Full stops and touch-and-goes of the pilot. */
  landings: number;
  fullStops: number;
  touchAndGos: number;
  goArounds: number;
  lowPasses: number;
  demonstrations: number;
}

/**
 * Counts what was flown, each kind apart.
 * @param flown in any order; `times` a whole number, absent = once
 * @returns landings, full stops, touch-and-goes, go-arounds, low passes and demonstrations
 * @throws BadNumber when a number handed in is none
 * @example countFlown([{ kind: 'full-stop', demonstration: false }, { kind: 'go-around', demonstration: false }]).landings // 1
 */
export function countFlown(flown: readonly Flown[]): FlownCount {
  const count: FlownCount = {
    landings: 0,
    fullStops: 0,
    touchAndGos: 0,
    goArounds: 0,
    lowPasses: 0,
    demonstrations: 0,
  };
  for (const { kind, demonstration, times = 1 } of flown) {
    needNumbers('countFlown', { times });
    if (demonstration) count.demonstrations += times;
    else if (kind === 'go-around') count.goArounds += times;
    else if (kind === 'low-pass') count.lowPasses += times;
    else {
      count.landings += times;
      if (kind === 'full-stop') count.fullStops += times;
      else count.touchAndGos += times;
    }
  }
  return count;
}

/**
 * A count in words, each kind named and none of nothing.
 * @returns such as `3 landings, 1 go-around`
 * @example flownWords({ landings: 45, fullStops: 40, touchAndGos: 5, goArounds: 5, lowPasses: 0, demonstrations: 0 })
 * // '40 full stops, 5 touch-and-goes and 5 go-arounds'
 */
export function flownWords(c: Omit<FlownCount, 'landings'>): string {
  const part = (n: number, one: string, many?: string): string[] => (n === 0 ? [] : [plural(n, one, many)]);
  const parts = [
    ...part(c.fullStops, 'full stop'),
    ...part(c.touchAndGos, 'touch-and-go', 'touch-and-goes'),
    ...part(c.goArounds, 'go-around'),
    ...part(c.lowPasses, 'low pass', 'low passes'),
    ...part(c.demonstrations, 'demonstration by the instructor', 'demonstrations by the instructor'),
  ];
  return parts.length === 0 ? 'no landing' : list(parts);
}
