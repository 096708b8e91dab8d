/** What a column shakes by on its own: from the file itself. */

const known = { middle: new WeakMap<Float64Array, number>(), calm: new WeakMap<Float64Array, number>() };
/** Rows looked at: more say no more. */
const LOOKED_AT = 4000;

/**
 * Noise between neighbouring rows, one sigma, from the middle of their second differences: a climb, a descent and a slow
 * wander leave none. A column cut to coarse steps shakes by what the step leaves open.
 */
export const rowNoise = (x: Float64Array): number => kept(x, 'middle');
/** The same from the calmest quarter of the rows: what a reading shakes by, however much of the file is flown hard. */
export const calmNoise = (x: Float64Array): number => kept(x, 'calm');
function kept(x: Float64Array, by: keyof typeof known): number {
  const before = known[by].get(x);
  if (before !== undefined) return before;
  const found = measured(x, by === 'middle' ? 0.5 : 0.25);
  known[by].set(x, found);
  return found;
}
/** Of a standard normal, half of it and a quarter lie within these. */
const WITHIN: Record<number, number> = { 0.5: 0.6745, 0.25: 0.3186 };
function measured(x: Float64Array, share: 0.5 | 0.25): number {
  const each = Math.max(1, Math.floor(x.length / LOOKED_AT));
  const bends = new Float64Array(Math.ceil(x.length / each));
  const steps = new Float64Array(bends.length);
  let [n, m] = [0, 0];
  for (let i = 1; i + 1 < x.length; i += each) {
    const v = Math.abs((x[i - 1] ?? 0) - 2 * (x[i] ?? 0) + (x[i + 1] ?? 0));
    if (v === v) bends[n++] = v;
    const d = Math.abs((x[i] ?? 0) - (x[i - 1] ?? 0));
    if (d > 1e-9) steps[m++] = d;
  }
  if (n < 10) return 0;
  const sorted = bends.subarray(0, n).sort();
  const byMiddle = (sorted[Math.floor(share * n)] ?? 0) / (WITHIN[share] ?? 1) / Math.sqrt(6);
  // Cut to steps, most rows stand still between two of them: the step itself tells.
  const stepped = steps.subarray(0, m).sort();
  const q = stepped[Math.floor(m * 0.05)] ?? 0;
  let whole = 0;
  for (const d of stepped) if (Math.abs(d / q - Math.round(d / q)) < 0.06) whole++;
  return m > 5 && whole > 0.95 * m ? Math.max(byMiddle, q / Math.sqrt(12)) : byMiddle;
}
