/**
 * How many more landings to the bar, honestly: a logistic learning curve on ln(landing number) with a weak prior, and a
 * parametric bootstrap. Method: maximum a posteriori by Newton steps; each bootstrap draw flies the record again from
 * the fitted curve, fits it anew and then flies on to the bar.
 */
import { coder } from '@/domain/coded';
import { seeded } from '../random';
import { FORECAST_WORDS, type ForecastSilence } from './forecast-words';

export interface ForecastInput {
  /** Judged landings that count, oldest first: was it the pilot's own and in standard? */
  own: readonly boolean[];
  /** Landings in a row the programme asks for, and the run at the end of the record. */
  needed: number;
  currentRun: number;
  /** Landings of an ordinary lesson, for the same answer in lessons; null = not known. */
  perLesson: number | null;
  seed: number;
  draws?: number;
}
export type Forecast =
  | { tells: false; why: ForecastSilence }
  | {
      tells: true;
      landings: { median: number; low: number; high: number };
      lessons: { median: number; low: number; high: number } | null;
      /** Chance that the next landing is own, from the curve, median and 80 in 100 range. */
      next: {
        median: number;
        low: number;
        high: number;
      };
      /** Share of draws that never got there within the horizon. */
      never: number;
      a: number;
      b: number;
    };

export const FEWEST = 6;
const HORIZON = 150;
/** Prior: normal about these, with these standard deviations; wide enough that a dozen landings outweigh it. */
const PRIOR = { a: -0.5, sa: 2, b: 0.5, sb: 0.75 } as const;
const logistic = (x: number): number => 1 / (1 + Math.exp(-x));

/**
 * The curve's two numbers for outcomes of landings 1, 2, 3 …
 * @returns the offset and the slope per logarithm of the landing's number
 */
export function fitLearning(own: readonly boolean[]): { a: number; b: number } {
  let [a, b]: [number, number] = [PRIOR.a, PRIOR.b];
  const logs = own.map((_, i) => Math.log(i + 1));
  for (let step = 0; step < 12; step++) {
    let ga = -(a - PRIOR.a) / PRIOR.sa ** 2;
    let gb = -(b - PRIOR.b) / PRIOR.sb ** 2;
    let haa = 1 / PRIOR.sa ** 2;
    let hab = 0;
    let hbb = 1 / PRIOR.sb ** 2;
    for (let i = 0; i < own.length; i++) {
      const x = logs[i] ?? 0;
      const p = logistic(a + b * x);
      const r = (own[i] ? 1 : 0) - p;
      const w = p * (1 - p);
      ga += r;
      gb += r * x;
      haa += w;
      hab += w * x;
      hbb += w * x * x;
    }
    const det = haa * hbb - hab * hab;
    const da = (ga * hbb - gb * hab) / det;
    const db = (gb * haa - ga * hab) / det;
    a += da;
    b += db;
    if (Math.abs(da) + Math.abs(db) < 1e-8) break;
  }
  return { a, b };
}

const silent = coder(FORECAST_WORDS);

/**
 * The forecast, or why there is none: too few landings, or too wide to be worth saying. Never a promise, never a
 * signature.
 * @returns lessons and landings with their interval, or the code of why there is none
 * @example
 * forecast({ own: [true, true, true, true, true], needed: 5, currentRun: 0, perLesson: 8, seed: 1, draws: 400 })
 * // { tells: false, why: { code: 'too-few', params: { landings: 5, least: 6 } } }
 */
export function forecast(input: ForecastInput): Forecast {
  const n = input.own.length;
  if (n < FEWEST) return { tells: false, why: silent('too-few', { landings: n, least: FEWEST }) };
  if (input.currentRun >= input.needed) return { tells: false, why: silent('run-there') };
  const draws = input.draws ?? 2000;
  const random = seeded(input.seed);
  const fitted = fitLearning(input.own);
  const needed: number[] = [];
  const next: number[] = [];
  let never = 0;
  for (let d = 0; d < draws; d++) {
    const flownAnew = input.own.map((_, i) => random() < logistic(fitted.a + fitted.b * Math.log(i + 1)));
    const { a, b } = fitLearning(flownAnew);
    next.push(logistic(a + b * Math.log(n + 1)));
    let run = input.currentRun;
    let flown = 0;
    while (run < input.needed && flown < HORIZON) {
      flown++;
      run = random() < logistic(a + b * Math.log(n + flown)) ? run + 1 : 0;
    }
    if (run < input.needed) never++;
    needed.push(flown);
  }
  const at = (xs: number[], q: number) => {
    const s = [...xs].sort((x, y) => x - y);
    return s[Math.min(s.length - 1, Math.floor(q * s.length))] ?? 0;
  };
  const low = at(needed, 0.1);
  const high = at(needed, 0.9);
  const median = at(needed, 0.5);
  if (never / draws > 0.1 || median >= HORIZON)
    return {
      tells: false,
      why: silent('too-wide', { in100: Math.round((100 * never) / draws), within: HORIZON }),
    };
  const lessons = (k: number) => (input.perLesson === null ? 0 : Math.max(1, Math.ceil(k / input.perLesson)));
  return {
    tells: true,
    landings: { median, low, high },
    lessons: input.perLesson === null ? null : { median: lessons(median), low: lessons(low), high: lessons(high) },
    next: { median: at(next, 0.5), low: at(next, 0.1), high: at(next, 0.9) },
    never: never / draws,
    ...fitted,
  };
}
