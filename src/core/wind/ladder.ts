import { SLACK } from '../constants';
import { WIND_GOOD_FOR_MIN } from './crosswind';

export type Seen = 'within' | 'edge' | 'outside' | 'not-seen';
export interface LadderLanding {
  date: string;
  group: string;
  crosswindKt: number | null;
  windAgeMin: number | null;
  intervention: number | null;
  demonstration: boolean;
  criteria: Readonly<Record<string, Seen>>;
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

/**
 * Personal crosswind ladder of one gear-and-mass group: the wind proven by the last three landings that count, plus a
 * step.
 *
 * A good landing proves its own wind and every lighter one, a bad one denies its own and every stronger. Only control
 * criteria count, only winds logged within 10 min of touchdown. Unused for 60 days it drops one step, for 120 two.
 */
export function pilotLadder(input: LadderInput): Ladder {
  const records: { kt: number; good: boolean; date: string }[] = [];
  if (input.credit)
    for (let i = 0; i < 3; i++) records.push({ kt: input.credit.kt, good: true, date: input.credit.date });
  let goodCount = 0;
  let badCount = 0;
  for (const landing of input.landings) {
    const counted = judgeForLadder(landing, input.group, input.onDate);
    if (counted === null || landing.crosswindKt === null) continue;
    if (counted === 'good') goodCount++;
    else badCount++;
    records.push({ kt: Math.abs(landing.crosswindKt), good: counted === 'good', date: landing.date });
  }
  const candidates = records.flatMap((r) => (r.good ? [r.kt] : r.kt - 1 > 0 ? [r.kt - 1] : []));
  let best: { kt: number; steps: 0 | 1 | 2 } = { kt: 0, steps: 0 };
  for (const kt of candidates) {
    const decay = provenDecay(kt, records, input.onDate);
    if (decay === null) continue;
    const left = Math.max(0, kt - decay * input.stepKt);
    if (left > best.kt + SLACK || (Math.abs(left - best.kt) <= SLACK && decay < best.steps))
      best = { kt: left, steps: decay };
  }
  return {
    provenKt: best.kt,
    ladderKt: best.kt + input.stepKt,
    decaySteps: best.kt === 0 ? 0 : best.steps,
    goodCount,
    badCount,
  };
}

function judgeForLadder(landing: LadderLanding, group: string, onDate: string): 'good' | 'bad' | null {
  const fits = landing.group === group && landing.date.slice(0, 10) <= onDate.slice(0, 10) && !landing.demonstration;
  if (!fits || landing.crosswindKt === null || landing.windAgeMin === null || landing.windAgeMin > WIND_GOOD_FOR_MIN)
    return null;
  const seen = CONTROL_CRITERIA.map((id) => landing.criteria[id] ?? 'not-seen').filter((v) => v !== 'not-seen');
  if (seen.includes('outside') || (landing.intervention ?? 0) >= 2) return 'bad';
  return landing.intervention === 0 && seen.length > 0 ? 'good' : null;
}

/** Steps of decay of a proven wind, or null when it is not proven. */
function provenDecay(
  kt: number,
  records: readonly { kt: number; good: boolean; date: string }[],
  onDate: string,
): 0 | 1 | 2 | null {
  const counting = records.filter((r) => (r.good ? r.kt >= kt - SLACK : r.kt <= kt + SLACK));
  if (counting.length < 3 || !counting.slice(-3).every((r) => r.good)) return null;
  const latest = counting.filter((r) => r.good).reduce((d, r) => (r.date > d ? r.date : d), '');
  const days = Math.floor((Date.parse(onDate.slice(0, 10)) - Date.parse(latest.slice(0, 10))) / DAY_MS);
  return days >= 120 ? 2 : days >= 60 ? 1 : 0;
}
