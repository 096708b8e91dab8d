import { describe, expect, it } from 'vitest';
import {
  discWash,
  footNeeded,
  groundRun,
  gyroMoment,
  linearModel,
  type Propeller,
  type RunInput,
  type RunPower,
  torqueRoll,
} from '@/core/ground';
import {
  LAB_MODELS,
  type LabDay,
  type LabSheetData,
  footForSwing,
  fromAddress,
  fromFindingWords,
  held,
  labOfFinding,
  labWords,
  readTrials,
  rollOutSpeed,
  writeTrials,
} from '@/core/lab';
import { MEASURE_WORDS, missingFor, GROUND_NEEDS } from '@/core/sheet';
import { sideSeen } from '@/core/sightpicture';
import { crosswindStations, decrabDrift, finalTurn } from '@/core/slip';
import { nextTrial, slowSink, slowestApproach, stopHeight } from '@/core/slowapproach';
import { type BounceInput, bounce } from '@/core/touchdown';
import { planLadder, taxiControls } from '@/core/wind';
import { Figure, LabNote } from '@/domain/lab';
import { LAB_PAGES } from '@/domain/lab-pages';
import { types } from '@demo/fleet';
import { seeded } from '@demo/random';

const DAY: LabDay = {
  rhoKgM3: 1.225,
  crosswindKt: 0,
  gustKt: null,
  runwayWidthM: 18,
  runwayIdent: '22',
  circuitHeightFt: 1000,
  windWords: null,
  limits: [{ name: 'school limit', kt: 12 }],
  eyeHeightM: null,
};
const of = (code: string): LabSheetData => {
  const found = types.find((t) => t.code === code);
  if (!found) throw new Error(code);
  return found;
};

const BODY: RunInput['body'] = {
  massKg: 560,
  mainsXM: 0.42,
  thirdWheelXM: -4.28,
  corneringMainsNPerRad: 42_000,
  corneringThirdNPerRad: 1600,
  finAreaM2: 1.15,
  finArmM: 4.1,
  finLiftSlopePerRad: 2.6,
  airDensityKgM3: 1.225,
  yawInertiaKgM2: 1400,
  trackM: 1.86,
  cgHeightM: 1.05,
  rudderEffectiveness: 0.55,
  rudderMaxDeg: 25,
  bodySideAreaM2: 0,
  bodySideSlopePerRad: 0,
  bodyCentreXM: 0,
  steerDeg: 25,
  stallSpeedMs: 18,
  dragAreaM2: 0,
};
const RUN: RunInput = {
  body: BODY,
  groundSpeedMs: 14,
  crosswindMs: 0,
  headwindMs: 0,
  swerveDeg: 2,
  grip: { left: 0.7, right: 0.7 },
  rollingFriction: 0,
  thirdDown: false,
  liftShare: 0,
  brake: 0,
  gust: { fromS: 0, toS: 0, ms: 0 },
  pilot: { feet: 'none', firstFootS: 0, delayS: 0.2, brakesForDirection: false },
  forS: 3,
  stepS: 0.005,
  halfWidthM: 9,
};

describe('a roll on the runway', () => {
  it('grows, while it is small, as the linear model says', () => {
    const small = { ...RUN, swerveDeg: 0.01, forS: 2.4 };
    const { states } = groundRun(small);
    const twice = linearModel({ ...BODY, corneringThirdNPerRad: 0 }, 14, 1400).timeToDoubleS ?? 0;
    const at = (t: number) => states.reduce((a, s) => (Math.abs(s.tS - t) < Math.abs(a.tS - t) ? s : a)).yawRateDegS;
    // Long enough for the faster part to have died.
    expect(at(1 + twice) / at(1)).toBeCloseTo(2, 1);
  });
  it('stays on the line with nothing to disturb it, and is the same to both sides', () => {
    expect(groundRun({ ...RUN, swerveDeg: 0 }).farthestM).toBe(0);
    const [left, right] = [groundRun({ ...RUN, swerveDeg: -2 }), groundRun(RUN)];
    expect(left.farthestM).toBeCloseTo(right.farthestM, 9);
    expect(left.loop?.atS).toBe(right.loop?.atS);
  });
  it('loses no energy to tyres that do not slip and gains none', () => {
    const { states } = groundRun({ ...RUN, swerveDeg: 0 });
    expect(states[states.length - 1]?.speedMs).toBeCloseTo(14, 9);
    // Sliding takes energy, and never gives any back.
    const speeds = groundRun(RUN).states.map((s) => s.speedMs);
    speeds.slice(1).forEach((v, i) => expect(v).toBeLessThanOrEqual((speeds[i] ?? 0) + 1e-6));
  });
  it('a step half as long changes where it ends by less than half a per cent', () => {
    for (const thirdDown of [true, false]) {
      const so = { ...RUN, thirdDown, rollingFriction: 0.03, liftShare: 0.6, forS: 1.6 };
      const [a, b] = [groundRun(so), groundRun({ ...so, stepS: 0.0025 })];
      expect(Math.abs(a.farthestM - b.farthestM)).toBeLessThan(0.005 * b.farthestM);
      expect(Math.abs(a.greatestHeadingDeg - b.greatestHeadingDeg)).toBeLessThan(0.005 * b.greatestHeadingDeg);
    }
  });
  it('with the wheels behind the centre of gravity it dies by itself', () => {
    const nose = groundRun({ ...RUN, body: { ...BODY, mainsXM: -0.25, thirdWheelXM: 1.3 }, forS: 4 });
    expect(Math.abs(nose.states[nose.states.length - 1]?.headingDeg ?? 9)).toBeLessThan(0.5);
    expect(groundRun({ ...RUN, forS: 4 }).loop).not.toBeNull();
  });
  it('an earlier foot is never farther off than a late one that fails', () => {
    const foot = (firstFootS: number) =>
      groundRun({
        ...RUN,
        groundSpeedMs: 17,
        rollingFriction: 0.03,
        forS: 3,
        pilot: { ...RUN.pilot, feet: 'strokes', firstFootS },
      });
    expect(foot(0.2).loop).toBeNull();
    expect(foot(2).loop).not.toBeNull();
    expect(foot(0.2).farthestM).toBeLessThan(foot(2).farthestM);
  });
});

const PROPELLER: Propeller = {
  powerW: 70_000,
  turns: 1,
  count: 1,
  diameterM: 1.85,
  speedRadS: 246,
  inertiaKgM2: 1.1,
};
const TAKE_OFF: RunInput = {
  ...RUN,
  groundSpeedMs: 2,
  swerveDeg: 0,
  thirdDown: true,
  forS: 20,
  pilot: { ...RUN.pilot, feet: 'strokes' },
  power: {
    propeller: PROPELLER,
    overS: 3,
    finInWash: 0.6,
    attitudeDeg: 12,
    raise: { atMs: 11, overS: 1.5 },
    liftShareUp: 0,
    footLeads: true,
    untilMs: 20,
  },
};
const powered = (more: Partial<RunPower>, rest: Partial<RunInput> = {}): RunInput => {
  if (!TAKE_OFF.power) throw new Error('no power');
  return { ...TAKE_OFF, ...rest, power: { ...TAKE_OFF.power, ...more } };
};
const noFeet = { pilot: { ...RUN.pilot, feet: 'none' as const } };
const end = (i: RunInput) => groundRun(i).states.at(-1);

describe('a take-off', () => {
  it('the wash carries the power and the torque that are put into it', () => {
    for (const V of [0, 8, 25]) {
      const w = discWash(PROPELLER, V, 1.1);
      const v = (w.washMs - V) / 2;
      expect(w.thrustN * (V + v)).toBeCloseTo(0.6 * 70_000, 3);
      const flow = 1.1 * Math.PI * (1.85 / 2) ** 2 * (V + v);
      const around = w.washMs * Math.tan((w.swirlDeg * Math.PI) / 180);
      expect(flow * around * (2 / 3) * (1.85 / 2)).toBeCloseTo(70_000 / 246, 6);
    }
    // Standing, by the closed form: T = (2·ρ·A·P²)^(1/3).
    const area = Math.PI * (1.85 / 2) ** 2;
    expect(discWash(PROPELLER, 0, 1.1).thrustN).toBeCloseTo(Math.cbrt(2 * 1.1 * area * 42_000 ** 2), 3);
  });
  it('begins with thrust over mass', () => {
    const i = powered({ overS: 0, propeller: { ...PROPELLER, turns: 0 } }, noFeet);
    const [a, b] = [groundRun(i).states[0], groundRun(i).states[10]];
    const thrustN = discWash(PROPELLER, 2, 1.225).thrustN;
    expect((((b?.speedMs ?? 0) - (a?.speedMs ?? 0)) / 0.2) * 560).toBeGreaterThan(0.95 * thrustN);
    expect((((b?.speedMs ?? 0) - (a?.speedMs ?? 0)) / 0.2) * 560).toBeLessThan(thrustN);
  });
  it('runs straight with nothing that turns, and the same to the other side with all of it turned round', () => {
    expect(groundRun(powered({ propeller: { ...PROPELLER, turns: 0 } }, noFeet)).farthestM).toBe(0);
    // Pressure that follows: a stroke is made or not made at an edge.
    const pilot = { ...TAKE_OFF.pilot, feet: 'continuous' as const };
    const [a, b] = [
      end(powered({}, { crosswindMs: 3, forS: 6, pilot })),
      end(powered({ propeller: { ...PROPELLER, turns: -1 } }, { crosswindMs: -3, forS: 6, pilot })),
    ];
    expect(a?.yM).toBeCloseTo(-(b?.yM ?? 9), 9);
    expect(a?.pedal).toBeCloseTo(-(b?.pedal ?? 9), 9);
  });
  it('swings to the left of a clockwise propeller without a foot, and less when it leads than when it follows', () => {
    expect(end(powered({}, { ...noFeet, forS: 3 }))?.headingDeg).toBeLessThan(-1);
    const swing = (footLeads: boolean) => groundRun(powered({ footLeads })).greatestHeadingDeg;
    expect(swing(true)).toBeLessThan(swing(false));
  });
  it('the foot that is asked for leaves nothing over', () => {
    // Held by a foot that knows, a calm run hardly leaves the line; the tail coming up adds its own swing.
    const i = powered({ raise: null, overS: 0 });
    expect(groundRun(i).greatestHeadingDeg).toBeLessThan(1);
    const [still, rising] = [footNeeded(i, 11, 1, 0.5), footNeeded(i, 11, 1, 0.5, 8)];
    expect(still).toBeGreaterThan(0);
    expect(rising).toBeGreaterThan(still);
    expect(gyroMoment(8, PROPELLER)).toBeCloseTo(-(1.1 * 246 * 8 * Math.PI) / 180, 9);
    expect(footNeeded({ ...i, crosswindMs: -3 }, 11, 1, 1)).toBeGreaterThan(footNeeded(i, 11, 1, 1));
  });
  it('a step half as long ends in the same place', () => {
    const so = powered({}, { crosswindMs: 3, rollingFriction: 0.03 });
    const [a, b] = [groundRun(so), groundRun({ ...so, stepS: 0.0025 })];
    expect(a.states.at(-1)?.tS).toBeCloseTo(b.states.at(-1)?.tS ?? 0, 1);
    expect(Math.abs(a.farthestM - b.farthestM)).toBeLessThan(0.005 * Math.max(1, b.farthestM));
  });
  it('full power from a bounce rolls: at first by torque over inertia, at last as fast as the wing lets it', () => {
    const body = { rollInertiaKgM2: 6000, wingAreaM2: 22, spanM: 11.3, airDensityKgM3: 1.225, airspeedMs: 45 };
    const first = torqueRoll(body, 7000, 0, 0.05);
    expect(first.bankDeg).toBeCloseTo(((0.5 * 7000) / 6000) * 0.05 ** 2 * (180 / Math.PI), 2);
    // Steady: q·S·b·0.45·(p·b / 2V) = Q, by hand 0.2195 rad/s.
    const d = 0.5 * 1.225 * 45 ** 2 * 22 * 11.3 * 0.45 * (11.3 / 90);
    expect(torqueRoll(body, 7000, 0, 8).rateDegS).toBeCloseTo(((7000 / d) * 180) / Math.PI, 3);
    expect(torqueRoll(body, 7000, 3, 1.5).bankDeg).toBeLessThan(0.5 * torqueRoll(body, 7000, 0, 1.5).bankDeg);
    expect(torqueRoll(body, -7000, 0, 1).bankDeg).toBeCloseTo(-torqueRoll(body, 7000, 0, 1).bankDeg, 9);
  });
});

const LANDING: BounceInput = {
  body: {
    massKg: 560,
    pitchInertiaKgM2: 890,
    mainsXM: 0.42,
    thirdXM: -4.28,
    groundPitchDeg: 12,
    cgHeightM: 1.05,
    strokeM: 0.17,
    efficiency: 0.5,
    restitution: 0.6,
    wingAreaM2: 16.2,
    spanM: 10.7,
    stallSpeedMs: 18,
    dragAreaM2: 1,
    airDensityKgM3: 1.225,
  },
  pitchDeg: 4,
  speedMs: 21.6,
  sinkFpm: 180,
  hands: 'hold',
  delayS: 0.3,
  power: { fromS: 9, thrustToWeight: 0 },
  forS: 5,
  stepS: 0.002,
};
describe('a landing through its bounces', () => {
  it('without a wing a spring under the centre of gravity throws it back as the rebound says, a damper less', () => {
    // No airspeed, so no lift; mains at the centre of gravity: at most e²v²/(2g) of the sink at the touch.
    const hop = (restitution: number) =>
      bounce({
        ...LANDING,
        body: { ...LANDING.body, mainsXM: 0.0001, restitution },
        speedMs: 0.5,
        sinkFpm: 480,
        forS: 3,
      }).contacts[0]?.hopFt ?? 0;
    const v = 480 / (60 / 0.3048);
    const most = (e: number) => (e ** 2 * v ** 2) / (2 * 9.80665) / 0.3048;
    expect(hop(0.97) / most(0.97)).toBeGreaterThan(0.9);
    expect(hop(0.97) / most(0.97)).toBeLessThan(1.02);
    expect(hop(0.6)).toBeLessThan(most(0.6));
    expect(hop(0.8)).toBeGreaterThan(hop(0.6));
  });
  it('weight forward as the wheels are felt hops less than holding, a pull more, and a push ends harder', () => {
    const spring = { ...LANDING, body: { ...LANDING.body, restitution: 0.7 }, sinkFpm: 300 };
    const run = (hands: BounceInput['hands']) => bounce({ ...spring, hands });
    expect(run('ease-right').highestFt).toBeLessThan(run('hold').highestFt);
    expect(run('pull').highestFt).toBeGreaterThan(run('hold').highestFt);
    const second = (hands: BounceInput['hands']) => run(hands).contacts[1]?.sinkFpm ?? 0;
    expect(second('push')).toBeGreaterThan(second('hold'));
  });
  it('the same touch throws a tailwheel type higher than a nosewheel type', () => {
    const nose = { ...LANDING.body, mainsXM: -0.25, thirdXM: 1.3, groundPitchDeg: 3 };
    expect(bounce({ ...LANDING, body: nose }).highestFt).toBeLessThan(bounce(LANDING).highestFt);
  });
  it('a step half as long changes the first touch and its hop by less than half a per cent', () => {
    const [a, b] = [bounce(LANDING), bounce({ ...LANDING, stepS: 0.001 })];
    expect(Math.abs((a.contacts[0]?.sinkFpm ?? 0) / (b.contacts[0]?.sinkFpm ?? 1) - 1)).toBeLessThan(0.005);
  });
});

describe('crosswind, slip and turn', () => {
  it('drifts as its equation of motion stepped does', () => {
    const body = { cYBetaPerRad: -0.45, massKg: 560, wingAreaM2: 16.2, airDensityKgM3: 1.225 };
    const d = decrabDrift({ tasKt: 55, crosswindKt: 10, heightFt: 12, sinkFpm: 150, bankDeg: 2, ...body });
    let [y, v] = [0, 0];
    const V = 55 * 0.514444;
    const w = 10 * 0.514444;
    const k = (0.5 * 1.225 * V * 16.2 * 0.45) / 560;
    for (let t = 0; t < d.secondsToTouch; t += 1e-4) {
      v += (k * (w - v) - 9.80665 * Math.sin((2 * Math.PI) / 180)) * 1e-4;
      y += v * 1e-4;
    }
    expect(d.driftM).toBeCloseTo(y, 2);
    expect(d.driftKt).toBeCloseTo(v / 0.514444, 2);
  });
  it('asks for nothing without wind, and for the same in a wind from either side', () => {
    const still = {
      tasKt: 55,
      crosswindKt: 0,
      cYBetaPerRad: -0.45,
      massKg: 560,
      wingAreaM2: 16.2,
      airDensityKgM3: 1.2,
    };
    const set = { ...still, slipFromFt: 50, sideslipMaxDeg: 16, aileronInSlip: 0.5 };
    for (const s of crosswindStations([300, 0], set))
      expect([s.crabDeg, s.bankDeg, s.rudderShare, s.aileronShare]).toEqual([0, 0, 0, 0]);
    expect(crosswindStations([0], { ...set, crosswindKt: -9 })).toEqual(
      crosswindStations([0], { ...set, crosswindKt: 9 }),
    );
  });
  it('with the ball centred both wings are near the stall of the turn; a skid stalls the inner one first', () => {
    const turn = { casKt: 58, bankDeg: 60, stallCasKt: 40, spanM: 0.001, sideslipMaxDeg: 16, aileronInSlip: 0.5 };
    const straight = finalTurn({ ...turn, skid: 0 });
    expect(straight?.inner.stallsAtCasKt).toBeCloseTo(40 * Math.SQRT2, 3);
    expect(straight?.outer.stallsAtCasKt).toBeCloseTo(40 * Math.SQRT2, 3);
    const real = { ...turn, bankDeg: 25, spanM: 10.7 };
    expect(finalTurn({ ...real, skid: 0.6 })).toMatchObject({ first: 'inner', rolls: 'under' });
    expect(finalTurn({ ...real, skid: -0.6 })).toMatchObject({ first: 'outer', rolls: 'over', rollAwayDeg: 25 });
  });
  it('holds the controls into a wind ahead and away from one behind, by the air over the aeroplane', () => {
    const at = (windFromDeg: number, windKt = 15, layout: 'tailwheel' | 'nosewheel' = 'tailwheel', taxiKt = 5) => {
      const c = taxiControls({ windFromDeg, windKt, taxiKt, layout });
      return `${c.aileronUp} ${c.elevator}`;
    };
    expect(at(45)).toBe('right aft');
    expect(at(-45)).toBe('left aft');
    expect(at(-45, 15, 'nosewheel')).toBe('left neutral');
    expect(at(135)).toBe('left forward');
    expect(at(-135)).toBe('right forward');
    expect(at(180)).toBe('neutral forward');
    // Four knots behind at ten of taxi are six ahead.
    expect(at(180, 4, 'tailwheel', 10)).toBe('neutral aft');
  });
  it('sees the runway abeam at the angle of a right triangle, and on the part it lies on', () => {
    const view = {
      profile: [
        { azimuthDeg: 0, depressionDeg: 6 },
        { azimuthDeg: 90, depressionDeg: 45 },
      ],
      parts: [
        { name: 'strut', from: { azimuthDeg: -90, depressionDeg: 0 }, to: { azimuthDeg: -90, depressionDeg: 40 } },
      ],
      pitchDeg: 0,
    };
    // 1000 m beside and 1000 m over it: 45°; at 500 m below it: 26.565°.
    const seen = sideSeen(view, { heightFt: 500 / 0.3048, spacingM: 1000, side: 'left', bankDeg: 0 });
    expect(seen?.belowDeg).toBeCloseTo(26.565, 2);
    expect(seen?.part).toMatchObject({ name: 'strut' });
    expect(seen?.part?.share).toBeCloseTo(26.565 / 40, 3);
    // Banked towards it by 30° it comes up in the window by as much.
    const banked = sideSeen(view, { heightFt: 500 / 0.3048, spacingM: 1000, side: 'left', bankDeg: -30 });
    expect(banked?.bodyDepressionDeg).toBeCloseTo(26.565 - 30, 2);
  });
});

describe('the slow approach', () => {
  const ESTEVA = {
    massKg: 900,
    wingAreaM2: 17.6,
    cd0: 0.11,
    inducedK: 0.05,
    airDensityKgM3: 1.225,
    stallTasKt: 37,
    powerHp: 180,
    propEfficiency: null,
    staticThrustN: 3300,
    powerLiftK: 1.2,
    elevatorLimitN: 1.45,
  };
  it('sinks by drag over weight without thrust, by hand', () => {
    const v = 45 * 0.514444;
    const q = 0.5 * 1.225 * v * v * 17.6;
    const cl = (900 * 9.80665) / q;
    const hand = (v * q * (0.11 + 0.05 * cl * cl)) / (900 * 9.80665);
    expect(slowSink(ESTEVA, 45, 0).sinkFpm).toBeCloseTo((hand * 60) / 0.3048, 6);
    expect(slowSink(ESTEVA, 45, 0.4).sinkFpm).toBeLessThan(slowSink(ESTEVA, 45, 0).sinkFpm);
  });
  it('needs more height after a stop the slower and the more dragged it is flown', () => {
    const at = (kt: number, power: number) => stopHeight(ESTEVA, kt, power).heightFt ?? Infinity;
    expect(at(40, 0.3)).toBeGreaterThan(at(50, 0.3));
    expect(at(44, 0.4)).toBeGreaterThanOrEqual(at(44, 0));
  });
  it('proposes trials that lead to an answer, whatever aeroplane answers them', () => {
    const random = seeded(20261202);
    for (const begins of [38, 40, 42]) {
      const asked = { stallSpeedKt: 33, powerShare: 0.2, handbookSpeedKt: null, gustAdditiveKt: 0 };
      let trials: Parameters<typeof slowestApproach>[0] = [];
      let flown = 0;
      for (let next = nextTrial(trials, asked); next && flown < 45; next = nextTrial(trials, asked), flown++) {
        const needs = begins - 8 * next.powerShare + (random() - 0.5);
        const arrested = next.speedKt >= needs ? 'fully' : 'not';
        trials = [...trials, { speedKt: next.speedKt, powerShare: next.powerShare, arrested }];
      }
      const fit = slowestApproach(trials, asked);
      expect(fit.refused, `${begins} kt: ${fit.reason} after ${flown}`).toBe(false);
      expect(fit.trialResultKt).toBeGreaterThan(begins - 1.6);
    }
  });
  it('keeps trials in an address and reads nothing else out of one', () => {
    const text = '46-30-f_44.5-0-p_43-0-n';
    expect(writeTrials(readTrials(text))).toBe(text);
    expect(readTrials('x_1-2_46-300-f_-5-0-f_46-30-z_<b>')).toEqual([]);
  });
});

describe('every type opens every page that applies to it', () => {
  for (const sheet of types)
    for (const page of LAB_PAGES) {
      const model = LAB_MODELS[page];
      it(`${sheet.code}: ${page}`, () => {
        if (!model.applies(sheet)) return;
        const missing = model.missing(sheet);
        // The view from the P1R was never measured, on purpose; the page says what to measure.
        if (missing.length > 0) {
          expect([sheet.code, page]).toEqual(['planalto-p1r', 'side-picture']);
          expect(missing.every((m) => m.how.length > 10)).toBe(true);
          return;
        }
        const random = seeded(page.length * 1000 + sheet.code.length);
        const start = model.start(sheet, DAY);
        const parameters = model.parameters(sheet);
        // It starts within what it offers.
        expect(start).toMatchObject(held(parameters, start, start));
        for (let n = 0; n < 6; n++) {
          const settings = n === 0 ? start : Object.fromEntries(parameters.map((p) => [p.key, any(p, random)]));
          const r = model.compute(sheet, held(parameters, start, settings), DAY, types[0] ?? null);
          expect(Figure.safeParse(r.figure).success, JSON.stringify(settings)).toBe(true);
          const last = r.frames[r.frames.length - 1];
          const note = {
            id: 'x',
            page,
            query: 'type=a&b=1',
            of: sheet.name,
            answer: labWords(r.answer),
            facts: r.facts.map((f) => ({ name: f.name, value: f.value, source: null, ref: '' })),
            figure: {
              ...r.figure,
              shapes: [...r.figure.shapes, ...(last?.shapes ?? [])],
              texts: [...r.figure.texts, ...(last?.texts ?? [])],
            },
          };
          expect(LabNote.safeParse(note).error?.issues ?? [], JSON.stringify(settings)).toEqual([]);
          const text = [r.answer, ...r.why, ...r.assumed].map(labWords).join(' ') + JSON.stringify(r.table);
          expect(text).not.toMatch(/NaN|Infinity|undefined|null/);
          expect(r.why.length).toBeGreaterThan(0);
          expect(r.why.length).toBeLessThanOrEqual(3);
        }
      });
    }
  const any = (p: ReturnType<(typeof LAB_MODELS)['ground']['parameters']>[number], random: () => number) =>
    p.kind === 'text'
      ? '46-30-f_44-0-n'
      : p.kind === 'choice'
        ? (p.options[Math.floor(random() * p.options.length)]?.[0] ?? '')
        : p.min + p.step * Math.round((random() * (p.max - p.min)) / p.step);
});

describe('the ladder over the coming lessons', () => {
  const ladder = { provenKt: 5, ladderKt: 8 };
  const states = (winds: (number | null)[], limit: number | null = null) =>
    planLadder(ladder, 3, limit, winds).map((l) => l.state);
  it('climbs by what is flown, waits for what is not known, never passes a limit', () => {
    expect(planLadder(ladder, 3, null, [7, 10, null, 12])).toEqual([
      { state: 'step', provenKt: 5, mostKt: 8 },
      { state: 'step', provenKt: 7, mostKt: 10 },
      { state: 'not-known', provenKt: 10, mostKt: 13 },
      { state: 'step', provenKt: 10, mostKt: 13 },
    ]);
    expect(states([9, 5, -8, 11])).toEqual(['above', 'proven', 'step', 'step']);
    expect(states([7, 10], 8)).toEqual(['step', 'above']);
    // Nothing lost by a calm day: what was allowed stays allowed.
    expect(states([0, 8])).toEqual(['proven', 'step']);
  });
});

describe('settings and findings', () => {
  it('an address outside what a page offers is brought inside it', () => {
    const urze = of('serrana-urze');
    const model = LAB_MODELS.ground;
    const [parameters, start] = [model.parameters(urze), model.start(urze, DAY)];
    const s = held(parameters, start, { speed: 1e9, xw: 'x', feet: 'constructor', foot: -4 });
    expect(s).toMatchObject({ speed: 47, xw: 0, feet: 'strokes', foot: 0 });
  });
  it('a model whose number is missing says how it is measured', () => {
    const d = { ...of('serrana-urze').dynamics, yawInertiaKgM2: null };
    expect(missingFor(d, GROUND_NEEDS).map((m) => [m.key, m.how.code])).toEqual([['yawInertiaKgM2', 'yawInertiaKgM2']]);
    expect(Object.values(MEASURE_WORDS).every((say) => say().length > 10)).toBe(true);
  });
  it('a finding sets its page with the median of what was measured, and says when nothing was', () => {
    const l = (crabDeg: number | null, sinkFpm: number | null = null) => ({ crabDeg, sinkFpm, swingDeg: null });
    expect(labOfFinding('crab-left', [l(-3), l(-4.4), l(-9), l(null)])).toEqual({
      page: 'touch',
      settings: { crab: 4 },
      from: { code: 'crab', params: { deg: 4, landings: 3 } },
    });
    expect(labOfFinding('bounces', [l(1)])?.from?.code).toBe('not-measured');
    expect(labOfFinding('constructor', [])).toBeNull();
    const said = fromAddress('crab-left', { crab: '4', of: '3' });
    expect(said && fromFindingWords(said)).toBe('4\u00b0 of crab: the median of 3 measured landings.');
    expect(fromAddress('crab-left', { crab: '<b>', of: '3' })?.code).toBe('not-measured');
    expect(fromAddress('toString', {})).toBeNull();
  });
  it('the foot that makes a measured swing makes it, and one earlier does not', () => {
    const sheet = of('serrana-urze');
    const start = { ...LAB_MODELS.ground.start(sheet, DAY), steering: 'free', speed: rollOutSpeed(sheet) };
    const foot = footForSwing(sheet, start, DAY, 15);
    expect(foot).not.toBeNull();
    expect(foot).toBeGreaterThan(0);
    expect(footForSwing(sheet, start, DAY, 8) ?? 9).toBeLessThanOrEqual(foot ?? 0);
  });
});
