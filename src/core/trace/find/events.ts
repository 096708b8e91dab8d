/**
 * Take-offs, landings and passes along a runway. A pass is a stay in the runway's corridor, aligned with it and below
 * 300 ft; what happened in it is told by where it touched, rolled and left the ground. Touch and lift-off are the bends
 * in the height, sharpened by the load where an accelerometer recorded it.
 */
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import { MS_PER_KT, norm180 } from '../../constants';
import { type Placed, type RunwayFrame, smoothed, surfaceFt } from './frame';

type Event = TraceAnalysis['events'][number];
interface Pass {
  frame: RunwayFrame;
  from: number;
  to: number;
}

const ALIGNED_DEG = 35;
/** A pass is looked at below the second; what never came below the first is none. */
const LOW_FT = 300;
const CORRIDOR_FT = 400;
const BEFORE_M = 3000;
/** Seconds on either side of a pass in which its height is known, so that what led to it can be seen. */
const WIDE_S = 120;
const WALKING_KT = 4;
/** About what a recorded height is off on the runway, at most. */
const GROUND_FT = 9;

/** Height above the surface of a runway, before it above its threshold. */
const above = (p: Placed, f: RunwayFrame, elevationFt: number, i: number): number =>
  (p.heightFt?.[i] ?? Number.NaN) + elevationFt - surfaceFt(f, i);

function passesOf(p: Placed, context: TraceContext): Pass[] {
  const out: Pass[] = [];
  for (const frame of p.frames) {
    let from = -1;
    let last = -1;
    for (let i = 0; i < p.n; i++) {
      const x = frame.along[i] ?? Number.NaN;
      const y = Math.abs(frame.lateral[i] ?? Number.NaN);
      const gs = p.gsKt[i] ?? 0;
      const rolling = x > -80 && x < frame.lengthM + 80 && y < frame.widthM / 2 + 12;
      const aligned =
        gs < 8 ? rolling : Math.abs(norm180((p.trackDeg[i] ?? 0) - frame.end.trueBearingDeg)) < ALIGNED_DEG;
      const low = p.heightFt === null || !(above(p, frame, context.aerodrome.elevationFt, i) > CORRIDOR_FT);
      // Slow and not on the runway is taxiing; slow on it belongs to the pass that brought it there.
      const inside =
        aligned &&
        low &&
        x > -BEFORE_M &&
        x < frame.lengthM + 900 &&
        y < 90 + 0.05 * Math.max(0, -x) &&
        (gs >= 20 || rolling);
      if (inside) {
        if (from < 0) from = i;
        last = i;
      } else if (from >= 0 && (p.tS[i] ?? 0) - (p.tS[last] ?? 0) > 4) {
        out.push({ frame, from, to: last });
        from = -1;
      }
    }
    if (from >= 0) out.push({ frame, from, to: last });
  }
  return out.filter((x) => (p.tS[x.to] ?? 0) - (p.tS[x.from] ?? 0) > 4).sort((a, b) => a.from - b.from);
}

/** Straight line through a stretch; value and slope at a time. */
function fitLine(
  x: Float64Array,
  tS: Float64Array,
  from: number,
  to: number,
  atS: number,
): { value: number; slope: number } | null {
  let n = 0;
  let st = 0;
  let sx = 0;
  let stt = 0;
  let stx = 0;
  for (let i = from; i <= to; i++) {
    const v = x[i] ?? Number.NaN;
    if (v !== v) continue;
    const t = (tS[i] ?? 0) - atS;
    n++;
    st += t;
    sx += v;
    stt += t * t;
    stx += t * v;
  }
  const d = n * stt - st * st;
  if (n < 2) return n === 1 ? { value: sx, slope: Number.NaN } : null;
  if (Math.abs(d) < 1e-9) return { value: sx / n, slope: Number.NaN };
  const slope = (n * stx - st * sx) / d;
  return { value: (sx - slope * st) / n, slope };
}
const indexAt = (tS: Float64Array, t: number): number => {
  let a = 0;
  let b = tS.length - 1;
  while (a < b) {
    const m = (a + b) >> 1;
    if ((tS[m] ?? 0) < t) a = m + 1;
    else b = m;
  }
  return a;
};

/**
 * The bend where a falling height becomes level ground (or, backward in time, where level ground becomes a climb):
 * least squares of a parabola that ends in its bend, and a flat line after it. @returns time of the bend and the slope
 * into it, ft/s
 */
function bend(
  h: Float64Array,
  tS: Float64Array,
  from: number,
  to: number,
  levelFt: number,
  noiseFt: number,
  backward: boolean,
): { tS: number; slopeFtS: number } {
  const sign = backward ? -1 : 1;
  // A hop costs little; but what is only noise must cost as much on the ground as it does in the air.
  const hop = Math.max(HOP_FT2, 12 * noiseFt * noiseFt);
  const rateHz = (to - from) / Math.max(0.1, (tS[to] ?? 0) - (tS[from] ?? 0));
  const t0 = tS[from] ?? 0;
  const t1 = tS[to] ?? 0;
  const at = (tb: number): { tS: number; slopeFtS: number; cost: number } => {
    // The runway as recorded there and then: a height that has wandered since it was set shows it some feet off.
    let near = 0;
    let n = 0;
    for (let i = from; i <= to; i++) {
      const v = h[i] ?? Number.NaN;
      const since = sign * ((tS[i] ?? 0) - tb);
      if (v === v && since > 0 && since < RUNWAY_S && Math.abs(v - levelFt) < WANDERED_FT) {
        near += v;
        n++;
      }
    }
    const keep = 0.7 * rateHz;
    const groundFt = (near + keep * levelFt) / (n + keep);
    // h = ground + a·d + b·d², d seconds to go to the bend: two sums solved for a and b.
    let dd = 0;
    let ddd = 0;
    let dddd = 0;
    let dh = 0;
    let ddh = 0;
    let flat = 0;
    let square = 0;
    for (let i = from; i <= to; i++) {
      const v = (h[i] ?? Number.NaN) - groundFt;
      if (v !== v) continue;
      const d = sign * (tb - (tS[i] ?? 0));
      // A hop after the touch is no height to come down from: it costs little.
      if (d <= 0) {
        flat += Math.min(v * v, hop);
        continue;
      }
      dd += d * d;
      ddd += d ** 3;
      dddd += d ** 4;
      dh += d * v;
      ddh += d * d * v;
      square += v * v;
    }
    const det = dd * dddd - ddd * ddd;
    let a = dd > 0 ? dh / dd : 0;
    let b = 0;
    if (det > 1e-6) {
      a = (dh * dddd - ddh * ddd) / det;
      b = (dd * ddh - ddd * dh) / det;
    }
    if (a < 0.2) {
      a = 0.2;
      b = dddd > 0 ? (ddh - a * ddd) / dddd : 0;
    }
    const cost = flat + square - 2 * (a * dh + b * ddh) + a * a * dd + 2 * a * b * ddd + b * b * dddd;
    return { tS: tb, slopeFtS: a, cost };
  };
  // Every 0.3 s, then about the best of them every 0.05 s.
  let best = at(t0);
  const better = (tb: number) => {
    const x = at(tb);
    if (x.cost < best.cost) best = x;
  };
  const COARSE_S = 0.3;
  for (let tb = t0 + COARSE_S; tb <= t1; tb += COARSE_S) better(tb);
  const middle = best.tS;
  for (let k = -5; k <= 5; k++) {
    const tb = middle + (k * COARSE_S) / 6;
    if (k !== 0 && tb >= t0 && tb <= t1) better(tb);
  }
  return best;
}

/** Seconds on the ground that show its height, and how far that may be from the one on the rest of the stay. */
const RUNWAY_S = 3;
const WANDERED_FT = 12;
/** Square of the height beyond which a sample on the ground costs no more. */
const HOP_FT2 = 4;
/** A load felt higher than this is no touch. */
const LOAD_BELOW_FT = 8;
interface Touch {
  tS: number;
  sinkFpm: number | null;
  sharp: boolean;
}

/** The touch within a window: the bend in the height, moved to the first load of it where there is one. */
function touchIn(p: Placed, h: Float64Array, from: number, to: number, groundFt: number): Touch | null {
  const found = bend(h, p.tS, from, to, groundFt, p.heightNoiseFt, false);
  const tS = knockNear(p, h, found.tS, to, groundFt);
  return { tS: tS ?? found.tS, sinkFpm: sinkInto(p, h, tS ?? found.tS, found.slopeFtS * 60), sharp: tS !== null };
}

/**
 * The first knock of the load near a bend: what stands out of its neighbours by a good part of the greatest that does.
 */
function knockNear(p: Placed, h: Float64Array, bendS: number, to: number, groundFt: number): number | null {
  if (!p.nz || p.trace.rateHz < 3.5) return null;
  const from = indexAt(p.tS, bendS - 2.5);
  const last = Math.min(to, indexAt(p.tS, bendS + 1.5));
  const outstanding: number[] = [];
  let most = 0;
  for (let i = from; i <= last; i++) {
    const around: number[] = [];
    for (
      let k = Math.max(0, indexAt(p.tS, (p.tS[i] ?? 0) - 1.2));
      k < p.n && (p.tS[k] ?? 0) <= (p.tS[i] ?? 0) + 1.2;
      k++
    ) {
      const v = p.nz[k] ?? Number.NaN;
      if (v === v) around.push(v);
    }
    around.sort((a, b) => a - b);
    const e = (h[i] ?? 99) - groundFt < LOAD_BELOW_FT ? (p.nz[i] ?? 0) - (around[around.length >> 1] ?? 1) : 0;
    outstanding.push(e);
    most = Math.max(most, e);
  }
  if (most < Math.max(LEAST_KNOCK_G, p.feltG - 1.03)) return null;
  const first = outstanding.findIndex((e) => e > Math.max(0.09, 0.45 * most));
  return p.tS[from + first] ?? null;
}
/** A smaller knock may be a gust or noise. */
const LEAST_KNOCK_G = 0.12;

/** Sink at the touch: from the recorded vertical speed of the last second, else from the height. */
function sinkInto(p: Placed, h: Float64Array, touchS: number, bendFpm: number): number {
  const { vs } = p.trace.channels;
  const a = indexAt(p.tS, touchS - Math.max(1.2, 2.2 / p.trace.rateHz));
  const b = indexAt(p.tS, touchS - 0.25);
  const line = vs && b - a >= 1 ? fitLine(vs, p.tS, a, b - 1, touchS - 0.1) : null;
  if (line && Number.isFinite(line.value) && line.value < 50) return Math.max(0, -line.value);
  return bendFpm;
}

/** Loads after the first touch, as separate knocks on the runway: each but the first is a bounce. */
function bouncesAfter(
  p: Placed,
  h: Float64Array,
  touchS: number,
  groundFt: number,
): { bounces: number | null; peakG: number | null } {
  if (!p.nz || p.trace.rateHz < 3.5) return { bounces: null, peakG: null };
  let peak = -Infinity;
  let knocks = 0;
  let lastKnock = -Infinity;
  let firstLoad = 0;
  for (let i = indexAt(p.tS, touchS - 0.3); i < p.n && (p.tS[i] ?? 0) < touchS + 8; i++) {
    const g = p.nz[i] ?? Number.NaN;
    if (g > peak) peak = g;
    const t = p.tS[i] ?? 0;
    if (knocks === 0) firstLoad = Math.max(firstLoad, g - 1);
    const enough = Math.max(0.12, 0.35 * firstLoad);
    if (g - 1 > enough && (h[i] ?? 99) - groundFt < LOAD_BELOW_FT && t - lastKnock > 0.55) {
      knocks++;
      lastKnock = t;
    } else if (g - 1 > enough) lastKnock = t;
  }
  return { bounces: Math.max(0, knocks - 1), peakG: Number.isFinite(peak) ? peak : null };
}

/** Slow is on the ground only where it is not plainly above it: into a wind a light aeroplane flies slowly. */
const SLOW_BELOW_FT = 15;
/** Off again sooner than this after the touch: it bounced and went around. */
const FLEW_AWAY_S = 1.6;
/** Off the ground for less than this and no higher: a hop, or a height that wanders. */
const HOP_S = 8;
const HOP_FT = 9;
/** A shorter stay is no landing: it touched and flew on. */
const LEAST_STAY_S = 1.2;
const highest = (h: Float64Array, from: number, to: number): number => {
  let m = -Infinity;
  for (let i = from; i <= to; i++) {
    const v = h[i] ?? Number.NaN;
    if (v > m) m = v;
  }
  return m;
};

/** Wheels on a runway slow an aeroplane, or are felt; what keeps its speed low over it only flies low. */
function wheelsSeen(p: Placed, stay: { from: number; to: number }, flyKt: number): boolean {
  let fastest = 0;
  let drop = 0;
  let load = 0;
  for (let i = indexAt(p.tS, (p.tS[stay.from] ?? 0) - 1); i <= stay.to; i++) {
    const gs = p.gsKt[i] ?? Number.NaN;
    if (gs < flyKt) return true;
    if (gs > fastest) fastest = gs;
    drop = Math.max(drop, fastest - gs);
    load = Math.max(load, p.nz?.[i] ?? 0);
  }
  return drop > 2.5 || load > p.feltG;
}

/** Everything found along the runways of the context, in order of time. */
export function findEvents(p: Placed, context: TraceContext): Event[] {
  const { elevationFt } = context.aerodrome;
  if (!p.heightFt) return withoutHeight(p, context);
  const events: Event[] = [];
  // Noise is smoothed away until about a foot of it is left, though never over more than three seconds.
  const halfS = Math.max(0.3, 0.6 / p.trace.rateHz, Math.min(1.5, (p.heightNoiseFt ** 2 - 1) / (2 * p.trace.rateHz)));
  const restFt = p.heightNoiseFt / Math.sqrt(Math.max(1, 2 * halfS * p.trace.rateHz + 1));
  const flyKt = 0.75 * (context.airframe.vs0Kt ?? 45);
  // One pair of columns for all passes: each fills its own stretch.
  const raw = new Float64Array(p.n);
  const h = new Float64Array(p.n);
  for (const { frame, from, to } of passesOf(p, context)) {
    const [wideFrom, wideTo] = [indexAt(p.tS, (p.tS[from] ?? 0) - WIDE_S), indexAt(p.tS, (p.tS[to] ?? 0) + WIDE_S)];
    raw.fill(Number.NaN);
    for (let i = wideFrom; i <= wideTo; i++) raw[i] = above(p, frame, elevationFt, i);
    smoothed(raw, p.tS, halfS, wideFrom, wideTo, h);
    const onRunway = (i: number) =>
      (frame.along[i] ?? -1e9) > -150 &&
      (frame.along[i] ?? 1e9) < frame.lengthM + 150 &&
      Math.abs(frame.lateral[i] ?? 1e9) < frame.widthM / 2 + 25;
    const groundFt = groundCeiling(p, h, from, to, restFt, onRunway);
    // Stays on the ground: rolling too slowly to fly, or low and level for more than a second.
    const ground: { from: number; to: number }[] = [];
    let start = -1;
    for (let i = from; i <= to; i++) {
      const low =
        onRunway(i) && (h[i] ?? 0) < groundFt + SLOW_BELOW_FT && ((p.gsKt[i] ?? 99) < flyKt || (h[i] ?? 99) < groundFt);
      if (low && start < 0) start = i;
      if ((!low || i === to) && start >= 0) {
        const end = low ? i : i - 1;
        const before = ground[ground.length - 1];
        // A hop between two stays is a bounce, not a flight; so is a height that wanders while it rolls.
        if (
          before &&
          (p.tS[start] ?? 0) - (p.tS[before.to] ?? 0) < HOP_S &&
          highest(h, before.to, start) < groundFt + HOP_FT
        )
          before.to = end;
        else ground.push({ from: start, to: end });
        start = -1;
      }
    }
    for (let k = ground.length - 1; k >= 0; k--) {
      const g = ground[k];
      if (g && ((p.tS[g.to] ?? 0) - (p.tS[g.from] ?? 0) < LEAST_STAY_S || !wheelsSeen(p, g, flyKt)))
        ground.splice(k, 1);
    }
    if (ground.length === 0) {
      const seen = passWithout(p, h, frame, from, to);
      if (seen) events.push(seen);
      continue;
    }
    for (const stay of ground) {
      const level = groundLevel(h, p.gsKt, stay);
      // Came from above and before; leaves upward. Not beyond the neighbouring stays of the same pass.
      const k = ground.indexOf(stay);
      const wide = {
        before: Math.max(indexAt(p.tS, (p.tS[stay.from] ?? 0) - 7), ground[k - 1]?.to ?? 0),
        after: Math.min(indexAt(p.tS, (p.tS[stay.to] ?? 0) + 8), ground[k + 1]?.from ?? p.n - 1),
      };
      const far = {
        before: Math.max(from, indexAt(p.tS, (p.tS[stay.from] ?? 0) - 15), ground[k - 1]?.to ?? 0),
        after: Math.min(to, indexAt(p.tS, (p.tS[stay.to] ?? 0) + 20), ground[k + 1]?.from ?? p.n - 1),
      };
      const cameDown = stay.from > from && highest(h, far.before, stay.from) > level + 15;
      const wentUp = stay.to < to && highest(h, stay.to, far.after) > level + 15 && (p.gsKt[far.after] ?? 0) > 20;
      if (!cameDown && !wentUp) continue;
      let touch: Touch | null = null;
      let lift: number | null = null;
      if (cameDown)
        touch = touchIn(p, raw, wide.before, Math.min(stay.to, indexAt(p.tS, (p.tS[stay.from] ?? 0) + 5)), level);
      if (wentUp)
        lift = bend(
          raw,
          p.tS,
          Math.max(stay.from, indexAt(p.tS, (p.tS[stay.to] ?? 0) - 6)),
          wide.after,
          level,
          p.heightNoiseFt,
          true,
        ).tS;
      if (touch && lift !== null && lift - touch.tS < FLEW_AWAY_S + 0.6 / p.trace.rateHz) {
        events.push(bounced(p, frame, h, from, touch.tS, Math.max(lift, touch.tS)));
        continue;
      }
      events.push(...told(p, context, frame, h, level, { from, stay, touch, lift }));
    }
  }
  return onceEach(p, events).sort((a, b) => a.startS - b.startS);
}

/** Of runways side by side each arrival is told once: on the one whose centreline it was nearest. */
function onceEach(p: Placed, events: readonly Event[]): Event[] {
  const off = (e: Event): number => {
    const t = e.touchdown?.tS ?? e.lowestS ?? e.liftoff?.tS ?? e.startS;
    const f = p.frames.find((x) => x.ident === e.runway);
    return Math.abs(f?.lateral[indexAt(p.tS, t)] ?? Infinity);
  };
  const kept: Event[] = [];
  for (const e of [...events].sort((a, b) => off(a) - off(b)))
    if (!kept.some((k) => k.runway !== e.runway && Math.min(k.endS, e.endS) - Math.max(k.startS, e.startS) > 0))
      kept.push(e);
  return kept;
}

/**
 * Below which height this pass is on the ground. A recorder that has wandered shows the runway some feet high: then the
 * lowest part counts, when a load or a loss of speed says that wheels touched there; a pass that only flies low keeps
 * its speed and feels nothing.
 */
function groundCeiling(
  p: Placed,
  h: Float64Array,
  from: number,
  to: number,
  restFt: number,
  onRunway: (i: number) => boolean,
): number {
  let low = -1;
  for (let i = from; i <= to; i++) if (onRunway(i) && (low < 0 || (h[i] ?? Infinity) < (h[low] ?? Infinity))) low = i;
  const lowest = low < 0 ? Infinity : (h[low] ?? Infinity);
  const usual = GROUND_FT - 3.5 + 1.5 * restFt;
  if (!(lowest < GROUND_FT + 5)) return usual;
  let fastest = 0;
  let drop = 0;
  let load = 0;
  const level: number[] = [];
  for (let i = from; i <= to; i++) {
    if (!onRunway(i) || (h[i] ?? 99) > lowest + 4 + 2 * restFt) continue;
    level.push(h[i] ?? 0);
    fastest = Math.max(fastest, p.gsKt[i] ?? 0);
    drop = Math.max(drop, fastest - (p.gsKt[i] ?? Infinity));
    load = Math.max(load, p.nz?.[i] ?? 0);
  }
  level.sort((a, b) => a - b);
  return drop > 7 || load > p.feltG ? Math.max(usual, (level[level.length >> 1] ?? 0) + 3.5 + 1.5 * restFt) : usual;
}

/** The height the recorder shows on this stay: the middle of its slow part, else of its lowest. */
function groundLevel(h: Float64Array, gsKt: Float64Array, stay: { from: number; to: number }): number {
  const values: number[] = [];
  for (let i = stay.from; i <= stay.to; i++) {
    const v = h[i] ?? Number.NaN;
    if (v === v) values.push(v);
  }
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length * 0.4)] ?? 0;
}

function told(
  p: Placed,
  context: TraceContext,
  frame: RunwayFrame,
  h: Float64Array,
  level: number,
  w: { from: number; stay: { from: number; to: number }; touch: Touch | null; lift: number | null },
): Event[] {
  const { touch, lift, stay } = w;
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
  const liftoff = lift === null ? undefined : liftPart(p, frame, lift);
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

/**
 * Without any height: only what stood or rolled slowly on a runway and flew at another time can be told, by its speed
 * alone. No place, no touch; and a touch-and-go that stayed fast is not seen.
 */
function withoutHeight(p: Placed, context: TraceContext): Event[] {
  const flyKt = context.airframe.vs0Kt ?? 45;
  const out: Event[] = [];
  for (const { frame, from, to } of passesOf(p, context)) {
    const on = (i: number) =>
      (frame.along[i] ?? -1e9) > -100 &&
      (frame.along[i] ?? 1e9) < frame.lengthM + 100 &&
      Math.abs(frame.lateral[i] ?? 1e9) < frame.widthM / 2 + 20;
    let slow = { from: -1, to: -1, least: Infinity };
    for (let i = from; i <= to; i++)
      if (on(i) && (p.gsKt[i] ?? 99) < 0.6 * flyKt)
        slow = { from: slow.from < 0 ? i : slow.from, to: i, least: Math.min(slow.least, p.gsKt[i] ?? Infinity) };
    if (slow.from < 0) continue;
    const fastIn = (a: number, b: number) => {
      let m = 0;
      for (let i = Math.max(0, a); i <= Math.min(p.n - 1, b); i++) m = Math.max(m, p.gsKt[i] ?? 0);
      return m > 1.05 * flyKt;
    };
    const came = fastIn(indexAt(p.tS, (p.tS[slow.from] ?? 0) - 40), slow.from);
    const went = fastIn(slow.to, indexAt(p.tS, (p.tS[slow.to] ?? 0) + 40));
    if (!came && !went) continue;
    const kind = !came ? 'takeoff' : !went ? 'landing' : slow.least < WALKING_KT ? 'stop-and-go' : 'touch-and-go';
    // When it was last as fast as it needs to fly.
    let touch = slow.from;
    while (touch > 0 && (p.gsKt[touch] ?? 0) < 0.9 * flyKt) touch--;
    let lift = slow.to;
    while (lift < p.n - 1 && (p.gsKt[lift] ?? 0) < 1.05 * flyKt) lift++;
    out.push({
      kind,
      runway: frame.ident,
      startS: round(p.tS[came ? from : slow.from] ?? 0),
      endS: round(p.tS[went ? lift : slow.to] ?? 0),
      confidence: 0.3,
      ...(came ? { touchdown: { ...NO_MEASURES, tS: round(p.tS[touch] ?? 0) } } : {}),
      ...(went
        ? { liftoff: { tS: round(p.tS[lift] ?? 0), alongM: null, lateralM: null, iasKt: null, gsKt: null } }
        : {}),
    });
  }
  return out.sort((a, b) => a.startS - b.startS);
}
const NO_MEASURES = {
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

const round = (x: number, digits = 2): number => Math.round(x * 10 ** digits) / 10 ** digits;
const orNull = (x: number | undefined | null, digits = 2): number | null =>
  x === undefined || x === null || !Number.isFinite(x) ? null : round(x, digits);

function at(x: Float64Array | null, p: Placed, t: number, halfS: number): { value: number; slope: number } | null {
  return x
    ? fitLine(
        x,
        p.tS,
        indexAt(p.tS, t - halfS),
        Math.max(
          0,
          indexAt(p.tS, t + halfS + 1e-9) - ((p.tS[indexAt(p.tS, t + halfS + 1e-9)] ?? 0) > t + halfS ? 1 : 0),
        ),
        t,
      )
    : null;
}

/** A value at a moment by the line through the second and a half before it. */
function before1(x: Float64Array | null, p: Placed, t: number): number | undefined {
  if (!x) return undefined;
  const to = indexAt(p.tS, t + 1e-6);
  return fitLine(
    x,
    p.tS,
    indexAt(p.tS, t - Math.max(1.5, 2.5 / p.trace.rateHz)),
    (p.tS[to] ?? 0) > t + 1e-6 ? Math.max(0, to - 1) : to,
    t,
  )?.value;
}

function liftPart(p: Placed, frame: RunwayFrame, tS: number): NonNullable<Event['liftoff']> {
  const half = Math.max(0.6, 1.2 / p.trace.rateHz);
  return {
    tS: round(tS),
    alongM: orNull(at(frame.along, p, tS, half)?.value, 1),
    lateralM: orNull(at(frame.lateral, p, tS, half)?.value),
    iasKt: orNull(at(p.iasKt, p, tS, half)?.value, 1),
    gsKt: orNull(at(p.gsKt, p, tS, half)?.value, 1),
  };
}

function touchPart(
  p: Placed,
  frame: RunwayFrame,
  h: Float64Array,
  level: number,
  touch: Touch,
  endS: number,
): { touchdown: NonNullable<Event['touchdown']>; rollout: NonNullable<Event['rollout']> } {
  const half = Math.max(0.6, 1.2 / p.trace.rateHz);
  const lateral = at(frame.lateral, p, touch.tS, half);
  const gs = at(p.gsKt, p, touch.tS, half)?.value ?? Number.NaN;
  const before = indexAt(p.tS, touch.tS - 0.4);
  const heading = p.headingDeg?.[before];
  const sideKt = lateral ? lateral.slope / MS_PER_KT : Number.NaN;
  const trackFromLine =
    frame.end.trueBearingDeg +
    (Number.isFinite(sideKt) && gs > 10 ? (Math.asin(Math.max(-1, Math.min(1, sideKt / gs))) * 180) / Math.PI : 0);
  let swing = 0;
  let off = 0;
  let seen = false;
  for (let i = indexAt(p.tS, touch.tS + 0.8); i < p.n && (p.tS[i] ?? 0) < endS && (p.gsKt[i] ?? 0) > 12; i++) {
    const nose = p.headingDeg ? (p.headingDeg[i] ?? Number.NaN) : (p.trackDeg[i] ?? Number.NaN);
    const d = norm180(nose - frame.end.trueBearingDeg);
    if (d === d) {
      seen = true;
      if (Math.abs(d) > Math.abs(swing)) swing = d;
    }
    const y = frame.lateral[i] ?? 0;
    if (Math.abs(y) > Math.abs(off)) off = y;
  }
  return {
    touchdown: {
      tS: round(touch.tS),
      alongM: orNull(at(frame.along, p, touch.tS, half)?.value, 1),
      lateralM: orNull(lateral?.value),
      iasKt: orNull(before1(p.iasKt, p, touch.tS), 1),
      gsKt: orNull(gs, 1),
      sinkFpm: orNull(touch.sinkFpm, 0),
      crabDeg: heading === undefined || Number.isNaN(heading) ? null : orNull(norm180(heading - trackFromLine), 1),
      driftKt: orNull(sideKt, 1),
      ...bouncesAfter(p, h, touch.tS, level),
    },
    rollout: { swingDeg: seen ? orNull(swing, 1) : null, lateralM: seen ? orNull(off) : null },
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
function approachStart(p: Placed, frame: RunwayFrame, h: Float64Array, from: number, touchS: number): number {
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
): NonNullable<Event['gates']> {
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
    const ias = orNull(at(p.iasKt, p, t, 0.8)?.value, 1);
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
function bounced(p: Placed, frame: RunwayFrame, h: Float64Array, from: number, touchS: number, liftS: number): Event {
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

/** Five seconds near level below 100 ft along the runway: little slope and no bend in them. */
function levelFor5s(p: Placed, h: Float64Array, frame: RunwayFrame, from: number, to: number): boolean {
  const calm = smoothed(h, p.tS, 1, from, to);
  for (let a = from; a < to; a++) {
    const t = p.tS[a] ?? 0;
    const b = indexAt(p.tS, t + 5);
    if (b > to) return false;
    const m = indexAt(p.tS, t + 2.5);
    const [ha, hm, hb] = [calm[a] ?? Number.NaN, calm[m] ?? Number.NaN, calm[b] ?? Number.NaN];
    if (
      hb < 100 &&
      ha < 100 &&
      Math.abs(hb - ha) < 12 &&
      Math.abs(hm - (ha + hb) / 2) < 5 &&
      (frame.along[m] ?? -1e9) > -250 &&
      (frame.along[m] ?? 1e9) < frame.lengthM + 250
    )
      return true;
  }
  return false;
}

/** A pass that never touched: level along the runway, or down and away again. */
function passWithout(p: Placed, h: Float64Array, frame: RunwayFrame, from: number, to: number): Event | null {
  let low = -1;
  for (let i = from; i <= to; i++) if (low < 0 || (h[i] ?? Infinity) < (h[low] ?? Infinity)) low = i;
  const lowest = h[low] ?? Number.NaN;
  if (!(lowest < LOW_FT)) return null;
  const before = indexAt(p.tS, (p.tS[low] ?? 0) - 60);
  const after = Math.min(p.n - 1, indexAt(p.tS, (p.tS[low] ?? 0) + 45));
  if (highest(h, before, low) < lowest + 60 || highest(h, low, after) < lowest + 60) return null;
  const near = (frame.along[low] ?? -1e9) > -BEFORE_M;
  if (!near) return null;
  const kind = lowest < 100 && levelFor5s(p, h, frame, from, to) ? 'low-pass' : 'go-around';
  return {
    kind,
    runway: frame.ident,
    startS: round(approachStart(p, frame, h, from, p.tS[low] ?? 0)),
    endS: round(p.tS[to] ?? 0),
    lowestHeightFt: orNull(lowest, 0),
    lowestS: round(p.tS[low] ?? 0),
    confidence: p.calibrated ? 0.85 : 0.55,
  };
}
