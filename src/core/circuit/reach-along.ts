/**
 * Reach without the engine from every part of a circuit: one verdict for each sample along it. A model for talking,
 * never a permission.
 */
import type { Gate } from '@/domain/sheet';
import { needNumbers } from '../guard';
import { M_PER_FT, MS_PER_KT, cosDeg, norm360, sinDeg } from '../constants';
import { densityAltitude } from '../air';
import {
  type GlideBody,
  IN_HAND_FT,
  type ReachVerdict,
  type RunwayEndReach,
  bestGlide,
  reachEnds,
  straightGlide,
} from '../reach';
import { configurationDrag, sheetOn, sheetPolar, stallCas, surfaceOfStrip } from '../sheet';
import { oneEngineClimb } from '../twin';
import { type PacePoint, type PaceSheet, placeAt, toNorth, togoM } from './pace';

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
  /** Landing distance over 50 ft on the runway in use today, every factor in it; null = not known, none fits ahead. */
  over50M: number | null;
}
/** What is out at a place of the circuit. */
export interface ConfigurationOut {
  flapDeg: number;
  gear: Gate['gear'];
}
interface Answer {
  verdict: ReachVerdict;
  bestId: string | null;
  ends: RunwayEndReach[];
}
export interface ReachSample extends Answer {
  tS: number;
  x: number;
  y: number;
  heightFt: number;
  leg: PacePoint['leg'];
  /** Straight on and down on what is left of the runway. */
  ahead: boolean;
  /** Height that could still be too much: what is left of the runway, as feet on this glide. Null = not over the runway. */
  aheadMarginFt: number | null;
  held: ConfigurationOut;
  /** The same with flap and gear retracted at once; null = nothing to bring in. */
  retracted: Answer | null;
  /** One of two engines stopped, at Vyse, clean, feathered: ft/min here; null = a single. */
  oneEngineFpm: number | null;
}
/** Height over a threshold from which a landing can be made; handbook distances begin there. */
const OVER_THRESHOLD_FT = 50;
/** Below it on the way up the gear is not yet in. */
const GEAR_UP_FT = 300;

/**
 * What the propeller adds to the handbook's glide: nothing where that glide has a windmilling one in it already.
 * @returns the drag coefficient to add, and why, by code
 * @example
 * propellerDrag({ flap: [], gearDeltaCd0: null, windmillingDeltaCd0: null, glidePropeller: 'windmilling' })
 * // { deltaCd0: 0, said: 'in-the-glide' }
 */
export function propellerDrag(drag: PaceSheet['drag']): { deltaCd0: number; said: PropellerSaid } {
  if (drag.glidePropeller === 'windmilling') return { deltaCd0: 0, said: 'in-the-glide' };
  if (drag.windmillingDeltaCd0 === null) return { deltaCd0: 0, said: 'not-on-the-sheet' };
  return {
    deltaCd0: drag.windmillingDeltaCd0.value,
    said: drag.glidePropeller === undefined || drag.glidePropeller === 'not said' ? 'added-not-said' : 'added',
  };
}
/** Whether the drag of the windmilling propeller is in the handbook's glide, added to it, or known by nobody. */
export type PropellerSaid = 'in-the-glide' | 'added' | 'added-not-said' | 'not-on-the-sheet';

/**
 * The aeroplane gliding with what is out, its propeller windmilling, at its best glide in that configuration.
 * @param held null = clean, gear up where it comes up; @param bankDeg of the turns to come, 0 to 60
 * @returns speeds in knots TAS with the polar they follow from
 * @example glideBody(trainer, 1, { flapDeg: 10, gear: 'fixed' }).glideTasKt
 */
export function glideBody(
  sheet: PaceSheet,
  sigma: number,
  held: ConfigurationOut | null = null,
  bankDeg = 0,
): GlideBody & { glideTasKt: number; stallTasKt: number | null } {
  const { flapDeg, gear } = held ?? CLEAN;
  const polar = sheetPolar(sheet);
  const body = {
    massKg: sheet.masses.refMassKg,
    wingAreaM2: sheet.wing.areaM2.value,
    cd0:
      polar.cd0 +
      propellerDrag(sheet.drag).deltaCd0 +
      configurationDrag(sheet, flapDeg, gear).reduce((a, b) => a + b, 0),
    inducedK: polar.k,
    airDensityKgM3: 1.225 * sigma,
  };
  // A flap without a stall speed of its own is taken at the clean one, which is the higher.
  const stall = stallCas(sheet, flapDeg) ?? stallCas(sheet, 0);
  const stallTasKt = stall === null ? null : stall / Math.sqrt(sigma);
  // Nobody glides slower than the turn allows: where best glide leaves no margin to the stall in it, it is flown faster.
  const leastKt = stallTasKt === null ? 0 : TURN_MARGIN * stallTasKt * Math.sqrt(1 / cosDeg(bankDeg));
  return { ...body, glideTasKt: Math.max(bestGlide(body).tasKt, leastKt), stallTasKt };
}
/** Speed over the stall in the turn. */
const TURN_MARGIN = 1.1;
const CLEAN: ConfigurationOut = { flapDeg: 0, gear: 'up' };

/**
 * Flap and gear held at a second of the circuit, by the sheet's own gates: before the first of them clean, with the gear
 * in once the climb has passed 300 ft.
 * @returns flap in degrees, gear up or down
 * @throws BadNumber when a number handed in is none
 */
export function heldAt(sheet: PaceSheet, points: readonly PacePoint[], at: PacePoint): ConfigurationOut {
  needNumbers('heldAt', { sheet, points, at });
  const togo = togoM(points, at.tS);
  const passed = sheet.approach.filter((g) => g.distanceM >= togo - 1);
  const gate = at.leg === 'upwind' || at.leg === 'crosswind' ? undefined : passed[passed.length - 1];
  if (gate) return { flapDeg: gate.flapDeg, gear: gate.gear };
  const gear = !sheet.gear.retractable ? 'fixed' : at.leg === 'upwind' && at.heightFt < GEAR_UP_FT ? 'down' : 'up';
  return { flapDeg: 0, gear };
}

/**
 * Over the runway in its direction: what is left of it after the reaction, the glide to 50 ft and the landing distance of
 * the day, as height on this glide. Null where there is no such question, or no distance to answer it.
 */
function aheadMarginFt(
  body: GlideBody & { glideTasKt: number },
  at: PacePoint,
  runway: { trueBearingDeg: number; lengthM: number },
  c: ReachChoices,
): number | null {
  if ((at.leg !== 'upwind' && at.leg !== 'final') || at.x < -1 || Math.abs(at.y) > 1 || c.over50M === null) return null;
  const glide = straightGlide(body, {
    heightFt: Math.max(0, at.heightFt - OVER_THRESHOLD_FT),
    tasKt: body.glideTasKt,
    trackDeg: runway.trueBearingDeg,
    windFromDeg: c.windFromDeg,
    windKt: c.windKt,
  });
  if (glide.distanceM === null || glide.groundGlideRatio === null) return null;
  const headwindKt = c.windKt * cosDeg(c.windFromDeg - runway.trueBearingDeg);
  const reactionM = Math.max(0, at.tasKt - headwindKt) * MS_PER_KT * c.reactionS;
  const leftM = runway.lengthM - at.x - reactionM - glide.distanceM - c.over50M;
  return leftM / glide.groundGlideRatio / M_PER_FT;
}

/**
 * One engine stop: which runway end is reached from here.
 * @returns verdicts and margins in ft, with what is held and what it would be retracted
 * @throws BadNumber when a number handed in is none
 */
export function reachFrom(
  of: PaceSheet,
  at: PacePoint,
  runway: { trueBearingDeg: number; lengthM: number; surface?: string },
  ends: readonly ReachEnd[],
  c: ReachChoices,
  held: ConfigurationOut,
): Omit<ReachSample, 'tS' | 'x' | 'y' | 'heightFt' | 'leg'> {
  needNumbers('reachFrom', { sheet: of, at, runway, ends, c, held });
  const sheet = (runway.surface === undefined ? null : sheetOn(of, surfaceOfStrip(runway.surface))) ?? of;
  const here = toNorth(at, runway.trueBearingDeg);
  const answer = (body: ReturnType<typeof glideBody>): Answer => {
    const { glideTasKt, stallTasKt, ...glider } = body;
    const found = reachEnds(
      {
        ...glider,
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
    const best = found.ends.find((e) => e.id === found.bestId);
    return { verdict: best?.verdict ?? 'no', bestId: found.bestId, ends: found.ends };
  };
  const body = glideBody(sheet, c.sigma, held, c.bankDeg);
  const asHeld = answer(body);
  const margin = aheadMarginFt(body, at, runway, c);
  const aheadVerdict: ReachVerdict =
    margin === null || margin < 0 ? 'no' : margin >= IN_HAND_FT ? 'reaches' : 'doubtful';
  // The runway under the nose comes first: no turn is better than any.
  const ahead = aheadVerdict !== 'no' && !(aheadVerdict === 'doubtful' && asHeld.verdict === 'reaches');
  const brings = held.flapDeg > 0 || held.gear === 'down';
  return {
    ...asHeld,
    verdict: ahead ? aheadVerdict : asHeld.verdict,
    ahead,
    aheadMarginFt: margin,
    held,
    retracted: brings
      ? answer(glideBody(sheet, c.sigma, { flapDeg: 0, gear: sheet.gear.retractable ? 'up' : held.gear }, c.bankDeg))
      : null,
    oneEngineFpm: oneEngineHere(sheet, at, c.sigma),
  };
}

/** Rate on one engine here, by N16: the density altitude of this circuit's air. */
function oneEngineHere(sheet: PaceSheet, at: PacePoint, sigma: number): number | null {
  if (!sheet.twin) return null;
  return oneEngineClimb({
    rocSeaLevelFpm: sheet.twin.oneEngineClimbFpm.value,
    absoluteCeilingFt: sheet.twin.oneEngineCeilingFt.value,
    altitudeFt: densityAltitude(sigma) + at.heightFt,
    groundSpeedKt: 0,
  }).rocFpm;
}

/**
 * Samples along the whole circuit, evenly in time.
 * Source: steady glide with the drag of what is out.
 * @returns samples in order of time
 * @throws BadNumber when a number handed in is none
 */
export function reachAlong(
  sheet: PaceSheet,
  points: readonly PacePoint[],
  runway: { trueBearingDeg: number; lengthM: number; surface?: string },
  ends: readonly ReachEnd[],
  c: ReachChoices,
  samples = 72,
): ReachSample[] {
  needNumbers('reachAlong', { sheet, points, runway, ends, c, samples });
  const here = (runway.surface === undefined ? null : sheetOn(sheet, surfaceOfStrip(runway.surface))) ?? sheet;
  const total = points[points.length - 1]?.tS ?? 0;
  return Array.from({ length: samples }, (_, i) => (total * (i + 0.5)) / samples).flatMap((tS) => {
    const at = placeAt(points, tS);
    return at
      ? [
          {
            tS,
            x: at.x,
            y: at.y,
            heightFt: at.heightFt,
            leg: at.leg,
            ...reachFrom(here, at, runway, ends, c, heldAt(here, points, at)),
          },
        ]
      : [];
  });
}

/**
 * Thresholds of every usable end. Strips are taken to cross at their middles, offset as the chart says.
 * @returns thresholds in metres from the one in use
 */
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
