/**
 * A roll on the runway stepped through time, after a touch or before lift-off: tyres that slide, fin, body and rudder in
 * the wind and the wash, brakes, and a pilot whose feet are late. Planar, fourth-order Runge-Kutta. Metres, seconds,
 * kilograms; + right, + nose right.
 */
import { G_MS2 } from '../constants';
import { needNumbers, needPositive } from '../guard';
import { type Propeller, discMoment, discWash, gyroMoment } from './propeller';
import { type GroundBody, linearModel } from './stability';

export interface RunBody extends GroundBody {
  yawInertiaKgM2: number;
  trackM: number;
  cgHeightM: number;
  /** What a degree of rudder does of a degree of sideslip. */
  rudderEffectiveness: number;
  rudderMaxDeg: number;
  bodySideAreaM2: number;
  bodySideSlopePerRad: number;
  bodyCentreXM: number;
  /** Steering of the third wheel at full pedal; 0 = it casters. */
  steerDeg: number;
  stallSpeedMs: number;
  /** Drag coefficient times wing area. */
  dragAreaM2: number;
}
export const FEET = ['none', 'continuous', 'strokes'] as const;
export interface RunPilot {
  feet: (typeof FEET)[number];
  /** Feet do nothing before this. */
  firstFootS: number;
  /** From seeing to pressing. */
  delayS: number;
  /** Differential brake with a pedal past half. */
  brakesForDirection: boolean;
}
/** Power for a take-off, and how the tail comes up. */
export interface RunPower {
  propeller: Propeller;
  /** Evenly from nothing to full; 0 = at once. */
  overS: number;
  /** Share of fin and rudder that stands in the wash, 0 to 1. */
  finInWash: number;
  /** Over the path with three wheels down. */
  attitudeDeg: number;
  /** Airspeed from which the tail is raised, and the seconds it takes; null = it stays. */
  raise: { atMs: number; overS: number } | null;
  /** As `liftShare`, with the tail up. */
  liftShareUp: number;
  /** The foot goes in with the power and the wind, before the nose moves. */
  footLeads: boolean;
  /** The roll ends at this airspeed: it flies. */
  untilMs: number;
}
export interface RunInput {
  body: RunBody;
  groundSpeedMs: number;
  /** + from the right. */
  crosswindMs: number;
  headwindMs: number;
  /** Heading at the start, the track still along the runway. */
  swerveDeg: number;
  /** Friction under the left and the right wheel; the third has their mean. */
  grip: { left: number; right: number };
  rollingFriction: number;
  /** The third wheel is on the ground. */
  thirdDown: boolean;
  /** Share of the weight the wing carries at the stall speed in this attitude. */
  liftShare: number;
  /** Even brake, share of what the tyres hold. */
  brake: number;
  /** Added to the crosswind between two times. */
  gust: { fromS: number; toS: number; ms: number };
  pilot: RunPilot;
  forS: number;
  /** Of the integration, at most 0.005. */
  stepS: number;
  /** Half the width of the runway. */
  halfWidthM: number;
  /** Absent = the engine idles. */
  power?: RunPower;
}
export interface RunState {
  tS: number;
  /** Along and to the right of the centreline. */
  xM: number;
  yM: number;
  headingDeg: number;
  yawRateDegS: number;
  speedMs: number;
  /** -1 full left to 1 full right. */
  pedal: number;
  /** To the right, of the centre of gravity. */
  lateralG: number;
  /** Share of the load of the mains on the outer wheel: 1 = the other has lifted. */
  outerLoad: number;
  /** Of full power, and how far the tail has come up, 0 to 1. */
  power: number;
  tailUp: number;
}
export interface RunOutcome {
  states: RunState[];
  /** Left the runway with a main wheel. */
  offAtS: number | null;
  /** Past the angle from which it is called a ground loop, or an inner wheel lifted, or the mains slid sideways. */
  loop: { atS: number; why: 'turned' | 'wheel-lifted' | 'slid' } | null;
  outside: 'left' | 'right' | null;
  farthestM: number;
  greatestHeadingDeg: number;
  greatestLateralG: number;
  /** Number of times the heading crossed the runway's with growing swings, two or more = weaving. */
  growingSwings: number;
}

const RAD = Math.PI / 180;
/** What fuselage and wing leave of the turn in the wash. */
const SWIRL_LEFT = 0.5;
const LONGEST_STEP_S = 0.005;
/** A rolling aeroplane keeps this much of its weight on the wheels. */
const MOST_LIFT = 0.9;
/** How often feet decide, seconds. */
const DECIDES_S = 0.02;
/** A short firm stroke: pressed for so long, then neutral for so long. */
const STROKE_S = 0.12;
const NEUTRAL_S = 0.06;
/** How fast a pilot brings the nose back, a second, and how damped: the same in every type, whose rudder he knows. */
const BRINGS_BACK = { frequency: 1.7, damping: 0.9 };
/** What is left of answering the turning by feet that follow the nose. */
const FOLLOWS = 0.6;
/** Aims at the line from where he is, at a few degrees at most; below a share of full pedal a stroke is not made. */
const AIMS = { degPerM: 0.4, mostDeg: 1.5, least: 0.05 };
/** The foot that is simply held, against a steady wind: gathers by so much of full pedal a degree and second. */
const HOLDS = { perDegS: 0.04, most: 0.9 };
/** Full travel of a pedal, seconds. */
const PEDAL_S = 0.15;
const LOOP_DEG = 45;
/** Side force of a tyre past this share of its grip counts as sliding. */
const SLIDES_AT = 0.97;
/** And sideways at least so fast: a wheel that carries next to nothing gives way at once, and nothing comes of it. */
const SLIDES_MS = 1.5;
const SWING_DEG = 0.5;

interface Motion {
  x: number;
  y: number;
  heading: number;
  u: number;
  v: number;
  r: number;
}
interface Forces {
  du: number;
  dv: number;
  dr: number;
  lateral: number;
  slides: boolean;
  outer: number;
}

/** What the engine and the attitude are at one moment; it changes as often as the feet decide. */
interface Moment {
  thirdDown: boolean;
  liftShare: number;
  thrustN: number;
  /** Of propeller and pitching, + nose right. */
  yawNm: number;
  wash: { share: number; ms: number; swirlRad: number } | null;
  power: number;
  tailUp: number;
}
const idling = (i: RunInput): Moment => ({
  thirdDown: i.thirdDown,
  liftShare: i.liftShare,
  thrustN: 0,
  yawNm: 0,
  wash: null,
  power: 0,
  tailUp: 0,
});
/** @param share of full power @param up how far the tail has come up @param rising rate of the nose going down, °/s */
function momentOf(i: RunInput, p: RunPower, airMs: number, share: number, up: number, rising: number): Moment {
  const { propeller: disc } = p;
  const air = Math.max(0, airMs);
  const w = discWash({ ...disc, powerW: disc.powerW * share }, air, i.body.airDensityKgM3);
  return {
    thirdDown: i.thirdDown && up === 0,
    liftShare: i.liftShare + (p.liftShareUp - i.liftShare) * up,
    thrustN: w.thrustN,
    // The torque presses one main wheel down: its rolling resistance with it.
    yawNm:
      discMoment(w.thrustN, air, p.attitudeDeg * (1 - up), disc) +
      gyroMoment(rising, disc) -
      disc.turns * disc.count * w.torqueNm * i.rollingFriction,
    wash: { share: p.finInWash, ms: w.washMs, swirlRad: disc.turns * w.swirlDeg * RAD * SWIRL_LEFT },
    power: share,
    tailUp: up,
  };
}
function momentNow(i: RunInput, p: RunPower, t: number, airMs: number, raisedAtS: number | null): Moment {
  const share = p.overS <= 0 ? 1 : Math.min(1, t / p.overS);
  const takes = Math.max(0.1, p.raise?.overS ?? 0);
  const up = raisedAtS === null ? 0 : Math.min(1, Math.max(0, (t - raisedAtS) / takes));
  return momentOf(i, p, airMs, share, up, up > 0 && up < 1 ? p.attitudeDeg / takes : 0);
}

/** The whole of the model: what moves the aeroplane in one state. */
function forcesOn(i: RunInput, s: Motion, t: number, pedal: number, at: Moment): Forces {
  const b = i.body;
  const wind = i.crosswindMs + (t >= i.gust.fromS && t < i.gust.toS ? i.gust.ms : 0);
  const [c, n] = [Math.cos(s.heading), Math.sin(s.heading)];
  // Wind blows towards -x by the headwind and towards -y by a crosswind from the right.
  const ua = s.u + i.headwindMs * c + wind * n;
  const va = s.v + wind * c - i.headwindMs * n;
  const q = 0.5 * b.airDensityKgM3 * (ua * ua + va * va);
  const lift = Math.min(MOST_LIFT, at.liftShare * ((ua * ua) / b.stallSpeedMs ** 2));
  const weight = b.massKg * G_MS2 * (1 - lift);
  const base = Math.abs(b.mainsXM - b.thirdWheelXM);
  const onThird = at.thirdDown ? (weight * Math.abs(b.mainsXM)) / base : 0;
  const onMains = weight - onThird;
  const push = i.pilot.brakesForDirection ? Math.max(0, (Math.abs(pedal) - 0.5) * 2) : 0;
  let sideMains = 0;
  let along = at.thrustN;
  let yawing = at.yawNm;
  let held = 0;
  let wanted = 0;
  for (const side of [-1, 1] as const) {
    const grip = (side < 0 ? i.grip.left : i.grip.right) * (onMains / 2);
    const brakes = Math.min(1, i.brake + (Math.sign(pedal) === side ? push : 0));
    const braking = brakes * grip * 0.8 + i.rollingFriction * (onMains / 2);
    const out = (side * b.trackM) / 2;
    const uw = s.u - s.r * out;
    const slip = Math.atan2(s.v + s.r * b.mainsXM, Math.max(0.1, uw));
    const most = Math.sqrt(Math.max(0, grip * grip - Math.min(grip, braking) ** 2));
    const asked = (b.corneringMainsNPerRad / 2) * slip;
    const side_ = most > 0 ? -most * Math.tanh(asked / most) : 0;
    sideMains += side_;
    held += most;
    wanted += Math.abs(side_);
    along -= braking;
    yawing += braking * out;
  }
  yawing += sideMains * b.mainsXM;
  let sideThird = 0;
  if (at.thirdDown) {
    const steer = Math.sign(b.thirdWheelXM) * pedal * b.steerDeg * RAD;
    const grip = ((i.grip.left + i.grip.right) / 2) * onThird;
    const slip = Math.atan2(s.v + s.r * b.thirdWheelXM, Math.max(0.1, s.u)) - steer;
    sideThird = grip > 0 && b.steerDeg > 0 ? -grip * Math.tanh((b.corneringThirdNPerRad * slip) / grip) : 0;
    along -= i.rollingFriction * onThird;
    yawing += sideThird * b.thirdWheelXM;
  }
  const beta = Math.atan2(va - s.r * b.finArmM, Math.max(0.1, ua));
  const rudder = pedal * b.rudderEffectiveness * b.rudderMaxDeg * RAD;
  const inWash = at.wash
    ? at.wash.share *
      0.5 *
      b.airDensityKgM3 *
      at.wash.ms ** 2 *
      (Math.atan2(va - s.r * b.finArmM, Math.max(0.1, at.wash.ms)) + rudder - at.wash.swirlRad)
    : 0;
  const outside = (at.wash ? 1 - at.wash.share : 1) * q * (beta + rudder);
  const fin = -(outside + inWash) * b.finAreaM2 * b.finLiftSlopePerRad;
  const body = -q * b.bodySideAreaM2 * b.bodySideSlopePerRad * Math.atan2(va, Math.max(0.1, ua));
  yawing += -fin * b.finArmM + body * b.bodyCentreXM;
  const side = sideMains + sideThird + fin + body;
  const lateral = side / b.massKg;
  const tyres = sideMains + sideThird;
  return {
    du: (along - q * b.dragAreaM2) / b.massKg + s.v * s.r,
    dv: lateral - s.u * s.r,
    dr: yawing / b.yawInertiaKgM2,
    lateral,
    slides: held > 0 && wanted > SLIDES_AT * held && Math.abs(s.v + s.r * b.mainsXM) > SLIDES_MS,
    outer: onMains > 0 ? Math.min(1, 0.5 + (Math.abs(tyres) * b.cgHeightM) / (onMains * b.trackM)) : 1,
  };
}

/** Yaw that a little pedal gives here, over its share of full, rad/s²: rudder, and the third wheel while it grips. */
function authority(i: RunInput, s: Motion, at: Moment): number {
  const b = i.body;
  const air = (s.u + i.headwindMs) ** 2;
  const q = 0.5 * b.airDensityKgM3 * (at.wash ? (1 - at.wash.share) * air + at.wash.share * at.wash.ms ** 2 : air);
  const rudder = q * b.finAreaM2 * b.finLiftSlopePerRad * b.rudderEffectiveness * b.rudderMaxDeg * RAD * b.finArmM;
  const third = at.thirdDown ? b.corneringThirdNPerRad * b.steerDeg * RAD * Math.abs(b.thirdWheelXM) : 0;
  return (rudder + third) / b.yawInertiaKgM2;
}

/** The foot that a steady wind asks for, and is held from the start: where neither force nor moment is left over. */
function heldFoot(i: RunInput): number {
  const at = (pedal: number, v: number): Forces =>
    forcesOn(i, { x: 0, y: 0, heading: 0, u: i.groundSpeedMs, v, r: 0 }, -1, pedal, idling(i));
  // Both fall steadily: the side force with the speed to the right, the moment with the foot to the left.
  const root = (low: number, high: number, rises: boolean, f: (x: number) => number): number => {
    let [a, b] = [low, high];
    for (let k = 0; k < 40; k++) {
      const mid = (a + b) / 2;
      if (f(mid) > 0 === rises) b = mid;
      else a = mid;
    }
    return (a + b) / 2;
  };
  const most = i.groundSpeedMs / 2;
  return root(
    -1,
    1,
    true,
    (pedal) =>
      at(
        pedal,
        root(-most, most, false, (v) => at(pedal, v).dv),
      ).dr,
  );
}

/** The foot that leaves neither side force nor moment over at this moment; both are as good as straight in foot and drift. */
function footAhead(i: RunInput, s: Motion, t: number, at: Moment): number {
  const f = (pedal: number, v: number): Forces => forcesOn(i, { ...s, heading: 0, v, r: 0 }, t, pedal, at);
  const [pedal, drift] = [0.1, 0.01 * Math.max(1, s.u)];
  const none = f(0, 0);
  // To both sides alike: tyres give in.
  const slope = (x: Forces, y: Forces, by: number) => [(x.dv - y.dv) / (2 * by), (x.dr - y.dr) / (2 * by)] as const;
  const [a, c] = slope(f(pedal, 0), f(-pedal, 0), pedal);
  const [b, d] = slope(f(0, drift), f(0, -drift), drift);
  const whole = a * d - b * c;
  return Math.abs(whole) < 1e-9 ? 0 : (b * none.dr - d * none.dv) / whole;
}
/**
 * Foot that power and wind ask for at one speed of a take-off, nose along the runway.
 * Source: balance of side force and moment on the model of {@link groundRun}.
 * @param i with power
 * @param speedMs over the ground, above 0
 * @param share of full power, 0 to 1
 * @param tailUp 0 on three wheels to 1
 * @param risingDegS rate at which the nose is brought down, 0 = it is still
 * @returns share of full pedal, + right; beyond 1 the foot runs out. 0 without power in the input.
 * @throws BadNumber when a number handed in is none, or the speed is not above 0
 */
export function footNeeded(i: RunInput, speedMs: number, share: number, tailUp: number, risingDegS = 0): number {
  needNumbers('footNeeded', { ...i, speedMs, share, tailUp, risingDegS });
  needPositive('footNeeded', { speedMs, massKg: i.body.massKg, yawInertiaKgM2: i.body.yawInertiaKgM2 });
  if (!i.power) return 0;
  const s: Motion = { x: 0, y: 0, heading: 0, u: speedMs, v: 0, r: 0 };
  const foot = footAhead(i, s, -1, momentOf(i, i.power, speedMs + i.headwindMs, share, tailUp, risingDegS));
  needNumbers('footNeeded', { foot });
  return foot;
}

interface Seen {
  heading: number;
  rate: number;
  off: number;
  authority: number;
}
/** Feet: what was seen a delay ago is acted on now. */
function feetOf(pilot: RunPilot, trim: number): (t: number, seen: Seen, ahead: number, growsPerS: number) => number {
  const limit = (x: number, most: number) => Math.max(-most, Math.min(most, x));
  const { frequency: w, damping } = BRINGS_BACK;
  let stroke = { until: 0, pedal: 0 };
  let hold = trim;
  return (t, { heading, rate, off, authority: full }, ahead, growsPerS) => {
    if (pilot.feet === 'none' || t < pilot.firstFootS) return limit(trim + ahead, 1);
    const aim = limit(-off * AIMS.degPerM, AIMS.mostDeg);
    hold = limit(hold - HOLDS.perDegS * heading * DECIDES_S, HOLDS.most);
    // Short strokes answer the turning; pressure that follows answers more where the nose is. Both act against what
    // grows by itself: the feet of a type that swerves are quicker.
    const leads = pilot.feet === 'strokes' ? 1 : FOLLOWS;
    const want =
      (-(w * w * (heading - aim) + leads * (2 * damping * w + growsPerS) * rate) * RAD) / Math.max(0.05, full);
    const base = hold + ahead;
    if (pilot.feet === 'continuous') return limit(base + want, 1);
    if (t < stroke.until) return limit(base + (t < stroke.until - NEUTRAL_S ? stroke.pedal : 0), 1);
    // A stroke lasts part of the time: it is pressed the harder for it.
    const firm = (want * (STROKE_S + NEUTRAL_S)) / STROKE_S;
    const pedal = Math.abs(firm) < AIMS.least ? 0 : limit(firm, 1);
    stroke = { until: t + STROKE_S + NEUTRAL_S, pedal };
    return limit(base + pedal, 1);
  };
}

/**
 * A roll after a small disturbance, or a take-off, in any wind, on any grip, with the feet of a pilot.
 * The tyres follow their cornering stiffness up to the grip of the surface; fin, rudder and body are linear; lift takes
 * load off the wheels with the square of the speed. With the engine idling there is no wash; gear does not give, and no
 * wheel bounces.
 * Source: planar rigid body on tyres, fourth-order Runge-Kutta.
 * @param i see {@link RunInput}
 * @returns a state every 20 ms, and what became of it
 * @throws BadNumber when a number handed in is none, or mass, inertia, density or speeds are not above 0
 * @example
 * groundRun({ ...straight, swerveDeg: 0, crosswindMs: 0 }).farthestM // 0
 */
export function groundRun(i: RunInput): RunOutcome {
  needNumbers('groundRun', i);
  needPositive('groundRun', {
    massKg: i.body.massKg,
    yawInertiaKgM2: i.body.yawInertiaKgM2,
    airDensityKgM3: i.body.airDensityKgM3,
    stallSpeedMs: i.body.stallSpeedMs,
    groundSpeedMs: i.groundSpeedMs,
    trackM: i.body.trackM,
    wheelbaseM: Math.abs(i.body.mainsXM - i.body.thirdWheelXM),
    stepS: i.stepS,
  });
  const h = Math.min(LONGEST_STEP_S, i.stepS);
  const perDecision = Math.max(1, Math.round(DECIDES_S / h));
  const psi = i.swerveDeg * RAD;
  let s: Motion = {
    x: 0,
    y: 0,
    heading: psi,
    u: i.groundSpeedMs * Math.cos(psi),
    v: -i.groundSpeedMs * Math.sin(psi),
    r: 0,
  };
  const { power } = i;
  const trim = i.pilot.feet === 'none' || power ? 0 : heldFoot(i);
  const growsAt = (ms: number, thirdDown: boolean): number =>
    Math.max(
      0,
      linearModel(
        thirdDown && i.body.steerDeg > 0 ? i.body : { ...i.body, corneringThirdNPerRad: 0 },
        ms,
        i.body.yawInertiaKgM2,
      ).lambdaMaxPerS ?? 0,
    );
  // In a landing as at its start; a take-off passes through every speed.
  let grows = growsAt(i.groundSpeedMs, i.thirdDown);
  const feet = feetOf(i.pilot, trim);
  const lag = Math.round(i.pilot.delayS / DECIDES_S);
  const seen: Seen[] = [];
  const states: RunState[] = [];
  let pedal = trim;
  let offAtS: number | null = null;
  let loop: RunOutcome['loop'] = null;
  let slidFor = 0;
  let at = idling(i);
  let raisedAtS: number | null = null;
  const rates = (m: Motion, t: number): Motion => {
    const f = forcesOn(i, m, t, pedal, at);
    const [c, n] = [Math.cos(m.heading), Math.sin(m.heading)];
    return { x: m.u * c - m.v * n, y: m.u * n + m.v * c, heading: m.r, u: f.du, v: f.dv, r: f.dr };
  };
  const ahead = (m: Motion, d: Motion, by: number): Motion => ({
    x: m.x + d.x * by,
    y: m.y + d.y * by,
    heading: m.heading + d.heading * by,
    u: m.u + d.u * by,
    v: m.v + d.v * by,
    r: m.r + d.r * by,
  });
  const steps = Math.ceil(i.forS / h);
  for (let k = 0; k <= steps; k++) {
    const t = k * h;
    if (k % perDecision === 0) {
      const airMs = s.u + i.headwindMs;
      if (power) {
        if (raisedAtS === null && power.raise && airMs >= power.raise.atMs) raisedAtS = t;
        at = momentNow(i, power, t, airMs, raisedAtS);
        grows = growsAt(Math.max(1, s.u), at.thirdDown);
      }
      seen.push({ heading: s.heading / RAD, rate: s.r / RAD, off: s.y, authority: authority(i, s, at) });
      const leads = power?.footLeads && i.pilot.feet !== 'none' ? Math.max(-1, Math.min(1, footAhead(i, s, t, at))) : 0;
      const late = seen[Math.max(0, seen.length - 1 - lag)] ?? { heading: 0, rate: 0, off: 0, authority: 1 };
      const want = t + 1e-9 < i.pilot.delayS ? trim + leads : feet(t, late, leads, grows);
      const most = DECIDES_S / PEDAL_S;
      pedal += Math.max(-most, Math.min(most, want - pedal));
      const f = forcesOn(i, s, t, pedal, at);
      states.push({
        tS: t,
        xM: s.x,
        yM: s.y,
        headingDeg: s.heading / RAD,
        yawRateDegS: s.r / RAD,
        speedMs: Math.hypot(s.u, s.v),
        pedal,
        lateralG: f.lateral / G_MS2,
        outerLoad: f.outer,
        power: at.power,
        tailUp: at.tailUp,
      });
      if (offAtS === null && Math.abs(s.y) + i.body.trackM / 2 > i.halfWidthM) offAtS = t;
      slidFor = f.slides ? slidFor + DECIDES_S : 0;
      if (loop === null) {
        if (f.outer >= 1) loop = { atS: t, why: 'wheel-lifted' };
        else if (Math.abs(s.heading) > LOOP_DEG * RAD) loop = { atS: t, why: 'turned' };
        else if (slidFor >= 0.1) loop = { atS: t, why: 'slid' };
      }
      if (power ? airMs >= power.untilMs : s.u < 1.5) break;
      if (Math.abs(s.heading) > Math.PI / 2) break;
    }
    const k1 = rates(s, t);
    const k2 = rates(ahead(s, k1, h / 2), t + h / 2);
    const k3 = rates(ahead(s, k2, h / 2), t + h / 2);
    const k4 = rates(ahead(s, k3, h), t + h);
    s = ahead(
      s,
      {
        x: (k1.x + 2 * k2.x + 2 * k3.x + k4.x) / 6,
        y: (k1.y + 2 * k2.y + 2 * k3.y + k4.y) / 6,
        heading: (k1.heading + 2 * k2.heading + 2 * k3.heading + k4.heading) / 6,
        u: (k1.u + 2 * k2.u + 2 * k3.u + k4.u) / 6,
        v: (k1.v + 2 * k2.v + 2 * k3.v + k4.v) / 6,
        r: (k1.r + 2 * k2.r + 2 * k3.r + k4.r) / 6,
      },
      h,
    );
  }
  const most = (pick: (x: RunState) => number) => states.reduce((a, x) => Math.max(a, Math.abs(pick(x))), 0);
  const last = states[states.length - 1];
  return {
    states,
    offAtS,
    loop,
    outside: loop === null || !last ? null : last.headingDeg > 0 ? 'left' : 'right',
    farthestM: most((x) => x.yM),
    greatestHeadingDeg: most((x) => x.headingDeg),
    greatestLateralG: most((x) => x.lateralG),
    growingSwings: growing(states.map((x) => x.headingDeg)),
  };
}

/** Swings from one side to the other, each greater than the one before it. */
function growing(headings: readonly number[]): number {
  const peaks: number[] = [];
  let top = 0;
  for (const x of headings) {
    if (x * top < 0 && Math.abs(x) > SWING_DEG) {
      peaks.push(Math.abs(top));
      top = x;
    } else if (Math.abs(x) > Math.abs(top)) top = x;
  }
  peaks.push(Math.abs(top));
  return peaks.slice(1).filter((p, k) => p > 1.1 * (peaks[k] ?? 0)).length;
}
