/**
 * The bend where a falling height becomes level ground (or, backward in time, where level ground becomes a climb):
 * least squares of a parabola that ends in its bend, and a flat line after it. @returns time of the bend and the slope
 * into it, ft/s
 */
export function bend(
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
