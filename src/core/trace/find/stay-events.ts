import type { FoundEvent, TraceContext } from '@/domain/trace';
import { MS_PER_KT, median, norm180 } from '../../constants';
import type { Placed, RunwayFrame } from './frame';
import { indexAt, lineBefore, orNull, round, valueAt } from './sample';
import { bouncesAfter, type Touch } from './touch';

export const WALKING_KT = 4;

/** A lift-off, with its one sigma. */
export type Lift = Pick<Touch, 'tS' | 'sdS'>;

export function stayEvents(
  p: Placed,
  context: TraceContext,
  frame: RunwayFrame,
  h: Float64Array,
  level: number,
  w: { from: number; stay: { from: number; to: number }; touch: Touch | null; lift: Lift | null },
): FoundEvent[] {
  const { touch, stay } = w;
  const lift = w.lift?.tS ?? null;
  let slowest = Infinity;
  for (let i = stay.from; i <= stay.to; i++) slowest = Math.min(slowest, p.gsKt[i] ?? Infinity);
  const unseen = touch !== null && unrecorded(p, touch.tS);
  // What the sensors can carry: a height set on this runway, a felt load, enough rows; little when the touch itself was
  // not recorded.
  const confidence =
    Math.round(
      100 *
        (unseen
          ? 0.35
          : 0.5 + (p.calibrated ? 0.2 : 0) + (touch?.sharp ? 0.15 : 0) + Math.min(0.14, p.trace.rateHz / 40)),
    ) / 100;
  const liftoff = w.lift === null ? undefined : liftPart(p, frame, w.lift);
  if (!touch)
    return lift === null
      ? []
      : [
          {
            kind: 'takeoff',
            runway: frame.ident,
            startS: round(rollStart(p, stay, lift)),
            endS: round(lift),
            ...(liftoff ? { liftoff } : {}),
            confidence,
          },
        ];
  const measured = touchPart(p, frame, h, level, touch, lift ?? p.tS[stay.to] ?? touch.tS);
  const { rollout } = measured;
  const touchdown = unseen ? { ...NO_MEASURES, tS: round(touch.tS) } : measured.touchdown;
  const stopped = slowest < WALKING_KT;
  const kind = lift === null ? 'landing' : stopped ? 'stop-and-go' : 'touch-and-go';
  const walking = firstBelow(p, stay, touch.tS);
  return [
    {
      kind,
      runway: frame.ident,
      startS: round(approachStart(p, frame, h, w.from, touch.tS)),
      endS: round(lift !== null && kind === 'touch-and-go' ? lift : walking),
      touchdown,
      ...(liftoff ? { liftoff } : {}),
      rollout,
      gates: gatesOf(p, context, frame, h, touch.tS),
      confidence,
    },
  ];
}
export const NO_MEASURES = {
  alongM: null,
  lateralM: null,
  iasKt: null,
  gsKt: null,
  sinkFpm: null,
  crabDeg: null,
  driftKt: null,
  bounces: null,
  peakG: null,
};

function liftPart(p: Placed, frame: RunwayFrame, { tS, sdS }: Lift): NonNullable<FoundEvent['liftoff']> {
  const half = Math.max(0.6, 1.2 / p.trace.rateHz);
  return {
    tS: round(tS),
    alongM: orNull(valueAt(frame.along, p, tS, half)?.value, 1),
    lateralM: orNull(valueAt(frame.lateral, p, tS, half)?.value),
    iasKt: orNull(valueAt(p.iasKt, p, tS, half)?.value, 1),
    gsKt: orNull(valueAt(p.gsKt, p, tS, half)?.value, 1),
    uncertainty: {
      tS: orNull(sdS, 2),
      alongM: orNull(Math.hypot(sdS * (valueAt(frame.along, p, tS, half)?.slope ?? 0), PLACE_SD_M), 1),
    },
  };
}

/** What a satellite's position is off by though it does not shake, and a compass and a dial though they do not. */
const PLACE_SD_M = 2;
const COMPASS_SD_DEG = 1.2;
const DIAL_SD_KT = 2;

/** How far the nose stands off the way it rolls: what a compass is off by, wherever its variation came from. */
function compassOff(p: Placed, fromS: number, endS: number): number {
  if (!p.headingDeg) return 0;
  const off: number[] = [];
  for (let i = indexAt(p.tS, fromS + 1.5); i < p.n && (p.tS[i] ?? 0) < endS && (p.gsKt[i] ?? 0) > SWING_KT; i++) {
    const d = norm180((p.headingDeg[i] ?? Number.NaN) - (p.trackDeg[i] ?? Number.NaN));
    if (Math.abs(d) < 20) off.push(d);
  }
  if (off.length < 4) return 0;
  const middle = median(off);
  // A nose that swings about while it rolls sets no compass.
  return median(off.map((d) => Math.abs(d - middle))) < 1 ? middle : 0;
}
/** Slower than this a swing is a turn off the runway. */
const SWING_KT = 15;

function touchPart(
  p: Placed,
  frame: RunwayFrame,
  h: Float64Array,
  level: number,
  touch: Touch,
  endS: number,
): { touchdown: NonNullable<FoundEvent['touchdown']>; rollout: NonNullable<FoundEvent['rollout']> } {
  const half = Math.max(0.6, 1.2 / p.trace.rateHz);
  const along = valueAt(frame.along, p, touch.tS, half);
  const lateral = valueAt(frame.lateral, p, touch.tS, half);
  const gs = valueAt(p.gsKt, p, touch.tS, half)?.value ?? Number.NaN;
  const dial = lineBefore(p.iasKt, p, touch.tS);
  const before = indexAt(p.tS, touch.tS - 0.4);
  const off = compassOff(p, touch.tS, endS);
  const heading = p.headingDeg ? (p.headingDeg[before] ?? Number.NaN) - off : Number.NaN;
  const sideKt = lateral ? lateral.slope / MS_PER_KT : Number.NaN;
  const trackFromLine =
    frame.end.trueBearingDeg +
    (Number.isFinite(sideKt) && gs > 10 ? (Math.asin(Math.max(-1, Math.min(1, sideKt / gs))) * 180) / Math.PI : 0);
  // From the first contact to fifteen knots or the lift-off; by the nose, or without a compass by the way it goes.
  let swing = 0;
  let away = 0;
  let seen = false;
  for (let i = indexAt(p.tS, touch.tS); i < p.n && (p.tS[i] ?? 0) < endS && (p.gsKt[i] ?? 0) > SWING_KT; i++) {
    const nose = p.headingDeg ? (p.headingDeg[i] ?? Number.NaN) - off : (p.trackDeg[i] ?? Number.NaN);
    const d = norm180(nose - frame.end.trueBearingDeg);
    if (d === d) {
      seen = true;
      if (Math.abs(d) > Math.abs(swing)) swing = d;
    }
    const y = frame.lateral[i] ?? 0;
    if (Math.abs(y) > Math.abs(away)) away = y;
  }
  const known = Number.isFinite(heading);
  return {
    touchdown: {
      tS: round(touch.tS),
      alongM: orNull(along?.value, 1),
      lateralM: orNull(lateral?.value),
      iasKt: orNull(dial?.value, 1),
      gsKt: orNull(gs, 1),
      sinkFpm: orNull(touch.sinkFpm, 0),
      crabDeg: known ? orNull(norm180(heading - trackFromLine), 1) : null,
      driftKt: orNull(sideKt, 1),
      ...bouncesAfter(p, h, touch.tS, level),
      uncertainty: {
        tS: orNull(touch.sdS, 2),
        alongM: orNull(Math.hypot(touch.sdS * gs * MS_PER_KT, PLACE_SD_M), 1),
        lateralM: orNull(Math.hypot(touch.sdS * (lateral?.slope ?? 0), PLACE_SD_M), 1),
        iasKt: dial
          ? orNull(Math.hypot(touch.sdS * (Number.isFinite(dial.slope) ? dial.slope : 1.5), DIAL_SD_KT), 1)
          : null,
        gsKt: orNull(Math.hypot(touch.sdS * 1.5, 0.5), 1),
        sinkFpm: orNull(touch.sinkSdFpm, 0),
        crabDeg: known ? orNull(Math.hypot(COMPASS_SD_DEG, 1.5 * touch.sdS), 1) : null,
        driftKt: orNull(0.7 + 0.7 / p.trace.rateHz, 1),
      },
    },
    rollout: {
      swingDeg: seen ? orNull(swing, 1) : null,
      lateralM: seen ? orNull(away) : null,
      uncertainty: {
        swingDeg: seen ? orNull(p.headingDeg ? COMPASS_SD_DEG + 0.6 * touch.sdS : 3, 1) : null,
        lateralM: seen ? PLACE_SD_M : null,
      },
    },
  };
}

/** Is a moment in a stretch of which nothing was recorded? */
const unrecorded = (p: Placed, t: number): boolean => {
  const i = indexAt(p.tS, t);
  return (p.tS[i] ?? t) - (p.tS[Math.max(0, i - 1)] ?? t) > 2.5;
};

/** First slower than walking after a touch; the end of the stay when it never is. */
function firstBelow(p: Placed, stay: { from: number; to: number }, touchS: number): number {
  for (let i = indexAt(p.tS, touchS); i <= stay.to; i++) if ((p.gsKt[i] ?? 99) < WALKING_KT) return p.tS[i] ?? touchS;
  return p.tS[stay.to] ?? touchS;
}
/** Where the roll began: the last time slower than walking before the lift-off. */
function rollStart(p: Placed, stay: { from: number; to: number }, liftS: number): number {
  for (let i = indexAt(p.tS, liftS); i > stay.from; i--) if ((p.gsKt[i] ?? 99) < WALKING_KT) return p.tS[i] ?? liftS;
  return p.tS[stay.from] ?? liftS;
}
/** 500 ft above the threshold or the end of the last turn, whichever is later. */
export function approachStart(p: Placed, frame: RunwayFrame, h: Float64Array, from: number, touchS: number): number {
  let i = indexAt(p.tS, touchS);
  for (; i > 0; i--) {
    if ((h[i] ?? 0) > 500) break;
    if ((p.gsKt[i] ?? 0) > 20 && Math.abs(norm180((p.trackDeg[i] ?? 0) - frame.end.trueBearingDeg)) > 20) break;
  }
  return p.tS[Math.min(i + 1, p.n - 1)] ?? p.tS[from] ?? touchS;
}

const KT_PER: Record<string, number> = { kt: 1, mph: 0.868976, 'km/h': 1 / 1.852 };
/** Each gate where the path passes it: by the distance still to fly to the threshold, or by its height coming down. */
function gatesOf(
  p: Placed,
  context: TraceContext,
  frame: RunwayFrame,
  h: Float64Array,
  touchS: number,
): NonNullable<FoundEvent['gates']> {
  const touch = indexAt(p.tS, touchS);
  // Over the threshold, or as far before the touch as the touch lies past it.
  let over = touch;
  while (over > 0 && (frame.along[over] ?? 0) > 0) over--;
  const thresholdM = p.pathM[over] ?? 0;
  return context.gates.flatMap((g) => {
    let i = over;
    if (g.distanceM != null) while (i > 0 && thresholdM - (p.pathM[i] ?? 0) < g.distanceM) i--;
    else if (g.heightFt != null) {
      i = touch;
      while (i > 0 && (h[i] ?? 0) < g.heightFt) i--;
    } else return [];
    if (i <= 0 || touchS - (p.tS[i] ?? 0) > 400) return [];
    const t = p.tS[i] ?? 0;
    const ias = orNull(valueAt(p.iasKt, p, t, 0.8)?.value, 1);
    const targetKt = round(g.targetIas * (KT_PER[g.unit] ?? 1), 1);
    return [
      {
        name: g.name,
        tS: round(t),
        iasKt: ias,
        gsKt: orNull(p.gsKt[i], 1),
        heightFt: orNull(h[i], 0),
        targetKt,
        deviationKt: ias === null ? null : round(ias - targetKt, 1),
      },
    ];
  });
}

/** A touch that flew away at once: a go-around that began on the runway. */
export function bouncedEvent(
  p: Placed,
  frame: RunwayFrame,
  h: Float64Array,
  from: number,
  touchS: number,
  liftS: number,
): FoundEvent {
  return {
    kind: 'go-around',
    runway: frame.ident,
    startS: round(approachStart(p, frame, h, from, touchS)),
    endS: round(liftS),
    lowestHeightFt: orNull(h[indexAt(p.tS, touchS)], 0),
    lowestS: round(touchS),
    confidence: p.calibrated ? 0.7 : 0.5,
  };
}
