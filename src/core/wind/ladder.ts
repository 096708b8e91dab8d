import { SLACK } from '../constants';
import { WIND_GOOD_FOR_MIN } from './crosswind';

export type CriterionSeen = 'within' | 'edge' | 'outside' | 'not-seen';
export interface LadderLanding {
  date: string;
  group: string;
  crosswindKt: number | null;
  windAgeMin: number | null;
  intervention: number | null;
  demonstration: boolean;
  criteria: Readonly<Record<string, CriterionSeen>>;
}
export interface LadderInput {
  /** Oldest first. */
  landings: readonly LadderLanding[];
  group: string;
  /** ISO date. */
  onDate: string;
  /** 3, or 2 for the lightest class. */
  stepKt: number;
  credit: { kt: number; date: string } | null;
}
export interface Ladder {
  provenKt: number;
  ladderKt: number;
  decaySteps: 0 | 1 | 2;
  goodCount: number;
  badCount: number;
}

const CONTROL_CRITERIA = ['drift', 'crab', 'lateral', 'swing', 'aileron'] as const;
const DAY_MS = 86_400_000;

/** A landing that counts, in the order of the list: for its wind, or against it. */
interface Counted {
  kt: number;
  good: boolean;
  day: number;
}

/**
 * Personal crosswind ladder of one gear-and-mass group: the wind proven by the last three landings that count, plus a
 * step, but never a wind that was denied and not proven since.
 *
 * A good landing proves its own wind and every lighter one, a bad one denies its own and every stronger. Only control
 * criteria count, only winds logged within 10 min of touchdown, and only where drift or crab was seen: the line alone
 * proves no wind. Unused for 60 days it drops one step, for 120 two.
 *
 * One sweep from the strongest wind down, n·log n: a record of thousands is read at once.
 * Source: the landings in standard at the greatest crosswind so far.
 * @param input `stepKt` > 0, kt; `landings` oldest first; a landing whose wind or age is no number is not counted
 * @returns knots of crosswind, all ≥ 0; `ladderKt` is where dual instruction goes next, `provenKt` what holds alone
 * @throws RangeError when `onDate` is no date or `stepKt` no positive number
 * @example pilotLadder({ landings: [], group: 'light-tailwheel', onDate: '2026-11-24', stepKt: 3, credit: null }).ladderKt // 3
 */
export function pilotLadder(input: LadderInput): Ladder {
  const { stepKt } = input;
  const today = dayNumber(input.onDate);
  if (!Number.isFinite(today)) throw new RangeError(`"${input.onDate}" is not a date`);
  if (!(stepKt > 0) || !Number.isFinite(stepKt)) throw new RangeError(`a step of ${stepKt} kt`);
  const records: Counted[] = [];
  const days = new Map<string, number>();
  const dayOf = (date: string): number => {
    const known = days.get(date) ?? dayNumber(date);
    days.set(date, known);
    return known;
  };
  const { credit } = input;
  if (credit && Number.isFinite(credit.kt) && Number.isFinite(dayNumber(credit.date)))
    for (let i = 0; i < 3; i++) records.push({ kt: credit.kt, good: true, day: dayNumber(credit.date) });
  let goodCount = 0;
  let badCount = 0;
  for (const landing of input.landings) {
    const day = dayOf(landing.date);
    const counted = day <= today ? judgeForLadder(landing, input.group) : null;
    if (counted === null || landing.crosswindKt === null) continue;
    if (counted === 'good') goodCount++;
    else badCount++;
    records.push({ kt: Math.abs(landing.crosswindKt), good: counted === 'good', day });
  }
  const bad = records.filter((r) => !r.good);
  const asked = [...records.map((r) => r.kt), ...bad.map((r) => r.kt - 1).filter((kt) => kt > 0)];
  const lastGood = provenSince(records, asked);

  let best: { kt: number; steps: 0 | 1 | 2 } = { kt: 0, steps: 0 };
  for (const kt of new Set([
    ...records.filter((r) => r.good).map((r) => r.kt),
    ...bad.flatMap((r) => (r.kt - 1 > 0 ? [r.kt - 1] : [])),
  ])) {
    const day = lastGood.get(kt) ?? null;
    if (day === null) continue;
    const unused = today - day;
    const steps = unused >= 120 ? 2 : unused >= 60 ? 1 : 0;
    const left = Math.max(0, kt - steps * stepKt);
    if (left > best.kt + SLACK || (Math.abs(left - best.kt) <= SLACK && steps < best.steps)) best = { kt: left, steps };
  }
  const denied = bad.reduce((least, r) => (lastGood.get(r.kt) == null ? Math.min(least, r.kt) : least), Infinity);
  return {
    provenKt: best.kt,
    ladderKt: Math.max(best.kt, Math.min(best.kt + stepKt, denied - 1)),
    decaySteps: best.kt === 0 ? 0 : best.steps,
    goodCount,
    badCount,
  };
}

/**
 * Whether anything is known of what this pilot holds alone in wind: a wind proven, or one denied. Where nothing is, the
 * limit without an instructor is not 0 and not the school's: it is not known.
 * Source: the landings in standard at the greatest crosswind so far.
 * @returns true where something is
 * @example knownAlone({ provenKt: 0, badCount: 0 }) // false
 */
export const knownAlone = (ladder: Pick<Ladder, 'provenKt' | 'badCount'>): boolean =>
  ladder.provenKt > 0 || ladder.badCount > 0;

const dayNumber = (date: string): number => Math.floor(Date.parse(date.slice(0, 10)) / DAY_MS);

const wasSeen = (v: CriterionSeen | undefined): boolean => v !== undefined && v !== 'not-seen';

function judgeForLadder(landing: LadderLanding, group: string): 'good' | 'bad' | null {
  if (landing.group !== group || landing.demonstration || !Number.isFinite(landing.crosswindKt)) return null;
  const { windAgeMin } = landing;
  if (windAgeMin === null || !(windAgeMin >= 0 && windAgeMin <= WIND_GOOD_FOR_MIN)) return null;
  const { criteria } = landing;
  if (CONTROL_CRITERIA.some((id) => criteria[id] === 'outside') || (landing.intervention ?? 0) >= 2) return 'bad';
  const drifting = wasSeen(criteria.drift) || wasSeen(criteria.crab);
  return landing.intervention === 0 && drifting ? 'good' : null;
}

/**
 * For each wind asked: the day of the latest good landing in it or a stronger one, where it is proven (of the good in
 * at least that wind and the bad in at most that wind, at least three, the last three good); null where it is not.
 */
function provenSince(records: readonly Counted[], asked: readonly number[]): Map<number, number | null> {
  const goodDown = records.map((r, index) => ({ ...r, index })).filter((r) => r.good);
  goodDown.sort((a, b) => b.kt - a.kt);
  const badUp = records.map((r, index) => ({ ...r, index })).filter((r) => !r.good);
  badUp.sort((a, b) => a.kt - b.kt);
  /** The last place in the list of a bad landing in at most the wind of `badUp[i]`. */
  const lastBad: number[] = [];
  for (const r of badUp) lastBad.push(Math.max(r.index, lastBad[lastBad.length - 1] ?? -1));

  const proven = new Map<number, number | null>();
  /** The three latest places of good landings so far, and the latest day. */
  let three: number[] = [];
  let latest = -Infinity;
  let taken = 0;
  let bads = badUp.length;
  for (const kt of [...new Set(asked)].sort((a, b) => b - a)) {
    for (let g = goodDown[taken]; g !== undefined && g.kt >= kt - SLACK; g = goodDown[++taken]) {
      latest = Math.max(latest, g.day);
      // Kept in order, the latest first; most that come are no news.
      if (three.length < 3 || g.index > (three[2] ?? -1)) three = [...three, g.index].sort((a, b) => b - a).slice(0, 3);
    }
    while (bads > 0 && (badUp[bads - 1]?.kt ?? 0) > kt + SLACK) bads--;
    const third = three[2];
    proven.set(kt, third !== undefined && third > (lastBad[bads - 1] ?? -1) ? latest : null);
  }
  return proven;
}
