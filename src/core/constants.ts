/** Physical and unit constants used by every room of core. */
export const G_MS2 = 9.80665;
export const MS_PER_KT = 0.514444;
export const KT_PER_MPH = 0.868976;
export const M_PER_FT = 0.3048;
/** Metres in a degree of latitude on the sphere the field is laid flat on. */
export const M_PER_DEG = 111_319.490793;
/** Slack used where a limit counts as inside, so that rounding never moves a verdict. */
export const SLACK = 1e-9;

const DEG = Math.PI / 180;
export const sinDeg = (deg: number): number => Math.sin(deg * DEG);
export const cosDeg = (deg: number): number => Math.cos(deg * DEG);
export const tanDeg = (deg: number): number => Math.tan(deg * DEG);
export const acosDeg = (x: number): number => Math.acos(x) / DEG;

/** Wraps a direction into (0, 360]: north is 360, never 0. */
export function norm360(deg: number): number {
  const wrapped = ((deg % 360) + 360) % 360;
  return wrapped === 0 ? 360 : wrapped;
}

/** Wraps an angle into (-180, 180]. */
export function norm180(deg: number): number {
  const wrapped = ((deg % 360) + 360) % 360;
  return wrapped > 180 ? wrapped - 360 : wrapped;
}

export const W_PER_HP = 745.7;
export const FT_PER_MIN_PER_MS = 60 / M_PER_FT;
export const L_PER_US_GAL = 3.785412;
export const AVGAS_KG_PER_L = 0.72;

/** Median; the mean of the middle two when even, 0 of nothing. */
export function median(xs: ArrayLike<number>): number {
  const sorted = new Float64Array(xs).sort();
  const mid = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? (sorted[mid] ?? 0) : ((sorted[mid - 1] ?? 0) + (sorted[mid] ?? 0)) / 2;
}
/** Median; null of nothing. */
export const medianOf = (xs: ArrayLike<number>): number | null => (xs.length === 0 ? null : median(xs));
