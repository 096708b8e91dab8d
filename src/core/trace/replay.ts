/**
 * A trace for drawing: few columns in single precision on the field's plane, and stretches thinned so that no peak is
 * lost.
 */
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import { M_PER_DEG, cosDeg, norm180, sinDeg } from '../constants';
import type { Placed } from './find/frame';

/**
 * Columns a replay may have. Metres east and north of the first runway's first threshold, feet above the field, knots,
 * feet a minute, degrees, g, a minute.
 */
export const SERIES = ['east', 'north', 'height', 'ias', 'gs', 'vs', 'bank', 'nz', 'rpm'] as const;
export type SeriesName = (typeof SERIES)[number];
export interface Series {
  tS: Float32Array;
  columns: Partial<Record<SeriesName, Float32Array>>;
}

/**
 * The columns a file supports; speeds over the ground and positions always.
 * @returns seconds, metres, feet, knots
 */
export function seriesOf(p: Placed): Series {
  const { channels } = p.trace;
  const first = p.frames[0];
  const f32 = (x: Float64Array | null | undefined) => (x ? Float32Array.from(x) : undefined);
  const east = new Float32Array(p.n);
  const north = new Float32Array(p.n);
  if (first) {
    const b = (first.end.trueBearingDeg * Math.PI) / 180;
    for (let i = 0; i < p.n; i++) {
      const x = first.along[i] ?? Number.NaN;
      const y = first.lateral[i] ?? Number.NaN;
      east[i] = x * Math.sin(b) + y * Math.cos(b);
      north[i] = x * Math.cos(b) - y * Math.sin(b);
    }
  }
  const all: Partial<Record<SeriesName, Float32Array | undefined>> = {
    east,
    north,
    height: f32(p.heightFt),
    ias: f32(p.iasKt),
    gs: f32(p.gsKt),
    vs: f32(channels.vs),
    bank: f32(channels.bank),
    nz: f32(channels.nz),
    rpm: f32(channels.rpm),
  };
  return {
    tS: Float32Array.from(p.tS),
    columns: Object.fromEntries(Object.entries(all).filter(([, v]) => v !== undefined)) as Series['columns'],
  };
}

/**
 * One block of bytes: the length of a JSON head, the head, then the times and each column as single-precision numbers.
 * @returns the bytes
 */
export function packSeries(s: Series): Uint8Array {
  const names = SERIES.filter((n) => s.columns[n]);
  const head = new TextEncoder().encode(
    JSON.stringify({ n: s.tS.length, names }).padEnd(
      4 * Math.ceil(JSON.stringify({ n: s.tS.length, names }).length / 4),
    ),
  );
  const out = new Uint8Array(4 + head.length + 4 * s.tS.length * (names.length + 1));
  new DataView(out.buffer).setUint32(0, head.length, true);
  out.set(head, 4);
  let at = 4 + head.length;
  for (const c of [s.tS, ...names.map((n) => s.columns[n] ?? new Float32Array(s.tS.length))]) {
    out.set(new Uint8Array(c.buffer, c.byteOffset, c.byteLength), at);
    at += c.byteLength;
  }
  return out;
}
/**
 * The reverse. Throws when the block is cut short.
 * @returns seconds, metres, feet, knots
 */
export function unpackSeries(bytes: ArrayBuffer): Series {
  const headLength = new DataView(bytes).getUint32(0, true);
  const { n, names } = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, 4, headLength))) as {
    n: number;
    names: SeriesName[];
  };
  const at = (k: number) => new Float32Array(bytes, 4 + headLength + 4 * n * k, n);
  return { tS: at(0), columns: Object.fromEntries(names.map((name, k) => [name, at(k + 1)])) };
}

/**
 * A stretch of a column thinned to at most two points in each of `buckets` equal parts of time: its lowest and its
 * highest, in the order they came, so that every peak is drawn. First and last points are kept. @returns indexes into
 * the column
 */
export function thinned(tS: Float32Array, x: Float32Array, fromS: number, toS: number, buckets: number): number[] {
  const a = Math.max(0, lowerBound(tS, fromS) - 1);
  const b = Math.min(tS.length - 1, lowerBound(tS, toS) + 1);
  const out: number[] = [];
  if (b - a <= buckets * 2) {
    for (let i = a; i <= b; i++) if (x[i] === x[i]) out.push(i);
    return out;
  }
  const width = (toS - fromS) / buckets;
  let i = a;
  while (i <= b) {
    const end = (tS[i] ?? 0) < fromS ? fromS : fromS + (Math.floor(((tS[i] ?? 0) - fromS) / width + 1e-6) + 1) * width;
    let low = -1;
    let high = -1;
    const start = i;
    for (; i <= b && ((tS[i] ?? 0) < end || i === start); i++) {
      const v = x[i] ?? Number.NaN;
      if (v !== v) continue;
      if (low < 0 || v < (x[low] ?? 0)) low = i;
      if (high < 0 || v > (x[high] ?? 0)) high = i;
    }
    if (low >= 0) out.push(Math.min(low, high));
    if (high !== low && high >= 0) out.push(Math.max(low, high));
  }
  return out;
}
/**
 * First index whose time is not before a moment.
 * @returns an index, the length where none is later
 */
export function lowerBound(tS: Float32Array, t: number): number {
  let a = 0;
  let b = tS.length;
  while (a < b) {
    const m = (a + b) >> 1;
    if ((tS[m] ?? 0) < t) a = m + 1;
    else b = m;
  }
  return a;
}

type Event = TraceAnalysis['events'][number];
/** Where a threshold lies on the plane of the series: metres east and north of the first runway's first threshold. */
function onPlane(
  context: TraceContext,
  end: { thresholdLat: number; thresholdLon: number },
): { east: number; north: number } {
  const first = context.aerodrome.runways[0]?.ends[0] ?? end;
  return {
    east: norm180(end.thresholdLon - first.thresholdLon) * M_PER_DEG * cosDeg(first.thresholdLat),
    north: (end.thresholdLat - first.thresholdLat) * M_PER_DEG,
  };
}

export interface StripOnPlane {
  id: string;
  surface: string;
  lengthM: number;
  widthM: number;
  ends: { ident: string; east: number; north: number; bearingDeg: number }[];
}
/**
 * Runways on the plane of the series, for the drawing.
 * @returns metres
 */
export const runwayCorners = (context: TraceContext): StripOnPlane[] =>
  context.aerodrome.runways.map((r) => ({
    id: r.id,
    surface: r.surface,
    lengthM: r.lengthM,
    widthM: r.widthM,
    ends: r.ends.map((e) => ({ ident: e.ident, bearingDeg: e.trueBearingDeg, ...onPlane(context, e) })),
  }));

export interface ApproachLine {
  /** Metres still to fly to the threshold as negative, metres past it along the runway as positive. */
  x: number[];
  heightFt: number[];
  /** Indicated where the file has it, else over the ground; in the unit of the series. */
  speed: number[];
  /** Seconds about the touch, and the load then. */
  loadS: number[];
  load: number[];
}
const LOAD_BEFORE_S = 4;
const LOAD_AFTER_S = 8;
const LINE_BEFORE_S = 150;
/**
 * An arrival by the way it still had to fly: before the threshold along its path, as the gates are counted; past it by
 * its place on the runway. Empty when its runway is not the context's.
 * @returns metres to go against feet and knots
 */
export function approachLine(series: Series, context: TraceContext, e: Event): ApproachLine {
  const out: ApproachLine = { x: [], heightFt: [], speed: [], loadS: [], load: [] };
  const end = context.aerodrome.runways.flatMap((r) => r.ends).find((x) => x.ident === e.runway);
  const { east, north, height, ias, gs, nz } = series.columns;
  if (!end || !east || !north) return out;
  const zero = onPlane(context, end);
  const along = (i: number) =>
    ((east[i] ?? Number.NaN) - zero.east) * sinDeg(end.trueBearingDeg) +
    ((north[i] ?? Number.NaN) - zero.north) * cosDeg(end.trueBearingDeg);
  const at = e.touchdown?.tS ?? e.lowestS ?? e.endS;
  const until = Math.max(e.endS, at + 12);
  const from = lowerBound(series.tS, at - LINE_BEFORE_S);
  const to = Math.min(series.tS.length - 1, lowerBound(series.tS, until));
  let over = lowerBound(series.tS, at);
  while (over > from && along(over) > 0) over--;
  const x = new Float64Array(to - from + 1);
  for (let i = to; i >= from; i--)
    x[i - from] =
      i > over
        ? along(i)
        : i === over
          ? Math.min(0, along(i))
          : (x[i - from + 1] ?? 0) -
            Math.hypot((east[i + 1] ?? 0) - (east[i] ?? 0), (north[i + 1] ?? 0) - (north[i] ?? 0));
  for (let i = from; i <= to; i++) {
    const v = x[i - from] ?? Number.NaN;
    const s = (series.tS[i] ?? 0) - at;
    if (v === v) {
      out.x.push(v);
      out.heightFt.push(height?.[i] ?? Number.NaN);
      out.speed.push((ias ?? gs)?.[i] ?? Number.NaN);
    }
    if (nz && s > -LOAD_BEFORE_S && s < LOAD_AFTER_S) {
      out.loadS.push(s);
      out.load.push(nz[i] ?? Number.NaN);
    }
  }
  return out;
}
