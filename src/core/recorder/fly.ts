/**
 * A simulated flight recorder, first the flight: circuits flown as a path with speed and height along it, true to the
 * last metre, so that what an analysis finds can be held against what was flown. Metres along and right of the
 * centreline of the runway in use, feet above its threshold, knots, seconds.
 */
import { FT_PER_MIN_PER_MS, G_MS2, MS_PER_KT, M_PER_FT, norm180, norm360, sinDeg, cosDeg, tanDeg } from '../constants';

import { type AirworkPlan, type FlownAirwork, type Raw, airwork, departure, homing } from './airwork';

export interface RecorderRunway {
  ident: string;
  thresholdLat: number;
  thresholdLon: number;
  trueBearingDeg: number;
  lengthM: number;
  elevationFt: number;
  /** Rise to the other end. */
  riseFt?: number;
}
export interface Arrival {
  end: 'full-stop' | 'touch-and-go' | 'stop-and-go' | 'go-around' | 'low-pass';
  alongM: number;
  lateralM: number;
  /** Nose right of the track at touchdown. */
  crabDeg: number;
  sinkFpm: number;
  bounces: number;
  /** Largest heading swing in the roll-out, right positive. */
  swingDeg: number;
  touchKt: number;
  /** Lowest height of a go-around or low pass. */
  lowestFt: number;
  /** Too fast on final, knots: the plateau that does not fall. */
  fastKt?: number;
  /** Sideways speed over the ground at the touch, knots, right positive: the nose straight too early. */
  driftKt?: number;
  /** Weaving about the centreline on final, metres either side. */
  weaveM?: number;
}
/** What moves and what turns, for the channels of a panel log. */
export interface Configuration {
  flapDeg: number;
  /** Metres to go at which flap and gear come down. */
  flapAtM: number;
  gearAtM: number | null;
  rpm: { climb: number; cruise: number; approach: number; idle: number };
}
export const PLAIN: Configuration = {
  flapDeg: 0,
  flapAtM: 1500,
  gearAtM: null,
  rpm: { climb: 2500, cruise: 2300, approach: 1600, idle: 900 },
};
export interface RecorderPlan {
  runway: RecorderRunway;
  windFromDeg: number;
  windKt: number;
  speeds: { liftOff: number; climb: number; downwind: number; base: number; final: number };
  circuitFt: number;
  slopeDeg: number;
  side: 'left' | 'right';
  arrivals: readonly Arrival[];
  /** Flown between the first take-off and the first arrival, at this height above the field. */
  airwork?: { heightFt: number; items: readonly AirworkPlan[]; speeds: { cruise: number; vs1: number; glide: number } };
  configuration?: Configuration;
  /** A fast taxi down the runway and back before the flight. */
  fastTaxi?: boolean;
}
export interface FlownSample {
  tS: number;
  alongM: number;
  lateralM: number;
  heightFt: number;
  iasKt: number;
  gsKt: number;
  trackDeg: number;
  headingDeg: number;
  vsFpm: number;
  bankDeg: number;
  pitchDeg: number;
  nz: number;
  rpm: number;
  flapDeg: number;
  gearDown: boolean;
}
export interface FlownEvent {
  kind: 'takeoff' | Arrival['end'];
  liftoffS: number | null;
  touchdownS: number | null;
  alongM: number | null;
  lateralM: number | null;
  touchKt: number | null;
  lowestFt: number | null;
  lowestS: number | null;
  bounces: number;
  swingDeg: number;
  crabDeg: number;
  sinkFpm: number;
}
export interface Flown {
  samples: FlownSample[];
  events: FlownEvent[];
  airwork: FlownAirwork[];
}

const STEP_M = 1;
const RATE_HZ = 20;
const BANK_DEG = 25;
const SPACING_M = 1200;
const BASE_M = 1300;
const CLIMB_DEG = 5;
const ACCELERATION = 1.8;
const BRAKING = 1.6;
const WALKING_MS = 2;
/** Height from which the flare begins. */
const FLARE_M = 5;

interface Point {
  x: number;
  y: number;
  track: number;
  /** Signed turn radius, right positive; 0 = straight. */
  radius: number;
}

/** A path through corners, each rounded with one radius. */
function rounded(corners: readonly { x: number; y: number }[], radius: number): Point[] {
  const out: Point[] = [];
  let at = corners[0] ?? { x: 0, y: 0 };
  const line = (to: { x: number; y: number }) => {
    const length = Math.hypot(to.x - at.x, to.y - at.y);
    const track = (Math.atan2(to.y - at.y, to.x - at.x) * 180) / Math.PI;
    for (let s = 0; s < length; s += STEP_M)
      out.push({ x: at.x + ((to.x - at.x) * s) / length, y: at.y + ((to.y - at.y) * s) / length, track, radius: 0 });
    at = to;
  };
  for (let i = 1; i < corners.length; i++) {
    const here = corners[i] ?? at;
    const next = corners[i + 1];
    if (!next) {
      line(here);
      break;
    }
    const before = corners[i - 1] ?? at;
    const inDeg = (Math.atan2(here.y - before.y, here.x - before.x) * 180) / Math.PI;
    const turn = norm180((Math.atan2(next.y - here.y, next.x - here.x) * 180) / Math.PI - inDeg);
    const cut = radius * tanDeg(Math.abs(turn) / 2);
    line({ x: here.x - cut * cosDeg(inDeg), y: here.y - cut * sinDeg(inDeg) });
    const side = Math.sign(turn);
    const centre = { x: at.x - side * radius * sinDeg(inDeg), y: at.y + side * radius * cosDeg(inDeg) };
    const arc = (Math.abs(turn) * Math.PI * radius) / 180;
    for (let s = 0; s < arc; s += STEP_M) {
      const track = inDeg + (turn * s) / arc;
      out.push({
        x: centre.x + side * radius * sinDeg(track),
        y: centre.y - side * radius * cosDeg(track),
        track,
        radius: side * radius,
      });
    }
    const end = inDeg + turn;
    at = { x: centre.x + side * radius * sinDeg(end), y: centre.y - side * radius * cosDeg(end) };
  }
  return out;
}

interface Leg {
  points: Point[];
  heightM: number[];
  /** Airspeed in the air, speed over the ground on it, m/s. */
  speed: number[];
  ground: boolean[];
  touch: number;
  lift: number;
  goal: number;
}
interface From {
  x: number;
  y: number;
  v: number;
  heightM: number;
  rolling: boolean;
  /** Already abeam: joins the downwind leg. */
  joins?: boolean;
}

/** One circuit from where the last ended: the roll or the climb, the rectangle, the approach, and what its end is. */
function circuit(plan: RecorderPlan, a: Arrival, from: From): { leg: Leg; end: From } {
  const ms = (kt: number) => kt * MS_PER_KT;
  const speeds = {
    ...plan.speeds,
    final: plan.speeds.final + (a.fastKt ?? 0),
    base: plan.speeds.base + (a.fastKt ?? 0),
  };
  const away = plan.side === 'left' ? -1 : 1;
  const radius = ms(speeds.downwind) ** 2 / (G_MS2 * tanDeg(BANK_DEG));
  const H = plan.circuitFt * M_PER_FT;
  // On the ground it is the speed over it that counts: the wind along the runway is in the dial, not in the roll.
  const headMs = ms(plan.windKt * cosDeg(plan.windFromDeg - plan.runway.trueBearingDeg));
  const liftMs = Math.max(5, ms(speeds.liftOff) - headMs);
  const roll = from.rolling ? Math.max(0, (liftMs ** 2 - from.v ** 2) / (2 * ACCELERATION)) : 0;
  const turnX = from.x + roll + (0.5 * H) / tanDeg(CLIMB_DEG);
  const lowM = a.lowestFt * M_PER_FT;
  const contact = a.end !== 'go-around' && a.end !== 'low-pass';
  // Where the approach ends: the touch, or the lowest point.
  // A go-around from the ground touches where it was to land.
  const goalX = contact || lowM < 0.5 ? a.alongM : a.end === 'low-pass' ? 40 : -60;
  const levelM = a.end === 'low-pass' ? plan.runway.lengthM * 0.6 : 0;
  const touchMs = ms(a.touchKt);
  const rollMs = Math.max(5, touchMs - headMs);
  const slow = a.end === 'touch-and-go' ? rollMs * 0.7 : WALKING_MS;
  const stopM = contact ? (rollMs ** 2 - slow ** 2) / (2 * BRAKING) : 0;
  const tailM = a.end === 'full-stop' ? 60 : 0;
  const upwind = from.joins
    ? []
    : [
        { x: turnX, y: from.y },
        { x: turnX, y: away * SPACING_M },
      ];
  const points = rounded(
    [
      { x: from.x, y: from.y },
      ...upwind,
      { x: -BASE_M, y: away * SPACING_M },
      { x: -BASE_M, y: a.lateralM },
      { x: goalX + levelM + stopM + tailM + (contact ? 0 : 30), y: a.lateralM },
    ],
    radius,
  );
  const n = points.length;
  // Of the final leg, the point nearest to where it is to happen.
  let goal = n - 1;
  while (goal > 0 && (points[goal]?.x ?? 0) > goalX) goal--;
  sideways(points, goal, a, touchMs);
  const tan = tanDeg(plan.slopeDeg);
  const sinkTan = a.sinkFpm / FT_PER_MIN_PER_MS / rollMs;
  const flareM = (2 * FLARE_M) / (tan + sinkTan);
  const bend = (tan - sinkTan) / (2 * flareM);
  const approach = (d: number): number =>
    !contact ? lowM + d * tan : d < flareM ? bend * d * d + sinkTan * d : FLARE_M + (d - flareM) * tan;
  const lift = from.rolling ? Math.round(roll / STEP_M) : 0;
  const heightM: number[] = [];
  const speed: number[] = [];
  const ground: boolean[] = [];
  for (let i = 0; i < n; i++) {
    const s = i * STEP_M;
    const d = (goal - i) * STEP_M;
    const after = -d;
    const climbed = i < lift ? 0 : from.heightM + (s - lift * STEP_M) * tanDeg(CLIMB_DEG);
    const onGround = (from.rolling && i < lift) || (contact && after > 0);
    const down =
      d >= 0 ? approach(d) : contact ? 0 : after < levelM ? lowM : lowM + (after - levelM) * tanDeg(CLIMB_DEG);
    heightM.push(onGround ? 0 : Math.min(H, climbed, down));
    ground.push(onGround);
    if (from.rolling && i < lift) speed.push(Math.sqrt(from.v ** 2 + 2 * ACCELERATION * Math.max(0.2, s)));
    else if (contact && after > 0)
      speed.push(
        Math.max(after > stopM ? WALKING_MS : 0, Math.sqrt(Math.max(slow ** 2, rollMs ** 2 - 2 * BRAKING * after))),
      );
    else
      speed.push(
        along(
          d,
          contact
            ? [
                [0, touchMs],
                [Math.max(flareM, 200), ms(speeds.final)],
                [900, ms(speeds.final)],
                [1800, ms(speeds.base)],
                [3000, ms(speeds.downwind)],
              ]
            : [
                [-200, ms(speeds.climb)],
                [0, ms(speeds.final)],
                [900, ms(speeds.final)],
                [1800, ms(speeds.base)],
                [3000, ms(speeds.downwind)],
              ],
          ms(i - lift < 400 ? speeds.liftOff + ((speeds.climb - speeds.liftOff) * (i - lift)) / 400 : speeds.climb),
          i - lift,
          ms(speeds.downwind),
        ),
      );
  }
  const last = points[n - 1] ?? { x: 0, y: 0 };
  return {
    leg: { points, heightM, speed, ground, goal, touch: contact ? goal : -1, lift: from.rolling ? lift : -1 },
    end: { x: last.x, y: last.y, v: speed[n - 1] ?? 0, heightM: heightM[n - 1] ?? 0, rolling: contact },
  };
}
/** Weaving before the touch, drift into it and out of it: the path moved sideways, its track with it. */
function sideways(points: Point[], goal: number, a: Arrival, touchMs: number): void {
  const drift = (a.driftKt ?? 0) * MS_PER_KT;
  const weave = a.weaveM ?? 0;
  if (drift === 0 && weave === 0) return;
  for (let i = Math.max(0, goal - 1000); i < points.length; i++) {
    const p = points[i];
    if (!p) continue;
    const toGoS = ((goal - i) * STEP_M) / touchMs;
    if (toGoS > 0) {
      const fade = Math.min(1, toGoS / 4) * Math.min(1, (i - goal + 1000) / 200);
      p.y += weave * fade * Math.sin((2 * Math.PI * (goal - i)) / 260);
      // The last four seconds slide steadily, from a line that was off by what they slide.
      p.y -= drift * Math.min(toGoS, 4) * (toGoS > 4 ? Math.max(0, 1 - (toGoS - 4) / 12) : 1);
    } else p.y += drift * 0.7 * (1 - Math.exp(toGoS / 0.7));
  }
  for (let i = Math.max(1, goal - 999); i + 1 < points.length; i++) {
    const [b, c] = [points[i - 1], points[i + 1]];
    const p = points[i];
    if (p && b && c && p.radius === 0) p.track = (Math.atan2(c.y - b.y, c.x - b.x) * 180) / Math.PI;
  }
}
/** Speed by distance to go, between the marks; before the first mark the climb, blended into the downwind speed. */
function along(
  d: number,
  marks: readonly (readonly [number, number])[],
  climbMs: number,
  sinceLiftM: number,
  downwindMs: number,
): number {
  const last = marks[marks.length - 1] ?? [0, 0];
  if (d >= last[0])
    return sinceLiftM < 2500
      ? climbMs
      : Math.min(downwindMs, climbMs + ((downwindMs - climbMs) * (sinceLiftM - 2500)) / 500);
  for (let i = 1; i < marks.length; i++) {
    const [d0, v0] = marks[i - 1] ?? [0, 0];
    const [d1, v1] = marks[i] ?? [0, 0];
    if (d <= d1) return d <= d0 ? v0 : v0 + ((v1 - v0) * (d - d0)) / (d1 - d0);
  }
  return last[1];
}

/**
 * Flies a plan: from standing at the threshold, perhaps airwork, then the arrivals one after the other to the last
 * stop. Only the last may be a full stop.
 * @returns rows of the flight in metres, feet, knots and seconds, with what was flown
 */
export function flyCircuits(plan: RecorderPlan): Flown {
  const events: FlownEvent[] = [];
  const done: FlownAirwork[] = [];
  const raw: Raw[] = [];
  const bearing = plan.runway.trueBearingDeg;
  const set = plan.configuration ?? PLAIN;
  let t = 0;
  if (plan.fastTaxi) t = fastTaxi(raw, set);
  // A minute at the holding point, slowly onto the line.
  for (let i = 0; i < 60; i++) {
    raw.push({
      t,
      x: -30 + i * 0.5,
      y: 0,
      h: 0,
      ias: 0,
      gs: 1 / MS_PER_KT,
      track: 0,
      bank: 0,
      ground: true,
      crab: 0,
      nz: 1,
      pitch: 0,
      rpm: set.rpm.idle,
      flap: 0,
      gear: true,
      exact: false,
    });
    t += 0.5;
  }
  let from: From = { x: 0, y: 0, v: 1, heightM: 0, rolling: true };
  if (plan.airwork) {
    const air = {
      wind: { fromDeg: plan.windFromDeg - bearing, kt: plan.windKt },
      speeds: { ...plan.speeds, ...plan.airwork.speeds },
      rpm: set.rpm,
      tailSide: plan.side === 'left' ? -1 : 1,
    } as const;
    const gone = departure(air, plan.airwork.heightFt, t);
    raw.push(...gone.raw);
    events.push({ ...NOTHING, kind: 'takeoff', liftoffS: gone.liftoffS });
    const worked = airwork(air, gone.state, plan.airwork.items);
    raw.push(...worked.raw);
    done.push(...worked.done);
    const home = homing(air, worked.state, {
      heightFt: plan.circuitFt,
      lateralM: air.tailSide * SPACING_M,
      towardsM: -BASE_M,
    });
    raw.push(...home.raw);
    t = home.state.t;
    from = {
      x: home.state.x,
      y: home.state.y,
      v: plan.speeds.downwind * MS_PER_KT,
      heightM: home.state.h,
      rolling: false,
      joins: true,
    };
  }
  plan.arrivals.forEach((a, index) => {
    const { leg, end } = circuit(plan, a, from);
    const began = raw.length;
    let touchedAt = Number.NaN;
    let liftedAt = Number.NaN;
    leg.points.forEach((p, i) => {
      const trackTrue = norm360(p.track + bearing);
      const across = plan.windKt * sinDeg(plan.windFromDeg - trackTrue);
      const head = plan.windKt * cosDeg(plan.windFromDeg - trackTrue);
      const v = leg.speed[i] ?? 1;
      const ground = leg.ground[i] ?? false;
      const vKt = v / MS_PER_KT;
      const gs = ground ? vKt : Math.max(5, Math.sqrt(Math.max(0, vKt ** 2 - across ** 2)) - head);
      const ias = ground ? Math.max(0, vKt + head) : vKt;
      const drift = ground ? 0 : (Math.asin(Math.max(-1, Math.min(1, across / Math.max(20, vKt)))) * 180) / Math.PI;
      if (i === leg.lift) liftedAt = t;
      if (i === leg.touch) touchedAt = t;
      const toGoM = (leg.goal - i) * STEP_M;
      const h = leg.heightM[i] ?? 0;
      const leaving = i < leg.lift + 800 && toGoM > 2500;
      const pitch = ground ? 0 : Math.max(-4, Math.min(8, leaving ? 7 : toGoM < 120 && leg.touch >= 0 ? 6 : -1));
      raw.push({
        t,
        x: p.x,
        y: p.y,
        h,
        ias,
        gs,
        track: p.track,
        bank: ground || p.radius === 0 ? 0 : (Math.atan((gs * MS_PER_KT) ** 2 / (G_MS2 * p.radius)) * 180) / Math.PI,
        ground,
        crab: drift,
        nz: 1,
        pitch,
        exact: false,
        rpm:
          ground && toGoM < 0
            ? set.rpm.idle
            : leaving || (leg.touch < 0 && toGoM < 0)
              ? set.rpm.climb
              : toGoM < 2500
                ? set.rpm.approach
                : set.rpm.cruise,
        flap: toGoM < set.flapAtM ? set.flapDeg : 0,
        gear:
          set.gearAtM === null ||
          ground ||
          toGoM < set.gearAtM ||
          (i < leg.lift + 500 && i >= leg.lift && leg.lift >= 0),
      });
      t += STEP_M / Math.max(0.5, gs * MS_PER_KT);
    });
    // What leaves the ground after a touch or a stop on the runway belongs to that event.
    if (index === 0 && !plan.airwork) events.push({ ...NOTHING, kind: 'takeoff', liftoffS: liftedAt });
    else if (!Number.isNaN(liftedAt)) {
      const before = events[events.length - 1];
      if (before) before.liftoffS = liftedAt;
    }
    if (leg.touch >= 0) {
      shapeTouch(raw, began, touchedAt, a);
      events.push({
        kind: a.end,
        liftoffS: null,
        touchdownS: touchedAt,
        alongM: leg.points[leg.touch]?.x ?? a.alongM,
        lateralM: a.lateralM,
        touchKt: raw[began + leg.touch]?.ias ?? a.touchKt,
        lowestFt: null,
        lowestS: null,
        bounces: a.bounces,
        swingDeg: a.swingDeg,
        crabDeg: a.crabDeg,
        sinkFpm: a.sinkFpm,
      });
    } else {
      let low = began;
      for (let i = began + 1000; i < raw.length; i++)
        if ((raw[i]?.h ?? Infinity) < (raw[low]?.h === 0 || low === began ? Infinity : (raw[low]?.h ?? Infinity)))
          low = i;
      if (a.lowestFt < 2)
        for (const r of raw.slice(began))
          if (Math.abs(r.t - (raw[low]?.t ?? t)) < 0.2) r.nz = Math.max(r.nz, 1 + a.sinkFpm / 400);
      events.push({ ...NOTHING, kind: a.end, lowestFt: a.lowestFt, lowestS: raw[low]?.t ?? t });
    }
    if (a.end === 'stop-and-go')
      for (let i = 0; i < 20; i++) {
        raw.push({ ...(raw[raw.length - 1] as Raw), t, ias: 0, gs: 0 });
        t += 0.5;
      }
    from = { ...end, v: a.end === 'stop-and-go' ? 1 : end.v };
  });
  return { samples: atRate(raw, bearing), events, airwork: done };
}
const NOTHING: FlownEvent = {
  kind: 'takeoff',
  liftoffS: null,
  touchdownS: null,
  alongM: null,
  lateralM: null,
  touchKt: null,
  lowestFt: null,
  lowestS: null,
  bounces: 0,
  swingDeg: 0,
  crabDeg: 0,
  sinkFpm: 0,
};

/** Down the runway at some 25 kt, slowly round, and back: no take-off. */
function fastTaxi(raw: Raw[], set: Configuration): number {
  let t = 0;
  let x = -20;
  let v = 1;
  const at = (track: number, y: number) =>
    raw.push({
      t,
      x,
      y,
      h: 0,
      ias: v / MS_PER_KT,
      gs: v / MS_PER_KT,
      track,
      bank: 0,
      ground: true,
      crab: 0,
      nz: 1,
      pitch: 0,
      rpm: 1500,
      flap: 0,
      gear: true,
      exact: false,
    });
  for (; x < 420; t += 0.5) {
    v = Math.min(13, v + 0.6, Math.max(2, Math.sqrt(Math.max(4, (400 - x) * 2))));
    x += v * 0.5;
    at(0, 0);
  }
  for (let turn = 0; turn <= 180; turn += 10, t += 0.5) {
    v = 2;
    at(turn, 3 * sinDeg(turn));
  }
  for (; x > -30; t += 0.5) {
    v = Math.min(9, v + 0.5, Math.max(1, Math.sqrt(Math.max(1, (x + 30) * 2))));
    x -= v * 0.5;
    at(180, 0);
  }
  for (let turn = 180; turn >= 0; turn -= 10, t += 0.5) {
    v = 1;
    at(turn, 0);
  }
  v = 0;
  at(0, 0);
  raw.push({ ...(raw[raw.length - 1] as Raw), t: t + 1, rpm: set.rpm.idle });
  return t + 1.5;
}

/** Crab into the touch, the load of each contact, the hops between, the swing after. */
function shapeTouch(raw: Raw[], began: number, touchedAt: number, a: Arrival): void {
  const hopS = 1.2;
  for (let i = began; i < raw.length; i++) {
    const r = raw[i];
    if (!r) continue;
    const since = r.t - touchedAt;
    if (since > -4 && since <= 0) r.crab = a.crabDeg;
    else if (since > 0 && since < 1) r.crab = a.crabDeg * (1 - since);
    if (since < 0) continue;
    for (let b = 0; b <= a.bounces; b++) {
      const contact = b * hopS;
      if (since >= contact && since < contact + 0.25) r.nz = Math.max(r.nz, 1 + (a.sinkFpm / 400) * 0.8 ** b);
      // A hop: off the ground again for a moment, its height halved each time.
      if (b < a.bounces && since > contact + 0.1 && since < contact + hopS) {
        r.h = 0.9 * 0.5 ** b * Math.sin((Math.PI * (since - contact)) / hopS);
        r.ground = false;
      }
    }
    const swingS = since - a.bounces * hopS - 2;
    if (swingS > 0 && swingS < 4) r.crab += a.swingDeg * Math.sin((Math.PI * swingS) / 4);
  }
}

/** Twenty samples a second, with what follows from the path: climb, load in the turn. */
function atRate(raw: readonly Raw[], bearing: number): FlownSample[] {
  const out: FlownSample[] = [];
  const exact: boolean[] = [];
  const end = raw[raw.length - 1]?.t ?? 0;
  let j = 0;
  for (let k = 0; k / RATE_HZ <= end; k++) {
    const t = k / RATE_HZ;
    while (j + 1 < raw.length && (raw[j + 1]?.t ?? 0) < t) j++;
    const a = raw[j];
    const b = raw[j + 1] ?? a;
    if (!a || !b) break;
    const w = b.t === a.t ? 0 : (t - a.t) / (b.t - a.t);
    const mix = (x: number, y: number) => x + (y - x) * w;
    const track = norm360(a.track + norm180(b.track - a.track) * w + bearing);
    out.push({
      tS: t,
      alongM: mix(a.x, b.x),
      lateralM: mix(a.y, b.y),
      heightFt: mix(a.h, b.h) / M_PER_FT,
      iasKt: mix(a.ias, b.ias),
      gsKt: mix(a.gs, b.gs),
      trackDeg: track,
      headingDeg: norm360(track + mix(a.crab, b.crab)),
      vsFpm: 0,
      bankDeg: mix(a.bank, b.bank),
      pitchDeg: mix(a.pitch, b.pitch),
      nz: a.exact ? mix(a.nz, b.nz) : Math.max(a.nz, b.nz),
      rpm: mix(a.rpm, b.rpm),
      flapDeg: b.flap,
      gearDown: b.gear,
    });
    exact.push(a.exact);
  }
  const before = out.map((s) => s.bankDeg);
  out.forEach((s, i) => {
    const p = out[i - 2];
    const q = out[i + 2];
    s.vsFpm = p && q ? ((q.heightFt - p.heightFt) / (q.tS - p.tS)) * 60 : 0;
    if (exact[i]) {
      s.bankDeg = norm180(s.bankDeg);
      return;
    }
    // Nobody rolls in no time: the bank is what it is over a second and a half.
    let sum = 0;
    let n = 0;
    for (let k = Math.max(0, i - 15); k <= Math.min(out.length - 1, i + 15); k++) {
      sum += before[k] ?? 0;
      n++;
    }
    s.bankDeg = sum / n;
    if (s.heightFt > 3) s.nz = Math.max(s.nz, 1 / cosDeg(s.bankDeg));
  });
  return out;
}
