import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { types } from '@demo/fleet';
import { type PlateauInput, deceleration, scheduleFindings, slopeLights, speedPlateaus } from '@/core/approach';
import { electricalTimeline } from '@/core/electrical';
import { type Flown, glide, polarFromGlide, powered } from '@/core/energy';
import { bsfcFlow, circuitsThatFit, endurance } from '@/core/fuel';
import { NO_DATA_WORDS, runwayNeeded, tableDistance } from '@/core/runway';
import { sheetCas, sheetPolar } from '@/core/sheet';

const rho = 1.225;
const polar = polarFromGlide({ ldMax: 9, bestGlideKt: 70, massKg: 900, wingAreaM2: 15, rhoKgM3: rho });
const at = (tasKt: number, more: Partial<Flown> = {}): Flown => ({
  polar,
  massKg: 900,
  wingAreaM2: 15,
  rhoKgM3: rho,
  tasKt,
  deltaCd0: [],
  ...more,
});

describe('the polar', () => {
  it('glides best at its best glide speed, with its best glide ratio', () => {
    expect(glide(at(70)).glideRatio).toBeCloseTo(9, 6);
    for (const kt of [45, 60, 80, 100]) expect(glide(at(kt)).glideRatio).toBeLessThan(9);
    for (const t of types) {
      const p = sheetPolar(t);
      const best = glide({
        polar: p,
        massKg: t.masses.refMassKg,
        wingAreaM2: t.wing.areaM2.value,
        rhoKgM3: rho,
        tasKt: sheetCas(t, t.speeds.bestGlide.value),
        deltaCd0: [],
      });
      expect(best.glideRatio).toBeCloseTo(t.wing.bestGlideRatio.value, 6);
    }
  });
  it('sinks faster in a turn, with flap, and in a slip', () => {
    const straight = glide(at(70)).sinkFpm ?? 0;
    expect(glide(at(70), { loadFactor: Math.SQRT2, kBeta: 0, sideslipDeg: 0 }).sinkFpm).toBeGreaterThan(straight * 1.4);
    expect(glide(at(70, { deltaCd0: [0.05] })).sinkFpm).toBeGreaterThan(straight);
    expect(glide(at(70), { loadFactor: 1, kBeta: 0.4, sideslipDeg: -15 }).sinkFpm).toBeGreaterThan(straight);
    expect(glide(at(300, { deltaCd0: [0.9] }))).toMatchObject({ sinkFpm: null, descentAngleDeg: null });
  });
  it('climbs with power, no better than its static thrust allows', () => {
    const full = powered(at(70), { powerHp: 180, eta: null, staticThrustN: null });
    expect(full.verticalSpeedFpm).toBeGreaterThan(500);
    expect(powered(at(30), { powerHp: 180, eta: 0.8, staticThrustN: 2500 }).thrustN).toBe(2500);
    expect(powered(at(70), { powerHp: 0, eta: null, staticThrustN: null }).verticalSpeedFpm).toBeCloseTo(
      -(glide(at(70)).sinkFpm ?? 0),
      6,
    );
  });
});

describe('slowing down between gates', () => {
  const base = {
    v1Kt: 90,
    v2Kt: 75,
    distanceM: 1500,
    heightLossFt: 300,
    headwindKt: 0,
    polar,
    deltaCd0: [],
    massKg: 900,
    wingAreaM2: 15,
    rhoKgM3: rho,
  };
  it('is easier with drag, room and headwind; harder on a steeper path', () => {
    const spare = (more: Partial<typeof base>) => {
      const d = deceleration({ ...base, ...more });
      return (d.availableMs2 ?? 0) - (d.neededMs2 ?? 0);
    };
    const plain = spare({});
    expect(spare({ deltaCd0: [0.06] as never })).toBeGreaterThan(plain);
    expect(spare({ distanceM: 2500 })).toBeGreaterThan(plain);
    expect(spare({ headwindKt: 15 })).toBeGreaterThan(plain);
    expect(spare({ heightLossFt: 450 })).toBeLessThan(plain);
  });
  it('says where to begin, never nearer than physics allows', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 400, max: 4000, noNaN: true }),
        fc.double({ min: 0, max: 500, noNaN: true }),
        fc.double({ min: -10, max: 25, noNaN: true }),
        (distanceM, heightLossFt, headwindKt) => {
          const d = deceleration({ ...base, distanceM, heightLossFt, headwindKt });
          if (d.latestStartM !== null && d.canSlow !== null) {
            expect(d.comfortableStartM).toBeCloseTo(1.2 * d.latestStartM, 6);
            if (d.canSlow === 'yes') expect(d.latestStartM).toBeLessThanOrEqual(distanceM / 1.2 + 1e-6);
            if (d.canSlow === 'no') expect(d.latestStartM).toBeGreaterThan(distanceM - 1e-6);
          }
        },
      ),
    );
    expect(deceleration({ ...base, v2Kt: 95 })).toMatchObject({ canSlow: 'yes', latestStartM: 0 });
    expect(deceleration({ ...base, headwindKt: 85 })).toMatchObject({ timeS: null, canSlow: null });
  });
  it('finds nothing in a sound schedule and something in each broken one', () => {
    const gate = (name: string, distanceM: number, heightFt: number, targetKt: number, flapDeg: number) => ({
      name,
      distanceM,
      heightFt,
      targetKt,
      flapDeg,
      gear: 'fixed' as const,
      targetCasKt: targetKt,
      vsCasKt: 45,
      sanctionedRatio: null,
    });
    const sound = {
      gates: [gate('a', 3000, 800, 80, 0), gate('b', 1000, 300, 70, 20), gate('c', 0, 50, 62, 20)],
      vfe: [{ flapDeg: 20, vfeKt: 85 }],
      vloExtendKt: null,
      vleKt: null,
      school: 'reducing' as const,
      slopeMinDeg: 2,
      slopeMaxDeg: 7,
      bankDeg: 20,
    };
    expect(scheduleFindings(sound)).toEqual([]);
    expect(scheduleFindings({ ...sound, vfe: [{ flapDeg: 20, vfeKt: 65 }] }).map((f) => `${f.gate} ${f.code}`)).toEqual(
      ['1 flapAboveLimit'],
    );
    expect(scheduleFindings({ ...sound, vfe: [] }).map((f) => f.code)).toEqual(['flapNoLimit', 'flapNoLimit']);
    expect(scheduleFindings({ ...sound, bankDeg: 65 }).map((f) => f.code)).toContain('stallMarginBank');
  });
});

describe('a falling speed', () => {
  const samples = (speed: (t: number) => number, seconds = 30, step = 0.25): PlateauInput['samples'] =>
    Array.from({ length: Math.floor(seconds / step) + 1 }, (_, i) => ({ tS: i * step, speedKt: speed(i * step) }));
  const judge = (s: PlateauInput['samples'], more: Partial<PlateauInput> = {}) =>
    speedPlateaus({
      samples: s,
      finalSpeedKt: 80,
      scheduledRateKtS: 0.6,
      resolutionKt: 0,
      gustSpreadKt: 0,
      airData: true,
      ...more,
    });
  it('that falls is no plateau; one that settles is, and says where', () => {
    expect(judge(samples((t) => 105 - 0.6 * t)).status).toBe('none');
    const held = judge(samples((t) => (t < 10 ? 105 - 0.6 * t : 99)));
    expect(held.status).toBe('plateau');
    // The eight-second window that first falls too slowly reaches back before the speed settled at 10 s.
    expect(held.plateaus[0]?.startS).toBeGreaterThan(5);
    expect(held.plateaus[0]?.startS).toBeLessThan(10);
    expect(held.plateaus[0]?.endS).toBe(30);
  });
  it('is not judged below the final speed, without air data, or too seldom sampled', () => {
    expect(judge(samples(() => 79)).status).toBe('none');
    expect(
      judge(
        samples(() => 99),
        { airData: false },
      ).status,
    ).toBe('not-seen');
    expect(judge(samples(() => 99, 30, 1)).status).toBe('not-seen');
    expect(judge(samples(() => 99, 5)).status).toBe('not-seen');
  });
  it('is given more room by gusts and a coarse indicator', () => {
    const slow = samples((t) => 105 - 0.15 * t);
    expect(judge(slow).status).toBe('plateau');
    expect(judge(slow, { resolutionKt: 1, gustSpreadKt: 6 }).status).toBe('none');
  });
});

describe('slope lights', () => {
  it('go from four red to four white as the path steepens', () => {
    const whites = [1.5, 2.7, 3, 3.3, 4.2].map(
      (deg) =>
        slopeLights({
          heightFt: (Math.tan((deg * Math.PI) / 180) * 1000) / 0.3048,
          distanceM: 1000,
          nominalDeg: 3,
          speedDevKt: 0,
          fastTolKt: 5,
          slowTolKt: 5,
        }).whites,
    );
    expect(whites).toEqual([0, 1, 2, 3, 4]);
  });
  it('read with speed give four different findings', () => {
    const read = (deg: number, speedDevKt: number) =>
      slopeLights({
        heightFt: (Math.tan((deg * Math.PI) / 180) * 1000) / 0.3048,
        distanceM: 1000,
        nominalDeg: 3,
        speedDevKt,
        fastTolKt: 5,
        slowTolKt: 5,
      }).finding;
    expect([read(4.2, 9), read(1.5, -9), read(1.5, 9), read(4.2, -9), read(3, 9), read(4.2, 0)]).toEqual([
      'fastAndHigh',
      'slowAndLow',
      'fastAndLow',
      'slowAndHigh',
      null,
      null,
    ]);
  });
});

describe('fuel', () => {
  it('keeps the reserve and rounds circuits down', () => {
    expect(endurance({ usableL: 60, flowLH: 20, night: false, reserveMin: null })).toEqual({
      totalMin: 180,
      reserveMin: 30,
      usableMin: 150,
    });
    expect(endurance({ usableL: 5, flowLH: 20, night: true, reserveMin: null }).usableMin).toBe(0);
    expect(
      circuitsThatFit({
        bookingLeftMin: 60,
        fuelTimeMin: 90,
        groundSamplesMin: [30, 10, 20],
        groundDefaultMin: 99,
        circuitMin: 6,
      }),
    ).toEqual({ groundMin: 20, availableMin: 40, circuits: 6, limitedBy: 'booking' });
    expect(
      circuitsThatFit({
        bookingLeftMin: 60,
        fuelTimeMin: 15,
        groundSamplesMin: [],
        groundDefaultMin: 20,
        circuitMin: 6,
      }),
    ).toMatchObject({ circuits: 0, limitedBy: 'fuel' });
    expect(bsfcFlow({ ratedHp: 180, powerPct: 65, bsfcLbHpH: null, induction: 'injected' }).flowGalH).toBeCloseTo(
      8.775,
      6,
    );
  });
});

describe('electrics', () => {
  const consumer = (name: string, amps: number, more: object = {}) => ({
    name,
    amps,
    shedAtMin: null,
    dependsOn: [],
    backupMin: 0,
    ...more,
  });
  it('shedding lengthens the life of the bus; what depends on something dies with it', () => {
    const all = electricalTimeline({
      batteryAh: 20,
      usableShare: 0.5,
      consumers: [consumer('a', 6), consumer('b', 6)],
    });
    expect(all).toMatchObject({ enduranceAllOnMin: 50, busDeadMin: 50 });
    const shed = electricalTimeline({
      batteryAh: 20,
      usableShare: 0.5,
      consumers: [
        consumer('a', 6),
        consumer('b', 6, { shedAtMin: 10 }),
        consumer('c', 0, { dependsOn: ['b'] }),
        consumer('d', 0, { backupMin: 20 }),
      ],
    });
    expect(shed.busDeadMin).toBeCloseTo(90, 9);
    expect(shed.events).toEqual([
      { tMin: 10, name: 'b', cause: 'shed' },
      { tMin: 10, name: 'c', cause: 'dependency' },
      { tMin: expect.closeTo(90, 9), name: 'a', cause: 'battery' },
      { tMin: expect.closeTo(110, 9), name: 'd', cause: 'battery' },
    ]);
  });
  it('with nothing drawing the bus never dies', () => {
    expect(electricalTimeline({ batteryAh: 20, usableShare: null, consumers: [consumer('a', 0)] })).toEqual({
      enduranceAllOnMin: null,
      busDeadMin: null,
      events: [],
    });
  });
});

describe('runway', () => {
  const table = {
    axes: { massKg: [900, 1100], pressureAltFt: [0, 2000], oatC: null },
    valuesM: [
      [300, 360],
      [400, null],
    ],
  };
  it('interpolates inside, refuses outside, and does not step over a hole', () => {
    expect(tableDistance(table, { massKg: 900, pressureAltFt: 1000, oatC: 20 }).distanceM).toBe(330);
    expect(tableDistance(table, { massKg: 1000, pressureAltFt: 0, oatC: null }).distanceM).toBe(350);
    expect(tableDistance(table, { massKg: 899, pressureAltFt: 0, oatC: null }).refused).toBe('outside-mass');
    expect(tableDistance(table, { massKg: 900, pressureAltFt: null, oatC: null }).refused).toBe(
      'outside-pressure-altitude',
    );
    expect(tableDistance(table, { massKg: 1000, pressureAltFt: 500, oatC: null })).toMatchObject({
      refused: 'no-data',
      words: NO_DATA_WORDS,
    });
    expect(tableDistance(null, { massKg: 900, pressureAltFt: 0, oatC: 0 }).refused).toBe('no-table');
  });
  it('multiplies factors, safety last, and equal is enough', () => {
    const need = runwayNeeded({
      groundRollM: 200,
      over50M: 400,
      factors: [{ name: 'grass', factor: 1.2 }],
      safetyFactor: 1.25,
      declaredM: 600,
      widthM: 18,
      requiredWidthM: 18,
    });
    expect(need).toMatchObject({ totalFactor: 1.5, over50M: 600, groundRollM: 300, verdict: 'enough', marginM: 0 });
    expect(need.steps.map((s) => s.name)).toEqual(['grass', 'safety']);
    expect(
      runwayNeeded({
        groundRollM: null,
        over50M: 400,
        factors: [{ name: 'x', factor: 0 }],
        safetyFactor: null,
        declaredM: 600,
        widthM: null,
        requiredWidthM: null,
      }),
    ).toMatchObject({ over50M: null, words: 'factor not valid: runway not computed' });
    expect(
      runwayNeeded({
        groundRollM: 100,
        over50M: 200,
        factors: [],
        safetyFactor: null,
        declaredM: null,
        widthM: 10,
        requiredWidthM: 18,
      }),
    ).toMatchObject({ length: null, width: 'not-enough', verdict: 'not-enough' });
  });
});
