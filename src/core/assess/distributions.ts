/**
 * Distribution functions the statistics rest on. Method: continued fraction of the incomplete beta (modified Lentz),
 * quantiles by bisection.
 */
import { LRUCache } from 'lru-cache';
import { needNumbers } from '../guard';
const LANCZOS = [
  76.18009172947146, -86.50532032941677, 24.01409824083091, -1.231739572450155, 0.1208650973866179e-2,
  -0.5395239384953e-5,
];

function logGamma(x: number): number {
  const t = x + 5.5 - (x + 0.5) * Math.log(x + 5.5);
  return (
    -t + Math.log((2.5066282746310005 * LANCZOS.reduce((sum, c, i) => sum + c / (x + 1 + i), 1.000000000190015)) / x)
  );
}

/**
 * Regularised incomplete beta I_x(a, b); a, b > 0, x in 0..1. Good to about 1e-9.
 * Source: incomplete beta by continued fraction (modified Lentz), quantiles by bisection.
 * @returns 0 to 1
 * @throws BadNumber when a number handed in is none
 * @example incompleteBeta(2, 3, 0.4) // 0.5248
 */
export function incompleteBeta(a: number, b: number, x: number): number {
  needNumbers('incompleteBeta', { a, b, x });
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x));
  return x < (a + 1) / (a + b + 2) ? (front * betaFraction(a, b, x)) / a : 1 - (front * betaFraction(b, a, 1 - x)) / b;
}

function betaFraction(a: number, b: number, x: number): number {
  const tiny = 1e-300;
  let c = 1;
  let d = 1 / Math.max(tiny, 1 - ((a + b) * x) / (a + 1));
  let h = d;
  for (let m = 1; m <= 300; m++) {
    for (const step of [
      (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m)),
      (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1)),
    ]) {
      d = 1 + step * d;
      c = 1 + step / c;
      d = 1 / (Math.abs(d) < tiny ? tiny : d);
      h *= d * (Math.abs(c) < tiny ? tiny : c);
    }
    if (Math.abs(d * c - 1) < 1e-15) break;
  }
  return h;
}

/**
 * Student's t, P(T <= t) with `df` > 0 degrees of freedom.
 * Source: incomplete beta by continued fraction (modified Lentz), quantiles by bisection.
 * @returns 0 to 1
 * @throws BadNumber when a number handed in is none
 * @example tCdf(1, 4) // 0.81305
 */
export function tCdf(t: number, df: number): number {
  needNumbers('tCdf', { t });
  const tail = incompleteBeta(df / 2, 0.5, df / (df + t * t)) / 2;
  return t > 0 ? 1 - tail : tail;
}

/** Quantiles already found: a record asks for the same few again and again. */
const found = new LRUCache<string, number>({ max: 5000 });

/**
 * Quantile of Student's t; `p` in (0, 1).
 * Source: incomplete beta by continued fraction (modified Lentz), quantiles by bisection.
 * @returns standard errors from the middle
 * @throws BadNumber when a number handed in is none
 * @example tQuantile(0.99, 4) // 3.7469
 */
export function tQuantile(p: number, df: number): number {
  needNumbers('tQuantile', { p });
  if (p < 0.5) return -tQuantile(1 - p, df);
  const key = `${p} ${df}`;
  const known = found.get(key) ?? bisected(p, df);
  found.set(key, known);
  return known;
}

function bisected(p: number, df: number): number {
  let low = 0;
  let high = 1;
  while (tCdf(high, df) < p && high < 1e9) high *= 2;
  for (let i = 0; i < 100; i++) {
    const mid = (low + high) / 2;
    if (tCdf(mid, df) < p) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}

const NORMAL_DF = 1e9;
/**
 * Quantile of the standard normal; `p` in (0, 1). The t of so many degrees that they differ beyond the ninth digit.
 * Source: incomplete beta by continued fraction (modified Lentz), quantiles by bisection.
 * @returns standard deviations from the mean
 * @example normalQuantile(0.975) // 1.96
 */
export const normalQuantile = (p: number): number => tQuantile(p, NORMAL_DF);

/**
 * Two-sided sign test: the chance of a split at least this uneven when both sides are as likely. 1 for nothing counted.
 * Source: two-sided binomial sign test.
 * @returns 0 to 1
 * @throws BadNumber when a number handed in is none
 * @example signTest(2000, 2000) // 1
 */
export function signTest(left: number, right: number): number {
  needNumbers('signTest', { left, right });
  const n = left + right;
  if (n === 0) return 1;
  const most = Math.max(left, right);
  let tail = 0;
  // In logarithms: the numbers of ways overflow beyond a thousand.
  let logChoose = -n * Math.LN2;
  for (let k = n; k >= most; k--) {
    tail += Math.exp(logChoose);
    logChoose += Math.log(k) - Math.log(n - k + 1);
  }
  return Math.min(1, 2 * tail);
}
