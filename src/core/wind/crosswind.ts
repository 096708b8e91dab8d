import { needNumbers } from '../guard';
import { KT_PER_MPH, SLACK } from '../constants';

export type Verdict = 'within' | 'edge' | 'outside';
export type LimitKind = 'limitation' | 'demonstrated' | 'airframe' | 'house' | 'instructor' | 'pilotStep' | 'vs0Floor';
export interface CrosswindLimit {
  source: string;
  kind: LimitKind;
  valueKt: number;
}

export interface CrosswindInput {
  crosswindKt: number;
  gustCrosswindKt: number | null;
  /** Positive = tailwind. */
  tailwindKt: number;
  gustTailwindKt: number | null;
  tailwindLimitKt: number | null;
  gustSpreadKt: number | null;
  gustSpreadLimitKt: number | null;
  /** Age of the wind; null = no wind known. */
  windAgeMin: number | null;
  /** Instructor on board: the pilot's step is then advice. */
  dual: boolean;
  limits: readonly CrosswindLimit[];
}

export interface CrosswindVerdict {
  /** `not-proven`: nothing is known of what this pilot holds alone, and nothing else speaks against it. */
  reason: null | 'no-recent-wind' | 'no-limit' | 'not-a-number' | 'not-proven';
  governingSource: string | null;
  governingKind: LimitKind | null;
  governingKt: number | null;
  meanVerdict: Verdict | null;
  gustVerdict: Verdict | null;
  tailwindVerdict: Verdict | null;
  gustSpreadVerdict: Verdict | null;
  verdict: Verdict | null;
  marginKt: number | null;
  aboveDemonstrated: boolean | null;
  abovePilotStep: boolean | null;
}

/** A wind older than this gives no verdict, minutes. */
export const WIND_GOOD_FOR_MIN = 10;
const RANK: Record<Verdict, number> = { within: 0, edge: 1, outside: 2 };

/**
 * The worse of the verdicts given; null when none is known.
 * @returns the verdict
 * @example worstVerdict(['edge', 'within', 'within', 'within']) // 'edge'
 */
export function worstVerdict(verdicts: readonly (Verdict | null)[]): Verdict | null {
  return verdicts.reduce<Verdict | null>(
    (worst, v) => (v !== null && (worst === null || RANK[v] > RANK[worst]) ? v : worst),
    null,
  );
}

const NOTHING: CrosswindVerdict = {
  reason: 'no-recent-wind',
  governingSource: null,
  governingKind: null,
  governingKt: null,
  meanVerdict: null,
  gustVerdict: null,
  tailwindVerdict: null,
  gustSpreadVerdict: null,
  verdict: null,
  marginKt: null,
  aboveDemonstrated: null,
  abovePilotStep: null,
};

/**
 * Which crosswind limit governs and how mean and gust stand against it, with tailwind and gust spread.
 *
 * The least of the real limits governs; a demonstrated value makes a verdict at least *edge* and never governs;
 * 0.2·Vs0 has no effect. In dual flight the pilot's own step is reported, not applied.
 * A wind older than {@link WIND_GOOD_FOR_MIN} min, ahead of the clock, or none, gives no verdict (`no-recent-wind`);
 * neither does a wind or a limit that is no number, or a limit below 0 (`not-a-number`).
 * Source: the limits named, the least of them governing.
 * @returns the governing limit in kt with its source, and verdicts of mean, gust, tailwind and spread
 * @example crosswindVerdict({ ...calm, crosswindKt: 13, windAgeMin: 2, limits: [{ source: 'school', kind: 'house', valueKt: 12 }] }).verdict // 'outside'
 */
export function crosswindVerdict(input: CrosswindInput): CrosswindVerdict {
  if (input.windAgeMin === null) return NOTHING;
  if (!allNumbers(input)) return { ...NOTHING, reason: 'not-a-number' };
  if (input.windAgeMin < 0 || input.windAgeMin > WIND_GOOD_FOR_MIN) return NOTHING;
  const mean = Math.abs(input.crosswindKt);
  const gust = input.gustCrosswindKt === null ? null : Math.abs(input.gustCrosswindKt);
  const ofKind = (kind: LimitKind) => input.limits.filter((l) => l.kind === kind);
  const hard = input.limits.filter(
    (l) => l.kind === 'limitation' || l.kind === 'airframe' || l.kind === 'house' || l.kind === 'instructor',
  );
  const steps = ofKind('pilotStep');
  const acting = input.limits.filter((l) => hard.includes(l) || (!input.dual && l.kind === 'pilotStep'));
  const governing = acting.reduce<CrosswindLimit | null>(
    (least, l) => (least === null || l.valueKt < least.valueKt - SLACK ? l : least),
    null,
  );
  const strongest = Math.max(mean, gust ?? 0);
  const above = (limits: readonly CrosswindLimit[], kt: number | null) =>
    kt !== null && limits.some((l) => kt > l.valueKt + SLACK);
  const demonstrated = ofKind('demonstrated');
  const atLeastEdge = (v: Verdict, kt: number | null): Verdict =>
    v === 'within' && above(demonstrated, kt) ? 'edge' : v;

  const meanVerdict = governing === null ? null : atLeastEdge(judgeMean(mean, governing.valueKt), mean);
  const gustVerdict =
    governing === null || gust === null ? null : atLeastEdge(judgeGust(gust, hard, input.dual ? [] : steps), gust);
  const tailwindVerdict = judgeTailwind(input);
  const gustSpreadVerdict: Verdict | null =
    input.gustSpreadKt === null || input.gustSpreadLimitKt === null
      ? null
      : input.gustSpreadKt > input.gustSpreadLimitKt + SLACK
        ? 'outside'
        : 'within';
  const worst = worstVerdict([meanVerdict, gustVerdict, tailwindVerdict, gustSpreadVerdict]);

  return {
    reason: governing === null ? 'no-limit' : null,
    governingSource: governing?.source ?? null,
    governingKind: governing?.kind ?? null,
    governingKt: governing?.valueKt ?? null,
    meanVerdict,
    gustVerdict,
    tailwindVerdict,
    gustSpreadVerdict,
    verdict: governing !== null || worst === 'outside' ? worst : null,
    marginKt: governing === null ? null : governing.valueKt - strongest,
    aboveDemonstrated: above(demonstrated, strongest),
    abovePilotStep: above(steps, strongest),
  };
}

function allNumbers(i: CrosswindInput): boolean {
  const known = [i.crosswindKt, i.tailwindKt, i.windAgeMin, i.gustCrosswindKt, i.gustTailwindKt, i.gustSpreadKt];
  const limits = [i.tailwindLimitKt, i.gustSpreadLimitKt, ...i.limits.map((l) => l.valueKt)];
  return (
    known.every((x) => x === null || Number.isFinite(x)) &&
    limits.every((x) => x === null || (Number.isFinite(x) && x >= 0))
  );
}

function judgeMean(meanKt: number, governingKt: number): Verdict {
  if (meanKt > governingKt + SLACK) return 'outside';
  return governingKt - meanKt <= 2 + SLACK ? 'edge' : 'within';
}

function judgeGust(gustKt: number, hard: readonly CrosswindLimit[], steps: readonly CrosswindLimit[]): Verdict {
  if (hard.some((l) => gustKt > l.valueKt + SLACK)) return 'outside';
  const over = Math.max(0, ...steps.map((l) => gustKt - l.valueKt));
  if (over > 3 + SLACK) return 'outside';
  return over > SLACK ? 'edge' : 'within';
}

function judgeTailwind({ tailwindKt, gustTailwindKt, tailwindLimitKt }: CrosswindInput): Verdict | null {
  if (tailwindLimitKt === null) return null;
  if (Math.max(tailwindKt, gustTailwindKt ?? tailwindKt) > tailwindLimitKt + SLACK) return 'outside';
  return tailwindKt > 0 && tailwindLimitKt - tailwindKt <= 2 + SLACK ? 'edge' : 'within';
}

export interface FlapRow {
  upToKt: number | null;
  maxFlapDeg: number;
  reason: string;
}
export interface FlapVerdict {
  verdict: 'within' | 'outside' | null;
  maxFlapDeg: number | null;
  reason: string | null;
}

/**
 * Greatest flap allowed in today's crosswind by the airframe's table. Beyond every row: *outside*, never a flap
 * setting. A wind or a row that is no number gives no verdict.
 * @param table rows in any order; `upToKt` null = any wind; [] = the airframe has no table (verdict null)
 * @returns degrees of flap, or *outside*
 * @example
 * flapVerdict(12, 13, [{ upToKt: 13, maxFlapDeg: 50, reason: 'full flap always: it shortens the float' }])
 * // { verdict: 'within', maxFlapDeg: 50, reason: 'full flap always: it shortens the float' }
 */
export function flapVerdict(
  crosswindKt: number,
  gustCrosswindKt: number | null,
  table: readonly FlapRow[],
): FlapVerdict {
  const numbers = [crosswindKt, gustCrosswindKt ?? 0, ...table.flatMap((r) => [r.upToKt ?? 0, r.maxFlapDeg])];
  if (table.length === 0 || !numbers.every(Number.isFinite)) return { verdict: null, maxFlapDeg: null, reason: null };
  const strongest = Math.max(Math.abs(crosswindKt), Math.abs(gustCrosswindKt ?? 0));
  const row = [...table]
    .sort((a, b) => (a.upToKt ?? Infinity) - (b.upToKt ?? Infinity))
    .find((r) => r.upToKt === null || strongest <= r.upToKt + SLACK);
  return row
    ? { verdict: 'within', maxFlapDeg: row.maxFlapDeg, reason: row.reason }
    : { verdict: 'outside', maxFlapDeg: null, reason: null };
}

/**
 * The historic certification floor 0.2·Vs0, in knots. Shown in the ladder, never a limit.
 * @param vs0 calibrated stall speed in the landing configuration, in `unit`
 * @returns kt
 * @throws BadNumber when a number handed in is none
 * @example vs0Floor(80, 'kt') // 16
 */
export function vs0Floor(vs0: number, unit: 'kt' | 'mph'): number {
  needNumbers('vs0Floor', { vs0 });
  return 0.2 * vs0 * (unit === 'mph' ? KT_PER_MPH : 1);
}
