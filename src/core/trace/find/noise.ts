/** What a column shakes by on its own: from the file itself. */
import { median } from '../../constants';

/**
 * Noise between neighbouring rows, one sigma, from their second differences: a climb, a descent and a slow wander leave
 * none. Steps a column is cut to count as noise of their own.
 */
export function rowNoise(x: Float64Array): number {
  const bends: number[] = [];
  const steps: number[] = [];
  const each = Math.max(1, Math.floor(x.length / 20_000));
  for (let i = 1; i + 1 < x.length; i += each) {
    const v = Math.abs((x[i - 1] ?? 0) - 2 * (x[i] ?? 0) + (x[i + 1] ?? 0));
    if (v === v) bends.push(v);
    const d = Math.abs((x[i] ?? 0) - (x[i - 1] ?? 0));
    if (d > 1e-9) steps.push(d);
  }
  if (bends.length < 10) return 0;
  // Half of the rows or more may stand still between two steps: then the mean square tells, the largest left out.
  bends.sort((a, b) => a - b);
  const kept = bends.slice(0, Math.ceil(0.85 * bends.length));
  const square = kept.reduce((s, v) => s + v * v, 0) / kept.length;
  const byMiddle = (1.4826 * median(bends)) / Math.sqrt(6);
  // Of a normal noise the lower 85 % hold 0.47 of the square.
  const bySquare = Math.sqrt(square / 6 / 0.47);
  steps.sort((a, b) => a - b);
  const cut = steps.length > 5 ? (steps[Math.floor(steps.length * 0.02)] ?? 0) / Math.sqrt(12) : 0;
  return Math.max(Math.min(byMiddle, bySquare * 1.2) || bySquare, Math.min(cut, bySquare));
}
