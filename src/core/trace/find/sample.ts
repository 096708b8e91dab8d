import type { Placed } from './frame';

/** Straight line through a stretch; value and slope at a time. */
export function fitLine(
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
export const indexAt = (tS: Float64Array, t: number): number => {
  let a = 0;
  let b = tS.length - 1;
  while (a < b) {
    const m = (a + b) >> 1;
    if ((tS[m] ?? 0) < t) a = m + 1;
    else b = m;
  }
  return a;
};
export const highest = (h: Float64Array, from: number, to: number): number => {
  let m = -Infinity;
  for (let i = from; i <= to; i++) {
    const v = h[i] ?? Number.NaN;
    if (v > m) m = v;
  }
  return m;
};

export const round = (x: number, digits = 2): number => Math.round(x * 10 ** digits) / 10 ** digits;
export const orNull = (x: number | undefined | null, digits = 2): number | null =>
  x === undefined || x === null || !Number.isFinite(x) ? null : round(x, digits);

export function valueAt(
  x: Float64Array | null,
  p: Placed,
  t: number,
  halfS: number,
): { value: number; slope: number } | null {
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

/** A value at a moment, and how it changes, by the line through the second and a half before it. */
export function lineBefore(x: Float64Array | null, p: Placed, t: number): { value: number; slope: number } | null {
  if (!x) return null;
  const to = indexAt(p.tS, t + 1e-6);
  return fitLine(
    x,
    p.tS,
    indexAt(p.tS, t - Math.max(1.5, 2.5 / p.trace.rateHz)),
    (p.tS[to] ?? 0) > t + 1e-6 ? Math.max(0, to - 1) : to,
    t,
  );
}
