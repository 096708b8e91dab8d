/**
 * A trace on a field: every sample in the frame of each runway end, speeds and heights made good. Metres, feet, knots,
 * seconds.
 */
import type { TraceContext } from '@/domain/trace';
import { MS_PER_KT, M_PER_DEG, cosDeg, median, medianOf, norm180, norm360, sinDeg } from '../../constants';
import type { Trace } from '../read';
import { rowNoise } from './noise';
import { type Oddity, odd } from '../read-words';

type End = TraceContext['aerodrome']['runways'][number]['ends'][number];
export interface RunwayFrame {
  ident: string;
  end: End;
  /** Rise of the runway from this end to the other. */
  riseFt: number;
  lengthM: number;
  widthM: number;
  water: boolean;
  along: Float64Array;
  lateral: Float64Array;
}
/** Elevation of the runway's surface abeam a sample; before and beyond its ends that of the end. */
export const surfaceFt = (f: RunwayFrame, i: number): number =>
  f.end.elevationFt + f.riseFt * Math.max(0, Math.min(1, (f.along[i] ?? 0) / f.lengthM));
export interface Placed {
  trace: Trace;
  n: number;
  tS: Float64Array;
  gsKt: Float64Array;
  trackDeg: Float64Array;
  /** Metres flown since the first sample. */
  pathM: Float64Array;
  /** True heading, or null without a compass. */
  headingDeg: Float64Array | null;
  iasKt: Float64Array | null;
  nz: Float64Array | null;
  /** Above the field, calibrated on the file's own ground runs; null without any height. */
  heightFt: Float64Array | null;
  calibrated: boolean;
  /** What the recorded height jumps from row to row without the aeroplane, one sigma, feet. */
  heightNoiseFt: number;
  /** A load above this is no noise of the accelerometer, g. */
  feltG: number;
  frames: RunwayFrame[];
  warnings: Oddity[];
}

/**
 * Mean of a column over a window of seconds about each sample, missing values left out. Outside `from` to `to` nothing
 * is computed: NaN.
 * @param out written into, where one of the same length is at hand */
export function smoothed(
  x: Float64Array,
  tS: Float64Array,
  halfS: number,
  from = 0,
  to = x.length - 1,
  out = new Float64Array(x.length),
): Float64Array {
  out.fill(Number.NaN);
  let a = from;
  let b = from;
  let sum = 0;
  let n = 0;
  for (let i = from; i <= to; i++) {
    const t = tS[i] ?? 0;
    while (b <= to && (tS[b] ?? 0) <= t + halfS) {
      const v = x[b] ?? Number.NaN;
      if (v === v) {
        sum += v;
        n++;
      }
      b++;
    }
    while ((tS[a] ?? 0) < t - halfS) {
      const v = x[a] ?? Number.NaN;
      if (v === v) {
        sum -= v;
        n--;
      }
      a++;
    }
    if (n > 0) out[i] = sum / n;
  }
  return out;
}

/** Ground speed and track from positions alone, over about two seconds. */
function derived(
  east: Float64Array,
  north: Float64Array,
  tS: Float64Array,
): { gsKt: Float64Array; trackDeg: Float64Array } {
  const n = tS.length;
  const gsKt = new Float64Array(n).fill(Number.NaN);
  const trackDeg = new Float64Array(n).fill(Number.NaN);
  let a = 0;
  let b = 0;
  for (let i = 0; i < n; i++) {
    const t = tS[i] ?? 0;
    while (a < i && (tS[a] ?? 0) < t - 1) a++;
    while (b < n - 1 && (tS[b] ?? 0) < t + 1) b++;
    const dt = (tS[b] ?? 0) - (tS[a] ?? 0);
    if (dt <= 0 || dt > 6) continue;
    const e = (east[b] ?? Number.NaN) - (east[a] ?? Number.NaN);
    const m = (north[b] ?? Number.NaN) - (north[a] ?? Number.NaN);
    gsKt[i] = Math.hypot(e, m) / dt / MS_PER_KT;
    trackDeg[i] = norm360((Math.atan2(e, m) * 180) / Math.PI);
  }
  return { gsKt, trackDeg };
}

/** Puts a trace on its field. @returns null when it never comes within 20 km of it */
export function placeTrace(trace: Trace, context: TraceContext): Placed | null {
  const { lat, lon } = trace.channels;
  const first = context.aerodrome.runways[0]?.ends[0];
  if (!lat || !lon || !first) return null;
  const n = trace.rows;
  const { tS } = trace;
  const east = new Float64Array(n);
  const north = new Float64Array(n);
  const scale = M_PER_DEG * cosDeg(first.thresholdLat);
  let near = false;
  for (let i = 0; i < n; i++) {
    north[i] = ((lat[i] ?? Number.NaN) - first.thresholdLat) * M_PER_DEG;
    // Over the meridian the short way.
    east[i] = norm180((lon[i] ?? Number.NaN) - first.thresholdLon) * scale;
    if (Math.hypot(north[i] ?? Number.NaN, east[i] ?? Number.NaN) < 20_000) near = true;
  }
  if (!near) return null;
  const warnings: Oddity[] = [];
  const whole = (x: Float64Array | undefined): boolean => x !== undefined && !x.some((v) => v !== v);
  // From the positions only where the file does not say.
  const made =
    whole(trace.channels.gs) && whole(trace.channels.track)
      ? { gsKt: new Float64Array(0), trackDeg: new Float64Array(0) }
      : derived(east, north, tS);
  const gsKt = trace.channels.gs ? filled(trace.channels.gs, made.gsKt) : made.gsKt;
  const trackDeg = trace.channels.track ? filled(trace.channels.track, made.trackDeg) : made.trackDeg;
  if (!trace.channels.gs) warnings.push({ ...odd('ground-speed-derived'), count: 1 });
  const pathM = new Float64Array(n);
  for (let i = 1; i < n; i++) {
    const d = Math.hypot((east[i] ?? 0) - (east[i - 1] ?? 0), (north[i] ?? 0) - (north[i - 1] ?? 0));
    pathM[i] = (pathM[i - 1] ?? 0) + (d === d ? d : 0);
  }
  const frames = context.aerodrome.runways.flatMap((r) =>
    r.ends.map((end): RunwayFrame => {
      const e0 = norm180(end.thresholdLon - first.thresholdLon) * scale;
      const n0 = (end.thresholdLat - first.thresholdLat) * M_PER_DEG;
      const along = new Float64Array(n);
      const lateral = new Float64Array(n);
      const [s, c] = [sinDeg(end.trueBearingDeg), cosDeg(end.trueBearingDeg)];
      for (let i = 0; i < n; i++) {
        const e = (east[i] ?? 0) - e0;
        const m = (north[i] ?? 0) - n0;
        along[i] = e * s + m * c;
        lateral[i] = e * c - m * s;
      }
      return {
        ident: end.ident,
        end,
        riseFt: (r.ends.find((o) => o !== end)?.elevationFt ?? end.elevationFt) - end.elevationFt,
        lengthM: r.lengthM,
        widthM: r.widthM,
        water: r.surface === 'water',
        along,
        lateral,
      };
    }),
  );
  const heading =
    trace.channels.headingTrue ??
    (trace.channels.headingMag
      ? trace.channels.headingMag.map((h) => norm360(h + context.aerodrome.magneticVariationDeg))
      : null);
  const raw =
    trace.channels.altGps ?? trace.channels.altMsl ?? trace.channels.altPressure ?? trace.channels.altEllipsoid ?? null;
  const feltG = trace.channels.nz ? 1 + Math.max(0.15, 5 * rowNoise(trace.channels.nz)) : Infinity;
  const { heightFt, calibrated } = raw
    ? calibrate(raw, { tS, gsKt, trackDeg, nz: trace.channels.nz ?? null, feltG, frames }, context)
    : { heightFt: null, calibrated: false };
  if (!raw) warnings.push({ ...odd('height-missing'), count: 1 });
  else if (!calibrated) warnings.push({ ...odd('height-not-calibrated'), count: 1 });
  return {
    trace,
    n,
    tS,
    gsKt,
    trackDeg,
    pathM,
    headingDeg: heading,
    iasKt: trace.channels.ias ?? null,
    nz: trace.channels.nz ?? null,
    heightFt,
    calibrated,
    heightNoiseFt: raw ? rowNoise(raw) : 0,
    feltG,
    frames,
    warnings,
  };
}
const filled = (x: Float64Array, by: Float64Array): Float64Array =>
  by.length === 0 ? x : x.map((v, i) => (v === v ? v : (by[i] ?? Number.NaN)));

interface Rolling {
  tS: Float64Array;
  gsKt: Float64Array;
  trackDeg: Float64Array;
  nz: Float64Array | null;
  feltG: number;
  frames: RunwayFrame[];
}
interface Known {
  t: number;
  error: number;
}
const over = (f: RunwayFrame, i: number, beyondM: number, beside: number): boolean =>
  (f.along[i] ?? -1e9) > -beyondM &&
  (f.along[i] ?? 1e9) < f.lengthM + beyondM &&
  Math.abs(f.lateral[i] ?? 1e9) < f.widthM / 2 + beside;

/** Wherever it rolls on a runway too slowly to fly, the difference to the surface's elevation is the error there. */
function whereSlow(raw: Float64Array, at: Rolling, slowKt: number): Known[] {
  const known: Known[] = [];
  let group: number[] = [];
  let groupT: number[] = [];
  const close = () => {
    if (group.length >= 3) known.push({ t: median(groupT), error: median(group) });
    group = [];
    groupT = [];
  };
  for (let i = 0; i < raw.length; i++) {
    const v = raw[i] ?? Number.NaN;
    const on = v === v && (at.gsKt[i] ?? Number.NaN) < slowKt ? at.frames.find((f) => over(f, i, 60, 15)) : undefined;
    if (on) {
      group.push(v - surfaceFt(on, i));
      groupT.push(at.tS[i] ?? 0);
    }
    if (!on || (at.tS[i] ?? 0) - (groupT[0] ?? 0) > 20) close();
  }
  close();
  return known;
}

/**
 * Without a slow roll: the lowest part of each pass over a runway, when it is level there and loses speed or is felt in
 * the load, as only wheels on the ground do. A pass that flies low and keeps its speed sets nothing.
 */
function whereTouched(raw: Float64Array, at: Rolling): Known[] {
  const known: Known[] = [];
  for (const f of at.frames) {
    let from = -1;
    for (let i = 0; i <= raw.length; i++) {
      const on =
        i < raw.length && over(f, i, 0, 10) && Math.abs(norm180((at.trackDeg[i] ?? 0) - f.end.trueBearingDeg)) < 35;
      if (on && from < 0) from = i;
      if (on || from < 0) continue;
      let low = from;
      for (let k = from; k < i; k++) if ((raw[k] ?? Infinity) < (raw[low] ?? Infinity)) low = k;
      const level: number[] = [];
      let fastest = 0;
      let drop = 0;
      let load = 0;
      for (let k = from; k < i; k++) {
        if ((raw[k] ?? Infinity) > (raw[low] ?? 0) + 4) continue;
        level.push((raw[k] ?? 0) - surfaceFt(f, k));
        fastest = Math.max(fastest, at.gsKt[k] ?? 0);
        drop = Math.max(drop, fastest - (at.gsKt[k] ?? Infinity));
        load = Math.max(load, at.nz?.[k] ?? 0);
      }
      if (level.length >= 3 && (drop > 6 || load > at.feltG + 0.05))
        known.push({ t: at.tS[low] ?? 0, error: medianOf(level) ?? Number.NaN });
      from = -1;
    }
  }
  return known.sort((a, b) => a.t - b.t);
}

/**
 * Height above the field from the file's own stays on its runways; between two such places the error is taken to change
 * evenly, before the first and after the last to stay.
 */
function calibrate(
  raw: Float64Array,
  at: Rolling,
  context: TraceContext,
): { heightFt: Float64Array; calibrated: boolean } {
  const slow = whereSlow(raw, at, 0.5 * (context.airframe.vs0Kt ?? 45));
  const known = slow.length > 0 ? slow : whereTouched(raw, at);
  const calibrated = known.length > 0;
  const out = new Float64Array(raw.length);
  let k = 0;
  for (let i = 0; i < raw.length; i++) {
    const t = at.tS[i] ?? 0;
    while (k + 1 < known.length && (known[k + 1]?.t ?? 0) <= t) k++;
    const a = known[k];
    const b = known[k + 1];
    const error = !a ? 0 : !b || t <= a.t ? a.error : a.error + ((b.error - a.error) * (t - a.t)) / (b.t - a.t);
    out[i] = (raw[i] ?? Number.NaN) - error - context.aerodrome.elevationFt;
  }
  // Above the field; each pass takes its own threshold's elevation from here.
  return { heightFt: out, calibrated };
}
