/**
 * The recorder's airwork: an aeroplane as a point that rolls, turns, climbs and slows no faster than it can, in air
 * that moves with the wind. Each item says when it began and ended and what its extremes were. Metres along and right
 * of the runway's centreline, metres up, metres a second, degrees from the runway.
 */
import type { TraceAnalysis } from '@/domain/trace';
import { FT_PER_MIN_PER_MS, G_MS2, MS_PER_KT, M_PER_FT, cosDeg, norm180, sinDeg, tanDeg } from '../constants';

export type AirworkKind = TraceAnalysis['airwork'][number]['kind'];
/** What the recorder can fly beside circuits, in the order it flies best. */
export const AIRWORK_FLOWN: readonly AirworkKind[] = [
  'clearing-turn',
  'steep-turn',
  'slow-flight',
  'stall',
  'climb-reversal',
  'emergency-descent',
  'engine-out',
  'loop',
  'roll',
];
/** What of it can be told in a recording of one engine: a glide with it idling is none. */
export const AIRWORK_TOLD: readonly AirworkKind[] = AIRWORK_FLOWN.filter((k) => k !== 'engine-out');
export interface AirworkPlan {
  kind: AirworkKind;
  direction: 'left' | 'right';
  /** Flown badly: feet gained half way through, degrees turned too far, degrees of bank beyond the item's own. */
  heightErrorFt?: number;
  overshootDeg?: number;
  bankDeg?: number;
  /** Speed of an emergency descent, knots; else a fifth above the cruise. */
  speedKt?: number;
}
export interface FlownAirwork {
  kind: AirworkKind;
  direction: 'left' | 'right' | null;
  startS: number;
  endS: number;
  maxBankDeg: number;
  heightDeviationFt: { min: number; max: number };
  speedDeviationKt: { min: number; max: number };
  rolloutErrorDeg: number | null;
  peakG: number;
  heightLossFt: number;
}
/** One raw moment; bank unwrapped, so that a roll goes through 360. */
export interface Raw {
  t: number;
  x: number;
  y: number;
  h: number;
  ias: number;
  gs: number;
  track: number;
  bank: number;
  ground: boolean;
  crab: number;
  nz: number;
  pitch: number;
  rpm: number;
  flap: number;
  gear: boolean;
  /** Bank and load are as flown, not to be smoothed. */
  exact: boolean;
}
export interface Air {
  /** The wind's direction counted from the runway's. */
  wind: { fromDeg: number; kt: number };
  speeds: { liftOff: number; climb: number; downwind: number; cruise: number; vs1: number; glide: number };
  rpm: { climb: number; cruise: number; approach: number; idle: number };
  /** The circuit's side: -1 left, 1 right. */
  tailSide: -1 | 1;
}
export interface State {
  t: number;
  x: number;
  y: number;
  h: number;
  v: number;
  heading: number;
  bank: number;
  vs: number;
}

const DT = 0.05;
const ROLL_DEG_S = 18;
const VS_MS2 = 3;

interface Wish {
  bank: number;
  vs: number;
  v: number;
  rpm: number;
  /** How quickly speed may change, m/s². */
  dv?: number;
  vsRate?: number;
  rollRate?: number;
}

/** The aeroplane under way: told what is wished, it does what it can and writes down each moment. */
class Flying {
  readonly raw: Raw[] = [];
  constructor(
    readonly air: Air,
    readonly s: State,
  ) {}
  step(w: Wish): void {
    const { s } = this;
    const toward = (now: number, goal: number, rate: number) =>
      now + Math.max(-rate * DT, Math.min(rate * DT, goal - now));
    s.bank = toward(s.bank, w.bank, w.rollRate ?? ROLL_DEG_S);
    const before = s.vs;
    s.vs = toward(s.vs, w.vs, w.vsRate ?? VS_MS2);
    s.v = toward(s.v, w.v, w.dv ?? 0.9);
    const turn = s.v > 1 ? ((G_MS2 * tanDeg(s.bank)) / s.v) * (180 / Math.PI) : 0;
    s.heading += turn * DT;
    this.move(
      1 / cosDeg(s.bank) + (s.vs - before) / DT / G_MS2,
      (Math.asin(Math.max(-1, Math.min(1, s.vs / Math.max(10, s.v)))) * 180) / Math.PI +
        Math.max(0, 8 - 8 * (s.v / MS_PER_KT / this.air.speeds.vs1 - 1) * 2),
      w.rpm,
      s.bank,
      s.heading,
    );
  }
  /** Moves with the air and writes the moment down. */
  move(nz: number, pitch: number, rpm: number, bank: number, heading: number): void {
    const { s, air } = this;
    const flat = Math.sqrt(Math.max(1, s.v ** 2 - s.vs ** 2));
    const windX = -air.wind.kt * MS_PER_KT * cosDeg(air.wind.fromDeg);
    const windY = -air.wind.kt * MS_PER_KT * sinDeg(air.wind.fromDeg);
    const vx = flat * cosDeg(heading) + windX;
    const vy = flat * sinDeg(heading) + windY;
    s.x += vx * DT;
    s.y += vy * DT;
    s.h += s.vs * DT;
    s.t += DT;
    const track = (Math.atan2(vy, vx) * 180) / Math.PI;
    this.raw.push({
      t: s.t,
      x: s.x,
      y: s.y,
      h: s.h,
      ias: s.v / MS_PER_KT,
      gs: Math.hypot(vx, vy) / MS_PER_KT,
      track,
      bank,
      ground: false,
      crab: norm180(heading - track),
      nz,
      pitch,
      rpm,
      flap: 0,
      gear: false,
      exact: true,
    });
  }
  for(seconds: number, w: Wish): void {
    for (let k = 0; k < seconds / DT; k++) this.step(w);
  }
  until(done: () => boolean, w: () => Wish, mostS = 240): void {
    for (let k = 0; k < mostS / DT && !done(); k++) this.step(w());
  }
  level(seconds: number, v = this.air.speeds.cruise * MS_PER_KT): void {
    this.for(seconds, { bank: 0, vs: 0, v, rpm: this.air.rpm.cruise });
  }
  /** Turns through an angle and out of it, leading the roll-out. */
  turn(
    side: number,
    bank: number,
    angle: number,
    w: { vs?: (through: number) => number; v?: (through: number) => number; rpm?: number; dv?: number } = {},
  ): void {
    const { s } = this;
    const from = s.heading;
    // What it still turns while it rolls out: the rate of turn, the tangent of the bank, summed down to wings level.
    const leads = () => ((G_MS2 / s.v) * (180 / Math.PI) * -Math.log(cosDeg(s.bank))) / (ROLL_DEG_S * (Math.PI / 180));
    const through = () => Math.min(1, (side * (s.heading - from)) / angle);
    const wish = (b: number): Wish => ({
      bank: b,
      vs: w.vs?.(through()) ?? 0,
      v: w.v?.(through()) ?? this.air.speeds.cruise * MS_PER_KT,
      rpm: w.rpm ?? this.air.rpm.cruise,
      ...(w.dv === undefined ? {} : { dv: w.dv }),
    });
    this.until(
      () => side * (s.heading - from) >= angle - leads(),
      () => wish(side * bank),
      400,
    );
    this.until(
      () => Math.abs(s.bank) < 0.01,
      () => wish(0),
      20,
    );
  }
}

/** The roll, the climb straight ahead and away to the working height. Starts where the circuit's take-off does. */
export function departure(air: Air, heightFt: number, t: number): { raw: Raw[]; state: State; liftoffS: number } {
  const kt = MS_PER_KT;
  const head = air.wind.kt * cosDeg(air.wind.fromDeg);
  const s: State = { t, x: 0, y: 0, h: 0, v: 1, heading: 0, bank: 0, vs: 0 };
  const raw: Raw[] = [];
  while (s.v < air.speeds.liftOff * kt) {
    s.v += 1.8 * DT;
    const gs = Math.max(0.5, s.v - Math.max(0, head) * kt);
    s.x += gs * DT;
    s.t += DT;
    raw.push({
      t: s.t,
      x: s.x,
      y: 0,
      h: 0,
      ias: s.v / kt,
      gs: gs / kt,
      track: 0,
      bank: 0,
      ground: true,
      crab: 0,
      nz: 1,
      pitch: 0,
      rpm: air.rpm.climb,
      flap: 0,
      gear: true,
      exact: false,
    });
  }
  const liftoffS = s.t;
  const across = air.wind.kt * sinDeg(air.wind.fromDeg);
  s.heading = (Math.asin(Math.max(-0.7, Math.min(0.7, across / air.speeds.climb))) * 180) / Math.PI;
  const f = new Flying(air, s);
  const climb = (bank: number): Wish => ({ bank, vs: 4, v: air.speeds.climb * kt, rpm: air.rpm.climb });
  f.until(
    () => s.h > 180,
    () => climb(0),
  );
  const goal = air.tailSide * 120;
  f.until(
    () => air.tailSide * s.heading >= Math.abs(goal) - 8,
    () => climb(air.tailSide * 20),
  );
  f.until(
    () => s.h >= heightFt * M_PER_FT - 8,
    () => climb(0),
    900,
  );
  f.level(25);
  return { raw: [...raw, ...f.raw], state: s, liftoffS };
}

/** Back to the field: down to the circuit's height, on to the downwind leg, there in line with it. */
export function homing(
  air: Air,
  from: State,
  goal: { heightFt: number; lateralM: number; towardsM: number },
): { raw: Raw[]; state: State } {
  const s = { ...from };
  const f = new Flying(air, s);
  const v = air.speeds.downwind * MS_PER_KT;
  const steer = (x: number, y: number): Wish => {
    const want = (Math.atan2(y - s.y, x - s.x) * 180) / Math.PI;
    const across = air.wind.kt * MS_PER_KT * sinDeg(air.wind.fromDeg - want);
    const heading = want + (Math.asin(Math.max(-0.7, Math.min(0.7, across / s.v))) * 180) / Math.PI;
    const off = norm180(heading - s.heading);
    const low = goal.heightFt * M_PER_FT;
    return {
      bank: Math.max(-25, Math.min(25, off * 1.2)),
      vs: Math.max(-3, Math.min(3, (low - s.h) / 6)),
      v,
      rpm: s.h > low + 20 ? air.rpm.approach : air.rpm.cruise,
    };
  };
  const joinX = 4500;
  f.until(
    () => Math.hypot(s.x - joinX, s.y - goal.lateralM * 1.3) < 250 && s.h < goal.heightFt * M_PER_FT + 15,
    () => steer(joinX, goal.lateralM * 1.3),
    1500,
  );
  // Then along the line, towards the base turn, until the nose is on it.
  f.until(
    () => s.x < 1200,
    () => steer(goal.towardsM - 3000, goal.lateralM),
    300,
  );
  return { raw: f.raw, state: s };
}

/** Flies the items one after the other with a stretch of level flight between them. */
export function airwork(
  air: Air,
  from: State,
  items: readonly AirworkPlan[],
): { raw: Raw[]; state: State; done: FlownAirwork[] } {
  const s = { ...from };
  const f = new Flying(air, s);
  const done: FlownAirwork[] = [];
  for (const item of items) {
    const atFt = s.h / M_PER_FT;
    const first = f.raw.length;
    const start = { t: s.t, h: s.h, v: s.v, heading: s.heading };
    const { directed, angle, lead = 0 } = ITEMS[item.kind](f, item);
    const flown = f.raw.slice(first + lead);
    const began = flown[0];
    if (lead > 0 && began) Object.assign(start, { t: began.t, h: began.h, v: began.ias * MS_PER_KT });
    const heights = flown.map((r) => (r.h - start.h) / M_PER_FT);
    const speeds = flown.map((r) => r.ias - start.v / MS_PER_KT);
    const side = item.direction === 'left' ? -1 : 1;
    let high = -Infinity;
    let loss = 0;
    for (const h of heights) {
      high = Math.max(high, h);
      loss = Math.max(loss, high - h);
    }
    const banks = flown.map((r) => norm180(r.bank));
    done.push({
      kind: item.kind,
      direction: directed ? item.direction : null,
      startS: start.t,
      endS: s.t,
      maxBankDeg: banks.reduce((m, b) => (Math.abs(b) > Math.abs(m) ? b : m), 0),
      heightDeviationFt: { min: Math.min(...heights), max: Math.max(...heights) },
      speedDeviationKt: { min: Math.min(...speeds), max: Math.max(...speeds) },
      rolloutErrorDeg: angle === null ? null : side * (s.heading - start.heading) - angle,
      peakG: Math.max(...flown.map((r) => r.nz)),
      heightLossFt: loss,
    });
    // Back to the height of before, then level.
    f.until(
      () => Math.abs(s.h / M_PER_FT - atFt) < 20,
      () => ({ bank: 0, vs: s.h / M_PER_FT < atFt ? 4 : -3, v: air.speeds.cruise * MS_PER_KT, rpm: air.rpm.climb }),
      600,
    );
    f.level(25);
  }
  return { raw: f.raw, state: s, done };
}

type Fly = (
  f: Flying,
  item: AirworkPlan,
) => {
  directed: boolean;
  /** Degrees it was to turn. */
  angle: number | null;
  /** Moments before the item itself, not counted to it. */
  lead?: number;
};
const sideOf = (item: AirworkPlan): number => (item.direction === 'left' ? -1 : 1);

const ITEMS: Record<AirworkKind, Fly> = {
  'steep-turn': (f, item) => {
    const gained = (item.heightErrorFt ?? 0) * M_PER_FT;
    const v0 = f.s.v;
    const circleS = (2 * Math.PI * v0) / (G_MS2 * tanDeg(45 + (item.bankDeg ?? 0)));
    f.turn(sideOf(item), 45 + (item.bankDeg ?? 0), 360 + (item.overshootDeg ?? 0), {
      vs: (x) => (gained * Math.PI * Math.cos(Math.PI * x)) / circleS,
      v: () => v0 * 0.95,
      dv: 0.3,
    });
    return { directed: true, angle: 360 };
  },
  'slow-flight': (f, item) => {
    const v = f.air.speeds.vs1 * 1.15 * MS_PER_KT;
    f.until(
      () => f.s.v <= v + 0.2,
      () => ({ bank: 0, vs: 0, v, rpm: f.air.rpm.approach, dv: 0.8 }),
    );
    f.for(45, { bank: 0, vs: ((item.heightErrorFt ?? 0) * M_PER_FT) / 45, v, rpm: f.air.rpm.approach });
    f.until(
      () => f.s.v > v + 8,
      () => ({ bank: 0, vs: 0, v: f.air.speeds.cruise * MS_PER_KT, rpm: f.air.rpm.climb }),
    );
    return { directed: false, angle: null };
  },
  stall: (f, item) => {
    const vs1 = f.air.speeds.vs1 * MS_PER_KT;
    const idle = f.air.rpm.idle + 100;
    f.until(
      () => f.s.v <= vs1 + 0.1,
      () => ({ bank: 0, vs: 0, v: vs1 - 1, rpm: idle, dv: f.s.v > vs1 + 8 ? 1 : 0.5 }),
    );
    // The break: the nose falls, a wing a little; then power and out.
    f.for(2, { bank: sideOf(item) * 8, vs: -9, v: vs1 + 1, rpm: idle, vsRate: 5 });
    f.for(1.5, { bank: 0, vs: -9, v: vs1 * 1.4, rpm: f.air.rpm.climb, dv: 4, vsRate: 5 });
    f.until(
      () => f.s.vs > 1,
      () => ({ bank: 0, vs: 2, v: vs1 * 1.4, rpm: f.air.rpm.climb, dv: 2, vsRate: 5 }),
    );
    f.for(2, { bank: 0, vs: 2, v: vs1 * 1.5, rpm: f.air.rpm.climb });
    return { directed: false, angle: null };
  },
  'climb-reversal': (f, item) => {
    const v0 = f.air.speeds.cruise * 1.15 * MS_PER_KT;
    const slow = Math.max(1.15 * f.air.speeds.vs1 * MS_PER_KT, v0 * 0.6);
    f.turn(sideOf(item), 30, 180 + (item.overshootDeg ?? 0), {
      vs: (x) => 6.5 * Math.min(1, 4 * x + 0.3),
      v: (x) => v0 + (slow - v0) * Math.min(1, x * 1.05),
      rpm: f.air.rpm.climb,
      dv: 1.6,
    });
    return { directed: true, angle: 180 };
  },
  loop: (f) => {
    const { s } = f;
    const before = f.raw.length;
    // Speed first, in a shallow dive; the figure from where the pull begins would be too late for its entry.
    f.until(
      () => s.v >= 60,
      () => ({ bank: 0, vs: -6, v: 61, rpm: f.air.rpm.cruise, dv: 1.5 }),
      60,
    );
    const lead = f.raw.length - before;
    let theta = 0;
    const heading = s.heading;
    while (theta < 360) {
      const nz = theta < 70 || theta > 290 ? 3.6 : theta < 250 && theta > 110 ? 1.3 : 2.4;
      theta += ((G_MS2 * (nz - cosDeg(theta))) / s.v) * (180 / Math.PI) * DT;
      s.v = Math.max(18, s.v - G_MS2 * sinDeg(theta) * DT);
      s.vs = s.v * sinDeg(theta);
      const over = cosDeg(theta) < 0;
      f.move(
        nz,
        (Math.asin(sinDeg(theta)) * 180) / Math.PI,
        f.air.rpm.climb,
        over ? 180 : 0,
        heading + (over ? 180 : 0),
      );
    }
    s.vs = 0;
    return { directed: false, angle: null, lead };
  },
  roll: (f, item) => {
    const { s } = f;
    f.for(2, { bank: 0, vs: 7, v: s.v, rpm: f.air.rpm.cruise });
    for (let b = 0; b < 360; b += 75 * DT) {
      s.vs = Math.max(-6, s.vs - 2.6 * DT);
      f.move(0.7 + 0.8 * cosDeg(b), 8 - (14 * b) / 360, f.air.rpm.cruise, sideOf(item) * b, s.heading);
    }
    s.bank = 0;
    f.for(1.5, { bank: 0, vs: 0, v: s.v, rpm: f.air.rpm.cruise, vsRate: 5 });
    return { directed: true, angle: null };
  },
  'emergency-descent': (f, item) => {
    const v = (item.speedKt ?? f.air.speeds.cruise * 1.2) * MS_PER_KT;
    const low = f.s.h - 1400 * M_PER_FT;
    f.until(
      () => f.s.h < low,
      () => ({
        bank: f.s.h > low + 250 ? sideOf(item) * 35 : 0,
        vs: -3000 / FT_PER_MIN_PER_MS,
        v,
        rpm: f.air.rpm.idle,
        vsRate: 4,
      }),
      200,
    );
    f.until(
      () => f.s.vs > -0.5,
      () => ({ bank: 0, vs: 0, v, rpm: f.air.rpm.cruise, vsRate: 4 }),
      20,
    );
    return { directed: true, angle: null };
  },
  'engine-out': (f) => {
    const v = f.air.speeds.glide * MS_PER_KT;
    f.until(
      () => f.s.v <= v + 0.3,
      () => ({ bank: 0, vs: 0, v, rpm: f.air.rpm.idle, dv: 1 }),
    );
    f.for(75, { bank: 0, vs: -3.7, v, rpm: f.air.rpm.idle });
    return { directed: false, angle: null };
  },
  'clearing-turn': (f, item) => {
    f.turn(sideOf(item), 25, 90);
    f.turn(-sideOf(item), 25, 90);
    return { directed: true, angle: null };
  },
};
