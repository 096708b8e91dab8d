/** One engine stopped, today: what the brief and the card of a twin say of it. Method: N16 and the house's factors. */
import type { House } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { needNumbers } from '../guard';
import { runwayNeeded, tableDistance, tableFromRows } from '../runway';
import { dialToCasKt } from '../speeds';
import { type DriftDown, type OneEngineClimb, driftDown, oneEngineClimb } from '../twin';
import { type AirToday, type RunwayFacts, type RunwayToday, atLeastOf, runwayFactors } from './day';

export interface OneEngineAt {
  /** What the height is: the field, the circuit, the least height of the demonstration. */
  where: 'field' | 'circuit' | 'demonstration';
  /** Above the sea. */
  altitudeFt: number;
  densityAltFt: number;
  climb: OneEngineClimb;
}
export interface StopToday {
  /** With every factor and the house's safety factor; null = not known, which is never a go. */
  neededM: number | null;
  marginM: number | null;
  verdict: 'enough' | 'not-enough' | null;
  steps: { name: string; factor: number }[];
  /** From the start of the run: past it the aeroplane no longer stops on the runway. Null = not known. */
  abortM: number | null;
  edge: boolean;
  words: string | null;
  source: string | null;
}
export interface ObstacleToday {
  name: string;
  pastEndM: number;
  heightFt: number;
  /** Gradient wanted from 50 ft over the far end to clear it by 50 ft; null = none is steep enough. */
  neededFtPerNm: number | null;
  verdict: 'clears' | 'does-not-clear' | null;
}
export interface OneEngineToday {
  /** Density altitude or speed not known: no number is given. */
  missing: string[];
  vyseTasKt: number | null;
  at: OneEngineAt[];
  /** Today, above the sea. */
  absoluteCeilingFt: number | null;
  serviceCeilingFt: number | null;
  /** From 2000 ft above the absolute ceiling. */
  drift: (DriftDown & { fromAltitudeFt: number }) | null;
  stop: StopToday | null;
  obstacle: ObstacleToday | null;
  noGoAroundBelowFt: number;
  source: string;
}

/** Above the ceiling, where the drift-down begins that the brief works out. */
const DRIFT_FROM_FT = 2000;
const M_PER_NM = 1852;

/**
 * One-engine numbers of a twin from its own sheet, at its greatest mass: a lighter one does better and takes no credit.
 * Gradients in still air; a tailwind is counted, a headwind is not. Null for a single.
 * @param at.elevationFt of the runway used; @param at.runway null = no runway chosen, no stopping distance
 * @returns speeds in kt, rates in ft/min, heights in ft, and what is missing on the sheet
 * @throws BadNumber on a value that is no number
 * @example oneEngineToday(twin, house, { massKg: 1700, air, oatC: 15, elevationFt: 1345, circuitHeightFt: 1000, … })
 */
export function oneEngineToday(
  sheet: TypeSheet,
  house: House,
  at: {
    massKg: number;
    air: AirToday;
    oatC: number | null;
    elevationFt: number;
    circuitHeightFt: number;
    runway: (RunwayFacts & { obstacle: ObstacleFacts | null }) | null;
    wet: boolean;
    takeoff: RunwayToday | null;
  },
): OneEngineToday | null {
  needNumbers('oneEngineToday', { sheet, house, at });
  const { twin } = sheet;
  if (!twin) return null;
  const { air } = at;
  const base: OneEngineToday = {
    missing: air.missing,
    vyseTasKt: null,
    at: [],
    absoluteCeilingFt: null,
    serviceCeilingFt: null,
    drift: null,
    stop: at.runway ? stopToday(sheet, house, { ...at, runway: at.runway }) : null,
    obstacle: null,
    noGoAroundBelowFt: twin.goAroundDecisionFt.value,
    source: twin.oneEngineClimbFpm.ref,
  };
  if (air.densityAltFt === null || air.sigma === null) return base;
  const overSeaFt = air.densityAltFt - at.elevationFt;
  const tailKt = at.runway ? Math.max(at.runway.tailwindKt, at.runway.gustTailwindKt ?? 0) : 0;
  const vyseTasKt = dialToCasKt(twin.vyse.value, sheet.dial) / Math.sqrt(air.sigma);
  const rates = { rocSeaLevelFpm: twin.oneEngineClimbFpm.value, absoluteCeilingFt: twin.oneEngineCeilingFt.value };
  const climbAt = (where: OneEngineAt['where'], aboveFieldFt: number): OneEngineAt => {
    const altitudeFt = at.elevationFt + aboveFieldFt;
    const densityAltFt = altitudeFt + overSeaFt;
    const groundSpeedKt = vyseTasKt + (where === 'demonstration' ? 0 : tailKt);
    return {
      where,
      altitudeFt,
      densityAltFt,
      climb: oneEngineClimb({ ...rates, altitudeFt: densityAltFt, groundSpeedKt }),
    };
  };
  const field = climbAt('field', 0);
  const fromDensityFt = rates.absoluteCeilingFt + DRIFT_FROM_FT;
  const drift = driftDown({ ...rates, fromAltitudeFt: fromDensityFt, groundSpeedKt: vyseTasKt });
  const service = field.climb.serviceCeilingFt;
  return {
    ...base,
    vyseTasKt,
    at: [field, climbAt('circuit', at.circuitHeightFt), climbAt('demonstration', house.demonstrationFt)],
    absoluteCeilingFt: rates.absoluteCeilingFt - overSeaFt,
    serviceCeilingFt: service === null ? null : service - overSeaFt,
    drift: drift && {
      ...drift,
      fromAltitudeFt: fromDensityFt - overSeaFt,
      endAltitudeFt: drift.endAltitudeFt - overSeaFt,
      finalAltitudeFt: drift.finalAltitudeFt - overSeaFt,
    },
    obstacle: at.runway?.obstacle ? obstacleToday(at.runway.obstacle, field.climb.gradientFtPerNm) : null,
  };
}

export interface ObstacleFacts {
  name: string;
  pastEndM: number;
  heightFt: number;
}

/** From 50 ft over the far end, where the take-off distance ends, over the obstacle by the same 50 ft. */
function obstacleToday(o: ObstacleFacts, gradientFtPerNm: number | null): ObstacleToday {
  const { heightFt, pastEndM } = o;
  const neededFtPerNm = heightFt <= 0 ? 0 : pastEndM > 0 ? (heightFt * M_PER_NM) / pastEndM : null;
  const clears = neededFtPerNm !== null && gradientFtPerNm !== null && gradientFtPerNm >= neededFtPerNm;
  return {
    ...o,
    neededFtPerNm,
    verdict: gradientFtPerNm === null ? null : clears ? 'clears' : 'does-not-clear',
  };
}

/** Accelerate and stop with the take-off's factors and safety; the abort point is what the stopping leaves. */
function stopToday(
  sheet: TypeSheet,
  house: House,
  at: {
    massKg: number;
    air: AirToday;
    oatC: number | null;
    runway: RunwayFacts;
    wet: boolean;
    takeoff: RunwayToday | null;
  },
): StopToday {
  const rows = sheet.twin?.accelerateStop ?? [];
  const source = sheet.distances?.ref ?? null;
  const none: StopToday = {
    neededM: null,
    marginM: null,
    verdict: null,
    steps: [],
    abortM: null,
    edge: false,
    words: null,
    source,
  };
  if (rows.length === 0) return { ...none, words: 'not known: no accelerate-stop data on the sheet, so never a go' };
  const asked = { massKg: at.massKg, pressureAltFt: at.air.pressureAltFt, oatC: at.oatC };
  if (asked.pressureAltFt === null || asked.oatC === null)
    return { ...none, words: `not known: ${at.air.missing.join(' and ')} missing` };
  const where = atLeastOf(rows, asked);
  const table = tableDistance(
    tableFromRows(rows, (r) => r.distanceM),
    where,
  );
  if (table.distanceM === null) return { ...none, words: 'not known: outside the handbook table' };
  const need = runwayNeeded({
    groundRollM: null,
    over50M: table.distanceM,
    factors: runwayFactors('stop', house, at.runway, at.wet),
    safetyFactor: house.runway.safetyTakeoff,
    declaredM: at.runway.lengthM,
    widthM: null,
    requiredWidthM: null,
  });
  const rollM = at.takeoff?.need.groundRollM ?? null;
  const abortM = need.over50M === null || rollM === null ? null : at.runway.lengthM - (need.over50M - rollM);
  return {
    ...none,
    neededM: need.over50M,
    marginM: need.marginM,
    verdict: need.length,
    steps: need.steps.map(({ name, factor }) => ({ name, factor })),
    // Before the speed is reached it has not passed it; a point before the start is none.
    abortM: abortM === null ? null : Math.max(0, abortM),
    edge: where.massKg !== asked.massKg || where.pressureAltFt !== asked.pressureAltFt,
    words: need.words,
  };
}
