/**
 * What the ground speed says of the moment of a touch. Least squares with a weak prior on every bend; m/s, seconds.
 * Source: drag aloft near the stall against rolling drag; a change point weighed by how well either side fits.
 */
import { MS_PER_KT } from '../../constants';
import type { Placed } from './frame';
import { indexAt } from './sample';

/** What is asked of the speed about a moment, seconds on either side. */
const BEFORE_S = 4.5;
const AFTER_S = 2;
/** How much a speed's own fall may change in a second, and how much it changes at a touch; m/s², one sigma. */
const CURVE = 0.15;
const STEP = 0.4;
/** Less drag on wheels than nose up aloft, as a rule, m/s²; on water it may be either. */
const LESS = 0.3;
/** Never more than one thing may say. */
const MOST = 30;
/** A speed is off by at least this, m/s. */
const LEAST_MS = 0.12;

/** Squares left of the best of some columns, each held near nought by its own weight. Normal equations, elimination. */
function left(cols: readonly Float64Array[], y: Float64Array, hold: readonly number[], n: number): number {
  const k = cols.length;
  const w = k + 1;
  const a = new Float64Array(k * w);
  let yy = 0;
  for (let r = 0; r < n; r++) yy += (y[r] ?? 0) ** 2;
  for (let i = 0; i < k; i++) {
    const ci = cols[i] as Float64Array;
    for (let j = i; j < k; j++) {
      const cj = cols[j] as Float64Array;
      let s = i === j ? (hold[i] ?? 0) : 0;
      for (let r = 0; r < n; r++) s += (ci[r] ?? 0) * (cj[r] ?? 0);
      a[i * w + j] = s;
      a[j * w + i] = s;
    }
    let s = 0;
    for (let r = 0; r < n; r++) s += (ci[r] ?? 0) * (y[r] ?? 0);
    a[i * w + k] = s;
  }
  // Squares explained are the sum of what each pivot takes: forward elimination is enough.
  let explained = 0;
  for (let i = 0; i < k; i++) {
    const pivot = a[i * w + i] ?? 0;
    if (pivot < 1e-9) continue;
    explained += (a[i * w + k] ?? 0) ** 2 / pivot;
    for (let j = i + 1; j < k; j++) {
      const f = (a[j * w + i] ?? 0) / pivot;
      for (let m = i; m < w; m++) a[j * w + m] = (a[j * w + m] ?? 0) - f * (a[i * w + m] ?? 0);
    }
  }
  return Math.max(0, yy - explained);
}

/**
 * How much better a ground speed fits that slows ever more until a moment and at another, steady rate after it, than one
 * that only bends. Aloft the drag grows as the nose is held up; on wheels or water there is another drag at once. In
 * squares of the noise, and less than nought when the moment fits worse. Zero where rows are too few to say.
 *
 * @param tb moment, seconds of the file
 * @param shakeKt noise of the speed from row to row, knots
 * @param water is it water that is touched?
 */
export function speedBend(p: Placed, tb: number, shakeKt: number, water: boolean): number {
  const from = indexAt(p.tS, tb - BEFORE_S);
  const most = Math.ceil((BEFORE_S + AFTER_S) * Math.max(1, p.trace.rateHz) * 1.5) + 4;
  const [one, t, tt, aloft, after, y] = Array.from({ length: 6 }, () => new Float64Array(most)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  let [n, before] = [0, 0];
  for (let i = from; i < p.n && n < most; i++) {
    const d = (p.tS[i] ?? 0) - tb;
    if (d >= AFTER_S) break;
    const v = (p.gsKt[i] ?? Number.NaN) * MS_PER_KT;
    if (v !== v || d <= -BEFORE_S) continue;
    one[n] = 1;
    t[n] = d;
    tt[n] = d * d;
    aloft[n] = d < 0 ? d * d : 0;
    after[n] = d > 0 ? d : 0;
    y[n] = v;
    n++;
    if (d < 0) before++;
  }
  if (before < 2 || n - before < 2 || n < 5) return 0;
  const s2 = Math.max(LEAST_MS, 1.5 * shakeKt * MS_PER_KT) ** 2;
  const smooth = left([one, t, tt], y, [0, 0, s2 / CURVE ** 2], n);
  if (!water) for (let i = 0; i < n; i++) y[i] = (y[i] ?? 0) - LESS * (after[i] ?? 0);
  const bent = left([one, t, aloft, after], y, [0, 0, s2 / CURVE ** 2, s2 / STEP ** 2], n);
  return Math.min(MOST, (smooth - bent) / s2);
}
