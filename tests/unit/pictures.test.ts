import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circuitLegs, taskGaps, windTriangle } from '@/core/circuit';
import { casterState, groundTurn, taxiCorner } from '@/core/ground';
import { bestGlide, glidingTurn, reachEnds, reachPoint, straightGlide } from '@/core/reach';
import {
  bodyToHorizon,
  leastOffset,
  noseDepression,
  pointVisible,
  rotateProfile,
  runwayEdges,
  thresholdLost,
} from '@/core/sightpicture';

const profile = [
  { azimuthDeg: 0, depressionDeg: 4 },
  { azimuthDeg: 8, depressionDeg: 6 },
  { azimuthDeg: 20, depressionDeg: 14 },
  { azimuthDeg: 60, depressionDeg: 35 },
];

describe('the wind triangle', () => {
  it('adds up: air vector plus wind is the ground vector', () => {
    let solved = 0;
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 360, noNaN: true }),
        fc.double({ min: 50, max: 150, noNaN: true }),
        fc.double({ min: 1, max: 360, noNaN: true }),
        fc.double({ min: 0, max: 40, noNaN: true }),
        (trackDeg, tasKt, windFromDeg, windKt) => {
          const w = windTriangle({ trackDeg, tasKt, windFromDeg, windKt });
          if (w.headingDeg === null || w.groundSpeedKt === null) return;
          solved++;
          const rad = (d: number) => (d * Math.PI) / 180;
          expect(tasKt * Math.sin(rad(w.headingDeg)) - windKt * Math.sin(rad(windFromDeg))).toBeCloseTo(
            w.groundSpeedKt * Math.sin(rad(trackDeg)),
            6,
          );
          expect(tasKt * Math.cos(rad(w.headingDeg)) - windKt * Math.cos(rad(windFromDeg))).toBeCloseTo(
            w.groundSpeedKt * Math.cos(rad(trackDeg)),
            6,
          );
        },
      ),
    );
    expect(solved).toBeGreaterThan(20);
  });
  it('gives up honestly', () => {
    expect(windTriangle({ trackDeg: 360, tasKt: 30, windFromDeg: 90, windKt: 35 }).feasible).toBe(false);
    expect(windTriangle({ trackDeg: 360, tasKt: 30, windFromDeg: 360, windKt: 30 }).feasible).toBe(false);
  });
});

describe('a circuit', () => {
  const input = {
    runwayDeg: 218,
    side: 'left' as const,
    windFromDeg: 260,
    windKt: 12,
    runwayLengthM: 900,
    liftOffM: 300,
    beyondEndM: 600,
    spacingM: 1000,
    baseAngleDeg: 45,
    bankDeg: 25,
    tasKt: { upwind: 65, crosswind: 68, downwind: 72, base: 66, final: 60 },
  };
  it('mirrors: left in a wind from the right takes as long as right in a wind from the left', () => {
    const left = circuitLegs(input);
    const right = circuitLegs({ ...input, side: 'right', windFromDeg: 2 * 218 - 260 });
    expect(left.totalTimeS).toBeCloseTo(right.totalTimeS ?? 0, 6);
    expect(left.legs.map((l) => l.trackDeg)).toEqual([218, 128, 38, 308, 218]);
  });
  it('a leg that cannot be flown leaves no total', () => {
    expect(circuitLegs({ ...input, windKt: 90 }).totalTimeS).toBeNull();
  });
  it('names tasks that come too close, in time order', () => {
    expect(
      taskGaps(
        [
          { name: 'flap', tS: 12 },
          { name: 'power', tS: 2 },
          { name: 'check', tS: 10 },
        ],
        4,
      ),
    ).toEqual({ shortestGapS: 2, tooClose: [{ first: 'check', second: 'flap', gapS: 2 }] });
    expect(taskGaps([{ name: 'one', tS: 0 }], 4)).toEqual({ shortestGapS: null, tooClose: [] });
  });
});

describe('on the ground', () => {
  it('a longer tail swings wider, a hugged corner keeps it in', () => {
    const corner = (technique: 'centreline' | 'hugInside') =>
      taxiCorner({ wheelbaseM: 6, trackM: 2.5, turnRadiusM: 8, taxiwayWidthM: 10, technique });
    expect(corner('centreline').tailFromCentrelineM).toBeCloseTo(2, 9);
    expect(corner('hugInside').tailBeyondEdgeM).toBeLessThan(corner('centreline').tailBeyondEdgeM);
    expect(
      groundTurn({ wheelbaseM: 6, trackM: 2.5, steerLimitDeg: 22, method: 'steer' }).thirdWheelRadiusM,
    ).toBeCloseTo(6 / Math.sin((22 * Math.PI) / 180), 6);
    expect(groundTurn({ wheelbaseM: 6, trackM: 2.5, steerLimitDeg: 22, method: 'pivot' }).insideWheelRadiusM).toBe(0);
  });
  it('warns before the wheel lets go', () => {
    const state = (turnRadiusM: number) =>
      casterState({ wheelbaseM: 6, turnRadiusM, steerLimitDeg: 22, warnBeforeDeg: 3 }).state;
    expect([state(30), state(16), state(12)]).toEqual(['steers', 'warn', 'casters']);
  });
});

describe('over the nose', () => {
  it('is mirrored when only one side is given, linear between points, flat beyond', () => {
    expect(noseDepression(profile, -14)).toBe(noseDepression(profile, 14));
    expect(noseDepression(profile, 14)).toBe(10);
    expect(noseDepression(profile, 85)).toBe(35);
  });
  it('rotating the nose and rotating the point are the same', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -15, max: 15, noNaN: true }),
        fc.double({ min: -40, max: 40, noNaN: true }),
        fc.constantFrom(...profile),
        (pitchDeg, bankDeg, p) => {
          const seen = bodyToHorizon(p, { pitchDeg, bankDeg });
          const back = pointVisible({
            profile,
            pitchDeg,
            bankDeg,
            azimuthDeg: seen.azimuthDeg,
            eyeHeightM: Math.tan((seen.depressionDeg * Math.PI) / 180),
            distanceM: 1,
          });
          if (Math.abs(seen.depressionDeg) < 89) expect(back.marginDeg).toBeCloseTo(0, 6);
        },
      ),
    );
    expect(rotateProfile(profile, { pitchDeg: 0, bankDeg: 0 })).toHaveLength(7);
  });
  it('the offset found is just enough, and no less', () => {
    const gates = [
      { heightFt: 300, distanceM: 1300, pitchDeg: 2, bankDeg: 0 },
      { heightFt: 120, distanceM: 520, pitchDeg: 4, bankDeg: 0 },
    ];
    const { offsetDeg, governingGate } = leastOffset({ profile, gates, downToFt: 100, side: 'left' });
    expect(governingGate).toBe(1);
    const at = (azimuthDeg: number) =>
      pointVisible({ profile, pitchDeg: 4, bankDeg: 0, eyeHeightM: 120 * 0.3048, distanceM: 520, azimuthDeg }).visible;
    expect(at(-((offsetDeg ?? 0) + 0.01))).toBe(true);
    expect(at(-((offsetDeg ?? 0) - 0.01))).toBe(false);
    expect(leastOffset({ profile, gates, downToFt: 900, side: 'left' })).toEqual({ offsetDeg: 0, governingGate: null });
  });
  it('a higher nose loses the threshold higher up', () => {
    const lost = (pitchDeg: number) => thresholdLost({ profile, pitchDeg, slopeDeg: 3, aimPastThresholdM: 80 });
    expect(lost(-2).lostAtHeightFt).toBeLessThan(lost(0.5).lostAtHeightFt ?? 0);
    expect(lost(2).state).toBe('neverVisible');
    expect(thresholdLost({ profile, pitchDeg: -2, slopeDeg: 3, aimPastThresholdM: 0 }).state).toBe('neverLost');
  });
  it('a narrower runway shows a thinner wedge, and equal wedges mean the middle', () => {
    const edges = (runwayWidthM: number, eyeLateralM = 0) =>
      runwayEdges({
        profile,
        pitchDeg: 10,
        bankDeg: 0,
        crabDeg: 0,
        eyeHeightM: 1.7,
        eyeLateralM,
        offsetM: 0,
        runwayWidthM,
        lookAheadM: 400,
        maxAzimuthDeg: 60,
      });
    expect(edges(12).left.wedgeDeg).toBeLessThan(edges(30).left.wedgeDeg);
    expect(edges(20).left.wedgeDeg).toBeCloseTo(edges(20).right.wedgeDeg, 6);
    expect(edges(20).equalWedgeOffsetM).toBeCloseTo(0, 3);
    expect(edges(20, -0.4).equalWedgeOffsetM).toBeCloseTo(0.4, 3);
  });
});

describe('reach without the engine', () => {
  const body = { massKg: 560, wingAreaM2: 16.2, cd0: 0.05, inducedK: 0.063, airDensityKgM3: 1.18 };
  const glideTasKt = bestGlide(body).tasKt;
  const from = {
    ...body,
    heightFt: 900,
    tasKt: 60,
    glideTasKt,
    headingDeg: 38,
    bankDeg: 35,
    windFromDeg: 218,
    windKt: 0,
    stallTasKt: 36,
    houseTurnBackFt: null,
  };
  const to = { targetBearingDeg: 38, targetDistanceM: 900, landingHeadingDeg: 38, neededHeightFt: 50 };
  it('in calm air depends on nothing but the geometry: turned round it is the same', () => {
    const plain = reachPoint(from, to);
    const round = reachPoint({ ...from, headingDeg: 158 }, { ...to, targetBearingDeg: 158, landingHeadingDeg: 158 });
    expect(plain).toMatchObject({ verdict: 'reaches', turnSide: 'none', alignDeg: 0 });
    expect(round.marginFt).toBeCloseTo(plain.marginFt ?? 0, 6);
  });
  it('is less against the wind, less from lower, and a mirror image is worth the same', () => {
    const margin = (f: object, t: object = {}) => reachPoint({ ...from, ...f }, { ...to, ...t }).marginFt ?? -Infinity;
    expect(margin({ windFromDeg: 38, windKt: 15 })).toBeLessThan(margin({}));
    expect(margin({ heightFt: 800 })).toBeCloseTo(margin({}) - 100, 6);
    expect(margin({}, { targetBearingDeg: 98, landingHeadingDeg: 128 })).toBeCloseTo(
      margin({}, { targetBearingDeg: -22, landingHeadingDeg: -52 }),
      4,
    );
    expect(reachPoint(from, { ...to, targetBearingDeg: 98 }).turnSide).toBe('right');
  });
  it('keeps the margin to the stall in the turn, and the house height for a turn back', () => {
    expect(reachPoint({ ...from, bankDeg: 60, stallTasKt: 45 }, to)).toMatchObject({
      verdict: 'no',
      reason: 'stall-margin',
      marginFt: null,
    });
    expect(
      reachPoint({ ...from, houseTurnBackFt: 1000 }, { ...to, targetBearingDeg: 218, landingHeadingDeg: 218 }),
    ).toMatchObject({ verdict: 'no', reason: 'turn-back-below-house-height', marginFt: expect.any(Number) });
    expect(reachPoint({ ...from, windFromDeg: 38, windKt: 80 }, to)).toMatchObject({
      verdict: 'no',
      reason: 'no-path',
    });
  });
  it('names the best end, or none', () => {
    const ends = [
      { id: '04', bearingDeg: 38, distanceM: 900, landingHeadingDeg: 38, neededHeightFt: 50 },
      { id: '22', bearingDeg: 218, distanceM: 9000, landingHeadingDeg: 218, neededHeightFt: 50 },
    ];
    expect(reachEnds(from, ends)).toMatchObject({ bestId: '04', nothingReached: false });
    expect(reachEnds({ ...from, heightFt: 100 }, ends)).toMatchObject({ bestId: null, nothingReached: true });
  });
  it('loses more in a steep turn than the simple formula says', () => {
    const t = glidingTurn(body, glideTasKt, 45, 180);
    const straight = straightGlide(body, { heightFt: 1000, tasKt: glideTasKt, trackDeg: 0, windFromDeg: 0, windKt: 0 });
    expect((t?.sinkFpm ?? 0) / (straight.sinkFpm ?? 1)).toBeGreaterThan(1.4);
    expect(straight.groundGlideRatio).toBeCloseTo(bestGlide(body).glideRatio, 6);
    expect(glidingTurn(body, glideTasKt, 90, 90)).toBeNull();
    expect(straightGlide(body, { heightFt: 500, tasKt: 40, trackDeg: 0, windFromDeg: 0, windKt: 45 }).distanceM).toBe(
      0,
    );
  });
});
