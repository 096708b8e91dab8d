/**
 * Reach without the engine from every part of a circuit: one verdict for each sample along it. A model for talking,
 * never a permission.
 */
import { needNumbers } from '../guard';
import { MS_PER_KT, cosDeg, norm360, sinDeg } from '../constants';
import { type GlideBody, type ReachVerdict, type RunwayEndReach, bestGlide, reachEnds, straightGlide } from '../reach';
import { configurationDrag, sheetPolar, stallCas } from '../sheet';
import { type PacePoint, type PaceSheet, placeAt, toNorth } from './pace';

/** A runway end as a place: its threshold in metres east and north of the threshold in use. */
export interface ReachEnd {
  ident: string;
  east: number;
  north: number;
  landingDeg: number;
}
export interface ReachChoices {
  sigma: number;
  windFromDeg: number;
  windKt: number;
  bankDeg: number;
  reactionS: number;
  turnBackFt: number;
}
export interface ReachSample {
  tS: number;
  x: number;
  y: number;
  heightFt: number;
  leg: PacePoint['leg'];
  /** Straight on and down on what is left of the runway. */
  ahead: boolean;
  verdict: ReachVerdict;
  bestId: string | null;
  ends: RunwayEndReach[];
}
/** Height over a threshold from which a landing can be made. */
const OVER_THRESHOLD_FT = 50;

/** The clean aeroplane gliding, propeller stopped or windmilling where the sheet has it, gear as it hangs. */
export function glideBody(
  sheet: PaceSheet,
  sigma: number,
): GlideBody & { glideTasKt: number; stallTasKt: number | null } {
  const polar = sheetPolar(sheet);
  const body = {
    massKg: sheet.masses.refMassKg,
    wingAreaM2: sheet.wing.areaM2.value,
    cd0:
      polar.cd0 +
      (sheet.drag.windmillingDeltaCd0?.value ?? 0) +
      configurationDrag(sheet, 0, 'up').reduce((a, b) => a + b, 0),
    inducedK: polar.k,
    airDensityKgM3: 1.225 * sigma,
  };
  const stall = stallCas(sheet, 0);
  return { ...body, glideTasKt: bestGlide(body).tasKt, stallTasKt: stall === null ? null : stall / Math.sqrt(sigma) };
}

/** Over the runway in its direction: does the glide and the handbook's roll fit into what is left? */
function aheadFits(sheet: PaceSheet, at: PacePoint, lengthM: number, runwayDeg: number, c: ReachChoices): boolean {
  if (at.leg !== 'upwind' && at.leg !== 'final') return false;
  if (at.x < -1 || Math.abs(at.y) > 1) return false;
  const roll = [...(sheet.distances?.landing ?? [])].sort(
    (a, b) => b.massKg - a.massKg || a.pressureAltFt - b.pressureAltFt,
  )[0]?.groundRollM;
  if (roll === undefined) return false;
  const { glideTasKt, stallTasKt: _stall, ...body } = glideBody(sheet, c.sigma);
  const glide = straightGlide(body, {
    heightFt: at.heightFt,
    tasKt: glideTasKt,
    trackDeg: runwayDeg,
    windFromDeg: c.windFromDeg,
    windKt: c.windKt,
  });
  const reactionM = at.tasKt * MS_PER_KT * c.reactionS;
  return glide.distanceM !== null && reactionM + glide.distanceM + roll <= lengthM - at.x;
}

/** One engine stop: which runway end is reached from here. */
export function reachFrom(
  sheet: PaceSheet,
  at: PacePoint,
  runway: { trueBearingDeg: number; lengthM: number },
  ends: readonly ReachEnd[],
  c: ReachChoices,
): Omit<ReachSample, 'tS' | 'x' | 'y' | 'heightFt' | 'leg'> {
  needNumbers('reachFrom', { sheet, at, runway, ends, c });
  const { glideTasKt, stallTasKt, ...body } = glideBody(sheet, c.sigma);
  const here = toNorth(at, runway.trueBearingDeg);
  const found = reachEnds(
    {
      ...body,
      heightFt: at.heightFt,
      tasKt: at.tasKt,
      glideTasKt,
      headingDeg: at.headingDeg,
      bankDeg: c.bankDeg,
      windFromDeg: c.windFromDeg,
      windKt: c.windKt,
      reactionS: c.reactionS,
      stallTasKt,
      houseTurnBackFt: c.turnBackFt,
    },
    ends.map((e) => ({
      id: e.ident,
      bearingDeg: norm360((Math.atan2(e.east - here.east, e.north - here.north) * 180) / Math.PI),
      distanceM: Math.hypot(e.east - here.east, e.north - here.north),
      landingHeadingDeg: e.landingDeg,
      neededHeightFt: OVER_THRESHOLD_FT,
    })),
  );
  const ahead = aheadFits(sheet, at, runway.lengthM, runway.trueBearingDeg, c);
  return {
    ahead,
    verdict: ahead ? 'reaches' : (found.ends.find((e) => e.id === found.bestId)?.verdict ?? 'no'),
    bestId: found.bestId,
    ends: found.ends,
  };
}

/** Samples along the whole circuit, evenly in time. */
export function reachAlong(
  sheet: PaceSheet,
  points: readonly PacePoint[],
  runway: { trueBearingDeg: number; lengthM: number },
  ends: readonly ReachEnd[],
  c: ReachChoices,
  samples = 72,
): ReachSample[] {
  needNumbers('reachAlong', { sheet, points, runway, ends, c, samples });
  const total = points[points.length - 1]?.tS ?? 0;
  return Array.from({ length: samples }, (_, i) => (total * (i + 0.5)) / samples).flatMap((tS) => {
    const at = placeAt(points, tS);
    return at
      ? [{ tS, x: at.x, y: at.y, heightFt: at.heightFt, leg: at.leg, ...reachFrom(sheet, at, runway, ends, c) }]
      : [];
  });
}

/** Thresholds of every usable end. Strips are taken to cross at their middles, offset as the chart says. */
export function endPlaces(
  inUse: { ident: string; trueBearingDeg: number; lengthM: number },
  strips: readonly {
    lengthM: number;
    eastM: number;
    northM: number;
    ends: readonly { ident: string; trueBearingDeg: number }[];
  }[],
): ReachEnd[] {
  const threshold = (strip: (typeof strips)[number], deg: number) => ({
    east: strip.eastM - (strip.lengthM / 2) * sinDeg(deg),
    north: strip.northM - (strip.lengthM / 2) * cosDeg(deg),
  });
  const own = strips.find((s) => s.ends.some((e) => e.ident === inUse.ident));
  const origin = own ? threshold(own, inUse.trueBearingDeg) : { east: 0, north: 0 };
  return strips.flatMap((s) =>
    s.ends.map((e) => {
      const t = threshold(s, e.trueBearingDeg);
      return {
        ident: e.ident,
        east: t.east - origin.east,
        north: t.north - origin.north,
        landingDeg: e.trueBearingDeg,
      };
    }),
  );
}
