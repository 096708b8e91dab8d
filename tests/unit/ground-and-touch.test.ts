import { describe, expect, it } from 'vitest';
import { fadeGuard, linearModel, rudderFade, unstableBand } from '@/core/ground';
import { crosswindHeld, slipBank, slipSink, slipTurn, tipClearance } from '@/core/slip';
import { type SlowTrial, loadAvailable, loadNeeded, slowestApproach } from '@/core/slowapproach';
import { firmnessOf, sideSpeed, springRebound, touchLoad } from '@/core/touchdown';
import { seeded } from '@demo/random';

const BODY = {
  massKg: 560,
  mainsXM: 0.4,
  thirdWheelXM: -4.4,
  corneringMainsNPerRad: 40_000,
  corneringThirdNPerRad: 1500,
  finAreaM2: 1.1,
  finArmM: 4.2,
  finLiftSlopePerRad: 2.5,
  airDensityKgM3: 1.2,
};
const FADE = {
  crosswindKt: 9,
  headwindKt: 0,
  groundSpeedKt: 30,
  massKg: 560,
  yawInertiaKgM2: 1200,
  mainsXM: 0.4,
  finAreaM2: 1.1,
  finArmM: 4.2,
  finLiftSlopePerRad: 2.5,
  rudderEffectiveness: 0.5,
  rudderMaxDeg: 25,
  bodySideAreaM2: 4,
  bodySideSlopePerRad: 0.25,
  bodyCentreXM: 0.1,
  reserveYawAccelDegS2: 10,
  airDensityKgM3: 1.2,
};

describe('runs straight or swerves', () => {
  it('small swerves grow as fast as the eigenvalue says: by stepping the motion itself', () => {
    const free = { ...BODY, corneringThirdNPerRad: 0 };
    for (const v of [8, 15, 25]) {
      const m = linearModel(free, v, 1200);
      const [[a, b] = [], [c, d] = []] = m.stateMatrix as number[][];
      let [x, r] = [0.001, 0.001];
      const h = 1e-4;
      const twice = m.timeToDoubleS ?? Number.NaN;
      // Long enough for the faster part to have died, then one doubling.
      const size = (from: number, to: number) => {
        for (let t = from; t < to; t += h) {
          const f = (p: number, q: number) => [(a ?? 0) * p + (b ?? 0) * q, (c ?? 0) * p + (d ?? 0) * q] as const;
          const k1 = f(x, r);
          const k2 = f(x + (h / 2) * k1[0], r + (h / 2) * k1[1]);
          x += h * k2[0];
          r += h * k2[1];
        }
        return Math.abs(r);
      };
      const before = size(0, 3);
      expect(size(3, 3 + twice) / before).toBeCloseTo(2, 1);
    }
  });
  it('the band ends where the eigenvalue changes its sign, and a nosewheel has none', () => {
    const band = unstableBand({ ...BODY, corneringThirdNPerRad: 900 });
    expect(band.unstable).toBe(true);
    for (const [edge, inside] of [
      [band.fromMs ?? 0, 1.01],
      [band.toMs ?? 0, 0.99],
    ] as const) {
      const at = (v: number) => linearModel({ ...BODY, corneringThirdNPerRad: 900 }, v, 1200).lambdaMaxPerS ?? 0;
      expect(at(edge * inside)).toBeGreaterThan(0);
      expect(at(edge * (2 - inside))).toBeLessThan(0);
    }
    const nosewheel = { ...BODY, mainsXM: -0.3, thirdWheelXM: 1.3, corneringThirdNPerRad: 8000 };
    expect(unstableBand(nosewheel).unstable).toBe(false);
    for (let v = 2; v < 60; v += 2) expect(linearModel(nosewheel, v, 1700).stable).toBe(true);
  });
  it('at the fade speed what the rudder gives is what is needed; more wind or more reserve, more speed', () => {
    const f = rudderFade(FADE);
    const there = rudderFade({ ...FADE, groundSpeedKt: f.fadeAirspeedKt ?? 0 });
    expect(there.momentAvailableNm / there.momentNeededNm).toBeCloseTo(1, 6);
    expect(rudderFade({ ...FADE, crosswindKt: -9 }).fadeAirspeedKt).toBeCloseTo(f.fadeAirspeedKt ?? 0, 9);
    expect(rudderFade({ ...FADE, crosswindKt: 12 }).fadeAirspeedKt).toBeGreaterThan(f.fadeAirspeedKt ?? 0);
    expect(rudderFade({ ...FADE, reserveYawAccelDegS2: 20 }).fadeAirspeedKt).toBeGreaterThan(f.fadeAirspeedKt ?? 0);
    expect(rudderFade({ ...FADE, rudderMaxDeg: 0 })).toMatchObject({ fadeAirspeedKt: null, holds: false });
    // No wind at all, a reserve alone: q·fin·arm·τ·δ = I·r, by hand.
    const still = rudderFade({ ...FADE, crosswindKt: 0 }).fadeAirspeedKt ?? 0;
    const rad = Math.PI / 180;
    const q = ((1200 + 560 * 0.4 ** 2) * 10 * rad) / (1.1 * 2.5 * 4.6 * 0.5 * 25 * rad);
    expect(still * 0.514444).toBeCloseTo(Math.sqrt(q / 0.6), 4);
  });
  it('a speed is withheld where the rudder runs out before the tail may come down', () => {
    expect(fadeGuard(36.2, 38, null)).toBe('runs-out');
    expect(fadeGuard(36, 38, null)).toBe('printed');
    expect(fadeGuard(null, 38, null)).toBe('runs-out');
    expect(fadeGuard(30, 38, { crosswindKt: 12, modelHoldsKt: 7 })).toBe('contradicts-demonstrated');
    expect(fadeGuard(30, 38, { crosswindKt: 12, modelHoldsKt: 9 })).toBe('printed');
  });
});

describe('the touch', () => {
  it('the work of the gear is the energy of the sink', () => {
    const [mass, stroke, eta, fpm] = [600, 0.2, 0.6, 420];
    const n = touchLoad(fpm, stroke, eta) ?? 0;
    const v = (fpm * 0.3048) / 60;
    expect((n - 1) * mass * 9.80665 * eta * stroke).toBeCloseTo((mass * v * v) / 2, 8);
    expect(touchLoad(0, 0.2, 0.6)).toBe(1);
    expect(touchLoad(300, 0, 0.6)).toBeNull();
    expect(touchLoad(300, 0.2, 1.01)).toBeNull();
    expect(touchLoad(-1, 0.2, 0.6)).toBeNull();
    expect(touchLoad(300, 1e-6, 1)).toBeGreaterThan(1000);
  });
  it('a spring gives back no more than it took', () => {
    const r = springRebound(300, 1);
    expect(2 * 9.80665 * (r?.heightM ?? 0)).toBeCloseTo(((300 * 0.3048) / 60) ** 2, 9);
    expect(springRebound(300, 1.1)).toBeNull();
    expect(sideSpeed(50, 0).kt).toBe(0);
    expect(sideSpeed(50, -4).kt).toBe(-sideSpeed(50, 4).kt);
  });
  it('words change at their edges, by the type’s own where it has them', () => {
    expect([59.9, 60, 180, 360, 600, 600.1].map((s) => firmnessOf(s, null).word)).toEqual([
      'very-soft',
      'normal',
      'firm',
      'hard',
      'hard',
      'inspect',
    ]);
    expect(firmnessOf(250, [50, 120, 200, 240])).toEqual({ word: 'inspect', logIt: true, inspect: true });
    for (const unknown of [null, -5, Number.NaN]) expect(firmnessOf(unknown, null).word).toBeNull();
  });
});

describe('the slip', () => {
  const body = { massKg: 780, wingAreaM2: 16, cd0: 0.06, inducedK: 0.06, slipK: 0.5, airDensityKgM3: 1.2 };
  const hold = { tasKt: 50, sideslipMaxDeg: 15, cYBetaPerRad: -0.4, massKg: 780, wingAreaM2: 16, airDensityKgM3: 1.2 };
  it('without wind nothing is banked; the most that is held is just held', () => {
    expect(slipBank({ ...hold, crosswindKt: 0 })).toEqual({ sideslipDeg: 0, bankDeg: 0, held: true });
    const most = crosswindHeld(50, 15);
    expect(slipBank({ ...hold, crosswindKt: most - 0.01 }).held).toBe(true);
    expect(slipBank({ ...hold, crosswindKt: most + 0.01 }).held).toBe(false);
    expect(slipBank({ ...hold, crosswindKt: 51 })).toEqual({ sideslipDeg: null, bankDeg: null, held: false });
    const [l, r] = [-8, 8].map((crosswindKt) => slipBank({ ...hold, crosswindKt }).bankDeg ?? 0);
    expect(l).toBe(-(r ?? 0));
  });
  it('sinks as the polar does at best glide: V/(L/D), by hand', () => {
    const cl = Math.sqrt(0.06 / 0.06);
    const v = Math.sqrt((2 * 780 * 9.80665) / (1.2 * 16 * cl));
    const s = slipSink(body, v / 0.514444, 0);
    expect(s.sinkFpm).toBeCloseTo(((v * 0.12) / 0.3048) * 60, 6);
    expect(s.extraSinkFpm).toBe(0);
    // A turn of hardly any bank loses by the second what straight flight loses.
    const t = slipTurn(body, 60, { bankDeg: 0.5, turnDeg: 90, sideslipDeg: 8 });
    expect(t.sinkFpm).toBeCloseTo(slipSink(body, 60, 8).sinkFpm ?? 0, 0);
    expect(slipTurn(body, 60, { bankDeg: 90, turnDeg: 90, sideslipDeg: 0 }).heightLostFt).toBeNull();
  });
  it('the tip touches at the bank that leaves it nothing', () => {
    const wing = { tipHeightM: 1.2, semiSpanM: 5, halfTrackM: 1.1 };
    expect(tipClearance(-(tipClearance(0, wing).touchBankDeg ?? 0), wing).clearanceM).toBeCloseTo(0, 9);
    expect(tipClearance(5, { ...wing, semiSpanM: 1 }).touchBankDeg).toBeNull();
  });
});

describe('the slow approach', () => {
  const trials = (seed: number, n: number): SlowTrial[] => {
    const random = seeded(seed);
    return Array.from({ length: n }, (_, i) => {
      const speedKt = 34 + 20 * random();
      const powerShare = i % 3 === 0 ? 0 : i % 3 === 1 ? 0.3 : 0.5;
      const chance = 1 / (1 + Math.exp(-(speedKt - 42 + 6 * powerShare) / 1.3));
      return { speedKt, powerShare, arrested: random() < chance ? 'fully' : random() < 0.5 ? 'partly' : 'not' };
    });
  };
  const asked = { stallSpeedKt: 33, powerShare: 0.3, handbookSpeedKt: null, gustAdditiveKt: 0 };
  it('no coefficients near those it found are likelier, and its bound is the first that reaches 99 %', () => {
    for (const seed of [1, 2, 3, 4]) {
      const rows = trials(seed, 40);
      const fit = slowestApproach(rows, asked);
      const [b0, b1, b2] = fit.coefficients ?? [0, 0, 0];
      const z = rows.map((r) => [1, ((r.speedKt ?? 0) / 33 - 1.2) / 0.1, ((r.powerShare ?? 0) - 0.3) / 0.2] as const);
      const log = (b: readonly number[]) =>
        rows.reduce((a, r, i) => {
          const eta = (b[0] ?? 0) + (b[1] ?? 0) * (z[i]?.[1] ?? 0) + (b[2] ?? 0) * (z[i]?.[2] ?? 0);
          return a + (r.arrested === 'fully' ? eta : 0) - Math.log1p(Math.exp(eta));
        }, 0) -
        (b[0] ?? 0) ** 2 / 50 -
        (b[1] ?? 0) ** 2 / 12.5 -
        (b[2] ?? 0) ** 2 / 12.5;
      const best = log([b0, b1, b2]);
      for (const d of [-1e-3, 1e-3])
        for (const j of [0, 1, 2]) expect(log([b0, b1, b2].map((x, k) => (k === j ? x + d : x)))).toBeLessThan(best);
      // The bound by its own meaning: the fitted chance there is above 99 %, at the 99 % speed just that.
      const chance = (kt: number) => 1 / (1 + Math.exp(-(b0 + (b1 * (kt / 33 - 1.2)) / 0.1)));
      expect(chance(fit.speed99Kt ?? 0)).toBeCloseTo(0.99, 9);
      if (fit.lowerBoundSpeedKt !== null) expect(fit.lowerBoundSpeedKt).toBeGreaterThan(fit.speed99Kt ?? Infinity);
    }
  });
  it('more trials of the same come nearer to the fitted speed; gusts and the handbook raise the floor', () => {
    const few = slowestApproach(trials(9, 40), asked);
    const many = slowestApproach([...trials(9, 40), ...trials(9, 40), ...trials(9, 40)], asked);
    const gap = (f: typeof few) => (f.lowerBoundSpeedKt ?? Infinity) - (f.speed99Kt ?? 0);
    expect(gap(many)).toBeLessThan(gap(few));
    expect(slowestApproach(trials(9, 40), { ...asked, handbookSpeedKt: 53, gustAdditiveKt: 4 })).toMatchObject({
      floorKt: 57,
      governedBy: 'floor',
      trialResultKt: 57,
    });
  });
  it('what was not noted is no trial; slower that arrests better is no answer', () => {
    const blank = Array.from({ length: 30 }, (): SlowTrial => ({ speedKt: null, powerShare: 0, arrested: 'fully' }));
    expect(slowestApproach(blank, asked)).toMatchObject({ refused: true, reason: 'too-few-trials', trialsUsed: 0 });
    const upside = [40, 42, 44, 46, 48, 50].map((speedKt): SlowTrial => ({
      speedKt,
      powerShare: 0,
      arrested: speedKt < 45 ? 'fully' : 'not',
    }));
    expect(slowestApproach(upside, asked)).toMatchObject({ reason: 'speed-has-no-effect', trialResultKt: null });
    expect(loadNeeded(-100, 12)).toBe(1);
    expect(
      loadAvailable({ speedKt: 33, stallSpeedKt: 33, thrustToWeight: 0, powerLiftK: 1, elevatorLimitN: null }),
    ).toEqual({ nAvail: 1, limitedBy: 'wing' });
  });
});
