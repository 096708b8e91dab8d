/**
 * Take-offs, landings and passes along a runway. A pass is a stay in the runway's corridor, aligned with it and below 300 ft; what happened in it is told by
 * where it touched, rolled and left the ground. Touch and lift-off are the bends in the height, sharpened by the load where an accelerometer recorded it.
 */
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import { MS_PER_KT, norm180 } from '../../constants';
import { type Placed, type RunwayFrame, smoothed } from './frame';

type Event = TraceAnalysis['events'][number];
interface Pass { frame: RunwayFrame; from: number; to: number }

const ALIGNED_DEG = 35;
const CORRIDOR_FT = 300;
const BEFORE_M = 2500;
const WALKING_KT = 4;
/** About what a recorded height is off on the runway, at most. */
const GROUND_FT = 9;

/** Height above the threshold of one end. */
const above = (p: Placed, f: RunwayFrame, elevationFt: number, i: number): number => (p.heightFt?.[i] ?? Number.NaN) + elevationFt - f.end.elevationFt;

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
      const aligned = gs < 8 ? rolling : Math.abs(norm180((p.trackDeg[i] ?? 0) - frame.end.trueBearingDeg)) < ALIGNED_DEG;
      const low = p.heightFt === null || !(above(p, frame, context.aerodrome.elevationFt, i) > CORRIDOR_FT);
      // Slow and not on the runway is taxiing; slow on it belongs to the pass that brought it there.
      const inside = aligned && low && x > -BEFORE_M && x < frame.lengthM + 900 && y < 90 + 0.05 * Math.max(0, -x) && (gs >= 20 || rolling);
      if (inside) { if (from < 0) from = i; last = i; } else if (from >= 0 && ((p.tS[i] ?? 0) - (p.tS[last] ?? 0) > 4)) { out.push({ frame, from, to: last }); from = -1; }
    }
    if (from >= 0) out.push({ frame, from, to: last });
  }
  return out.filter((x) => (p.tS[x.to] ?? 0) - (p.tS[x.from] ?? 0) > 4).sort((a, b) => a.from - b.from);
}

/** Straight line through a stretch; value and slope at a time. */
function fitLine(x: Float64Array, tS: Float64Array, from: number, to: number, atS: number): { value: number; slope: number } | null {
  let n = 0;
  let st = 0;
  let sx = 0;
  let stt = 0;
  let stx = 0;
  for (let i = from; i <= to; i++) { const v = x[i] ?? Number.NaN; if (v !== v) continue; const t = (tS[i] ?? 0) - atS; n++; st += t; sx += v; stt += t * t; stx += t * v; }
  const d = n * stt - st * st;
  if (n < 2) return n === 1 ? { value: sx, slope: Number.NaN } : null;
  if (Math.abs(d) < 1e-9) return { value: sx / n, slope: Number.NaN };
  const slope = (n * stx - st * sx) / d;
  return { value: (sx - slope * st) / n, slope };
}
const indexAt = (tS: Float64Array, t: number): number => { let a = 0; let b = tS.length - 1; while (a < b) { const m = (a + b) >> 1; if ((tS[m] ?? 0) < t) a = m + 1; else b = m; } return a; };

/**
 * The bend where a falling height becomes level ground (or, backward in time, where level ground becomes a climb): least squares of a parabola that ends in
 * its bend, and a flat line after it. @returns time of the bend and the slope into it, ft/s
 */
function bend(h: Float64Array, tS: Float64Array, from: number, to: number, groundFt: number, backward: boolean): { tS: number; slopeFtS: number } | null {
  const sign = backward ? -1 : 1;
  const t0 = tS[from] ?? 0;
  const t1 = tS[to] ?? 0;
  let best: { tS: number; slopeFtS: number; cost: number } | null = null;
  const steps = Math.max(8, Math.min(160, Math.round((t1 - t0) * 10)));
  for (let k = 0; k <= steps; k++) {
    const tb = t0 + ((t1 - t0) * k) / steps;
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
      if (d <= 0) { flat += Math.min(v * v, HOP_FT2); continue; }
      dd += d * d; ddd += d ** 3; dddd += d ** 4; dh += d * v; ddh += d * d * v; square += v * v;
    }
    const det = dd * dddd - ddd * ddd;
    let a = dd > 0 ? dh / dd : 0;
    let b = 0;
    if (det > 1e-6) { a = (dh * dddd - ddh * ddd) / det; b = (dd * ddh - ddd * dh) / det; }
    if (a < 0.2) { a = 0.2; b = dddd > 0 ? (ddh - a * ddd) / dddd : 0; }
    const cost = flat + square - 2 * (a * dh + b * ddh) + a * a * dd + 2 * a * b * ddd + b * b * dddd;
    if (!best || cost < best.cost) best = { tS: tb, slopeFtS: a, cost };
  }
  return best;
}

/** Square of the height beyond which a sample on the ground costs no more. */
const HOP_FT2 = 4;
/** A load felt higher than this is no touch. */
const LOAD_BELOW_FT = 8;
interface Touch { tS: number; sinkFpm: number | null; sharp: boolean }

/** The touch within a window: the bend in the height, moved to the first load of it where there is one. */
function touchIn(p: Placed, h: Float64Array, from: number, to: number, groundFt: number): Touch | null {
  const found = bend(h, p.tS, from, to, groundFt, false);
  if (!found) return null;
  const sinkFpm = found.slopeFtS * 60;
  if (p.nz && p.trace.rateHz >= 3.5) {
    for (let i = indexAt(p.tS, found.tS - 2.5); i <= to && (p.tS[i] ?? 0) <= found.tS + 1.5; i++) {
      if ((p.nz[i] ?? 0) > 1.15 && (h[i] ?? 99) - groundFt < LOAD_BELOW_FT) return { tS: p.tS[i] ?? found.tS, sinkFpm, sharp: true };
    }
  }
  return { tS: found.tS, sinkFpm, sharp: false };
}

/** Loads after the first touch, as separate knocks on the runway: each but the first is a bounce. */
function bouncesAfter(p: Placed, h: Float64Array, touchS: number, groundFt: number): { bounces: number | null; peakG: number | null } {
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
    if (g - 1 > enough && (h[i] ?? 99) - groundFt < LOAD_BELOW_FT && t - lastKnock > 0.55) { knocks++; lastKnock = t; } else if (g - 1 > enough) lastKnock = t;
  }
  return { bounces: Math.max(0, knocks - 1), peakG: Number.isFinite(peak) ? peak : null };
}

/** Everything found along the runways of the context, in order of time. */
export function findEvents(p: Placed, context: TraceContext): Event[] {
  const { elevationFt } = context.aerodrome;
  if (!p.heightFt) return [];
  const events: Event[] = [];
  const halfS = Math.max(0.3, 0.6 / p.trace.rateHz);
  const flyKt = 0.75 * (context.airframe.vs0Kt ?? 45);
  for (const { frame, from, to } of passesOf(p, context)) {
    const raw = p.heightFt.map((v) => v + elevationFt - frame.end.elevationFt);
    const h = smoothed(raw, p.tS, halfS);
    const onRunway = (i: number) => (frame.along[i] ?? -1e9) > -150 && (frame.along[i] ?? 1e9) < frame.lengthM + 150 && Math.abs(frame.lateral[i] ?? 1e9) < frame.widthM / 2 + 25;
    const groundFt = groundCeiling(p, h, from, to, onRunway);
    // Stays on the ground: rolling too slowly to fly, or low and level for more than a second.
    const ground: { from: number; to: number }[] = [];
    let start = -1;
    for (let i = from; i <= to; i++) {
      const low = onRunway(i) && ((p.gsKt[i] ?? 99) < flyKt || (h[i] ?? 99) < groundFt);
      if (low && start < 0) start = i;
      if ((!low || i === to) && start >= 0) {
        const end = low ? i : i - 1;
        if ((p.tS[end] ?? 0) - (p.tS[start] ?? 0) >= 1.2) {
          const before = ground[ground.length - 1];
          // A hop between two stays is a bounce, not a flight.
          if (before && (p.tS[start] ?? 0) - (p.tS[before.to] ?? 0) < 3) before.to = end;
          else ground.push({ from: start, to: end });
        }
        start = -1;
      }
    }
    if (ground.length === 0) {
      const seen = passWithout(p, h, frame, from, to);
      if (seen) events.push(seen);
      continue;
    }
    for (const stay of ground) {
      const level = groundLevel(h, p.gsKt, stay);
      // Came from above and before; leaves upward.
      const wide = { before: indexAt(p.tS, (p.tS[stay.from] ?? 0) - 7), after: indexAt(p.tS, (p.tS[stay.to] ?? 0) + 7) };
      const cameDown = stay.from > from && (h[Math.max(from, wide.before)] ?? 0) > level + 15;
      const wentUp = stay.to < to && (h[Math.min(to, wide.after)] ?? 0) > level + 15 && (p.gsKt[Math.min(to, wide.after)] ?? 0) > 20;
      if (!cameDown && !wentUp) continue;
      let touch: Touch | null = null;
      let lift: number | null = null;
      if (cameDown) touch = touchIn(p, raw, Math.max(from, wide.before), Math.min(stay.to, indexAt(p.tS, (p.tS[stay.from] ?? 0) + 5)), level);
      if (wentUp) lift = bend(raw, p.tS, Math.max(stay.from, indexAt(p.tS, (p.tS[stay.to] ?? 0) - 6)), Math.min(to, wide.after), level, true)?.tS ?? null;
      events.push(...told(p, context, frame, h, level, { from, stay, touch, lift }));
    }
  }
  return events.sort((a, b) => a.startS - b.startS);
}

/**
 * Below which height this pass is on the ground. A recorder that has wandered shows the runway some feet high: then the lowest part counts, when a load or a
 * loss of speed says that wheels touched there; a pass that only flies low keeps its speed and feels nothing.
 */
function groundCeiling(p: Placed, h: Float64Array, from: number, to: number, onRunway: (i: number) => boolean): number {
  let low = -1;
  for (let i = from; i <= to; i++) if (onRunway(i) && (low < 0 || (h[i] ?? Infinity) < (h[low] ?? Infinity))) low = i;
  const lowest = low < 0 ? Infinity : (h[low] ?? Infinity);
  if (lowest < GROUND_FT - 5 || lowest > GROUND_FT + 5) return GROUND_FT - 3.5;
  let fastest = 0;
  let slowest = Infinity;
  let load = 0;
  for (let i = from; i <= to; i++) {
    if (!onRunway(i) || (h[i] ?? 99) > lowest + 4) continue;
    fastest = Math.max(fastest, p.gsKt[i] ?? 0);
    slowest = Math.min(slowest, p.gsKt[i] ?? Infinity);
    load = Math.max(load, p.nz?.[i] ?? 0);
  }
  return fastest - slowest > 7 || load > 1.15 ? lowest + 3.5 : GROUND_FT - 3.5;
}

/** The height the recorder shows on this stay: the middle of its slow part, else of its lowest. */
function groundLevel(h: Float64Array, gsKt: Float64Array, stay: { from: number; to: number }): number {
  const values: number[] = [];
  for (let i = stay.from; i <= stay.to; i++) { const v = h[i] ?? Number.NaN; if (v === v) values.push(v); }
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length * 0.4)] ?? 0;
}

function told(p: Placed, context: TraceContext, frame: RunwayFrame, h: Float64Array, level: number, w: { from: number; stay: { from: number; to: number }; touch: Touch | null; lift: number | null }): Event[] {
  const { touch, lift, stay } = w;
  let slowest = Infinity;
  for (let i = stay.from; i <= stay.to; i++) slowest = Math.min(slowest, p.gsKt[i] ?? Infinity);
  // Rough so far: a calibrated height, a felt load and a high rate each add to it. Not yet a probability.
  const confidence = Math.round(100 * (0.5 + (p.calibrated ? 0.2 : 0) + (touch?.sharp ? 0.15 : 0) + Math.min(0.15, p.trace.rateHz / 40))) / 100;
  const liftoff = lift === null ? undefined : liftPart(p, frame, lift);
  if (!touch) return lift === null ? [] : [{ kind: 'takeoff', runway: frame.ident, startS: round(rollStart(p, stay, lift)), endS: round(lift), ...(liftoff ? { liftoff } : {}), confidence }];
  const { touchdown, rollout } = touchPart(p, frame, h, level, touch, lift ?? p.tS[stay.to] ?? touch.tS);
  const stopped = slowest < WALKING_KT;
  const kind = lift === null ? 'landing' : stopped ? 'stop-and-go' : 'touch-and-go';
  const walking = firstBelow(p, stay, touch.tS);
  return [{ kind, runway: frame.ident, startS: round(approachStart(p, frame, h, w.from, touch.tS)), endS: round(lift !== null && kind === 'touch-and-go' ? lift : walking), touchdown, ...(liftoff ? { liftoff } : {}), rollout, gates: gatesOf(p, context, frame, h, touch.tS), confidence }];
}

const round = (x: number, digits = 2): number => Math.round(x * 10 ** digits) / 10 ** digits;
const orNull = (x: number | undefined | null, digits = 2): number | null => (x === undefined || x === null || !Number.isFinite(x) ? null : round(x, digits));

function at(x: Float64Array | null, p: Placed, t: number, halfS: number): { value: number; slope: number } | null {
  return x ? fitLine(x, p.tS, indexAt(p.tS, t - halfS), Math.max(0, indexAt(p.tS, t + halfS + 1e-9) - ((p.tS[indexAt(p.tS, t + halfS + 1e-9)] ?? 0) > t + halfS ? 1 : 0)), t) : null;
}

function liftPart(p: Placed, frame: RunwayFrame, tS: number): NonNullable<Event['liftoff']> {
  const half = Math.max(0.6, 1.2 / p.trace.rateHz);
  return { tS: round(tS), alongM: orNull(at(frame.along, p, tS, half)?.value, 1), lateralM: orNull(at(frame.lateral, p, tS, half)?.value), iasKt: orNull(at(p.iasKt, p, tS, half)?.value, 1), gsKt: orNull(at(p.gsKt, p, tS, half)?.value, 1) };
}

function touchPart(p: Placed, frame: RunwayFrame, h: Float64Array, level: number, touch: Touch, endS: number): { touchdown: NonNullable<Event['touchdown']>; rollout: NonNullable<Event['rollout']> } {
  const half = Math.max(0.6, 1.2 / p.trace.rateHz);
  const lateral = at(frame.lateral, p, touch.tS, half);
  const gs = at(p.gsKt, p, touch.tS, half)?.value ?? Number.NaN;
  const before = indexAt(p.tS, touch.tS - 0.4);
  const heading = p.headingDeg?.[before];
  const sideKt = lateral ? lateral.slope / MS_PER_KT : Number.NaN;
  const trackFromLine = frame.end.trueBearingDeg + (Number.isFinite(sideKt) && gs > 10 ? (Math.asin(Math.max(-1, Math.min(1, sideKt / gs))) * 180) / Math.PI : 0);
  let swing = 0;
  let off = 0;
  let seen = false;
  for (let i = indexAt(p.tS, touch.tS + 0.8); i < p.n && (p.tS[i] ?? 0) < endS && (p.gsKt[i] ?? 0) > 12; i++) {
    const nose = p.headingDeg ? (p.headingDeg[i] ?? Number.NaN) : (p.trackDeg[i] ?? Number.NaN);
    const d = norm180(nose - frame.end.trueBearingDeg);
    if (d === d) { seen = true; if (Math.abs(d) > Math.abs(swing)) swing = d; }
    const y = (frame.lateral[i] ?? 0);
    if (Math.abs(y) > Math.abs(off)) off = y;
  }
  return {
    touchdown: {
      tS: round(touch.tS), alongM: orNull(at(frame.along, p, touch.tS, half)?.value, 1), lateralM: orNull(lateral?.value), iasKt: orNull(at(p.iasKt, p, touch.tS - 0.5, half)?.value, 1), gsKt: orNull(gs, 1), sinkFpm: orNull(touch.sinkFpm, 0),
      crabDeg: heading === undefined || Number.isNaN(heading) ? null : orNull(norm180(heading - trackFromLine), 1), driftKt: orNull(sideKt, 1), ...bouncesAfter(p, h, touch.tS, level),
    },
    rollout: { swingDeg: seen ? orNull(swing, 1) : null, lateralM: seen ? orNull(off) : null },
  };
}

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
function gatesOf(p: Placed, context: TraceContext, frame: RunwayFrame, h: Float64Array, touchS: number): NonNullable<Event['gates']> {
  const touch = indexAt(p.tS, touchS);
  // Over the threshold, or as far before the touch as the touch lies past it.
  let over = touch;
  while (over > 0 && (frame.along[over] ?? 0) > 0) over--;
  const thresholdM = p.pathM[over] ?? 0;
  return context.gates.flatMap((g) => {
    let i = over;
    if (g.distanceM != null) while (i > 0 && thresholdM - (p.pathM[i] ?? 0) < g.distanceM) i--;
    else if (g.heightFt != null) { i = touch; while (i > 0 && (h[i] ?? 0) < g.heightFt) i--; } else return [];
    if (i <= 0 || touchS - (p.tS[i] ?? 0) > 400) return [];
    const t = p.tS[i] ?? 0;
    const ias = orNull(at(p.iasKt, p, t, 0.8)?.value, 1);
    const targetKt = round(g.targetIas * (KT_PER[g.unit] ?? 1), 1);
    return [{ name: g.name, tS: round(t), iasKt: ias, gsKt: orNull(p.gsKt[i], 1), heightFt: orNull(h[i], 0), targetKt, deviationKt: ias === null ? null : round(ias - targetKt, 1) }];
  });
}

/** A pass that never touched: level along the runway, or down and away again. */
function passWithout(p: Placed, h: Float64Array, frame: RunwayFrame, from: number, to: number): Event | null {
  let low = -1;
  for (let i = from; i <= to; i++) if (low < 0 || (h[i] ?? Infinity) < (h[low] ?? Infinity)) low = i;
  const lowest = h[low] ?? Number.NaN;
  if (!(lowest < CORRIDOR_FT - 20)) return null;
  const cameDown = (h[from] ?? 0) > lowest + 60;
  const after = Math.min(p.n - 1, indexAt(p.tS, (p.tS[low] ?? 0) + 40));
  let top = lowest;
  for (let i = low; i <= after; i++) top = Math.max(top, h[i] ?? -Infinity);
  if (!cameDown || top < lowest + 60) return null;
  let levelS = 0;
  for (let i = from + 1; i <= to; i++) if ((h[i] ?? 999) < Math.min(100, lowest + 10) && (frame.along[i] ?? -1) > -150) levelS += (p.tS[i] ?? 0) - (p.tS[i - 1] ?? 0);
  const near = (frame.along[low] ?? -1e9) > -BEFORE_M;
  if (!near) return null;
  const kind = lowest < 100 && levelS >= 5 ? 'low-pass' : 'go-around';
  return { kind, runway: frame.ident, startS: round(approachStart(p, frame, h, from, p.tS[low] ?? 0)), endS: round(p.tS[to] ?? 0), lowestHeightFt: orNull(lowest, 0), lowestS: round(p.tS[low] ?? 0), confidence: p.calibrated ? 0.85 : 0.55 };
}
