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
  const byMiddle = (1.4826 * median(bends)) / Math.sqrt(6);
  // Cut to steps, most rows stand still between two of them: the step itself tells.
  steps.sort((a, b) => a - b);
  const q = steps[Math.floor(steps.length * 0.05)] ?? 0;
  const whole = steps.filter((d) => Math.abs(d / q - Math.round(d / q)) < 0.06).length;
  return steps.length > 5 && whole > 0.95 * steps.length ? Math.max(byMiddle, q / Math.sqrt(12)) : byMiddle;
}
