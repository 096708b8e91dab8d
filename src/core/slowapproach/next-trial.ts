import { needNumbers, needPositive } from '../guard';
import { type SlowFit, type SlowTrial, slowestApproach, spreadAt } from './trials';

export interface NextTrial {
  speedKt: number;
  powerShare: number;
  /** Trials of this kind, each with its likely outcome, until there is an answer; null = more than could be flown. */
  left: number | null;
}
type Asked = Parameters<typeof slowestApproach>[1];
const MOST_LEFT = 30;
/** Where an arrest is taken to begin, of the stall, before any trial says so: only for how many may be left. */
const USUAL = 1.22;
/** Speeds looked at, of the stall, in steps of a knot. */
const SPEEDS = { from: 1.05, to: 1.5 };

const LEAST_FOR_FIT = 5;

/**
 * The trial that tells most: first what the refusal asks for (an idle one, another outcome, a speed on the other side),
 * then the one that tells most of where it begins to work.
 * Source: D-optimal design, the greatest gain of information on the fitted logit, over a grid of speeds and powers.
 * @param trials flown so far
 * @param asked as of {@link slowestApproach}
 * @returns null when there is an answer already
 * @throws BadNumber as {@link slowestApproach}
 * @example
 * nextTrial([], { stallSpeedKt: 33, powerShare: 0.3, handbookSpeedKt: null, gustAdditiveKt: 0 })?.powerShare // 0
 */
export function nextTrial(trials: readonly SlowTrial[], asked: Asked): NextTrial | null {
  needNumbers('nextTrial', { trials, asked });
  needPositive('nextTrial', { stallSpeedKt: asked.stallSpeedKt });
  const now = slowestApproach(trials, asked);
  if (!now.refused) return null;
  const first = choose(trials, asked, now);
  let so = [...trials];
  let next = first;
  for (let n = 1; n <= MOST_LEFT; n++) {
    const mixed = new Set(so.map((t) => t.arrested === 'fully')).size > 1;
    const chance = mixed ? spreadAt(so, asked, next)?.chance : undefined;
    const likely = chance === undefined ? next.speedKt >= USUAL * asked.stallSpeedKt : chance >= 0.5;
    so = [...so, { ...next, arrested: likely ? 'fully' : 'not' }];
    const fit = slowestApproach(so, asked);
    if (!fit.refused) return { ...first, left: n };
    next = choose(so, asked, fit);
  }
  return { ...first, left: null };
}

type Point = { speedKt: number; powerShare: number };
function choose(trials: readonly SlowTrial[], asked: Asked, fit: SlowFit): Point {
  const kt = (ratio: number) => Math.round(ratio * asked.stallSpeedKt);
  const known = trials.filter((t) => t.speedKt !== null && t.powerShare !== null && t.arrested !== null);
  const powers = [...new Set([0, asked.powerShare])];
  if (!known.some((t) => t.powerShare === 0)) return { speedKt: kt(1.35), powerShare: 0 };
  const speeds = known.map((t) => t.speedKt ?? 0);
  if (fit.reason === 'one-outcome' || known.length < LEAST_FOR_FIT || fit.coefficients === null) {
    // Bisects between what was arrested and what was not; opens the range where there is one outcome only.
    const yes = known.filter((t) => t.arrested === 'fully').map((t) => t.speedKt ?? 0);
    const no = known.filter((t) => t.arrested !== 'fully').map((t) => t.speedKt ?? 0);
    const speedKt =
      yes.length === 0
        ? Math.max(...speeds) + 3
        : no.length === 0
          ? Math.min(...speeds) - 2
          : Math.round((Math.min(...yes) + Math.max(...no)) / 2);
    return { speedKt, powerShare: known.length % 2 === 0 ? 0 : asked.powerShare };
  }
  const topKt = Math.max(...speeds);
  const bound = fit.lowerBoundSpeedKt;
  if (fit.reason === 'extrapolation' && bound !== null && bound > topKt && bound <= kt(SPEEDS.to))
    return { speedKt: Math.ceil(bound), powerShare: asked.powerShare };
  if (!known.some((t) => (t.powerShare ?? 0) >= asked.powerShare))
    return { speedKt: kt(1.3), powerShare: asked.powerShare };
  let best: Point = { speedKt: kt(1.3), powerShare: asked.powerShare };
  let most = -Infinity;
  for (const powerShare of powers)
    for (let speedKt = kt(SPEEDS.from); speedKt <= kt(SPEEDS.to); speedKt++) {
      const at = spreadAt(trials, asked, { speedKt, powerShare });
      const tells = at === null ? 0 : at.chance * (1 - at.chance) * at.variance;
      if (tells > most + 1e-12) {
        most = tells;
        best = { speedKt, powerShare };
      }
    }
  return best;
}
