import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circuitLegs, taskGaps, windTriangle } from '@/core/circuit';
import { casterState, groundTurn, taxiCorner } from '@/core/ground';
import { bodyToHorizon, leastOffset, noseDepression, pointVisible, rotateProfile, runwayEdges, thresholdLost } from '@/core/sightpicture';

const profile = [{ azimuthDeg: 0, depressionDeg: 4 }, { azimuthDeg: 8, depressionDeg: 6 }, { azimuthDeg: 20, depressionDeg: 14 }, { azimuthDeg: 60, depressionDeg: 35 }];

describe('the wind triangle', () => {
  it('adds up: air vector plus wind is the ground vector', () => {
    fc.assert(fc.property(fc.double({ min: 1, max: 360, noNaN: true }), fc.double({ min: 50, max: 150, noNaN: true }), fc.double({ min: 1, max: 360, noNaN: true }), fc.double({ min: 0, max: 40, noNaN: true }), (trackDeg, tasKt, windFromDeg, windKt) => {
      const w = windTriangle({ trackDeg, tasKt, windFromDeg, windKt });
      if (w.headingDeg === null || w.groundSpeedKt === null) return;
      const rad = (d: number) => (d * Math.PI) / 180;
      expect(tasKt * Math.sin(rad(w.headingDeg)) - windKt * Math.sin(rad(windFromDeg))).toBeCloseTo(w.groundSpeedKt * Math.sin(rad(trackDeg)), 6);
      expect(tasKt * Math.cos(rad(w.headingDeg)) - windKt * Math.cos(rad(windFromDeg))).toBeCloseTo(w.groundSpeedKt * Math.cos(rad(trackDeg)), 6);
    }));
  });
  it('gives up honestly', () => {
    expect(windTriangle({ trackDeg: 360, tasKt: 30, windFromDeg: 90, windKt: 35 }).feasible).toBe(false);
    expect(windTriangle({ trackDeg: 360, tasKt: 30, windFromDeg: 360, windKt: 30 }).feasible).toBe(false);
  });
});

describe('a circuit', () => {
  const input = { runwayDeg: 218, side: 'left' as const, windFromDeg: 260, windKt: 12, runwayLengthM: 900, liftOffM: 300, beyondEndM: 600, spacingM: 1000, baseAngleDeg: 45, bankDeg: 25, tasKt: { upwind: 65, crosswind: 68, downwind: 72, base: 66, final: 60 } };
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
    expect(taskGaps([{ name: 'flap', tS: 12 }, { name: 'power', tS: 2 }, { name: 'check', tS: 10 }], 4)).toEqual({ shortestGapS: 2, tooClose: [{ first: 'check', second: 'flap', gapS: 2 }] });
    expect(taskGaps([{ name: 'one', tS: 0 }], 4)).toEqual({ shortestGapS: null, tooClose: [] });
  });
});

describe('on the ground', () => {
  it('a longer tail swings wider, a hugged corner keeps it in', () => {
    const corner = (technique: 'centreline' | 'hugInside') => taxiCorner({ wheelbaseM: 6, trackM: 2.5, turnRadiusM: 8, taxiwayWidthM: 10, technique });
    expect(corner('centreline').tailFromCentrelineM).toBeCloseTo(2, 9);
    expect(corner('hugInside').tailBeyondEdgeM).toBeLessThan(corner('centreline').tailBeyondEdgeM);
    expect(groundTurn({ wheelbaseM: 6, trackM: 2.5, steerLimitDeg: 22, method: 'steer' }).thirdWheelRadiusM).toBeCloseTo(6 / Math.sin((22 * Math.PI) / 180), 6);
    expect(groundTurn({ wheelbaseM: 6, trackM: 2.5, steerLimitDeg: 22, method: 'pivot' }).insideWheelRadiusM).toBe(0);
  });
  it('warns before the wheel lets go', () => {
    const state = (turnRadiusM: number) => casterState({ wheelbaseM: 6, turnRadiusM, steerLimitDeg: 22, warnBeforeDeg: 3 }).state;
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
    fc.assert(fc.property(fc.double({ min: -15, max: 15, noNaN: true }), fc.double({ min: -40, max: 40, noNaN: true }), fc.constantFrom(...profile), (pitchDeg, bankDeg, p) => {
      const seen = bodyToHorizon(p, { pitchDeg, bankDeg });
      const back = pointVisible({ profile, pitchDeg, bankDeg, azimuthDeg: seen.azimuthDeg, eyeHeightM: Math.tan((seen.depressionDeg * Math.PI) / 180), distanceM: 1 });
      if (Math.abs(seen.depressionDeg) < 89) expect(back.marginDeg).toBeCloseTo(0, 6);
    }));
    expect(rotateProfile(profile, { pitchDeg: 0, bankDeg: 0 })).toHaveLength(7);
  });
  it('the offset found is just enough, and no less', () => {
    const gates = [{ heightFt: 300, distanceM: 1300, pitchDeg: 2, bankDeg: 0 }, { heightFt: 120, distanceM: 520, pitchDeg: 4, bankDeg: 0 }];
    const { offsetDeg, governingGate } = leastOffset({ profile, gates, downToFt: 100, side: 'left' });
    expect(governingGate).toBe(1);
    const at = (azimuthDeg: number) => pointVisible({ profile, pitchDeg: 4, bankDeg: 0, eyeHeightM: 120 * 0.3048, distanceM: 520, azimuthDeg }).visible;
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
    const edges = (runwayWidthM: number, eyeLateralM = 0) => runwayEdges({ profile, pitchDeg: 10, bankDeg: 0, crabDeg: 0, eyeHeightM: 1.7, eyeLateralM, offsetM: 0, runwayWidthM, lookAheadM: 400, maxAzimuthDeg: 60 });
    expect(edges(12).left.wedgeDeg).toBeLessThan(edges(30).left.wedgeDeg);
    expect(edges(20).left.wedgeDeg).toBeCloseTo(edges(20).right.wedgeDeg, 6);
    expect(edges(20).equalWedgeOffsetM).toBeCloseTo(0, 3);
    expect(edges(20, -0.4).equalWedgeOffsetM).toBeCloseTo(0.4, 3);
  });
});
