/**
 * The second recorder's aeroplane: a point mass with lift, drag, thrust, gusts and wheels, stepped through time. Nothing
 * of it is shared with the recorder of the product, which draws a path; here a pilot flies, and what happens happens.
 * Metres, seconds, radians; east, north, up.
 */
export type Vec = [number, number, number];
export const G = 9.80665;
export const KT = 0.514444;
export const FT = 0.3048;
export const RAD = Math.PI / 180;
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const add = (a: Vec, b: Vec, k = 1): Vec => [a[0] + k * b[0], a[1] + k * b[1], a[2] + k * b[2]];
const unit = (a: Vec): Vec => {
  const n = Math.sqrt(dot(a, a)) || 1;
  return [a[0] / n, a[1] / n, a[2] / n];
};
const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const wrap = (x: number): number => Math.atan2(Math.sin(x), Math.cos(x));

/** What an invented aeroplane can do. Speeds in knots as flown, all true at these heights. */
export interface Machine {
  name: string;
  engines: 1 | 2;
  gear: 'fixed' | 'retractable';
  tailwheel: boolean;
  vs0: number;
  vs1: number;
  cruise: number;
  climb: number;
  glide: number;
  vne: number;
  vfe: { flapDeg: number; kt: number }[];
  vle: number | null;
  rpmMax: number;
  rpmIdle: number;
  /** Constant-speed propeller: power is told by the manifold. */
  governed: boolean;
  mapMax: number | null;
  chtMax: number | null;
  gPos: number;
  gNeg: number;
  aerobatic: boolean;
  /** Best lift to drag. */
  ratio: number;
}
/** Standard deviation of a gust in each axis, m/s, and the mean wind at 10 m. */
export interface Air {
  fromDeg: number;
  meanMs: number;
  gustMs: number;
}
export interface Hands {
  /** Bank asked for, rad, and how fast it may roll. */
  bank: number;
  rollRate: number;
  /** Load asked for, g. */
  load: number;
  throttle: [number, number];
  flapDeg: number;
  gearDown: boolean;
  /** Nose held off the direction of the air, rad, right positive: a slip. */
  slip: number;
  brake: number;
  /** Straight round its own axis whatever the bank: a roll. */
  rollFree: number | null;
}
export interface State {
  t: number;
  at: Vec;
  /** Through the air. */
  v: number;
  f: Vec;
  u: Vec;
  load: number;
  /** Load shown by an accelerometer at the wheels' side of things: with knocks. */
  felt: number;
  slip: number;
  thrust: [number, number];
  flapDeg: number;
  gear: number;
  cht: number;
  onGround: boolean;
  /** Nose on the ground, rad from north. */
  nose: number;
  yawing: number;
  stalled: boolean;
  wind: Vec;
}
export interface Contact {
  t: number;
  kind: 'touch' | 'leave';
  sink: number;
  state: State;
}

export class Aeroplane {
  readonly dt = 0.04;
  s: State;
  readonly contacts: Contact[] = [];
  private readonly gusts: Vec = [0, 0, 0];
  private knock = 0;
  private readonly dragAt: (v: number, n: number, flap: number, gear: number) => number;
  constructor(
    readonly machine: Machine,
    readonly air: Air,
    private readonly normal: () => number,
    /** Metres of the surface above the datum at a place, and whether wheels can roll there. */
    readonly groundAt: (x: number, y: number) => number,
    at: Vec,
    nose: number,
    /** Of the datum above the sea. */
    private readonly datumM: number,
    /** What the surface holds back, of the weight that rests on it. */
    private readonly holdsBack: number,
  ) {
    const { ratio, glide } = machine;
    this.dragAt = (v, n, flap, gear) => {
      const r = v / (glide * KT);
      const parasite = 1 + flap / 40 + (machine.gear === 'retractable' ? 0.55 * gear : 0);
      return (parasite * r * r + (n * n) / Math.max(0.05, r * r)) / (2 * ratio);
    };
    this.s = {
      t: 0,
      at,
      v: 0,
      f: [Math.sin(nose), Math.cos(nose), 0],
      u: [0, 0, 1],
      load: 1,
      felt: 1,
      slip: 0,
      thrust: [0, 0],
      flapDeg: 0,
      gear: 1,
      cht: 120,
      onGround: true,
      nose,
      yawing: 0,
      stalled: false,
      wind: [0, 0, 0],
    };
  }
  /** Right wing. */
  get right(): Vec {
    return cross(this.s.f, this.s.u);
  }
  get bank(): number {
    return Math.atan2(-this.right[2], this.s.u[2]);
  }
  get path(): number {
    return Math.asin(Math.max(-1, Math.min(1, this.s.f[2])));
  }
  /** Direction of the nose, rad from north. */
  get heading(): number {
    return this.s.onGround ? this.s.nose : Math.atan2(this.s.f[0], this.s.f[1]) + this.s.slip;
  }
  get overGround(): Vec {
    const { s } = this;
    return s.onGround ? [Math.sin(s.nose) * s.v, Math.cos(s.nose) * s.v, 0] : add(s.wind, s.f, s.v / this.thin);
  }
  /** Indicated by true airspeed, in the standard atmosphere at this height. */
  get thin(): number {
    return (1 - 2.25577e-5 * Math.max(0, this.s.at[2] + this.datumM)) ** 2.12794;
  }
  get height(): number {
    return this.s.at[2] - this.groundAt(this.s.at[0], this.s.at[1]);
  }
  /** As the dial shows it, along the nose. Aloft `v` is that; on the ground it is over the ground. */
  get airspeed(): number {
    const { s } = this;
    if (!s.onGround) return s.v;
    return this.thin * Math.max(0, s.v - (Math.sin(s.nose) * s.wind[0] + Math.cos(s.nose) * s.wind[1]));
  }
  get stallSpeed(): number {
    const m = this.machine;
    const full = m.vfe[m.vfe.length - 1]?.flapDeg ?? 30;
    return KT * (m.vs1 + (m.vs0 - m.vs1) * Math.min(1, this.s.flapDeg / full));
  }
  get pitch(): number {
    const { s } = this;
    if (s.onGround) return this.machine.tailwheel && s.v < 12 ? 11 * RAD : 1.5 * RAD;
    const alpha = (-2 + 16 * Math.min(1, (s.load * this.stallSpeed ** 2) / Math.max(25, s.v ** 2))) * RAD;
    return this.path + Math.cos(this.bank) * alpha - s.flapDeg * 0.1 * RAD;
  }
  get rpm(): [number, number] {
    const m = this.machine;
    return this.s.thrust.map((p) => {
      if (m.governed)
        return m.rpmIdle + (m.rpmMax * 0.93 - m.rpmIdle) * Math.min(1, p * 2.2 + this.s.v / (m.cruise * KT * 1.2));
      return (
        m.rpmIdle +
        (m.rpmMax - m.rpmIdle) * (0.62 * p ** 0.7 + 0.36 * (this.airspeed / (m.cruise * KT)) ** 1.4 * (0.45 + 0.55 * p))
      );
    }) as [number, number];
  }
  get map(): [number, number] {
    return this.s.thrust.map((p) => 11.5 + p * ((this.machine.mapMax ?? 29) - 12.5)) as [number, number];
  }

  step(h: Hands): void {
    const { s, dt, machine: m } = this;
    const high = Math.max(2, this.height);
    // Wind grows with height; gusts remember some hundred metres of it.
    const factor = Math.min(1.5, (high / 10) ** 0.16);
    const length = 60 + 0.8 * Math.min(300, high);
    const keep = Math.exp((-dt * Math.max(8, s.v)) / length);
    for (const i of [0, 1, 2] as const)
      this.gusts[i] =
        this.gusts[i] * keep + this.air.gustMs * (i === 2 ? 0.5 : 1) * Math.sqrt(1 - keep * keep) * this.normal();
    const to = (this.air.fromDeg + 180) * RAD;
    const mean = this.air.meanMs * factor;
    const before = s.wind;
    s.wind = [
      Math.sin(to) * mean + this.gusts[0],
      Math.cos(to) * mean + this.gusts[1],
      s.onGround ? 0 : this.gusts[2] * Math.min(1, high / 60),
    ];
    for (const e of [0, 1] as const) s.thrust[e] += ((h.throttle[e] - s.thrust[e]) * dt) / 1.1;
    s.flapDeg += Math.max(-6 * dt, Math.min(6 * dt, h.flapDeg - s.flapDeg));
    s.gear += Math.max(-dt / 6, Math.min(dt / 6, (h.gearDown ? 1 : 0) - s.gear));
    const power = m.engines === 2 ? (s.thrust[0] + s.thrust[1]) / 2 : s.thrust[0];
    s.cht += ((105 + 75 * power + 25 * Math.max(0, power - s.v / 60)) * 1.05 - s.cht) * (dt / 70);
    // Level at full power somewhat beyond the cruise.
    const top = m.cruise * 1.1 * KT;
    const pull = (this.dragAt(top, 1, 0, m.gear === 'fixed' ? 1 : 0) * top) / Math.max(0.45 * top, this.airspeed);
    const thrust = G * (power * pull * 1.15 - 0.012 * (1 - power));
    this.knock *= Math.exp(-dt / 0.11);
    if (s.onGround) this.roll(h, thrust);
    else this.fly(h, thrust, before);
    s.felt = (s.onGround ? 1 : s.load) + this.knock;
    s.t += dt;
  }

  private fly(h: Hands, thrust: number, before: Vec): void {
    const { s, dt } = this;
    const most = (s.v / this.stallSpeed) ** 2;
    if (h.load > most * 1.0 && s.v < this.stallSpeed * 1.35) s.stalled = true;
    if (s.stalled && h.load < most * 0.8) s.stalled = false;
    const asked = s.stalled ? Math.min(h.load, most * 0.6) : Math.min(h.load, most);
    // A gust from below is a load before it is a climb; one from ahead is speed.
    const upGust = (s.wind[2] - before[2]) / dt;
    const gustLoad = (1.1 * s.wind[2] * Math.sqrt(s.v / 40)) / 12 + 0.02 * upGust * dt;
    s.load += (asked + gustLoad - s.load) * Math.min(1, dt / 0.22);
    const drag = G * this.dragAt(s.v, s.load, s.flapDeg, s.gear) * (s.stalled ? 1.6 : 1) * (1 + 2 * Math.abs(s.slip));
    const push = add(s.wind, before, -1);
    const { thin } = this;
    s.v = Math.max(8, s.v + thin * ((thrust - drag - G * s.f[2]) * dt - dot(push, s.f)));
    const across: Vec = add([s.load * G * s.u[0], s.load * G * s.u[1], s.load * G * s.u[2] - G], s.f, G * s.f[2]);
    s.f = unit(add(s.f, across, (dt * thin) / s.v));
    s.u = unit(add(s.u, s.f, -dot(s.u, s.f)));
    const rate =
      h.rollFree ??
      Math.max(-h.rollRate, Math.min(h.rollRate, 1.6 * wrap(h.bank - this.bank))) +
        (s.stalled ? 0.05 * this.normal() : 0);
    const r = this.right;
    s.u = unit(add(add([0, 0, 0], s.u, Math.cos(rate * dt)), r, Math.sin(rate * dt)));
    s.slip += (h.slip - s.slip) * Math.min(1, dt / 0.5);
    const move = this.overGround;
    s.at = add(s.at, move, dt);
    if (this.height > 0) return;
    const slope = this.groundAt(s.at[0] + move[0], s.at[1] + move[1]) - this.groundAt(s.at[0], s.at[1]) || 0;
    const sink = Math.max(0, slope - move[2]);
    this.contacts.push({ t: s.t, kind: 'touch', sink, state: structuredClone(s) });
    this.knock = 0.12 + 0.42 * sink;
    s.at[2] = this.groundAt(s.at[0], s.at[1]);
    if (sink > 1.15 && s.v > 0.86 * this.stallSpeed) {
      // Thrown off again.
      const up = 0.42 * sink;
      s.f = unit([s.f[0], s.f[1], ((up - s.wind[2]) * thin) / s.v]);
      s.at[2] += 0.01;
      s.load = 1;
      this.contacts.push({ t: s.t, kind: 'leave', sink: 0, state: structuredClone(s) });
      return;
    }
    const nose = this.heading;
    s.onGround = true;
    s.nose = nose;
    // Wheels turn it to where it goes, and a little beyond.
    s.yawing = wrap(Math.atan2(move[0], move[1]) - nose) * 0.9;
    s.v = Math.hypot(move[0], move[1]);
    s.f = [Math.sin(nose), Math.cos(nose), 0];
    s.u = [0, 0, 1];
    s.slip = 0;
    s.load = 1;
    s.stalled = false;
  }

  private get wet(): boolean {
    return this.holdsBack > 0.1;
  }
  private roll(h: Hands, thrust: number): void {
    const { s, dt } = this;
    const v = this.airspeed;
    const lift = Math.min(1, (v / (1.15 * this.stallSpeed)) ** 2);
    // A tail that is down holds the wing up still.
    const wing = lift * (this.machine.tailwheel ? 0.6 : 0.3);
    const air = this.dragAt(v, wing, s.flapDeg, s.gear);
    // Water holds back what moves through it.
    const held = this.wet ? this.holdsBack * Math.min(1, (s.v / 8) ** 2) : this.holdsBack + 0.28 * h.brake;
    const friction = held * (1 - wing) + air;
    s.v = Math.max(0, s.v + (thrust * 0.9 - (s.v > 0.3 || thrust > 0.6 ? G * friction : thrust)) * dt);
    if (s.v > 0.05) this.knock += 0.004 * this.normal() * Math.sqrt(s.v);
    // `bank` steers on the ground: the direction asked for, through feet that are late.
    const want = Math.max(-0.35, Math.min(0.35, 1.5 * wrap(h.bank - s.nose)));
    s.yawing +=
      (want - s.yawing) * Math.min(1, dt / 0.45) +
      (this.machine.tailwheel ? 0.1 : 0.04) * Math.sqrt(dt) * this.normal() * Math.min(1, s.v / 10);
    if (s.v > 0.4) s.nose = wrap(s.nose + s.yawing * dt);
    s.f = [Math.sin(s.nose), Math.cos(s.nose), 0];
    s.at = add(s.at, this.overGround, dt);
    s.at[2] = this.groundAt(s.at[0], s.at[1]);
    s.load = 1;
    if (h.load > 1.02 && v > 1.03 * this.stallSpeed) {
      this.contacts.push({ t: s.t, kind: 'leave', sink: 0, state: structuredClone(s) });
      s.onGround = false;
      const move = this.overGround;
      const through: Vec = [move[0] - s.wind[0], move[1] - s.wind[1], 0.8];
      s.v = this.thin * Math.sqrt(dot(through, through));
      s.f = unit(through);
      s.u = unit(add([0, 0, 1], s.f, -s.f[2]));
      s.slip = wrap(s.nose - Math.atan2(s.f[0], s.f[1]));
      s.at[2] += 0.02;
    }
  }
}
