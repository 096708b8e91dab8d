/**
 * Airwork in a trace: turns, slow flight, stalls, reversals, figures, descents and glides, each told by what only it
 * does. Works on two samples a second; peaks come from the file's own rows. Bank is the recorded one or, without it,
 * the one the rate of turn needs. What a file cannot show (a roll without attitude, a stall without a speed) is not
 * looked for.
 */
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import { G_MS2, MS_PER_KT, norm180 } from '../../constants';
import type { Placed } from './frame';

type Event = TraceAnalysis['events'][number];
type Item = TraceAnalysis['airwork'][number];

const HZ = 2;
const GAP_S = 3;
interface Grid {
  n: number;
  t0: number;
  h: Float64Array;
  vs: Float64Array;
  /** Over a second and a half: what a break shows in. */
  vsQuick: Float64Array;
  ias: Float64Array | null;
  /** Airspeed, or over the ground. */
  speed: Float64Array;
  nose: Float64Array;
  bank: Float64Array;
  /** Recorded bank counted on through a roll. */
  rolled: Float64Array | null;
  recordedBank: boolean;
  pitch: Float64Array | null;
  /** Engine speed or manifold pressure, of what is usual in flight; null without either. */
  power: Float64Array | null;
  free: Uint8Array;
  /** Low and on the way down to an arrival, with no climb between: an approach, however slow. */
  landing: Uint8Array;
}
/** Nothing is practised lower than this on the way to an arrival, feet above the field. */
const PRACTICE_FT = 1500;
/** A climb of this much ends an approach. */
const CLIMBED_FT = 120;

/** Rows from which it only goes down, or along, to an arrival. */
function towardsLanding(h: Float64Array, t0: number, events: readonly Event[]): Uint8Array {
  const out = new Uint8Array(h.length);
  for (const e of events) {
    if (e.kind === 'takeoff') continue;
    let high = -Infinity;
    for (let k = Math.min(h.length - 1, Math.floor((e.startS - t0) * HZ)); k >= 0; k--) {
      const v = h[k] ?? Number.NaN;
      if (v !== v) continue;
      // Back in time: lower than what came after it is a climb.
      high = Math.max(high, v);
      if (high - v > CLIMBED_FT || v > PRACTICE_FT) break;
      out[k] = 1;
    }
  }
  return out;
}

/** Marks what leads straight in to each arrival: back from it, as long as it is in line with the runway. */
function inbound(p: Placed, events: readonly Event[], t0: number, n: number, free: Uint8Array): void {
  for (const e of events) {
    const frame = p.frames.find((f) => f.ident === e.runway);
    if (!frame || e.kind === 'takeoff') continue;
    for (let i = lowerBound(p.tS, e.startS); i > 0 && e.startS - (p.tS[i] ?? 0) < 300; i--) {
      const [x, y] = [frame.along[i] ?? Number.NaN, Math.abs(frame.lateral[i] ?? Number.NaN)];
      if (!(x < 0 && x > -15_000 && y < 250 + 0.12 * -x)) break;
      if (Math.abs(norm180((p.trackDeg[i] ?? 0) - frame.end.trueBearingDeg)) > 60) break;
      const k = Math.round(((p.tS[i] ?? 0) - t0) * HZ);
      for (let j = Math.max(0, k - 2); j <= Math.min(n - 1, k + 2); j++) free[j] = 0;
    }
  }
}

/** A column on the grid: the line between the samples on either side; nothing across a gap. */
function onGrid(x: Float64Array, tS: Float64Array, n: number, t0: number): Float64Array {
  const out = new Float64Array(n).fill(Number.NaN);
  let j = 0;
  for (let k = 0; k < n; k++) {
    const t = t0 + k / HZ;
    while (j + 1 < tS.length && (tS[j + 1] ?? 0) < t) j++;
    const ta = tS[j] ?? 0;
    const tb = tS[j + 1] ?? ta;
    const a = x[j] ?? Number.NaN;
    const b = x[j + 1] ?? a;
    out[k] =
      tb - ta > GAP_S ? Number.NaN : a !== a ? b : b !== b ? a : tb === ta ? a : a + ((b - a) * (t - ta)) / (tb - ta);
  }
  return out;
}
/** Angles without their jump at north. */
function unwrapped(x: Float64Array): Float64Array {
  const out = new Float64Array(x.length);
  let last = Number.NaN;
  for (let i = 0; i < x.length; i++) {
    const v = x[i] ?? Number.NaN;
    if (v !== v) {
      out[i] = Number.NaN;
      continue;
    }
    last = last === last ? last + norm180(v - last) : v;
    out[i] = last;
  }
  return out;
}
/** Mean over some samples on either side. */
function calm(x: Float64Array, each: number): Float64Array {
  return x.map((_, i) => {
    let s = 0;
    let n = 0;
    for (let k = Math.max(0, i - each); k <= Math.min(x.length - 1, i + each); k++) {
      const v = x[k] ?? Number.NaN;
      if (v === v) {
        s += v;
        n++;
      }
    }
    return n > 0 ? s / n : Number.NaN;
  });
}
function slopes(x: Float64Array, each: number): Float64Array {
  return x.map((_, i) => {
    const a = Math.max(0, i - each);
    const b = Math.min(x.length - 1, i + each);
    return b > a ? (((x[b] ?? Number.NaN) - (x[a] ?? Number.NaN)) * HZ) / (b - a) : Number.NaN;
  });
}

function gridOf(p: Placed, events: readonly Event[]): Grid | null {
  if (!p.heightFt || p.n < 4) return null;
  const t0 = p.tS[0] ?? 0;
  const n = Math.floor(((p.tS[p.n - 1] ?? 0) - t0) * HZ) + 1;
  if (n < 20) return null;
  const { channels } = p.trace;
  const of = (x: Float64Array | null | undefined) => (x ? onGrid(x, p.tS, n, t0) : null);
  const nose = onGrid(unwrapped(p.headingDeg ?? p.trackDeg), p.tS, n, t0);
  const h = calm(onGrid(p.heightFt, p.tS, n, t0), 2);
  const ias = of(p.iasKt);
  const speed = ias ?? onGrid(p.gsKt, p.tS, n, t0);
  const turn = slopes(calm(nose, 1), 2);
  const recorded = channels.bank ? onGrid(unwrapped(channels.bank), p.tS, n, t0) : null;
  // The rate of turn tells it where no bank was recorded.
  const bank = turn.map((w, i) => {
    const own = recorded?.[i] ?? Number.NaN;
    return own === own
      ? norm180(own)
      : (Math.atan((w * (Math.PI / 180) * (speed[i] ?? Number.NaN) * MS_PER_KT) / G_MS2) * 180) / Math.PI;
  });
  const sinking = slopes(h, 2);
  const instrument = of(channels.vs);
  // Free air: above the field and away from every arrival and departure.
  const free = new Uint8Array(n);
  for (let k = 0; k < n; k++) free[k] = (h[k] ?? -1) > 400 ? 1 : 0;
  for (const e of events)
    for (let k = Math.max(0, Math.floor((e.startS - t0) * HZ)); k <= Math.min(n - 1, (e.endS - t0) * HZ); k++)
      free[k] = 0;
  // A long final is no airwork, however slow and level.
  inbound(p, events, t0, n, free);
  return {
    n,
    t0,
    h,
    vs: slopes(h, 4).map((v) => v * 60),
    vsQuick: calm(
      sinking.map((v, i) => {
        const own = instrument?.[i] ?? Number.NaN;
        return own === own ? own : v * 60;
      }),
      1,
    ),
    ias: ias ? calm(ias, 1) : null,
    speed,
    nose,
    bank,
    rolled: recorded,
    recordedBank: recorded !== null,
    pitch: of(channels.pitch),
    power: powerOf(of(channels.map), h, 0) ?? powerOf(of(channels.rpm), h, 0.15),
    free,
    landing: towardsLanding(h, t0, events),
  };
}

/**
 * A reading as a share of what is usual in flight. Null where it hardly changes: the speed of a governed propeller says
 * nothing of power.
 */
function powerOf(x: Float64Array | null, h: Float64Array, changes: number): Float64Array | null {
  if (!x) return null;
  const flying = x.filter((v, i) => v === v && (h[i] ?? 0) > 300).sort();
  const at = (q: number) => flying[Math.floor(q * (flying.length - 1))] ?? Number.NaN;
  const usual = at(0.5);
  return flying.length > 20 && usual > 0 && (at(0.95) - at(0.05)) / usual > changes ? x.map((v) => v / usual) : null;
}

interface Run {
  a: number;
  b: number;
}
/** Stretches in which a condition holds, lapses of some samples forgiven. */
function runs(n: number, holds: (i: number) => boolean, least: number, lapse = 0): Run[] {
  const out: Run[] = [];
  let a = -1;
  let last = -1;
  for (let i = 0; i <= n; i++) {
    if (i < n && holds(i)) {
      if (a < 0) a = i;
      last = i;
    } else if (a >= 0 && (i === n || i - last > lapse)) {
      if (last - a + 1 >= least) out.push({ a, b: last });
      a = -1;
    }
  }
  return out;
}
const range = (x: Float64Array, r: Run): { min: number; max: number; mean: number } => {
  let min = Infinity;
  let max = -Infinity;
  let s = 0;
  let n = 0;
  for (let i = r.a; i <= r.b; i++) {
    const v = x[i] ?? Number.NaN;
    if (v !== v) continue;
    min = Math.min(min, v);
    max = Math.max(max, v);
    s += v;
    n++;
  }
  return { min, max, mean: n > 0 ? s / n : Number.NaN };
};
const overlap = (x: Run, y: Run): number =>
  Math.max(0, Math.min(x.b, y.b) - Math.max(x.a, y.a) + 1) / Math.min(x.b - x.a + 1, y.b - y.a + 1);

interface Found extends Run {
  kind: Item['kind'];
  side: -1 | 0 | 1;
  rollout: number | null;
  sure: number;
}

/** A stretch banked one way, from wings level to wings level, with what it turned through. */
interface Turn extends Run {
  side: -1 | 1;
  peak: number;
  through: number;
}
function turnsOf(g: Grid): Turn[] {
  const out: Turn[] = [];
  for (const side of [-1, 1] as const) {
    for (const r of runs(
      g.n,
      (i) => g.free[i] === 1 && side * (g.bank[i] ?? 0) > 9 && Math.abs(g.bank[i] ?? 0) < 90,
      3 * HZ,
      HZ,
    )) {
      let { a, b } = r;
      while (a > 0 && side * (g.bank[a - 1] ?? 0) > 2.5 && g.free[a - 1]) a--;
      while (b < g.n - 1 && side * (g.bank[b + 1] ?? 0) > 2.5 && g.free[b + 1]) b++;
      const peak = side > 0 ? range(g.bank, r).max : -range(g.bank, r).min;
      out.push({
        a,
        b,
        side,
        peak,
        through: side * ((g.nose[Math.min(g.n - 1, b + 1)] ?? Number.NaN) - (g.nose[Math.max(0, a - 1)] ?? Number.NaN)),
      });
    }
  }
  return out.sort((x, y) => x.a - y.a);
}

const WHOLE = [180, 360, 540, 720, 1080];
const nearestOf = (x: number, of: readonly number[]): number =>
  of.reduce((m, v) => (Math.abs(v - x) < Math.abs(m - x) ? v : m), of[0] ?? 0);

function figures(g: Grid): Found[] {
  if (!g.recordedBank && !g.pitch) return [];
  const out: Found[] = [];
  const inverted = runs(g.n, (i) => g.free[i] === 1 && Math.abs(norm180(g.bank[i] ?? 0)) > 115, 1, 2 * HZ);
  for (const r of inverted) {
    const near = { a: Math.max(0, r.a - 8 * HZ), b: Math.min(g.n - 1, r.b + 8 * HZ) };
    const pitch = g.pitch ? range(g.pitch, near) : null;
    const gained = range(g.h, near);
    const looped = pitch ? pitch.max > 50 : gained.max - gained.min > 250;
    if (looped) {
      let { a, b } = r;
      if (g.pitch) {
        while (a > 0 && r.a - a < 15 * HZ && (g.pitch[a] ?? 0) > 4) a--;
        // Down the far side, then the nose comes up to the horizon again.
        while (b < g.n - 1 && b - r.b < 20 * HZ && !((g.pitch[b] ?? 0) > -4 && range(g.pitch, { a: r.b, b }).min < -40))
          b++;
      } else {
        a = Math.max(0, a - 5 * HZ);
        b = Math.min(g.n - 1, b + 5 * HZ);
      }
      out.push({ kind: 'loop', a, b, side: 0, rollout: null, sure: pitch ? 0.95 : 0.7 });
    } else {
      // From wings level to wings level, the whole way round the same way.
      let { a, b } = r;
      const level = (i: number) => Math.abs(norm180(g.bank[i] ?? 0)) < 6;
      while (a > 0 && r.a - a < 12 * HZ && !level(a)) a--;
      while (b < g.n - 1 && b - r.b < 12 * HZ && !level(b)) b++;
      const turned = (g.rolled?.[b] ?? 0) - (g.rolled?.[a] ?? 0);
      if (Math.abs(Math.abs(turned) - 360) < 60)
        out.push({ kind: 'roll', a, b, side: turned > 0 ? 1 : -1, rollout: null, sure: 0.95 });
    }
  }
  return out;
}

function descents(g: Grid): Found[] {
  return runs(g.n, (i) => (g.h[i] ?? 0) > 300 && (g.vs[i] ?? 0) < -1700, 8 * HZ, 3 * HZ).flatMap((r): Found[] => {
    let { a, b } = r;
    while (a > 0 && (g.vs[a - 1] ?? 0) < -350) a--;
    while (b < g.n - 1 && (g.vs[b + 1] ?? 0) < -350) b++;
    if ((g.h[a] ?? 0) - (g.h[b] ?? 0) < 1000 || b - a < 19.5 * HZ) return [];
    // A dive with the power on is none.
    if (g.power && range(g.power, r).mean > 0.85) return [];
    const bank = range(g.bank, r);
    const side = Math.abs(bank.mean) > 8 ? (bank.mean > 0 ? 1 : -1) : 0;
    return [{ kind: 'emergency-descent', a, b, side, rollout: null, sure: 0.85 }];
  });
}

/**
 * Slow to the stall, then the nose goes: within seconds it sinks away (or the nose itself drops), and the speed comes
 * back.
 */
function stalls(g: Grid, vs1: number): Found[] {
  const { ias } = g;
  if (!ias) return [];
  const out: Found[] = [];
  const steady = calm(ias, 4);
  for (const r of runs(g.n, (i) => (g.h[i] ?? 0) > 500 && (ias[i] ?? 999) < 1.15 * vs1 && !g.landing[i], 1, 3 * HZ)) {
    // Each break in the slow part: one stall after the other may lie in it.
    let from = r.a;
    while (from <= r.b) {
      const found = breakIn(g, ias, { a: from, b: r.b }, vs1);
      if (!found) break;
      let a = found.top;
      while (a > 0 && found.top - a < 60 * HZ && (steady[a - 1] ?? 999) > (steady[a] ?? 0) + 0.05 && g.free[a - 1]) a--;
      const before = out[out.length - 1];
      if (!before || found.b > before.b + 4 * HZ)
        out.push({
          kind: 'stall',
          a: before && a <= before.b ? before.b + 1 : a,
          b: found.b,
          side: 0,
          rollout: null,
          sure: 0.85,
        });
      from = found.b + 1;
    }
  }
  return out;
}
/** The first break after the slowest of a stretch. */
function breakIn(g: Grid, ias: Float64Array, r: Run, vs1: number): { top: number; b: number } | null {
  const end = Math.min(g.n - 1, r.b + 7 * HZ);
  for (let i = Math.max(r.a, 2 * HZ); i < end; i++) {
    if (!((ias[i] ?? 999) < 1.15 * vs1)) continue;
    const before = mean(g.vsQuick, i - 3 * HZ, i);
    const nose = g.pitch ? mean(g.pitch, i - HZ, i) : Number.NaN;
    let least = 0;
    let down = 0;
    let broke = i;
    for (let k = i + 1; k <= Math.min(g.n - 1, i + 5 * HZ); k++) {
      if ((g.vsQuick[k] ?? 0) < least) [least, broke] = [g.vsQuick[k] ?? 0, k];
      down = Math.min(down, (g.pitch?.[k] ?? Number.NaN) - nose || 0);
    }
    // Out of a climb with power the sink is little, and the turn of it great.
    const regained = range(ias, { a: i, b: Math.min(g.n - 1, broke + 6 * HZ) });
    const turned = before > 300 && before - least > (regained.max - regained.min > 0.2 * vs1 ? 700 : 1000);
    const sank = least - Math.min(0, before) < -420 || (least < -250 && down < -9);
    if (!turned && !sank) continue;
    // A nose that drops gains speed at once; a slow flight that sags does not.
    if (regained.max - regained.min < 0.1 * vs1) continue;
    // Speed comes back.
    let b = i;
    while (b < g.n - 1 && b - i < 25 * HZ && !((ias[b] ?? 0) > 1.15 * vs1 && (g.vsQuick[b] ?? -1) > -100)) b++;
    if (!((ias[b] ?? 0) > 1.1 * vs1)) continue;
    let top = Math.max(0, i - 4 * HZ);
    for (let k = top; k < b && k < i + 5 * HZ; k++) if ((g.h[k] ?? 0) >= (g.h[top] ?? 0)) top = k;
    if ((g.h[top] ?? 0) - range(g.h, { a: top, b }).min >= (turned ? 3 : 12)) return { top, b };
  }
  return null;
}
const mean = (x: Float64Array, from: number, to: number): number => range(x, { a: Math.max(0, from), b: to }).mean;

function slow(g: Grid, vs1: number, stalled: readonly Found[]): Found[] {
  const { ias } = g;
  if (!ias) return [];
  return runs(
    g.n,
    (i) => (g.h[i] ?? 0) > 700 && g.free[i] === 1 && !g.landing[i] && (ias[i] ?? 999) < 1.31 * vs1,
    15 * HZ,
    4 * HZ,
  ).flatMap((r): Found[] => {
    if (Math.abs(range(g.vs, r).mean) > 250 || Math.abs((g.h[r.a] ?? 0) - (g.h[r.b] ?? 0)) > 300) return [];
    // What leads into a stall belongs to the stall; what is left must still be a while.
    let left = 0;
    for (let i = r.a; i <= r.b; i++) if (!stalled.some((s) => i >= s.a && i <= s.b)) left++;
    if (left < 12 * HZ) return [];
    let { a } = r;
    while (a > 0 && (ias[a - 1] ?? 0) > (ias[a] ?? 0) + 0.05 && r.a - a < 25 * HZ) a--;
    return [{ kind: 'slow-flight', a, b: r.b, side: 0, rollout: null, sure: 0.85 }];
  });
}

function turnItems(g: Grid, turns: readonly Turn[]): Found[] {
  const out: Found[] = [];
  for (const t of turns) {
    const gained = (g.h[t.b] ?? 0) - (g.h[t.a] ?? 0);
    const vs = range(g.vs, t).mean;
    const kept = (g.speed[Math.min(g.n - 1, t.b)] ?? 0) / (g.speed[Math.max(0, t.a - 2)] ?? 1);
    const climbed = (gained / Math.max(1, (t.b - t.a) / HZ)) * 60;
    // Without airspeed: it climbs as no steady climb does, or the ground speed of the way back is plainly less.
    const seen = g.ias === null && gained > 220 && (climbed > 1100 || (climbed > 600 && kept < 0.75));
    const lost = g.ias ? (g.ias[Math.max(0, t.a - 2)] ?? 0) - range(g.ias, t).min : 0;
    if (
      t.through > 130 &&
      t.through < 235 &&
      t.b - t.a > 10 * HZ &&
      t.peak > 14 &&
      gained > 150 &&
      (seen || (g.ias && lost > Math.max(10, 0.12 * (g.ias[t.a] ?? 0))))
    )
      out.push({ kind: 'climb-reversal', a: t.a, b: t.b, side: t.side, rollout: t.through - 180, sure: 0.85 });
    else if (t.peak > 36 && t.through > 140 && Math.abs(vs) < 900 && meanBank(g, t) > 30 && heightSpan(g, t) < 350)
      out.push({
        kind: 'steep-turn',
        a: t.a,
        b: t.b,
        side: t.side,
        rollout: t.through - nearestOf(t.through, WHOLE),
        sure: g.recordedBank ? 0.95 : 0.8,
      });
  }
  return out;
}
const heightSpan = (g: Grid, t: Turn): number => range(g.h, t).max - range(g.h, t).min;
const meanBank = (g: Grid, t: Turn): number => Math.abs(range(g.bank, t).mean);

/** Two level turns one after the other and opposite ways, or one half turn before something that needs a look first. */
function clearing(g: Grid, turns: readonly Turn[], others: readonly Found[]): Found[] {
  const out: Found[] = [];
  const fit = (t: Turn, least: number, most: number) =>
    t.peak > 12 &&
    t.peak < 42 &&
    t.through > least &&
    t.through < most &&
    Math.abs((g.h[t.b] ?? 0) - (g.h[t.a] ?? 0)) < 200 &&
    (g.h[t.a] ?? 0) > 1200 &&
    !others.some((o) => overlap(o, t) > 0.3);
  for (let i = 0; i < turns.length; i++) {
    const [first, second] = [turns[i], turns[i + 1]];
    if (!first || out.some((o) => overlap(o, first) > 0)) continue;
    if (second && fit(first, 55, 130) && fit(second, 55, 130) && second.a - first.b < 15 * HZ) {
      const opposite = first.side !== second.side;
      if (opposite || needed(second, others))
        out.push({
          kind: 'clearing-turn',
          a: first.a,
          b: second.b,
          side: first.side,
          rollout: null,
          sure: opposite ? 0.85 : 0.6,
        });
    } else if (fit(first, 150, 215) && needed(first, others))
      out.push({
        kind: 'clearing-turn',
        a: first.a,
        b: first.b,
        side: first.side,
        rollout: first.through - 180,
        sure: 0.6,
      });
  }
  return out;
}
const needed = (t: Run, others: readonly Found[]): boolean =>
  others.some((o) => o.a > t.b && o.a - t.b < 120 * HZ && o.kind !== 'emergency-descent');

/** How far apart two engines' readings are when one of them does not pull, of the greater. */
const APART: Record<'rpm' | 'map' | 'fuelFlow', number> = { rpm: 0.15, map: 0.25, fuelFlow: 0.4 };
/**
 * One engine of two without power: what both record stands plainly apart for a while in flight. An aeroplane with one
 * engine has none of it, and a closed throttle is no failure.
 */
function oneEngine(g: Grid, p: Placed, engines: number): Found[] {
  if (engines < 2) return [];
  const { channels } = p.trace;
  const pairs = (['rpm', 'map', 'fuelFlow'] as const).flatMap((c) => {
    const [a, b] = [channels[c], channels[`${c}2`]];
    return a && b ? [{ a: onGrid(a, p.tS, g.n, g.t0), b: onGrid(b, p.tS, g.n, g.t0), apart: APART[c] }] : [];
  });
  if (pairs.length === 0) return [];
  const lean = (i: number): number => {
    let most = 0;
    for (const { a, b, apart } of pairs) {
      const [x, y] = [a[i] ?? Number.NaN, b[i] ?? Number.NaN];
      const d = (y - x) / Math.max(x, y);
      if (Math.abs(d) > apart && Math.abs(d) > Math.abs(most)) most = d;
    }
    return most;
  };
  const out: Found[] = [];
  for (const side of [-1, 1] as const)
    for (const r of runs(g.n, (i) => (g.h[i] ?? 0) > 100 && -side * lean(i) > 0, 15 * HZ, 4 * HZ))
      out.push({ kind: 'engine-out', a: r.a, b: r.b, side, rollout: null, sure: 0.9 });
  return out;
}

const round = (x: number, digits = 1): number | null =>
  Number.isFinite(x) ? Math.round(x * 10 ** digits) / 10 ** digits : null;

function told(g: Grid, p: Placed, f: Found): Item {
  const at = { a: Math.max(0, f.a), b: Math.min(g.n - 1, f.b) };
  const startS = g.t0 + at.a / HZ;
  const endS = g.t0 + at.b / HZ;
  const h0 = g.h[at.a] ?? Number.NaN;
  const v0 = g.ias?.[at.a] ?? Number.NaN;
  const height = range(g.h, at);
  const speed = g.ias ? range(g.ias, at) : null;
  let bank = 0;
  let high = -Infinity;
  let loss = 0;
  for (let i = at.a; i <= at.b; i++) {
    const b = norm180(g.bank[i] ?? Number.NaN);
    if (Math.abs(b) > Math.abs(bank)) bank = b;
    const v = g.h[i] ?? Number.NaN;
    if (v > high) high = v;
    if (high - v > loss) loss = high - v;
  }
  let peak = -Infinity;
  if (p.nz)
    for (let i = lowerBound(p.tS, startS); i < p.n && (p.tS[i] ?? 0) <= endS; i++)
      peak = Math.max(peak, p.nz[i] ?? -Infinity);
  const doubt = (p.trace.rateHz < 2 ? 0.9 : 1) * (p.calibrated ? 1 : 0.95) * (g.recordedBank ? 1 : 0.92);
  return {
    kind: f.kind,
    direction: f.side === 0 ? null : f.side < 0 ? 'left' : 'right',
    startS: round(startS, 2) ?? 0,
    endS: round(endS, 2) ?? 0,
    maxBankDeg: round(bank),
    heightDeviationFt: { min: round(height.min - h0, 0), max: round(height.max - h0, 0) },
    speedDeviationKt: { min: speed ? round(speed.min - v0) : null, max: speed ? round(speed.max - v0) : null },
    rolloutErrorDeg: f.rollout === null ? null : round(f.rollout),
    peakG: round(peak, 2),
    heightLossFt: round(loss, 0),
    confidence: Math.round(f.sure * doubt * 100) / 100,
  };
}
function lowerBound(x: Float64Array, v: number): number {
  let a = 0;
  let b = x.length;
  while (a < b) {
    const m = (a + b) >> 1;
    if ((x[m] ?? 0) < v) a = m + 1;
    else b = m;
  }
  return a;
}

/**
 * Every item of airwork the file can show, in order of time. @param events arrivals and departures already found:
 * nothing is looked for within them
 */
export function findAirwork(p: Placed, context: TraceContext, events: readonly Event[]): Item[] {
  const g = gridOf(p, events);
  if (!g) return [];
  const { vs0Kt, vs1Kt } = context.airframe;
  const vs1 = vs1Kt ?? (vs0Kt === null ? null : vs0Kt * 1.08);
  const found: Found[] = [];
  const add = (more: Found[]) => {
    for (const f of more) if (!found.some((o) => overlap(o, f) > 0.5)) found.push(f);
  };
  add(figures(g));
  // A failed engine goes on through whatever else is flown.
  const failed = oneEngine(g, p, context.airframe.engines);
  add(descents(g));
  const stalled = vs1 === null ? [] : stalls(g, vs1);
  add(stalled);
  const turns = turnsOf(g);
  add(turnItems(g, turns));
  if (vs1 !== null) add(slow(g, vs1, stalled));
  add(clearing(g, turns, found));
  return [...found, ...failed].sort((a, b) => a.a - b.a).map((f) => told(g, p, f));
}
