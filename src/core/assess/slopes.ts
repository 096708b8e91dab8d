/**
 * Slopes between all pairs of points, by rank, without writing them all down. Method: the slope of rank k is bracketed
 * by a sample, the bracket is narrowed by counting the pairs with less slope (inversions of y − s·x, counted while
 * merging, n·log n), and the few slopes left in it are written down and sorted. Exact but for slopes that differ by less
 * than rounding.
 */
import { seeded } from '../random';

/** Fewer points than this are done by writing down every slope: 180 000 of them. */
const WRITE_ALL_BELOW = 600;
const MOST_STEPS = 60;

/** The slopes of all pairs of points with different x, as far as ranks are asked of them. */
export interface Slopes {
  count: number;
  /** Of rank 0 (least) to `count` − 1. */
  at: (rank: number) => number;
}

/**
 * @param x abscissas, finite, in any order
 * @param y ordinates, finite, as many
 * @returns `count` 0 when no two points differ in x
 * @example slopesOf([0, 1, 2], [0, 1, 4]).at(2) // 3
 */
export function slopesOf(x: readonly number[], y: readonly number[]): Slopes {
  const order = x.map((_, i) => i).sort((a, b) => (x[a] ?? 0) - (x[b] ?? 0) || (y[a] ?? 0) - (y[b] ?? 0));
  const xs = Float64Array.from(order, (i) => x[i] ?? 0);
  const ys = Float64Array.from(order, (i) => y[i] ?? 0);
  return xs.length < WRITE_ALL_BELOW ? written(xs, ys) : byRank(xs, ys);
}

function written(xs: Float64Array, ys: Float64Array): Slopes {
  const n = xs.length;
  const all = new Float64Array((n * (n - 1)) / 2);
  let count = 0;
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++)
      if (xs[i] !== xs[j]) all[count++] = ((ys[j] ?? 0) - (ys[i] ?? 0)) / ((xs[j] ?? 0) - (xs[i] ?? 0));
  const sorted = all.subarray(0, count).sort();
  return { count, at: (rank) => sorted[rank] ?? NaN };
}

function byRank(xs: Float64Array, ys: Float64Array): Slopes {
  const n = xs.length;
  let count = (n * (n - 1)) / 2;
  for (let i = 0; i < n;) {
    let j = i + 1;
    while (j < n && xs[j] === xs[i]) j++;
    count -= ((j - i) * (j - i - 1)) / 2;
    i = j;
  }
  const [level, spare] = [new Float64Array(n), new Float64Array(n)];
  /** Pairs with a slope below `s`: of points in order of x, those that change places in y − s·x. */
  const below = (s: number): number => {
    for (let i = 0; i < n; i++) level[i] = (ys[i] ?? 0) - s * (xs[i] ?? 0);
    return inversions(level, spare);
  };
  const random = seeded(n);
  const sample = new Float64Array(2 * n);
  for (let k = 0; k < sample.length;) {
    const i = Math.floor(random() * n);
    const j = Math.floor(random() * n);
    if (count === 0) break;
    if (xs[i] !== xs[j]) sample[k++] = ((ys[j] ?? 0) - (ys[i] ?? 0)) / ((xs[j] ?? 0) - (xs[i] ?? 0));
  }
  sample.sort();
  const at = (rank: number): number => {
    const place = (rank / Math.max(1, count)) * (sample.length - 1);
    const wide = 3 * Math.sqrt(sample.length) * 0.5 + 2;
    // Off any slope by a hair, so that no slope lies on an edge.
    const hair = (v: number, side: number) => v + side * (1e-9 * Math.abs(v) + 1e-12) * (1 + random());
    let [low, high] = [-Infinity, Infinity];
    let [nLow, nHigh] = [0, count];
    const look = (s: number): void => {
      const c = below(s);
      if (c <= rank) [low, nLow] = s > low ? [s, c] : [low, nLow];
      else [high, nHigh] = s < high ? [s, c] : [high, nHigh];
    };
    look(hair(sample[Math.max(0, Math.floor(place - wide))] ?? 0, -1));
    look(hair(sample[Math.min(sample.length - 1, Math.ceil(place + wide))] ?? 0, 1));
    for (let out = 1; (low === -Infinity || high === Infinity) && out < 1e300; out *= 16) {
      if (low === -Infinity) look(high - out * (1 + random()));
      if (high === Infinity) look(low + out * (1 + random()));
    }
    for (let k = 0; k < MOST_STEPS && nHigh - nLow > 4 * n; k++) {
      // The counts say where between; a little beside it, once on each side, so that both ends come in.
      const share = (rank + 0.5 - nLow) / (nHigh - nLow) + (k % 2 === 0 ? -1 : 1) * (n / (nHigh - nLow));
      const s = low + (high - low) * (k % 5 === 4 ? 0.5 : Math.min(0.98, Math.max(0.02, share)));
      if (!(s > low && s < high)) break;
      look(s);
    }
    const left = between(xs, ys, low, high, 8 * n).sort();
    return left[Math.min(left.length - 1, rank - nLow)] ?? (low + high) / 2;
  };
  const known = new Map<number, number>();
  return {
    count,
    at: (rank) => {
      const k = Math.min(count - 1, Math.max(0, rank));
      const found = known.get(k) ?? at(k);
      known.set(k, found);
      return found;
    },
  };
}

/** Pairs i < j with a[i] > a[j]; sorts `a`. */
function inversions(a: Float64Array, spare: Float64Array): number {
  const n = a.length;
  let found = 0;
  let [from, to] = [a, spare];
  for (let width = 1; width < n; width *= 2) {
    for (let start = 0; start < n; start += 2 * width) {
      const mid = Math.min(start + width, n);
      const end = Math.min(start + 2 * width, n);
      let [i, j] = [start, mid];
      for (let k = start; k < end; k++) {
        const left = from[i] ?? 0;
        const right = from[j] ?? 0;
        if (i < mid && (j >= end || left <= right)) {
          to[k] = left;
          i++;
        } else {
          to[k] = right;
          j++;
          found += mid - i;
        }
      }
    }
    [from, to] = [to, from];
  }
  return found;
}

/**
 * The slopes between two values, at most `most` of them: the pairs in one order at `low` and in the other at `high`.
 * Where more are left than that they are all alike.
 */
function between(xs: Float64Array, ys: Float64Array, low: number, high: number, most: number): Float64Array {
  const n = xs.length;
  const at = (s: number, i: number): number => (ys[i] ?? 0) - s * (xs[i] ?? 0);
  const [lowAt, highAt] = [new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i++) [lowAt[i], highAt[i]] = [at(low, i), at(high, i)];
  // In order of their height at `low`; those that lie before at `high` and came after are the pairs sought.
  const order = Array.from(xs, (_, i) => i).sort((a, b) => (lowAt[a] ?? 0) - (lowAt[b] ?? 0) || a - b);
  const found: number[] = [];
  const merge = (from: number, to: number): void => {
    if (to - from < 2 || found.length >= most) return;
    const mid = (from + to) >> 1;
    merge(from, mid);
    merge(mid, to);
    const [left, right] = [order.slice(from, mid), order.slice(mid, to)];
    let [i, j] = [0, 0];
    for (let k = from; k < to; k++) {
      const [a, b] = [left[i], right[j]];
      if (a !== undefined && (b === undefined || (highAt[a] ?? 0) <= (highAt[b] ?? 0))) {
        order[k] = a;
        i++;
      } else if (b !== undefined) {
        for (let p = i; p < left.length && found.length < most; p++) {
          const c = left[p] ?? 0;
          if (xs[c] !== xs[b]) found.push(((ys[b] ?? 0) - (ys[c] ?? 0)) / ((xs[b] ?? 0) - (xs[c] ?? 0)));
        }
        order[k] = b;
        j++;
      }
    }
  };
  merge(0, n);
  return Float64Array.from(found);
}
