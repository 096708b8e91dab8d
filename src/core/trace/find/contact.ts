/**
 * The moment wheels meet the ground, or leave it, as an estimate with its own uncertainty: every channel of the file
 * says how well each moment of a window fits it, and what they say is added up. A height that falls, ever more gently,
 * onto level ground; a vertical speed that dies away; a load that is calm and then knocks and rumbles; wings that stop
 * rocking; a nose that drops; a speed that falls at another rate. The answer is the mean of what remains likely, and its
 * spread the uncertainty. Least squares and likelihoods of a change point; no value of any file is guessed across a gap.
 */
import { median } from '../../constants';
import type { Placed } from './frame';
import { rowNoise } from './noise';
import { indexAt } from './sample';

export interface Contact {
  tS: number;
  /** One sigma, seconds. */
  sdS: number;
  /** Sink at the touch (climb at the lift-off), feet a second; and its one sigma. */
  rateFtS: number;
  rateSdFtS: number;
  /** Did a load show it? */
  felt: boolean;
}
/** Steps of the search, coarse and fine, seconds. */
const COARSE_S = 0.4;
const FINE_S = 0.1;
/** Rows next to each other err together: what they say counts this much less. */
const TOGETHER = 4;
/** How far on either side of a moment its height is fitted. */
const BEFORE_S = 6;
const AFTER_S = 5;
/** Position and instruments are late by about this, one sigma. */
const LATE_S = 0.18;

/** Noise of the channels used, once a file. */
export interface Shakes {
  heightFt: number;
  vsFpm: number;
  gsKt: number;
}
const known = new WeakMap<Placed, Shakes>();
function shakesOf(p: Placed): Shakes {
  const before = known.get(p);
  if (before) return before;
  const { vs } = p.trace.channels;
  const made = {
    heightFt: p.heightNoiseFt,
    vsFpm: vs ? rowNoise(vs) : Number.NaN,
    gsKt: rowNoise(p.gsKt),
  };
  known.set(p, made);
  return made;
}

/** The part of a file a contact is looked for in, and which way time runs towards the ground. */
interface Window {
  from: number;
  to: number;
  /** +1 down onto the ground, -1 up from it. */
  sign: 1 | -1;
}

/**
 * Rates of sink at a touch that are tried, feet a second, and how likely each is before anything is seen: most touches
 * sink at about two, few at less than a half or more than eight.
 */
const RATES = [0.3, 0.5, 0.75, 1.1, 1.6, 2.2, 3, 4, 5.5, 7.5, 10, 13.5];
const PRIOR = RATES.map((r) => -0.5 * (Math.log(r / 2) / 0.75) ** 2);

/** Misfit of a part for each rate: squares of the noise, less one a row, so that rows left out count as well fitted. */
type ByRate = (rate: number) => number;

/**
 * A height that falls onto level ground at a rate, ever more gently: ground + r·d + b·d² + c·d³, b and c not negative, d
 * seconds to go; level after it.
 */
function heightMisfit(p: Placed, h: Float64Array, w: Window, tb: number, levelFt: number, sigma: number): ByRate {
  // The runway as recorded there and then, wandering slowly, and as it is on the rest of the stay.
  const s2 = sigma * sigma;
  let [n, st, stt, sv, stv] = [s2 / LEVEL_SD_FT ** 2, 0, s2 / WANDER_FT_S ** 2, 0, 0];
  for (let i = w.from; i <= w.to; i++) {
    const t = w.sign * ((p.tS[i] ?? 0) - tb);
    const v = (h[i] ?? Number.NaN) - levelFt;
    if (!(v > -12 && v < 12) || t <= 0 || t >= AFTER_S) continue;
    n++;
    st += t;
    stt += t * t;
    sv += v;
    stv += t * v;
  }
  const over = n * stt - st * st;
  const g0 = levelFt + (sv * stt - stv * st) / over;
  const g1 = (n * stv - st * sv) / over;
  const hop = 3.5 * s2;
  let flat = 0;
  let [d22, s3, s4, s5, s6, y1, y2, y3, yy] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  for (let i = w.from; i <= w.to; i++) {
    const d = w.sign * (tb - (p.tS[i] ?? 0));
    const v = (h[i] ?? Number.NaN) - g0 + g1 * d;
    if (v !== v) continue;
    if (d <= 0) {
      // A hop after the touch is no height to come down from.
      flat += Math.min(v * v, hop);
      continue;
    }
    // The further from the ground the less the curve is known: its own error grows with the square of the time to go.
    const k = Math.min(d, FAR_S);
    const own = 1 + (CURVE_FT_S2 * k * k) ** 2 / s2;
    flat += s2 * Math.log(own);
    if (d > FAR_S) {
      flat += s2;
      continue;
    }
    const d2 = d * d;
    const q = d2 / own;
    d22 += q;
    s3 += q * d;
    s4 += q * d2;
    s5 += q * d2 * d;
    s6 += q * d2 * d2;
    y1 += (d * v) / own;
    y2 += q * v;
    y3 += q * d * v;
    yy += (v * v) / own;
  }
  const det = s4 * s6 - s5 * s5;
  return (r) => {
    const u2 = y2 - r * s3;
    const u3 = y3 - r * s4;
    const uu = yy - 2 * r * y1 + r * r * d22;
    // Both parts, either, or none: the best that is not negative.
    let best = uu;
    if (s4 > 0 && u2 > 0) best = Math.min(best, uu - (u2 * u2) / s4);
    if (s6 > 0 && u3 > 0) best = Math.min(best, uu - (u3 * u3) / s6);
    if (det > 1e-6) {
      const b = (u2 * s6 - u3 * s5) / det;
      const c = (u3 * s4 - u2 * s5) / det;
      if (b > 0 && c > 0) best = Math.min(best, uu - b * u2 - c * u3);
    }
    return (best + flat) / s2;
  };
}

/** A vertical speed that comes down to a rate and dies away after the touch, as its instrument lags. */
function climbMisfit(p: Placed, w: Window, tb: number, sigma: number): ByRate | null {
  const { vs } = p.trace.channels;
  if (!vs) return null;
  let [n, sd, sdd, sv, sdv, svv, after] = [0, 0, 0, 0, 0, 0, 0];
  const e = LAGS_S.map(() => ({ ee: 0, ev: 0 }));
  let vv = 0;
  for (let i = w.from; i <= w.to; i++) {
    const d = w.sign * (tb - (p.tS[i] ?? 0));
    const v = (-w.sign * (vs[i] ?? Number.NaN)) / 60;
    if (v !== v || d > VS_BEFORE_S || d <= -AFTER_S) continue;
    if (d > 0) {
      n++;
      sd += d;
      sdd += d * d;
      sv += v;
      sdv += d * v;
      svv += v * v;
    } else {
      after++;
      vv += v * v;
      LAGS_S.forEach((lag, k) => {
        const x = Math.exp(d / lag);
        const s = e[k];
        if (s) {
          s.ee += x * x;
          s.ev += x * v;
        }
      });
    }
  }
  const s2 = sigma * sigma;
  return (r) => {
    // Before: r + m d, m not negative.
    const dv = sdv - r * sd;
    const rr = svv - 2 * r * sv + n * r * r;
    const before = dv > 0 && sdd > 0 ? rr - (dv * dv) / sdd : rr;
    let since = Infinity;
    for (const { ee, ev } of e) since = Math.min(since, vv - 2 * r * ev + r * r * ee);
    return Math.min(before / s2, 6 * n) - n + Math.min(since / s2, 6 * after) - after;
  };
}

/** Calm before and restless after, or the other way: minus twice the logarithm of how likely the rows are so. */
function shakeMisfit(
  x: Float64Array,
  p: Placed,
  w: Window,
  tb: number,
  mean: number,
  calm: number,
  knocked: number,
  rumble: number,
): number {
  let cost = 0;
  for (let i = w.from; i <= w.to; i++) {
    const v = (x[i] ?? Number.NaN) - mean;
    if (v !== v) continue;
    const d = w.sign * (tb - (p.tS[i] ?? 0));
    // A row holds what came since the last one.
    const s = d > 0 ? calm : w.sign > 0 && d > -0.8 ? knocked : rumble;
    // Heavy tails: a gust is no knock, and a great knock is more than a small one.
    cost += TAIL * Math.log1p((v / s) ** 2 / TAIL) + 2 * Math.log(s);
  }
  return cost;
}
const middle = (x: Float64Array, from: number, to: number): number => {
  const values = [...x.subarray(Math.max(0, from), to + 1)].filter((v) => v === v);
  return values.length < 3 ? Number.NaN : median(values);
};
const spread = (x: Float64Array, from: number, to: number, mean: number): number => {
  const off = [...x.subarray(Math.max(0, from), to + 1)].map((v) => Math.abs(v - mean)).filter((v) => v === v);
  return off.length < 4 ? Number.NaN : 1.4826 * median(off);
};

/** What load and bank show about a contact, prepared once for a window. */
function feelers(p: Placed, w: Window, aloft: [number, number], rolling: [number, number]): ((tb: number) => number)[] {
  const out: ((tb: number) => number)[] = [];
  if (p.nz && p.trace.rateHz >= 1.8) {
    const nz = p.nz;
    const mean = middle(nz, ...rolling);
    const calm = Math.max(0.012, spread(nz, ...aloft, middle(nz, ...aloft)));
    const rumble = Math.max(calm * 0.8, 0.012, spread(nz, ...rolling, mean));
    if (Number.isFinite(calm) && Number.isFinite(rumble))
      out.push((tb) => shakeMisfit(nz, p, w, tb, mean, 1.3 * calm, Math.max(0.2, 2 * calm), 1.3 * rumble) / 2.5);
  }
  const { bank } = p.trace.channels;
  if (bank) {
    const mean = middle(bank, ...rolling);
    const still = Math.max(0.25, spread(bank, ...rolling, mean));
    const rocking = spread(bank, ...aloft, mean);
    if (rocking > 1.6 * still)
      out.push((tb) => shakeMisfit(bank, p, w, tb, mean, rocking, 1.5 * still, 1.5 * still) / 6);
  }
  return out;
}

/** Where wheels may have met the ground within a window. @param levelFt the runway as recorded on this stay */
export function contactIn(p: Placed, h: Float64Array, window: Window, levelFt: number): Contact | null {
  const [t0, t1] = [p.tS[window.from] ?? 0, p.tS[window.to] ?? 0];
  if (!(t1 > t0)) return null;
  // Rows around the window too, so that every moment of it has some on either side.
  const w: Window = {
    from: indexAt(p.tS, t0 - (window.sign > 0 ? BEFORE_S : AFTER_S)),
    to: Math.min(p.n - 1, indexAt(p.tS, t1 + (window.sign > 0 ? AFTER_S : BEFORE_S))),
    sign: window.sign,
  };
  const shakes = shakesOf(p);
  const sigma = Math.max(0.6, Math.hypot(shakes.heightFt, 0.35));
  const vsSigma = Math.max(35, 2 * shakes.vsFpm) / 60;
  const far = (a: number, b: number): [number, number] => [indexAt(p.tS, a), Math.max(0, indexAt(p.tS, b) - 1)];
  const aloft = w.sign > 0 ? far(t0 - 7, t0) : far(t1, t1 + 7);
  const rolling = w.sign > 0 ? far(Math.max(t0 + 1, t1 - 1), t1 + 5) : far(t0 - 5, Math.min(t1 - 1, t0 + 1));
  const felt = feelers(p, w, aloft, rolling);
  const together = Math.max(1, Math.min(TOGETHER, p.trace.rateHz));
  const at = (tb: number) => {
    const height = heightMisfit(p, h, w, tb, levelFt, sigma);
    const climb = climbMisfit(p, w, tb, vsSigma);
    let rest = 0;
    for (const f of felt) rest += f(tb);
    const logs = RATES.map((r, k) => (PRIOR[k] ?? 0) - (height(r) + 0.7 * (climb?.(r) ?? 0)) / 2 / together - rest / 2);
    return { tb, logs, log: Math.max(...logs) };
  };
  const grid: ReturnType<typeof at>[] = [];
  for (let tb = t0; tb <= t1 + 1e-9; tb += COARSE_S) grid.push(at(tb));
  const top = grid.reduce((m, g) => (g.log > m.log ? g : m));
  // Finely wherever it is not out of the question.
  for (const g of [...grid])
    if (g.log > top.log - 7)
      for (let k = -1; k <= 2; k++) {
        const tb = g.tb + k * FINE_S;
        if (k !== 0 && tb >= t0 && tb <= t1) grid.push(at(tb));
      }
  const most = grid.reduce((m, g) => Math.max(m, g.log), -Infinity);
  let [sum, mean, square, rate, rateSquare] = [0, 0, 0, 0, 0];
  for (const g of grid) {
    if (g.log < most - 7) continue;
    g.logs.forEach((l, k) => {
      const weight = Math.exp(l - most);
      const r = RATES[k] ?? 0;
      sum += weight;
      mean += weight * g.tb;
      square += weight * g.tb * g.tb;
      rate += weight * r;
      rateSquare += weight * r * r;
    });
  }
  mean /= sum;
  rate /= sum;
  return {
    tS: mean,
    sdS: Math.sqrt(Math.max(0, square / sum - mean * mean) + LATE_S ** 2 + (0.29 / p.trace.rateHz) ** 2),
    rateFtS: rate,
    rateSdFtS: Math.sqrt(Math.max(0, rateSquare / sum - rate * rate) + (0.15 * rate) ** 2),
    felt: felt.length > 0,
  };
}

/** How far the runway under a touch may be recorded off the rest of its stay. */
const LEVEL_SD_FT = 2.5;
/** How fast a recorded height may wander on the ground, feet a second. */
const WANDER_FT_S = 0.25;
const TAIL = 8;
const FAR_S = 9;
const CURVE_FT_S2 = 0.06;
const VS_BEFORE_S = 4;
const LAGS_S = [0.15, 0.6, 1.2, 1.8];
