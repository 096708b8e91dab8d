/**
 * A landing from the last feet to the roll, in heave and pitch: wheels as springs with damping, a wing whose lift follows
 * the attitude, a tail that damps, and a pilot who asks for an attitude a moment late. Metres, seconds, kilograms; up and
 * nose up positive.
 */
import { FT_PER_MIN_PER_MS, G_MS2, M_PER_FT } from '../constants';
import { needNumbers, needPositive } from '../guard';
import { touchLoad } from './touch';

export interface BounceBody {
  massKg: number;
  pitchInertiaKgM2: number;
  /** Main axle ahead of the centre of gravity; negative behind it. */
  mainsXM: number;
  /** Third wheel ahead of the centre of gravity; negative behind it. */
  thirdXM: number;
  /** Attitude with all three on the ground. */
  groundPitchDeg: number;
  cgHeightM: number;
  strokeM: number;
  efficiency: number;
  restitution: number;
  wingAreaM2: number;
  spanM: number;
  /** Stall speed, power off, in this configuration at this mass. */
  stallSpeedMs: number;
  dragAreaM2: number;
  airDensityKgM3: number;
}
/** What the pilot does with the attitude. */
export const PITCH_HANDS = ['hold', 'pull', 'push', 'ease-early', 'ease-right', 'ease-late'] as const;
export type PitchHands = (typeof PITCH_HANDS)[number];
export interface BounceInput {
  body: BounceBody;
  /** Attitude at the touch, of the longitudinal axis. */
  pitchDeg: number;
  speedMs: number;
  sinkFpm: number;
  hands: PitchHands;
  /** From feeling to moving. */
  delayS: number;
  /** Thrust over weight from this time on. */
  power: { fromS: number; thrustToWeight: number };
  forS: number;
  stepS: number;
}
export interface BounceState {
  tS: number;
  /** Of the lowest wheel above the ground; negative = the gear gives. */
  heightM: number;
  mainsM: number;
  thirdM: number;
  pitchDeg: number;
  speedMs: number;
  sinkFpm: number;
  liftShare: number;
  gearG: number;
}
export interface BounceContact {
  tS: number;
  wheels: 'mains' | 'third' | 'all';
  sinkFpm: number;
  loadG: number;
  /** Highest of the hop after it. */
  hopFt: number;
}
export interface BounceOutcome {
  states: BounceState[];
  contacts: BounceContact[];
  /** Settles: stays down. Grows: a hop is higher than the one before it, or a touch harder than the first. */
  ends: 'settles' | 'grows' | 'flies' | 'hops';
  highestFt: number;
  /** Speed over stall when a hop is highest; null = it never left the ground. */
  slowestAboveStall: number | null;
}

const DEG = Math.PI / 180;
const LONGEST_STEP_S = 0.002;
const KEPT_S = 0.02;
/** Sink at which the whole travel of the gear is used, m/s: the last a gear of this class is built for. */
const FULL_STROKE_MS = 3.05;
/** The third wheel's spring over that of the mains, for the load it carries. */
const THIRD_STIFFNESS = 1.4;
/** Margin of the centre of gravity before the neutral point, and pitch damping of the tail, over the mean chord. */
const STATIC_MARGIN = 0.1;
const TAIL_DAMPING = 14;
/** Attitude loop of the pilot: how fast it is followed and how far the elevator reaches, a second and °/s². */
const FOLLOWS = { frequency: 2.6, damping: 0.7, mostDegS2: 60 };
/** Beyond the stall the lift falls by this much a degree of the slope before it. */
const AFTER_STALL = -0.5;
/** Ease after the touch, pull, and push, in degrees. */
const MOVES = { ease: -3.5, pull: 6, push: -8 };
const TIMES = { earlyS: -0.45, lateS: 0.7 };
const HOP_M = 0.03;
/** A hop, or a touch, this much more than one before it is a porpoise. */
const GROWS_BY = 1.15;

/**
 * Damping of a spring, of the critical, that gives back a share of the speed it is met with; the touch ends when the gear
 * no longer pushes. Zero of the force of a damped oscillation, by bisection.
 */
function dampingFor(restitution: number): number {
  const gives = (zeta: number): number => {
    const w = Math.sqrt(1 - zeta * zeta);
    const angle = Math.atan2(2 * zeta * w, 2 * zeta * zeta - 1);
    const t = angle / w;
    return -Math.exp(-zeta * t) * (Math.cos(w * t) - (zeta / w) * Math.sin(w * t));
  };
  const wanted = Math.min(0.99, Math.max(0.16, restitution));
  let [low, high] = [0.001, 0.98];
  for (let k = 0; k < 40; k++) {
    const mid = (low + high) / 2;
    if (gives(mid) > wanted) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}

/**
 * Steps a landing until it stays down, flies or grows.
 * The wing is just short of its stall in the three-point attitude of a tailwheel type, and at 14° on others; its lift slope
 * is that of its aspect ratio. The gear is a spring with the damping that gives the sheet's rebound.
 * Source: rigid body in heave and pitch, semi-implicit Euler at 2 ms.
 * @param i see {@link BounceInput}; the touch begins 0.6 s ahead at a constant sink
 * @throws BadNumber when a number handed in is none, or mass, inertia, area, density, stroke or speeds are not above 0
 * @example
 * bounce({ ...threePoint, sinkFpm: 60 }).ends // 'settles'
 */
export function bounce(i: BounceInput): BounceOutcome {
  needNumbers('bounce', i);
  const b = i.body;
  needPositive('bounce', {
    massKg: b.massKg,
    pitchInertiaKgM2: b.pitchInertiaKgM2,
    wingAreaM2: b.wingAreaM2,
    spanM: b.spanM,
    airDensityKgM3: b.airDensityKgM3,
    strokeM: b.strokeM,
    efficiency: b.efficiency,
    stallSpeedMs: b.stallSpeedMs,
    thirdFromCgM: Math.abs(b.thirdXM),
    wheelbaseM: Math.abs(b.mainsXM - b.thirdXM),
    speedMs: i.speedMs,
    stepS: i.stepS,
  });
  const h = Math.min(LONGEST_STEP_S, i.stepS);
  const tail = b.mainsXM > 0;
  const base = Math.abs(b.mainsXM - b.thirdXM);
  const aspect = (b.spanM * b.spanM) / b.wingAreaM2;
  const chord = b.wingAreaM2 / b.spanM;
  const slope = (2 * Math.PI * aspect) / (aspect + 2);
  const clMax = (2 * b.massKg * G_MS2) / (b.airDensityKgM3 * b.wingAreaM2 * b.stallSpeedMs ** 2);
  const stallAt = (tail ? b.groundPitchDeg : 14) * DEG;
  const cl = (alpha: number): number => {
    const short = stallAt - alpha;
    return short >= 0 ? clMax - slope * short : clMax + AFTER_STALL * slope * -short;
  };
  // Spring of the mains by the sink that uses the whole travel, damping by the rebound.
  const onMains = b.massKg * (Math.abs(b.thirdXM) / base);
  const stiff = onMains * (FULL_STROKE_MS / (2 * b.efficiency * b.strokeM)) ** 2;
  const zeta = dampingFor(b.restitution);
  const damp = 2 * zeta * Math.sqrt(stiff * onMains);
  const ground = b.groundPitchDeg * DEG;
  const third = THIRD_STIFFNESS * (Math.abs(b.mainsXM) / Math.abs(b.thirdXM));
  interface Leg {
    x: number;
    drop: number;
    k: number;
    c: number;
  }
  const legs: [Leg, Leg] = [
    { x: b.mainsXM, drop: -b.cgHeightM, k: stiff, c: damp },
    {
      x: b.thirdXM,
      // Both wheels touch in the attitude of three wheels down.
      drop: -b.cgHeightM + (b.mainsXM - b.thirdXM) * Math.tan(ground),
      k: stiff * third,
      c: damp * third,
    },
  ];
  const heightOf = (leg: Leg, z: number, th: number) => z + leg.x * Math.sin(th) + leg.drop * Math.cos(th);
  const sink = i.sinkFpm / FT_PER_MIN_PER_MS;
  const th0 = i.pitchDeg * DEG;
  const lowest = Math.min(...legs.map((l) => heightOf(l, 0, th0)));
  const LEAD_S = 0.6;
  let s = { z: -lowest + sink * LEAD_S, w: -sink, th: th0, q: 0, u: i.speedMs };
  // In trim at the attitude and speed it comes with.
  const alphaTrim = th0 + sink / i.speedMs;
  const states: BounceState[] = [];
  const contacts: BounceContact[] = [];
  let firstTouch: number | null = null;
  let airborneSince: number | null = 0;
  let hop = 0;
  let open: BounceContact | null = null;
  const asked = (t: number): number => {
    const since = firstTouch === null ? null : t - firstTouch;
    const after = (at: number, by: number) => (since !== null && since >= at + i.delayS ? by : 0);
    switch (i.hands) {
      case 'hold':
        return i.pitchDeg;
      case 'pull':
        return i.pitchDeg + after(0, MOVES.pull);
      case 'push':
        // The push comes when it is felt to rise.
        return i.pitchDeg + after(0.15, MOVES.push);
      case 'ease-right':
        return i.pitchDeg + after(0, MOVES.ease);
      case 'ease-late':
        return i.pitchDeg + after(TIMES.lateS, MOVES.ease);
      case 'ease-early':
        return i.pitchDeg + (t >= LEAD_S + TIMES.earlyS ? MOVES.ease : 0);
    }
  };
  const every = Math.max(1, Math.round(KEPT_S / h));
  const steps = Math.ceil(i.forS / h);
  for (let k = 0; k <= steps; k++) {
    const t = k * h;
    const q2 = 0.5 * b.airDensityKgM3 * s.u * s.u * b.wingAreaM2;
    const alpha = s.th - Math.atan2(s.w, s.u);
    // Before the touch the flare holds the sink it was asked for.
    const lift = firstTouch === null && i.hands !== 'ease-early' ? b.massKg * G_MS2 : q2 * cl(alpha);
    const heights: [number, number] = [heightOf(legs[0], s.z, s.th), heightOf(legs[1], s.z, s.th)];
    let gear = 0;
    let moment = 0;
    const touching: ('mains' | 'third')[] = [];
    legs.forEach((leg, n) => {
      const height = heights[n] ?? 0;
      if (height >= 0) return;
      const rate = s.w + s.q * (leg.x * Math.cos(s.th) - leg.drop * Math.sin(s.th));
      const force = Math.max(0, -leg.k * height - leg.c * rate);
      gear += force;
      moment += force * leg.x;
      touching.push(n === 0 ? 'mains' : 'third');
    });
    const down = touching.length > 0;
    if (down) {
      firstTouch ??= t;
      if (airborneSince !== null) {
        if (open) open.hopFt = hop / M_PER_FT;
        const sinkNow = -s.w * FT_PER_MIN_PER_MS;
        open = {
          tS: t,
          wheels: touching.length === 2 ? 'all' : (touching[0] ?? 'mains'),
          sinkFpm: Math.max(0, sinkNow),
          loadG: touchLoad(Math.max(0, sinkNow), b.strokeM, b.efficiency) ?? 1,
          hopFt: 0,
        };
        contacts.push(open);
        airborneSince = null;
        hop = 0;
      }
    } else {
      const clear = Math.min(...heights);
      hop = Math.max(hop, clear);
      if (clear > HOP_M && firstTouch !== null) airborneSince ??= t;
    }
    const stable = -q2 * chord * slope * STATIC_MARGIN * (alpha - alphaTrim);
    const damping = (-q2 * chord * chord * TAIL_DAMPING * s.q) / (2 * s.u);
    const most = FOLLOWS.mostDegS2 * DEG * Math.min(1.5, (s.u / b.stallSpeedMs) ** 2);
    const wish = FOLLOWS.frequency ** 2 * (asked(t) * DEG - s.th) - 2 * FOLLOWS.damping * FOLLOWS.frequency * s.q;
    const hands = Math.max(-most, Math.min(most, wish));
    const settled = firstTouch === null && i.hands !== 'ease-early';
    const accel = settled ? 0 : (lift * Math.cos(alpha) + gear) / b.massKg - G_MS2;
    const pitching = settled ? 0 : (stable + damping + moment) / b.pitchInertiaKgM2 + hands;
    const thrust = t - LEAD_S >= i.power.fromS ? i.power.thrustToWeight * G_MS2 : 0;
    if (k % every === 0)
      states.push({
        tS: t,
        heightM: Math.min(...heights),
        mainsM: heights[0],
        thirdM: heights[1],
        pitchDeg: s.th / DEG,
        speedMs: s.u,
        sinkFpm: -s.w * FT_PER_MIN_PER_MS,
        liftShare: lift / (b.massKg * G_MS2),
        gearG: gear / (b.massKg * G_MS2),
      });
    s = {
      ...s,
      w: s.w + accel * h,
      q: s.q + pitching * h,
      u: Math.max(
        1,
        s.u + (thrust - (q2 / b.wingAreaM2) * (b.dragAreaM2 / b.massKg) - (down ? 0.04 * (gear / b.massKg) : 0)) * h,
      ),
    };
    s = { ...s, z: s.z + s.w * h, th: s.th + s.q * h };
  }
  if (open && airborneSince !== null) open.hopFt = hop / M_PER_FT;
  const hops = contacts.map((c) => c.hopFt).filter((x) => x > HOP_M / M_PER_FT);
  const highestFt = Math.max(0, ...hops);
  const flying = airborneSince !== null && i.forS - airborneSince > 1.5;
  const grows =
    hops.slice(1).some((x, n) => x > GROWS_BY * (hops[n] ?? 0)) ||
    contacts.slice(1).some((c) => c.sinkFpm > GROWS_BY * (contacts[0]?.sinkFpm ?? 0));
  const aloft = firstTouch === null ? [] : states.filter((x) => x.tS > (firstTouch ?? 0) && x.heightM > HOP_M);
  return {
    states,
    contacts,
    ends: grows ? 'grows' : flying ? 'flies' : airborneSince !== null ? 'hops' : 'settles',
    highestFt,
    slowestAboveStall: aloft.length === 0 ? null : Math.min(...aloft.map((x) => x.speedMs)) / b.stallSpeedMs,
  };
}
