import { needNumbers } from '../guard';
import { SLACK } from '../constants';

export interface Share {
  share: number | null;
  wilsonLower90: number | null;
  posteriorMean: number;
  posteriorQ10: number;
  posteriorQ50: number;
  posteriorQ90: number;
}

const Z90_ONE_SIDED = 1.2815515655446004;

/**
 * Share of successes with Wilson's one-sided 90 % lower bound (no continuity correction) and the Beta(1,1) posterior.
 * Source: Wilson (1927), one-sided, no continuity correction; Beta(1,1) posterior.
 * @param successes whole number, 0 to `trials`
 * @param trials whole number; 0 gives null for share and bound
 * @returns share 0 to 1, its lower bound and the posterior's mean and bounds; null shares without a trial
 * @throws BadNumber when a number handed in is none
 * @example
 * share(1, 2)
 * // { share: 0.5, wilsonLower90: 0.16425, posteriorMean: 0.5, posteriorQ10: 0.1958, posteriorQ50: 0.5,
 * // posteriorQ90: 0.8042 }
 */
export function share(successes: number, trials: number): Share {
  needNumbers('share', { successes, trials });
  const quantile = (p: number) => betaQuantile(p, successes, trials);
  const posterior = {
    posteriorMean: (successes + 1) / (trials + 2),
    posteriorQ10: quantile(0.1),
    posteriorQ50: quantile(0.5),
    posteriorQ90: quantile(0.9),
  };
  if (trials === 0) return { share: null, wilsonLower90: null, ...posterior };
  const p = successes / trials;
  const z2 = Z90_ONE_SIDED ** 2;
  const spread = Z90_ONE_SIDED * Math.sqrt((p * (1 - p)) / trials + z2 / (4 * trials ** 2));
  return { share: p, wilsonLower90: (p + z2 / (2 * trials) - spread) / (1 + z2 / trials), ...posterior };
}

/** Quantile of Beta(k+1, n-k+1) by bisection; with whole numbers its distribution function is a binomial tail. */
function betaQuantile(p: number, k: number, n: number): number {
  let low = 0;
  let high = 1;
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2;
    if (binomialTail(k + 1, n + 1, mid) < p) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}

/** P(Bin(n, x) >= k), summed in logarithms. */
function binomialTail(k: number, n: number, x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  let logChoose = 0;
  let sum = 0;
  for (let j = 0; j <= n; j++) {
    if (j > 0) logChoose += Math.log(n - j + 1) - Math.log(j);
    if (j >= k) sum += Math.exp(logChoose + j * Math.log(x) + (n - j) * Math.log(1 - x));
  }
  return Math.min(1, sum);
}

export interface RunLanding {
  sortieId: string;
  date: string;
  firstOfSortie: boolean;
  group: string;
  attitude: string | null;
  crosswindKt: number | null;
  landingClass: string;
}
export interface RunRuleInput {
  /** Oldest first. */
  landings: readonly RunLanding[];
  needed: number;
  group: string;
  /** Intended attitude; null = any. */
  attitude: string | null;
  windKt: number | null;
  accuracyItem: boolean;
  minSorties?: number;
  minDays?: number;
}
export type RunCondition = 'count' | 'sorties' | 'days' | 'first-landing' | 'wind';
export interface RunResult {
  currentRun: number;
  met: boolean;
  stillNeeded: number;
  missing: RunCondition[];
  counted: number[];
}

/** Classes that say nothing against the pilot. */
const HARMLESS: readonly string[] = ['own', 'own-off-target', 'not-judged'];

/**
 * The run of own landings at the end of the record, and the conditions it has yet to meet.
 * Go-arounds and demonstrations pass over it; one landing not judged is passed over, the second ends it.
 * Source: Wilson (1927) and the Beta(1,1) posterior.
 * @returns `counted` holds the indexes (into `landings`) of the landings of the run, oldest first
 * @throws BadNumber when a number handed in is none
 * @example
 * runRule({ landings: [], needed: 3, group: 'g', attitude: 'mains-first', windKt: null, accuracyItem: false,
 * minSorties: 2, minDays: 2 })
 * // { currentRun: 0, met: false, stillNeeded: 3, missing: ['count', 'sorties', 'days', 'first-landing'],
 * // counted: [] }
 */
export function runRule(input: RunRuleInput): RunResult {
  const { needed, minSorties, minDays } = input;
  needNumbers('runRule', { needed, windKt: input.windKt, minSorties, minDays });
  const run: number[] = [];
  let notJudged = 0;
  for (let i = input.landings.length - 1; i >= 0; i--) {
    const l = input.landings[i];
    if (!l || l.group !== input.group) continue;
    if (l.landingClass === 'go-around' || l.landingClass === 'demonstration') continue;
    if (input.attitude !== null && l.attitude !== input.attitude) {
      // With no intention noted a landing never helps a run and never protects one: a bad one still ends it.
      if (l.attitude !== null || HARMLESS.includes(l.landingClass)) continue;
      break;
    }
    if (l.landingClass === 'not-judged' && notJudged++ === 0) continue;
    const counts = l.landingClass === 'own' || (l.landingClass === 'own-off-target' && !input.accuracyItem);
    if (!counts) break;
    run.push(i);
  }
  run.reverse();
  const members = run.flatMap((i) => input.landings[i] ?? []);
  const distinct = (of: (l: RunLanding) => string) => new Set(members.map(of)).size;
  const { windKt } = input;
  const unmet: Record<RunCondition, boolean> = {
    count: members.length < input.needed,
    sorties: distinct((l) => l.sortieId) < (input.minSorties ?? 2),
    days: distinct((l) => l.date.slice(0, 10)) < (input.minDays ?? 2),
    'first-landing': !members.some((l) => l.firstOfSortie),
    wind: windKt !== null && !members.some((l) => l.crosswindKt !== null && Math.abs(l.crosswindKt) >= windKt - SLACK),
  };
  const missing = (Object.keys(unmet) as RunCondition[]).filter((k) => unmet[k]);
  return {
    currentRun: members.length,
    met: missing.length === 0,
    stillNeeded: Math.max(0, input.needed - members.length),
    missing,
    counted: run,
  };
}
