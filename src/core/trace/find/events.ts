/**
 * Take-offs, landings and passes along a runway. A pass is a stay in the runway's corridor, aligned with it and below
 * 300 ft; what happened in it is told by where it touched, rolled and left the ground. Touch and lift-off are the bends
 * in the height, sharpened by the load where an accelerometer recorded it.
 */
import type { FoundEvent, TraceContext } from '@/domain/trace';
import { contactIn } from './contact';
import { type Placed, smoothed } from './frame';
import { passWithout } from './passed';
import { type Pass, above, passesOf } from './passes';
import { highest, indexAt } from './sample';
import { type Stay, groundLevel, staysOf } from './stays';
import { bouncedEvent, stayEvents } from './stay-events';
import { touchIn } from './touch';
import { withoutHeight } from './without-height';

/** Seconds on either side of a pass in which its height is known, so that what led to it can be seen. */
const WIDE_S = 120;
/** Off again sooner than this after the touch: it bounced and went around. */
const FLEW_AWAY_S = 1.8;
/** A contact that seems no longer than this is looked at again: level, within so many feet, for how long. */
const PERHAPS_S = 3.2;
const LEVEL_FT = 2;
const LEVEL_S = 1.7;

/** Everything found along the runways of the context, in order of time. */
export function findEvents(p: Placed, context: TraceContext): FoundEvent[] {
  if (!p.heightFt) return onceEach(p, withoutHeight(p, context)).sort((a, b) => a.startS - b.startS);
  // Noise is smoothed away until about a foot of it is left, though never over more than three seconds.
  const halfS = Math.max(0.3, 0.6 / p.trace.rateHz, Math.min(1.5, (p.heightNoiseFt ** 2 - 1) / (2 * p.trace.rateHz)));
  const restFt = p.heightNoiseFt / Math.sqrt(Math.max(1, 2 * halfS * p.trace.rateHz + 1));
  const flyKt = 0.75 * (context.airframe.vs0Kt ?? 45);
  // One pair of columns for all passes: each fills its own stretch.
  const raw = new Float64Array(p.n);
  const h = new Float64Array(p.n);
  const events = passesOf(p, context).flatMap((pass) => {
    const { frame, from, to } = pass;
    const [wideFrom, wideTo] = [indexAt(p.tS, (p.tS[from] ?? 0) - WIDE_S), indexAt(p.tS, (p.tS[to] ?? 0) + WIDE_S)];
    raw.fill(Number.NaN);
    for (let i = wideFrom; i <= wideTo; i++) raw[i] = above(p, frame, context.aerodrome.elevationFt, i);
    smoothed(raw, p.tS, halfS, wideFrom, wideTo, h);
    const stays = staysOf(p, h, pass, { restFt, flyKt });
    if (stays.length === 0) return passWithout(p, h, frame, from, to) ?? [];
    return stays.flatMap((_, k) => eventsOf(p, context, pass, { raw, h, stays, k }));
  });
  return onceEach(p, events).sort((a, b) => a.startS - b.startS);
}

/** What one stay on the ground was: came from above and before, left upward, or both. */
function eventsOf(
  p: Placed,
  context: TraceContext,
  { frame, from, to }: Pass,
  { raw, h, stays, k }: { raw: Float64Array; h: Float64Array; stays: readonly Stay[]; k: number },
): FoundEvent[] {
  const stay = stays[k];
  if (!stay) return [];
  const level = groundLevel(h, p.gsKt, stay);
  const [startS, endS] = [p.tS[stay.from] ?? 0, p.tS[stay.to] ?? 0];
  // Not beyond the neighbouring stays of the same pass.
  const [previous, next] = [stays[k - 1]?.to ?? 0, stays[k + 1]?.from ?? p.n - 1];
  const farBefore = Math.max(from, indexAt(p.tS, startS - 15), previous);
  const farAfter = Math.min(to, indexAt(p.tS, endS + 20), next);
  const cameDown = stay.from > from && highest(h, farBefore, stay.from) > level + 15;
  const wentUp = stay.to < to && highest(h, stay.to, farAfter) > level + 15 && (p.gsKt[farAfter] ?? 0) > 20;
  if (!cameDown && !wentUp) return [];
  const touch = cameDown
    ? touchIn(
        p,
        raw,
        [Math.max(indexAt(p.tS, startS - 7), previous), Math.min(stay.to, indexAt(p.tS, startS + 7))],
        level,
        frame.water,
      )
    : null;
  const liftFrom = Math.max(stay.from, indexAt(p.tS, endS - 6));
  const liftTo = Math.min(indexAt(p.tS, endS + 8), next);
  const lift = wentUp ? contactIn(p, raw, { from: liftFrom, to: liftTo, sign: -1, water: frame.water }, level) : null;
  if (touch && lift !== null && flewAway(p, h, touch.tS, lift.tS))
    return [bouncedEvent(p, frame, h, from, touch.tS, Math.max(lift.tS, touch.tS))];
  return stayEvents(p, context, frame, h, level, { from, stay, touch, lift });
}

/** Did a contact throw it off again? Its ends are too near each other, or the height between them was never level. */
function flewAway(p: Placed, h: Float64Array, touchS: number, liftS: number): boolean {
  const stayed = liftS - touchS;
  if (stayed < FLEW_AWAY_S + 0.5 / p.trace.rateHz) return true;
  if (stayed > PERHAPS_S) return false;
  const [from, to] = [indexAt(p.tS, touchS - 2), Math.min(p.n - 1, indexAt(p.tS, liftS + 2))];
  let low = from;
  for (let i = from; i <= to; i++) {
    // What a gap hides may have been level.
    if (i > from && (p.tS[i] ?? 0) - (p.tS[i - 1] ?? 0) > 1.5) return false;
    if ((h[i] ?? Infinity) < (h[low] ?? Infinity)) low = i;
  }
  const top = (h[low] ?? 0) + LEVEL_FT + Math.min(4, p.heightNoiseFt);
  let [a, b] = [low, low];
  while (a > from && (h[a - 1] ?? Infinity) < top) a--;
  while (b < to && (h[b + 1] ?? Infinity) < top) b++;
  return (p.tS[b] ?? 0) - (p.tS[a] ?? 0) < LEVEL_S;
}

/** Of runways side by side each arrival is told once: on the one whose centreline it was nearest. */
function onceEach(p: Placed, events: readonly FoundEvent[]): FoundEvent[] {
  const off = (e: FoundEvent): number => {
    const t = e.touchdown?.tS ?? e.lowestS ?? e.liftoff?.tS ?? e.startS;
    const f = p.frames.find((x) => x.ident === e.runway);
    return Math.abs(f?.lateral[indexAt(p.tS, t)] ?? Infinity);
  };
  const kept: FoundEvent[] = [];
  for (const e of [...events].sort((a, b) => off(a) - off(b)))
    if (!kept.some((k) => k.runway !== e.runway && Math.min(k.endS, e.endS) - Math.max(k.startS, e.startS) > 0))
      kept.push(e);
  return kept;
}
