import { needNumbers } from '../guard';
import { cosDeg, norm180, norm360, sinDeg } from '../constants';

export interface WindComponents {
  angleDeg: number;
  headwindKt: number;
  crosswindKt: number;
  gustHeadwindKt: number | null;
  gustCrosswindKt: number | null;
}

/**
 * Headwind and crosswind on a runway. Wind and runway must be in the same reference.
 * Source: sine and cosine of the angle between wind and runway.
 * @param windFromDeg direction the wind comes from, degrees
 * @param windKt mean speed, kt, ≥ 0
 * @param gustKt gust speed, kt, or null
 * @param runwayDeg runway direction, degrees
 * @returns crosswind positive from the right, headwind negative when it is a tailwind
 * @throws BadNumber when a number handed in is none
 * @example
 * components(288, 12, 13, 288)
 * // { angleDeg: 0, headwindKt: 12, crosswindKt: 0, gustHeadwindKt: 13, gustCrosswindKt: 0 }
 */
export function components(
  windFromDeg: number,
  windKt: number,
  gustKt: number | null,
  runwayDeg: number,
): WindComponents {
  needNumbers('components', { windFromDeg, windKt, gustKt, runwayDeg });
  const angleDeg = norm180(windFromDeg - runwayDeg);
  const along = cosDeg(angleDeg);
  const across = sinDeg(angleDeg);
  return {
    angleDeg,
    headwindKt: windKt * along,
    crosswindKt: windKt * across,
    gustHeadwindKt: gustKt === null ? null : gustKt * along,
    gustCrosswindKt: gustKt === null ? null : gustKt * across,
  };
}

export interface WindReportDirection {
  variable: boolean;
  arcFromDeg: number | null;
  arcToDeg: number | null;
  windFromDeg: number | null;
  windKt: number;
  gustKt: number | null;
}

export interface WorstCase {
  worstCrosswindKt: number;
  worstCrosswindFromDeg: number | null;
  maxFromRightKt: number;
  maxFromLeftKt: number;
  worstTailwindKt: number;
  worstGustCrosswindKt: number | null;
  worstGustTailwindKt: number | null;
}

/**
 * Worst crosswind and tailwind over a reported direction range (clockwise, in 1° steps) or a variable wind.
 * VRB: crosswind from either side and tailwind equal the full wind. Same reference for wind and runway.
 * Source: sine and cosine of the angle between wind and runway.
 * @returns kt, and where the worst crosswind comes from; null gusts where none are reported
 * @throws BadNumber when a number handed in is none
 */
export function worstCase(wind: WindReportDirection, runwayDeg: number): WorstCase {
  needNumbers('worstCase', { wind, runwayDeg });
  const { windKt, gustKt } = wind;
  const scaled = (across: number, tail: number) => ({
    worstGustCrosswindKt: gustKt === null ? null : gustKt * across,
    worstGustTailwindKt: gustKt === null ? null : gustKt * tail,
  });
  if (wind.variable) {
    return {
      worstCrosswindKt: windKt,
      worstCrosswindFromDeg: null,
      maxFromRightKt: windKt,
      maxFromLeftKt: windKt,
      worstTailwindKt: windKt,
      ...scaled(1, 1),
    };
  }
  let across = 0;
  let from: number | null = null;
  let right = 0;
  let left = 0;
  let tail = 0;
  for (const dir of arcDirections(wind)) {
    const s = sinDeg(dir - runwayDeg);
    if (from === null || Math.abs(s) > across + 1e-9) {
      across = Math.abs(s);
      from = norm360(dir);
    }
    right = Math.max(right, s);
    left = Math.max(left, -s);
    tail = Math.max(tail, -cosDeg(dir - runwayDeg));
  }
  return {
    worstCrosswindKt: windKt * across,
    worstCrosswindFromDeg: from,
    maxFromRightKt: windKt * right,
    maxFromLeftKt: windKt * left,
    worstTailwindKt: windKt * tail,
    ...scaled(across, tail),
  };
}

function arcDirections(wind: WindReportDirection): number[] {
  const { arcFromDeg, arcToDeg, windFromDeg } = wind;
  if (arcFromDeg === null || arcToDeg === null) return [windFromDeg ?? 360];
  const span = (((arcToDeg - arcFromDeg) % 360) + 360) % 360;
  const directions: number[] = [];
  for (let step = 0; step < span; step++) directions.push(arcFromDeg + step);
  directions.push(arcFromDeg + span);
  return directions;
}

export type NorthReference = 'true' | 'magnetic';

/**
 * Direction between true and magnetic: true = magnetic + variation (east positive).
 * Source: sine and cosine of the angle between wind and runway.
 * @returns degrees in (0, 360]
 * @throws BadNumber when a number handed in is none
 * @example convertReference(1, 'true', 'true', -2) // 1
 */
export function convertReference(
  directionDeg: number,
  from: NorthReference,
  to: NorthReference,
  variationDeg: number,
): number {
  needNumbers('convertReference', { directionDeg, from, to, variationDeg });
  if (from === to) return norm360(directionDeg);
  return norm360(to === 'true' ? directionDeg + variationDeg : directionDeg - variationDeg);
}

export interface RunwayEnd {
  id: string;
  headingDeg: number;
  lengthM: number;
}
export type UnsuitableReason = 'tailwind' | 'length';
export interface RunwayChoice {
  chosenId: string | null;
  runways: { id: string; headwindKt: number; crosswindKt: number; suitable: boolean; reasons: UnsuitableReason[] }[];
}

/**
 * Least crosswind among the runway ends whose tailwind and length are within limits (both inclusive),
 * at gust speed where there is a gust. Ties go to the greater headwind, then the longer, then the listed order.
 * Source: sine and cosine of the angle between wind and runway.
 * @returns `chosenId` null when none is suitable; the components of every end in the order given
 * @throws BadNumber when a number handed in is none
 */
export function chooseRunway(
  wind: { windFromDeg: number; windKt: number; gustKt: number | null },
  limits: { tailwindLimitKt: number; requiredLengthM: number },
  runways: readonly RunwayEnd[],
): RunwayChoice {
  needNumbers('chooseRunway', { wind, limits, runways });
  const speedKt = wind.gustKt ?? wind.windKt;
  const seen = runways.map((end) => {
    const { headwindKt, crosswindKt } = components(wind.windFromDeg, speedKt, null, end.headingDeg);
    const reasons: UnsuitableReason[] = [];
    if (Math.max(0, -headwindKt) > limits.tailwindLimitKt) reasons.push('tailwind');
    if (end.lengthM < limits.requiredLengthM) reasons.push('length');
    return { id: end.id, headwindKt, crosswindKt, suitable: reasons.length === 0, reasons, lengthM: end.lengthM };
  });
  const TIE_KT = 1e-6;
  const differs = (x: number) => Math.abs(x) > TIE_KT;
  const best = seen
    .filter((r) => r.suitable)
    .sort((a, b) => {
      const across = Math.abs(a.crosswindKt) - Math.abs(b.crosswindKt);
      if (differs(across)) return across;
      const head = b.headwindKt - a.headwindKt;
      if (differs(head)) return head;
      return b.lengthM - a.lengthM;
    })[0];
  return { chosenId: best?.id ?? null, runways: seen.map(({ lengthM: _, ...rest }) => rest) };
}
