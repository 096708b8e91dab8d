/**
 * The second recorder's pilot: hands and feet that chase what they want, late and not exactly. Each manoeuvre is a
 * script that runs until it is flown; what it was is written down as it happens.
 */
import { type Aeroplane, FT, G, type Hands, KT, RAD, wrap } from './aeroplane';

export type Script = Generator<void, void, void>;
export interface End {
  ident: string;
  /** Threshold, metres east and north of the datum. */
  at: [number, number];
  /** Rad from north. */
  bearing: number;
  lengthM: number;
}
export interface FlownTouch {
  tS: number;
  alongM: number;
  lateralM: number;
  iasKt: number;
  gsKt: number;
  sinkFpm: number;
  crabDeg: number;
  driftKt: number;
  bounces: number;
}
export interface FlownPass {
  kind: 'takeoff' | 'landing' | 'touch-and-go' | 'stop-and-go' | 'go-around' | 'low-pass';
  runway: string;
  /** When it counts: touch, lift-off or lowest. */
  atS: number;
  touch?: FlownTouch;
  liftoffS?: number;
  lowestFt?: number;
  /** Meant to stay off the ground and did not: neither the one nor the other. */
  doubt?: boolean;
  swingDeg?: number;
  offM?: number;
}
export interface FlownItem {
  kind:
    | 'steep-turn'
    | 'slow-flight'
    | 'stall'
    | 'climb-reversal'
    | 'loop'
    | 'roll'
    | 'emergency-descent'
    | 'engine-out'
    | 'clearing-turn';
  direction: 'left' | 'right' | null;
  startS: number;
  endS: number;
  maxBankDeg: number;
  rolloutErrorDeg: number | null;
  height: { min: number; max: number };
  /** Of a clearing turn: the item it was flown for, where only that tells what it was. */
  before?: FlownItem['kind'];
}

const clamp = (x: number, least: number, most: number): number => Math.max(least, Math.min(most, x));

export class Pilot {
  readonly passes: FlownPass[] = [];
  readonly items: FlownItem[] = [];
  readonly hands: Hands = {
    bank: 0,
    rollRate: 0.35,
    load: 1,
    throttle: [0, 0],
    flapDeg: 0,
    gearDown: true,
    slip: 0,
    brake: 0,
    rollFree: null,
  };
  /** A hand that is never quite still: path and bank, rad. */
  private readonly wobble = { path: 0, bank: 0 };
  private trim = 0.5;
  private lean = 0;
  constructor(
    readonly plane: Aeroplane,
    private readonly random: () => number,
    private readonly normal: () => number,
    /** 0 good, 1 poor. */
    readonly rough: number,
  ) {}
  get t(): number {
    return this.plane.s.t;
  }
  between(a: number, b: number): number {
    return a + (b - a) * this.random();
  }
  chance(p: number): boolean {
    return this.random() < p;
  }
  private power(x: number): void {
    this.hands.throttle = [x, x];
  }
  private *tick(): Script {
    const { dt } = this.plane;
    const keep = Math.exp(-dt / 4);
    this.wobble.path =
      this.wobble.path * keep + 0.006 * (0.3 + this.rough) * Math.sqrt(1 - keep * keep) * this.normal();
    this.wobble.bank =
      this.wobble.bank * keep + 0.025 * (0.3 + this.rough) * Math.sqrt(1 - keep * keep) * this.normal();
    yield;
  }

  // --- how it is held ---
  private toPath(path: number, most = 2.6): void {
    const { s, bank } = this.plane;
    const lift = Math.max(0.35, Math.cos(bank));
    // A pilot who looks does not pull it to the stall; one who stalls it asks for more than this.
    const carries = 0.88 * (s.v / this.plane.stallSpeed) ** 2;
    this.hands.load = clamp(
      (Math.cos(this.plane.path) + ((path + this.wobble.path - this.plane.path) * s.v) / G / 0.9) / lift,
      0.3,
      Math.max(0.5, Math.min(most, carries)),
    );
  }
  private toHeight(h: number, steep = 0.12): void {
    this.toPath(
      clamp((h - this.plane.height) * 0.16, -5, 5) / Math.max(20, this.plane.s.v) < -steep
        ? -steep
        : clamp((h - this.plane.height) * 0.16, -5, 5) / Math.max(20, this.plane.s.v),
    );
  }
  /** Speed with the throttle. */
  private toSpeed(kt: number): void {
    const off = kt * KT - this.plane.s.v;
    this.trim = clamp(this.trim + off * 0.004 * this.plane.dt * 4, 0, 1);
    this.power(clamp(this.trim + 0.08 * off, 0, 1));
  }
  /** Speed with the nose. */
  private byNose(kt: number, most = 0.25, least = -0.3): void {
    const off = this.plane.s.v - kt * KT;
    this.lean = clamp(this.lean + off * 0.002 * this.plane.dt * 10, -0.3, most);
    this.toPath(clamp(this.lean + 0.025 * off, least, most));
  }
  private roll(bank: number): void {
    this.hands.bank = bank + this.wobble.bank;
  }
  private toTrack(track: number, most = 25): void {
    const g = this.plane.overGround;
    this.roll(clamp(1.3 * wrap(track - Math.atan2(g[0], g[1])), -most * RAD, most * RAD));
  }
  where(e: End): { x: number; y: number } {
    const [dx, dy] = [this.plane.s.at[0] - e.at[0], this.plane.s.at[1] - e.at[1]];
    const [s, c] = [Math.sin(e.bearing), Math.cos(e.bearing)];
    return { x: dx * s + dy * c, y: dx * c - dy * s };
  }
  /** How fast the ground comes up beneath it, m/s. */
  private rise(): number {
    const [x, y] = this.plane.s.at;
    const v = this.plane.overGround;
    return this.plane.groundAt(x + v[0], y + v[1]) - this.plane.groundAt(x, y);
  }
  get ft(): number {
    return this.plane.height / FT;
  }

  // --- on the ground ---
  *taxi(to: [number, number], speed = 7, near = 12): Script {
    for (let k = 0; k < 20_000; k++) {
      const [dx, dy] = [to[0] - this.plane.s.at[0], to[1] - this.plane.s.at[1]];
      if (Math.hypot(dx, dy) < near) return;
      const way = Math.atan2(dx, dy);
      const turning = Math.abs(wrap(way - this.plane.s.nose));
      this.hands.bank = way;
      this.speedOnGround(turning > 0.5 ? 2.5 : speed);
      this.hands.load = 1;
      yield* this.tick();
    }
  }
  private speedOnGround(want: number): void {
    const off = want - this.plane.s.v;
    this.power(clamp(0.08 + 0.06 * off, 0, 0.35));
    this.hands.brake = clamp(-0.4 * off, 0, 0.6);
  }
  *wait(s: number): Script {
    const until = this.t + s;
    this.power(0);
    this.hands.brake = 1;
    while (this.t < until) yield* this.tick();
    this.hands.brake = 0;
  }
  private keepLine(e: End): void {
    this.hands.bank = e.bearing - 0.02 * this.where(e).y;
  }
  *fastTaxi(e: End): Script {
    while (this.plane.s.v < 0.7 * this.plane.machine.vs0 * KT && this.where(e).x < 0.5 * e.lengthM) {
      this.keepLine(e);
      this.power(0.8);
      yield* this.tick();
    }
    while (this.plane.s.v > 3) {
      this.keepLine(e);
      this.power(0);
      this.hands.brake = 0.5;
      yield* this.tick();
    }
    this.hands.brake = 0;
  }
  /** Full power until it flies and has climbed a little. */
  *takeOff(e: End, passKind: 'takeoff' | null = 'takeoff'): Script {
    const begun = this.plane.contacts.length;
    const m = this.plane.machine;
    while (this.plane.s.onGround) {
      this.keepLine(e);
      this.power(1);
      this.hands.brake = 0;
      this.hands.load = this.plane.airspeed > 1.22 * m.vs1 * KT ? 1.15 : 1;
      yield* this.tick();
      if (this.where(e).x > e.lengthM + 900) break;
    }
    this.lean = 0.08;
    for (let k = 0; this.ft < 60 && k < 2000; k++) {
      this.power(1);
      this.hands.slip = 0;
      if (this.plane.s.onGround) {
        this.keepLine(e);
        this.hands.load = this.plane.airspeed > 1.17 * m.vs1 * KT ? 1.15 : 1;
      } else {
        this.toTrack(e.bearing - 0.004 * this.where(e).y, 10);
        this.byNose(m.climb, 0.16, 0.055);
      }
      yield* this.tick();
    }
    const left = this.plane.contacts.slice(begun).findLast((c) => c.kind === 'leave');
    if (left && passKind) this.passes.push({ kind: passKind, runway: e.ident, atS: left.t, liftoffS: left.t });
    else if (left) {
      const last = this.passes[this.passes.length - 1];
      if (last) last.liftoffS = left.t;
    }
  }

  // --- between ---
  private clean(): void {
    this.hands.flapDeg = 0;
    this.hands.gearDown = this.plane.machine.gear === 'fixed';
  }
  *climbTo(ft: number, track: number): Script {
    const m = this.plane.machine;
    for (let k = 0; this.ft < ft && k < 60_000; k++) {
      if (this.ft > 200) this.clean();
      this.toTrack(track);
      this.power(1);
      this.byNose(m.climb, 0.2);
      yield* this.tick();
    }
  }
  *straight(s: number, ft: number, kt: number, track: number): Script {
    const until = this.t + s;
    while (this.t < until) {
      this.toTrack(track);
      this.toHeight(ft * FT);
      this.toSpeed(kt);
      yield* this.tick();
    }
  }
  /** An ordinary turn, not steep: nothing of it is an item. */
  *turn(by: number, bankDeg: number, ft: number, kt: number): Script {
    const side = Math.sign(by);
    let turned = 0;
    let before = this.plane.heading;
    while (side * turned < Math.abs(by) - (bankDeg * RAD) / 4) {
      this.roll(side * bankDeg * RAD);
      this.toHeight(ft * FT);
      this.toSpeed(kt);
      yield* this.tick();
      turned += wrap(this.plane.heading - before);
      before = this.plane.heading;
    }
    while (Math.abs(this.plane.bank) > 3 * RAD) {
      this.roll(0);
      this.toHeight(ft * FT);
      this.toSpeed(kt);
      yield* this.tick();
    }
  }
  /** Throttle closed and down in gentle turns, then away again: practice, and no failure of an engine. */
  *glideDown(toFt: number): Script {
    const m = this.plane.machine;
    let bank = 0;
    let until = 0;
    this.lean = -0.05;
    for (let k = 0; this.ft > toFt && k < 15_000; k++) {
      if (this.t > until) {
        until = this.t + this.between(12, 30);
        bank = this.chance(0.5) ? 0 : (this.chance(0.5) ? 1 : -1) * this.between(12, 28) * RAD;
      }
      this.roll(bank);
      this.power(0);
      this.byNose(m.glide, 0);
      yield* this.tick();
    }
  }

  // --- a circuit and what ends it ---
  private *leg(e: End, off: number, ft: number, kt: number, done: () => boolean): Script {
    for (let k = 0; !done() && k < 12_000; k++) {
      this.toTrack(e.bearing + off);
      if (this.ft < ft - 60 && this.plane.s.v > 0.9 * kt * KT) {
        this.power(1);
        this.byNose(this.plane.machine.climb, 0.18);
      } else {
        this.toHeight(ft * FT, 0.08);
        this.toSpeed(kt);
      }
      if (this.ft > 200) this.clean();
      yield* this.tick();
    }
  }
  *circuit(e: End, side: 1 | -1, ft: number, spacing: number, beyond: number): Script {
    const m = this.plane.machine;
    const y = () => side * this.where(e).y;
    yield* this.leg(e, 0, ft, m.climb, () => this.ft > 0.65 * ft || this.where(e).x > e.lengthM + 1500);
    yield* this.leg(e, (side * Math.PI) / 2, ft, 0.8 * m.cruise, () => y() > spacing - 250);
    yield* this.leg(e, side * Math.PI, ft, 0.8 * m.cruise, () => this.where(e).x < -beyond);
    yield* this.leg(e, (-side * Math.PI) / 2, ft, 1.6 * m.vs1, () => y() < 420);
  }
  /** From wherever it is to a long final. */
  *joinFinal(e: End, ft: number, far: number): Script {
    const m = this.plane.machine;
    for (let k = 0; k < 40_000; k++) {
      const { x, y } = this.where(e);
      if (x > -far - 200 && x < -far + 900 && Math.abs(y) < 250) break;
      const to = Math.atan2(-far - 500 - x, 0 - y);
      // The point some way before the final, in the frame of the runway, then in that of the world.
      const track = e.bearing + Math.atan2(0 - y, -far - 500 - x);
      this.toTrack(Number.isFinite(to) ? track : e.bearing);
      this.toHeight(ft * FT, 0.09);
      this.toSpeed(0.8 * m.cruise);
      yield* this.tick();
    }
  }

  *arrive(
    e: End,
    o: {
      end: 'landing' | 'touch-and-go' | 'stop-and-go' | 'go-around' | 'low-pass' | 'bounce-away';
      slopeDeg: number;
      aimM: number;
      touchSink: number;
      fastKt: number;
      lowFt: number;
      decrab: number;
      offM: number;
      flapDeg: number;
    },
  ): Script {
    const { plane, hands } = this;
    const m = plane.machine;
    hands.flapDeg = o.flapDeg;
    hands.gearDown = true;
    const speed = () => (1.32 * plane.stallSpeed) / KT + o.fastKt;
    const slope = o.slopeDeg * RAD;
    const flareM = this.between(3.5, 7);
    const begun = plane.contacts.length;
    const stopsAt = o.end === 'go-around' || o.end === 'low-pass' ? o.lowFt * FT : flareM;
    let lowest = Infinity;
    let lowestT = this.t;
    const began0 = this.t;
    this.heights.length = 0;
    const see = () => {
      if (this.t >= began0 + 0.5 * this.heights.length) this.heights.push(plane.height / FT);
      if (plane.height < lowest) {
        lowest = plane.height;
        lowestT = this.t;
      }
    };
    for (let k = 0; k < 20_000; k++) {
      const { x, y } = this.where(e);
      const low = plane.height < 45;
      this.toTrack(e.bearing - clamp(0.006 * (y - o.offM), -0.55, 0.55), low ? 10 : 25);
      const want = Math.max(0, (o.aimM - x) * Math.tan(slope));
      if (want > plane.height + 4 && plane.height > stopsAt + 6) this.toPath(x < -3000 ? 0 : -0.2 * slope);
      else this.toPath(-slope + clamp((want - plane.height) * 0.008, -0.05, 0.05));
      this.toSpeed(speed());
      hands.slip = 0;
      see();
      if (plane.height < stopsAt + (stopsAt > 8 ? 0.25 * (stopsAt / 5) : 0)) break;
      if (plane.s.onGround || x > e.lengthM) break;
      yield* this.tick();
    }
    if (o.end === 'low-pass') {
      const until = this.t + this.between(8, 16);
      while (this.t < until) {
        this.toTrack(e.bearing - clamp(0.006 * this.where(e).y, -0.3, 0.3), 8);
        this.toHeight(o.lowFt * FT);
        this.toSpeed(speed() + 8);
        see();
        yield* this.tick();
      }
    }
    if (o.end === 'go-around' || o.end === 'low-pass') {
      yield* this.goAround(e, o.lowFt, see);
      const touched = plane.contacts.length > begun || this.neither(o.end) || lowest / FT > 280;
      this.passes.push({ kind: o.end, runway: e.ident, atS: lowestT, lowestFt: lowest / FT, doubt: touched });
      return;
    }
    const began = plane.contacts.length;
    // Round out: the sink asked for falls with the height.
    for (let k = 0; !plane.s.onGround && k < 1500; k++) {
      // A float that does not end is ended: the hand eases.
      const sink = Math.max(o.touchSink + 0.035 * k * plane.dt, 0.32 * plane.height) - this.rise();
      this.toTrack(e.bearing - clamp(0.005 * (this.where(e).y - o.offM), -0.1, 0.1), 6);
      this.toPath(-sink / plane.s.v, 1.5);
      this.power(clamp(0.05 * plane.height, 0, 0.3));
      hands.slip = plane.height < 2.5 ? o.decrab * wrap(e.bearing - (plane.heading - plane.s.slip)) : 0;
      yield* this.tick();
      if (o.end === 'bounce-away' && plane.contacts.length > began) break;
      see();
      if (plane.height > 1.5 && this.where(e).x > 0.5 * e.lengthM && plane.contacts.length === began) {
        // Floated too far: away again.
        yield* this.goAround(e, o.lowFt, see);
        this.passes.push({
          kind: 'go-around',
          runway: e.ident,
          atS: lowestT,
          lowestFt: lowest / FT,
          doubt: lowest < 3 || lowest / FT > 280 || this.neither('go-around'),
        });
        return;
      }
    }
    const touched = plane.contacts[began];
    if (!touched) return;
    if (o.end === 'bounce-away') {
      this.lean = 0.05;
      hands.slip = 0;
      for (let k = 0; this.ft < 300 && k < 3000; k++) {
        this.power(1);
        if (!plane.s.onGround) this.toTrack(e.bearing, 8);
        if (plane.s.onGround) {
          this.keepLine(e);
          hands.load = 1.15;
        } else this.byNose(m.climb, 0.16, 0.055);
        if (this.ft > 150) hands.flapDeg = 0;
        yield* this.tick();
      }
      const all = plane.contacts.slice(began);
      if (all.filter((c) => c.kind === 'touch').length === 1)
        this.passes.push({ kind: 'go-around', runway: e.ident, atS: touched.t, lowestFt: 0 });
      else {
        // It stayed a moment: a touch-and-go after all.
        const left = all.findLast((c) => c.kind === 'leave');
        this.passes.push({
          kind: 'touch-and-go',
          runway: e.ident,
          atS: touched.t,
          touch: this.touchOf(e, began),
          ...(left ? { liftoffS: left.t } : {}),
          doubt: true,
        });
      }
      return;
    }
    const pass: FlownPass = {
      kind: o.end,
      runway: e.ident,
      atS: touched.t,
      touch: this.touchOf(e, began),
      swingDeg: 0,
      offM: 0,
    };
    hands.slip = 0;
    const roll = this.between(1.5, 9);
    const swing = () => {
      if (Math.hypot(plane.overGround[0], plane.overGround[1]) < 15 * KT) return;
      const d = wrap(plane.heading - e.bearing) / RAD;
      if (Math.abs(d) > Math.abs(pass.swingDeg ?? 0)) pass.swingDeg = d;
      const { y } = this.where(e);
      if (Math.abs(y) > Math.abs(pass.offM ?? 0)) pass.offM = y;
    };
    for (let k = 0; k < 8000; k++) {
      if (plane.s.onGround) {
        this.keepLine(e);
        this.power(0);
        hands.load = 1;
        hands.brake = o.end === 'touch-and-go' ? 0 : this.t - touched.t > 3 ? (o.end === 'stop-and-go' ? 0.6 : 0.4) : 0;
      } else {
        // Thrown off: held, and let down again.
        this.toTrack(e.bearing, 5);
        this.toPath((this.rise() - Math.max(0.5, 0.3 * plane.height)) / plane.s.v, 1.3);
      }
      swing();
      yield* this.tick();
      if (o.end === 'touch-and-go' && plane.s.onGround && this.t - touched.t > roll) break;
      if (o.end !== 'touch-and-go' && plane.s.onGround && plane.s.v < 0.8) break;
    }
    pass.touch = this.touchOf(e, began);
    this.passes.push(pass);
    if (o.end === 'landing') return;
    if (o.end === 'stop-and-go' && this.where(e).x > 0.6 * e.lengthM) {
      pass.kind = 'landing';
      return;
    }
    if (o.end === 'stop-and-go') yield* this.wait(this.between(4, 15));
    hands.flapDeg = 0;
    hands.brake = 0;
    const lift = this.takeOff(e, null);
    for (;;) {
      if (plane.s.onGround && o.end === 'touch-and-go') swing();
      if (lift.next().done) break;
      yield;
    }
    // A contact of two seconds is hardly a landing, and hardly none.
    if ((pass.liftoffS ?? Infinity) - touched.t < 2.5) pass.doubt = true;
  }
  private *goAround(e: End, lowFt: number, see: () => void): Script {
    const { plane, hands } = this;
    const m = plane.machine;
    hands.slip = 0;
    this.lean = 0.03;
    for (let k = 0; this.ft < Math.max(lowFt + 150, 350) && k < 4000; k++) {
      this.power(1);
      if (plane.s.onGround) {
        this.keepLine(e);
        hands.load = plane.airspeed > 1.17 * m.vs1 * KT ? 1.15 : 1;
      } else {
        this.toTrack(e.bearing - clamp(0.004 * this.where(e).y, -0.2, 0.2), 12);
        this.byNose(m.climb, 0.16, 0.055);
      }
      if (this.ft > lowFt + 80) hands.flapDeg = 0;
      see();
      yield* this.tick();
    }
  }
  /** Heights of the last pass, each half second. */
  private readonly heights: number[] = [];
  /** Levelled for about five seconds, but not quite: neither a low pass nor plainly none. */
  private neither(kind: 'go-around' | 'low-pass'): boolean {
    let flattest = Infinity;
    for (let i = 0; i + 10 < this.heights.length; i++) {
      const five = this.heights.slice(i, i + 11);
      if (Math.max(...five) < 100) flattest = Math.min(flattest, Math.max(...five) - Math.min(...five));
    }
    return kind === 'go-around' ? flattest < 20 : flattest > 9;
  }
  /** The first contact after some moment, and how often it left the ground again before it stayed. */
  private touchOf(e: End, began: number): FlownTouch | undefined {
    const all = this.plane.contacts.slice(began);
    const first = all[0];
    if (!first) return undefined;
    const { s } = { s: first.state };
    const now = this.plane.s;
    this.plane.s = s;
    const { x, y } = this.where(e);
    const over = this.plane.overGround;
    const heading = this.plane.heading;
    this.plane.s = now;
    const track = Math.atan2(over[0], over[1]);
    const gs = Math.hypot(over[0], over[1]);
    return {
      tS: first.t,
      alongM: x,
      lateralM: y,
      iasKt: s.v / KT,
      gsKt: gs / KT,
      sinkFpm: (first.sink / FT) * 60,
      crabDeg: wrap(heading - track) / RAD,
      driftKt: (gs * Math.sin(track - e.bearing)) / KT,
      bounces: all.filter((c, i) => c.kind === 'touch' && i > 0).length,
    };
  }

  // --- airwork ---
  private begin(kind: FlownItem['kind'], direction: FlownItem['direction'] = null) {
    const at = this.plane.height;
    const item: FlownItem = {
      kind,
      direction,
      startS: this.t,
      endS: this.t,
      maxBankDeg: 0,
      rolloutErrorDeg: null,
      height: { min: 0, max: 0 },
    };
    return {
      item,
      see: () => {
        const d = (this.plane.height - at) / FT;
        item.height.min = Math.min(item.height.min, d);
        item.height.max = Math.max(item.height.max, d);
        const b = this.plane.bank / RAD;
        if (Math.abs(b) > Math.abs(item.maxBankDeg)) item.maxBankDeg = b;
      },
      end: () => {
        item.endS = this.t;
        this.items.push(item);
      },
    };
  }
  *steepTurn(side: 1 | -1, bankDeg: number, throughDeg: number, missDeg: number): Script {
    const h = this.plane.height;
    const kt = this.plane.s.v / KT;
    const n = this.begin('steep-turn', side > 0 ? 'right' : 'left');
    let turned = 0;
    let before = this.plane.heading;
    const step = () => {
      turned += side * wrap(this.plane.heading - before);
      before = this.plane.heading;
      n.see();
    };
    while (turned < (throughDeg + missDeg) * RAD - 0.45 * bankDeg * RAD * 0.7) {
      this.roll(side * bankDeg * RAD);
      this.toHeight(h, 0.1);
      this.toSpeed(kt);
      yield* this.tick();
      step();
    }
    while (Math.abs(this.plane.bank) > 3 * RAD) {
      this.roll(0);
      this.toHeight(h, 0.1);
      this.toSpeed(kt);
      yield* this.tick();
      step();
    }
    n.item.rolloutErrorDeg = turned / RAD - throughDeg;
    n.end();
  }
  *clearing(side: 1 | -1, whole: FlownItem['kind'] | null): Script {
    const n = this.begin('clearing-turn', side > 0 ? 'right' : 'left');
    const [ft, kt] = [this.ft, this.plane.s.v / KT];
    const bank = this.between(20, 32);
    if (whole) yield* this.turn(side * Math.PI, bank, ft, kt);
    else {
      yield* this.turn((side * Math.PI) / 2, bank, ft, kt);
      yield* this.straight(this.between(0, 4), ft, kt, this.plane.heading);
      yield* this.turn((-side * Math.PI) / 2, bank, ft, kt);
    }
    n.see();
    if (whole) n.item.before = whole;
    n.end();
  }
  *slowFlight(s: number, times: number, flapDeg: number): Script {
    const n = this.begin('slow-flight');
    const h = this.plane.height;
    const track = this.plane.heading;
    this.hands.flapDeg = flapDeg;
    const reach = () => (times * this.plane.stallSpeed) / KT;
    let until = Infinity;
    let off = 0;
    for (let k = 0; this.t < until && k < 15_000; k++) {
      if (until === Infinity && this.plane.s.v < 1.06 * reach() * KT) until = this.t + s;
      if (until !== Infinity && this.chance(0.0006)) off += this.between(-40, 40) * RAD;
      this.toTrack(track + off, 14);
      this.toHeight(h, 0.06);
      if (until === Infinity) this.power(0.12);
      else this.toSpeed(reach());
      yield* this.tick();
      n.see();
    }
    n.end();
    this.hands.flapDeg = 0;
    yield* this.pickUp(h);
  }
  /** Back to the cruise. */
  *pickUp(h: number): Script {
    const until = this.t + 30;
    while (this.t < until && this.plane.s.v < 0.85 * this.plane.machine.cruise * KT) {
      this.roll(0);
      this.toHeight(h, 0.05);
      this.power(0.95);
      yield* this.tick();
    }
  }
  *stall(withPower: boolean): Script {
    const n = this.begin('stall');
    const { plane, hands } = this;
    const h = plane.height;
    for (let k = 0; !plane.s.stalled && k < 3000; k++) {
      this.roll(0);
      if (withPower) {
        this.power(plane.s.v > 1.25 * plane.stallSpeed ? 0.15 : 0.65);
        this.toPath(plane.s.v > 1.25 * plane.stallSpeed ? 0.02 : 0.22, 3);
      } else {
        this.power(0);
        this.toPath(clamp((h - plane.height) * 0.02, -0.05, 0.1), 3);
      }
      if (plane.s.v < 1.04 * plane.stallSpeed) hands.load = 1.4;
      yield* this.tick();
      n.see();
    }
    const dropped = this.t;
    const react = this.between(0.6, 1.8);
    for (let k = 0; k < 700; k++) {
      this.roll(this.between(-0.02, 0.02));
      const since = this.t - dropped;
      if (since < react) hands.load = 1.4;
      else {
        this.power(1);
        if (plane.s.v < 1.18 * plane.stallSpeed) this.toPath(-0.22, 1.1);
        else this.toPath(0.07, Math.min(1.8, 0.8 * (plane.s.v / plane.stallSpeed) ** 2));
      }
      yield* this.tick();
      n.see();
      if (since > react + 1 && plane.path > 0.02) break;
    }
    n.end();
    yield* this.pickUp(plane.height);
  }
  *reversal(side: 1 | -1, bankDeg: number): Script {
    const n = this.begin('climb-reversal', side > 0 ? 'right' : 'left');
    const { plane } = this;
    let turned = 0;
    let before = plane.heading;
    for (let k = 0; k < 3000; k++) {
      const left = Math.PI - turned;
      if (left < 0.02) break;
      const slow = plane.s.v < 1.22 * plane.machine.vs1 * KT;
      this.roll(side * bankDeg * RAD * clamp(left / 0.9, 0.22, 1));
      this.power(1);
      this.toPath(slow ? 0.05 : clamp(0.09 + 0.1 * turned, 0, 0.24), 2.2);
      yield* this.tick();
      turned += side * wrap(plane.heading - before);
      before = plane.heading;
      n.see();
    }
    while (Math.abs(plane.bank) > 3 * RAD) {
      this.roll(0);
      this.toPath(0.04, 1.4);
      yield* this.tick();
      turned += side * wrap(plane.heading - before);
      before = plane.heading;
      n.see();
    }
    n.item.rolloutErrorDeg = (turned - Math.PI) / RAD;
    n.end();
    yield* this.pickUp(plane.height);
  }
  private *dive(kt: number): Script {
    for (let k = 0; this.plane.s.v < kt * KT && k < 1500; k++) {
      this.roll(0);
      this.power(1);
      this.toPath(-0.38);
      yield* this.tick();
    }
  }
  *loop(): Script {
    const { plane, hands } = this;
    yield* this.dive(Math.min(0.86 * plane.machine.vne, 2.75 * plane.machine.vs1));
    while (plane.path < -0.01) {
      this.toPath(0.04, 2.5);
      yield* this.tick();
    }
    const n = this.begin('loop');
    const v0 = plane.s.v;
    hands.rollFree = 0;
    let over = false;
    for (let k = 0; k < 1500; k++) {
      this.power(plane.path < -0.5 ? 0.2 : 1);
      hands.load = clamp(0.5 + 3.4 * (plane.s.v / v0), 0.8, 4);
      yield* this.tick();
      n.see();
      if (plane.s.u[2] < -0.5) over = true;
      if (over && plane.s.u[2] > 0 && plane.path > -0.08) break;
    }
    hands.rollFree = null;
    n.end();
    yield* this.straight(5, this.ft, plane.machine.cruise, plane.heading);
  }
  *aileronRoll(side: 1 | -1): Script {
    const { plane, hands } = this;
    yield* this.dive(1.05 * plane.machine.cruise);
    while (plane.path < 0.3) {
      this.toPath(0.36, 2.2);
      this.power(1);
      yield* this.tick();
    }
    const n = this.begin('roll', side > 0 ? 'right' : 'left');
    const rate = side * this.between(70, 130) * RAD;
    let done = 0;
    while (done < 2 * Math.PI - 0.15) {
      hands.rollFree = rate * Math.min(1, 0.3 + done, (2 * Math.PI - done) * 1.5);
      hands.load = 0.35;
      yield* this.tick();
      done += Math.abs(hands.rollFree) * plane.dt;
      n.see();
    }
    hands.rollFree = null;
    n.end();
    yield* this.straight(5, this.ft, plane.machine.cruise, plane.heading);
  }
  *emergencyDescent(side: -1 | 0 | 1, byFt: number): Script {
    const { plane } = this;
    const n = this.begin('emergency-descent', side === 0 ? null : side > 0 ? 'right' : 'left');
    const to = this.ft - byFt;
    const bank = side * this.between(30, 45) * RAD;
    const kt = 0.88 * plane.machine.vne;
    while (this.ft > to + 150) {
      this.power(0);
      this.roll(bank);
      this.toPath(plane.s.v > kt * KT ? -0.16 : -0.33, 2);
      yield* this.tick();
      n.see();
    }
    while (plane.path < -0.02) {
      this.roll(0);
      this.toPath(0.02, 2);
      yield* this.tick();
      n.see();
    }
    n.end();
  }
  *oneEngine(which: 0 | 1, s: number): Script {
    const { plane, hands } = this;
    const n = this.begin('engine-out', which === 0 ? 'left' : 'right');
    const until = this.t + s;
    const h = plane.height;
    let track = plane.heading;
    while (this.t < until) {
      if (this.chance(0.0005)) track += this.between(-60, 60) * RAD;
      this.toTrack(track, 15);
      this.toHeight(h, 0.05);
      this.toSpeed(0.75 * plane.machine.cruise);
      hands.throttle[which] = 0.05;
      hands.throttle[which === 0 ? 1 : 0] = clamp(hands.throttle[which === 0 ? 1 : 0] * 1.5, 0.45, 1);
      yield* this.tick();
      n.see();
    }
    n.end();
  }
  /** Too fast on purpose, straight ahead: a limit passed or only neared. */
  *overspeed(kt: number, flapDeg: number): Script {
    this.hands.flapDeg = flapDeg;
    for (let k = 0; this.plane.s.v < kt * KT && k < 2500; k++) {
      this.roll(0);
      this.power(1);
      this.toPath(-0.42);
      yield* this.tick();
    }
    const { height } = this.plane;
    this.hands.flapDeg = 0;
    for (let k = 0; k < 400 && this.plane.s.v > this.plane.machine.cruise * KT; k++) {
      this.power(0.1);
      this.toPath(0.05, 1.8);
      yield* this.tick();
    }
    yield* this.straight(4, height / FT, this.plane.machine.cruise * 0.85, this.plane.heading);
  }
}
