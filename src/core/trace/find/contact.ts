/**
 * The moment wheels meet the ground, or leave it, as an estimate with its own uncertainty: every channel of the file
 * says how well each moment of a window fits it, and what they say is added up. A height that falls, ever more gently,
 * onto level ground; a vertical speed that dies away; a load that is calm and then knocks and rumbles; wings that stop
 * rocking; a nose that drops; a speed that falls at another rate. The answer is the mean of what remains likely, and its
 * spread the uncertainty. Least squares and likelihoods of a change point; no value of any file is guessed across a gap.
 */
import { median } from '../../constants';
import { speedBend } from './bend';
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
const COARSE_S = 0.5;
const FINE_S = 0.125;
/** Rows next to each other err together: what they say counts this much less. */
const TOGETHER = 4;
/** How far on either side of a moment its height is fitted. */
const BEFORE_S = 6;
const AFTER_S = 5;
/** Position and instruments are late by about this, one sigma. */
const LATE_S = 0.25;
/** Of the time between two rows, one sigma: the flare between them is not seen. */
const BETWEEN_ROWS = 0.45;
/** Of a rate of sink, one sigma: gusts in the last second are not seen. */
const RATE_OFF = 0.35;

/** Noise of the channels used, once a file. */
export interface Shakes {
  heightFt: number;
  vsFpm: number;
  gsKt: number;
  pitchDeg: number;
}
const known = new WeakMap<Placed, Shakes>();
function shakesOf(p: Placed): Shakes {
  const before = known.get(p);
  if (before) return before;
  const { vs, pitch } = p.trace.channels;
  const made = {
    heightFt: p.heightNoiseFt,
    vsFpm: vs ? rowNoise(vs) : Number.NaN,
    gsKt: rowNoise(p.gsKt),
    pitchDeg: pitch ? rowNoise(pitch) : Number.NaN,
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
  /** Of a fast file every so many rows: more say no more. */
  each?: number;
  /** Of a touch: is it water? */
  water: boolean;
}

/**
 * Rates of sink at a touch that are tried, feet a second, and how likely each is before anything is seen: most touches
 * sink at about two, few at less than a half or more than eight.
 */
const RATES = [0.3, 0.6, 1, 1.5, 2.2, 3.2, 5, 8, 12.5];
const PRIOR = RATES.map((r) => -0.5 * (Math.log(r / 2) / 0.6) ** 2);

/** Misfit of a part for each rate: squares of the noise, less one a row, so that rows left out count as well fitted. */
type ByRate = (rate: number) => number;

/**
 * A height that falls onto level ground at a rate, ever more gently: ground + r·d, and a bend upward at each of some
 * times to go, d seconds to go; level after it.
 */
function heightMisfit(
  p: Placed,
  h: Float64Array,
  w: Window,
  tb: number,
  levelFt: number,
  sigma: number,
  together: number,
): ByRate {
  // The runway as recorded there and then, wandering slowly, and as it is on the rest of the stay.
  const each = w.each ?? 1;
  const s2 = sigma * sigma;
  let [n, st, stt, sv, stv] = [(together * s2) / LEVEL_SD_FT ** 2, 0, (together * s2) / WANDER_FT_S ** 2, 0, 0];
  for (let i = w.from; i <= w.to; i += each) {
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
  // What it would have to be off for this moment counts against it.
  let flat = together * s2 * (((g0 - levelFt) / LEVEL_SD_FT) ** 2 + (g1 / WANDER_FT_S) ** 2);
  let [d22, y1, yy] = [0, 0, 0];
  const a = new Float64Array(KNOTS * KNOTS);
  const y = new Float64Array(KNOTS);
  const dk = new Float64Array(KNOTS);
  const phi = new Float64Array(KNOTS);
  for (let i = w.from; i <= w.to; i += each) {
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
    const q = 1 / own;
    d22 += q * d * d;
    y1 += q * d * v;
    yy += q * v * v;
    let most = 0;
    while (most < KNOTS && (KNOT_S[most] ?? 99) < d) {
      phi[most] = d - (KNOT_S[most] ?? 0);
      most++;
    }
    for (let j = 0; j < most; j++) {
      const f = q * (phi[j] ?? 0);
      y[j] = (y[j] ?? 0) + f * v;
      dk[j] = (dk[j] ?? 0) + f * d;
      for (let m = j; m < most; m++) a[j * KNOTS + m] = (a[j * KNOTS + m] ?? 0) + f * (phi[m] ?? 0);
    }
  }
  for (let j = 0; j < KNOTS; j++) for (let m = 0; m < j; m++) a[j * KNOTS + m] = a[m * KNOTS + j] ?? 0;
  const x = new Float64Array(KNOTS);
  return (r) => {
    // Bends that are not negative, by going round them one at a time.
    for (let round = 0; round < ROUNDS; round++)
      for (let j = 0; j < KNOTS; j++) {
        const own = a[j * KNOTS + j] ?? 0;
        if (own < 1e-9) continue;
        let g = (y[j] ?? 0) - r * (dk[j] ?? 0);
        for (let m = 0; m < KNOTS; m++) if (m !== j) g -= (a[j * KNOTS + m] ?? 0) * (x[m] ?? 0);
        x[j] = Math.max(0, g / own);
      }
    let left = yy - 2 * r * y1 + r * r * d22;
    for (let j = 0; j < KNOTS; j++) {
      let ax = 0;
      for (let m = 0; m < KNOTS; m++) ax += (a[j * KNOTS + m] ?? 0) * (x[m] ?? 0);
      left += (x[j] ?? 0) * (ax - 2 * ((y[j] ?? 0) - r * (dk[j] ?? 0)));
    }
    return (Math.max(0, left) + flat) / s2;
  };
}

/** A vertical speed that comes down to a rate and dies away after the touch, as its instrument lags. */
function climbMisfit(p: Placed, w: Window, tb: number, sigma: number): ByRate | null {
  const { vs } = p.trace.channels;
  if (!vs) return null;
  const each = w.each ?? 1;
  let [n, sd, sdd, sv, sdv, svv, after] = [0, 0, 0, 0, 0, 0, 0];
  const e = LAGS_S.map(() => ({ ee: 0, ev: 0 }));
  let vv = 0;
  for (let i = w.from; i <= w.to; i += each) {
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

/** Heavy tails: a gust is no knock, and a great knock is more than a small one. */
const unlikely = (v: number, s: number): number => TAIL * Math.log1p((v / s) ** 2 / TAIL) + 2 * Math.log(s);
const KNOCK_COST = 3;
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
    // Aloft it is calm. On the ground it rumbles, and any row may hold a knock, the first rows rather than not.
    const soon = d > -0.8;
    cost +=
      d > 0
        ? unlikely(v, calm)
        : w.sign > 0
          ? Math.min(unlikely(v, rumble) + (soon ? KNOCK_COST : 0), unlikely(v, knocked) + (soon ? 0 : KNOCK_COST))
          : unlikely(v, rumble);
  }
  return cost;
}
/**
 * How much better two straight lines fit that need not meet at a moment than one: a nose that drops. In squares of the
 * noise; never more than one thing may say.
 */
function brokenLine(
  x: Float64Array,
  p: Placed,
  tb: number,
  reach: { before: number; after: number },
  sigma: number,
): number {
  const nothing = () => ({ n: 0, t: 0, tt: 0, v: 0, tv: 0, vv: 0 });
  const [before, after] = [nothing(), nothing()];
  for (let i = indexAt(p.tS, tb - reach.before); i < p.n && (p.tS[i] ?? 0) <= tb + reach.after; i++) {
    const v = x[i] ?? Number.NaN;
    if (v !== v) continue;
    const t = (p.tS[i] ?? 0) - tb;
    const k = t < 0 ? before : after;
    k.n++;
    k.t += t;
    k.tt += t * t;
    k.v += v;
    k.tv += t * v;
    k.vv += v * v;
  }
  if (before.n < 2 || after.n < 2) return 0;
  // Squares left about the best line; null where the rows do not lie apart.
  const left = ({ n, t, tt, v, tv, vv }: ReturnType<typeof nothing>): number | null => {
    const det = n * tt - t * t;
    if (det < 1e-9) return null;
    const s = (n * tv - t * v) / det;
    return vv - ((v - s * t) / n) * v - s * tv;
  };
  const flat = (k: ReturnType<typeof nothing>): number => left(k) ?? k.vv - (k.v * k.v) / k.n;
  const whole = nothing();
  for (const key of ['n', 't', 'tt', 'v', 'tv', 'vv'] as const) whole[key] = before[key] + after[key];
  const one = left(whole);
  if (one === null) return 0;
  return Math.min(MOST_GAIN, Math.max(0, one - flat(before) - flat(after)) / (sigma * sigma));
}
const middle = (x: Float64Array, from: number, to: number): number => {
  const values = [...x.subarray(Math.max(0, from), to + 1)].filter((v) => v === v);
  return values.length < 3 ? Number.NaN : median(values);
};
const spread = (x: Float64Array, from: number, to: number, mean: number): number => {
  const off = [...x.subarray(Math.max(0, from), to + 1)].map((v) => Math.abs(v - mean)).filter((v) => v === v);
  return off.length < 4 ? Number.NaN : 1.4826 * median(off);
};

const rests = new WeakMap<Float64Array, Float64Array>();
/**
 * What is left of a column when the middle of the second and a half about each row is taken away. One column of it for
 * the whole file, filled where it is asked for.
 */
function quick(x: Float64Array, tS: Float64Array, from: number, to: number): Float64Array {
  const out = rests.get(x) ?? new Float64Array(x.length);
  rests.set(x, out);
  let [a, b] = [from, from];
  for (let i = from; i <= to; i++) {
    const t = tS[i] ?? 0;
    while (t - (tS[a] ?? 0) > 0.75) a++;
    while (b < x.length - 1 && (tS[b + 1] ?? 0) - t < 0.75) b++;
    out[i] = b - a < 2 ? (x[i] ?? Number.NaN) : (x[i] ?? Number.NaN) - median(x.subarray(a, b + 1));
  }
  return out;
}
/** The first knock of the load about a moment: what stands out by a good part of the greatest that does. */
function knockNear(
  p: Placed,
  h: Float64Array,
  atS: number,
  reachS: number,
  levelFt: number,
  calm: number,
): number | null {
  if (!p.nz || p.trace.rateHz < 3.5) return null;
  const [from, to] = [indexAt(p.tS, atS - reachS), Math.min(p.n - 1, indexAt(p.tS, atS + reachS))];
  const out = quick(p.nz, p.tS, from, to);
  const low = (i: number): number => ((h[i] ?? 99) - levelFt < KNOCK_BELOW_FT ? (out[i] ?? 0) : 0);
  let most = 0;
  for (let i = from; i <= to; i++) most = Math.max(most, low(i));
  if (most < Math.max(0.12, 6 * calm)) return null;
  for (let i = from; i <= to; i++) if (low(i) > Math.max(0.09, 0.45 * most)) return p.tS[i] ?? null;
  return null;
}
/** What load and bank show about a contact, prepared once for a window. */
function feelers(p: Placed, w: Window, aloft: [number, number], rolling: [number, number]): ((tb: number) => number)[] {
  const out: ((tb: number) => number)[] = [];
  if (p.nz && p.trace.rateHz >= 0.9) {
    // Without what comes slowly, as the pull of a flare does.
    const nz = quick(
      p.nz,
      p.tS,
      indexAt(p.tS, (p.tS[Math.min(w.from, aloft[0])] ?? 0) - 2),
      Math.max(w.to, rolling[1]),
    );
    const mean = middle(nz, ...rolling);
    const calm = Math.max(0.012, spread(nz, ...aloft, middle(nz, ...aloft)));
    const rumble = Math.max(calm * 0.8, 0.012, spread(nz, ...rolling, mean));
    if (Number.isFinite(calm) && Number.isFinite(rumble))
      out.push((tb) => shakeMisfit(nz, p, w, tb, mean, 1.3 * calm, Math.max(0.2, 2 * calm), 1.3 * rumble) / 1.8);
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
    each: Math.max(1, Math.floor(p.trace.rateHz / 4)),
    water: window.water,
  };
  const shakes = shakesOf(p);
  const sigma = Math.max(0.6, Math.hypot(shakes.heightFt, 0.35));
  const vsSigma = Math.max(35, 2 * shakes.vsFpm) / 60;
  const far = (a: number, b: number): [number, number] => [indexAt(p.tS, a), Math.max(0, indexAt(p.tS, b) - 1)];
  const aloft = w.sign > 0 ? far(t0 - 7, t0) : far(t1, t1 + 7);
  const rolling = w.sign > 0 ? far(Math.max(t0 + 1, t1 - 1), t1 + 5) : far(t0 - 5, Math.min(t1 - 1, t0 + 1));
  const felt = feelers(p, w, aloft, rolling);
  const together = Math.max(1, Math.min(TOGETHER, p.trace.rateHz / (w.each ?? 1)));
  const at = (tb: number) => {
    const height = heightMisfit(p, h, w, tb, levelFt, sigma, together);
    const climb = climbMisfit(p, w, tb, vsSigma);
    let rest = 0;
    for (const f of felt) rest += f(tb);
    const bent = lines(tb);
    const logs = RATES.map(
      (r, k) => (PRIOR[k] ?? 0) - (height(r) + 0.7 * (climb?.(r) ?? 0) + bent) / 2 / together - rest / 2,
    );
    return { tb, logs, log: Math.max(...logs) };
  };
  const { pitch } = p.trace.channels;
  const lines = (tb: number): number => {
    let gain = w.sign > 0 ? speedBend(p, tb, shakes.gsKt, w.water) : 0;
    if (pitch)
      gain += PITCH_W * brokenLine(pitch, p, tb, { before: 3, after: 2.5 }, Math.max(0.8, 1.5 * shakes.pitchDeg));
    return -gain;
  };
  const grid: ReturnType<typeof at>[] = [];
  for (let tb = t0; tb <= t1 + 1e-9; tb += COARSE_S) grid.push(at(tb));
  const top = grid.reduce((m, g) => (g.log > m.log ? g : m));
  // Finely wherever it is not out of the question.
  for (const g of [...grid])
    if (g.log > top.log - 5)
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
  const spreadS = Math.sqrt(Math.max(0, square / sum - mean * mean));
  const calmG = p.nz ? Math.max(0.012, spread(p.nz, ...aloft, middle(p.nz, ...aloft))) : 1;
  const knock = w.sign > 0 ? knockNear(p, h, mean, Math.min(2, 0.7 + 1.5 * spreadS), levelFt, calmG) : null;
  return {
    tS: knock ?? mean,
    sdS: Math.sqrt((knock === null ? spreadS : 0.1) ** 2 + LATE_S ** 2 + (BETWEEN_ROWS / p.trace.rateHz) ** 2),
    rateFtS: rate,
    rateSdFtS: Math.sqrt(Math.max(0, rateSquare / sum - rate * rate) + (RATE_OFF * rate) ** 2),
    felt: felt.length > 0,
  };
}

/** How far the runway under a touch may be recorded off the rest of its stay. */
const LEVEL_SD_FT = 2.5;
/** How fast a recorded height may wander on the ground, feet a second. */
const WANDER_FT_S = 0.25;
const PITCH_W = 0.5;
/** Seconds to go at which the way down may bend. */
const KNOT_S = [0.5, 1, 1.8, 3, 4.5, 6.5];
const KNOTS = KNOT_S.length;
const ROUNDS = 3;
/** A load felt higher than this is no touch. */
const KNOCK_BELOW_FT = 8;
const TAIL = 8;
const MOST_GAIN = 40;
const FAR_S = 9;
const CURVE_FT_S2 = 0.03;
const VS_BEFORE_S = 4;
const LAGS_S = [0.15, 0.6, 1.2, 1.8];
