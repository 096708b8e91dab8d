import { SLACK } from '../constants';
import { needNumbers } from '../guard';

/** Climb below which a ceiling is called the service ceiling, and a drift-down ended, ft/min. */
const SERVICE_FPM = 50;
const AT_BEST = 'at Vyse exact, clean, feathered, new aeroplane';

export interface OneEngineClimb {
  /** ft/min; negative when it sinks. */
  rocFpm: number | null;
  /** Density altitude at 50 ft/min; null when it never climbs so much. */
  serviceCeilingFt: number | null;
  /** Feet per nautical mile over the ground; null with no ground speed. */
  gradientFtPerNm: number | null;
  words: string | null;
}

/**
 * Rate and gradient on one engine at a density altitude: linear from the sea-level rate to nothing at the absolute
 * ceiling, and on below it. Feet of density altitude, ft/min, knots. Whole feet per mile, rounded to the safe side.
 * Source: rate of climb falling linearly from sea level to the absolute ceiling.
 * @param input.rocSeaLevelFpm above 0, at sea level; @param input.absoluteCeilingFt above 0
 * @returns all null where a rate or a ceiling is not above 0
 * @throws BadNumber on a value that is no number
 * @example oneEngineClimb({ rocSeaLevelFpm: 240, absoluteCeilingFt: 7800, altitudeFt: 4000, groundSpeedKt: 95 })
 */
export function oneEngineClimb(input: {
  rocSeaLevelFpm: number;
  absoluteCeilingFt: number;
  altitudeFt: number;
  groundSpeedKt: number;
}): OneEngineClimb {
  needNumbers('oneEngineClimb', input);
  const { rocSeaLevelFpm, absoluteCeilingFt, altitudeFt, groundSpeedKt } = input;
  if (rocSeaLevelFpm <= 0 || absoluteCeilingFt <= 0)
    return { rocFpm: null, serviceCeilingFt: null, gradientFtPerNm: null, words: null };
  const rocFpm = rocSeaLevelFpm * (1 - altitudeFt / absoluteCeilingFt);
  const gradientFtPerNm = groundSpeedKt > 0 ? (60 * rocFpm) / groundSpeedKt : null;
  return {
    rocFpm,
    serviceCeilingFt: rocSeaLevelFpm > SERVICE_FPM ? absoluteCeilingFt * (1 - SERVICE_FPM / rocSeaLevelFpm) : null,
    gradientFtPerNm,
    words: gradientFtPerNm === null ? null : gradientWords(gradientFtPerNm),
  };
}

function gradientWords(ftPerNm: number): string {
  if (ftPerNm >= 1 - SLACK)
    return `${Math.floor(ftPerNm + SLACK)} ft per NM ${AT_BEST}; descends with gear, flap or windmilling`;
  return ftPerNm > -1 + SLACK
    ? `does not climb ${AT_BEST}`
    : `descends ${Math.ceil(-ftPerNm - SLACK)} ft per NM ${AT_BEST}`;
}

/**
 * Absolute ceiling from a published service ceiling (50 ft/min) and the rate at sea level, density feet. Null when the
 * rate is not above 50 ft/min.
 * Source: rate of climb falling linearly from sea level to the absolute ceiling.
 * @returns ft of density altitude
 * @throws BadNumber when a number handed in is none
 * @example absoluteCeiling(240, 6175) // 7800
 */
export function absoluteCeiling(rocSeaLevelFpm: number, serviceCeilingFt: number): number | null {
  needNumbers('absoluteCeiling', { rocSeaLevelFpm, serviceCeilingFt });
  return rocSeaLevelFpm <= SERVICE_FPM ? null : (serviceCeilingFt * rocSeaLevelFpm) / (rocSeaLevelFpm - SERVICE_FPM);
}

export interface DriftDown {
  /** ft/min, 0 at or below the ceiling. */
  initialSinkFpm: number;
  /** The altitude it tends to: the absolute ceiling, or its own when not above it. */
  finalAltitudeFt: number;
  /** Where the sink has fallen to 50 ft/min, which ends the drift-down. */
  endAltitudeFt: number;
  timeMin: number;
  distanceNm: number;
  altitudeAfterFt: number | null;
}

/**
 * Drift-down from above the one-engine ceiling: the linear climb line continued above it, so that the ceiling is
 * neared and never reached; time and distance are to 50 ft/min of sink. Density feet, minutes, knots held constant.
 * Source: rate of climb falling linearly from sea level to the absolute ceiling.
 * @returns null where a rate or a ceiling is not above 0
 * @throws BadNumber when a number handed in is none
 * @example driftDown({ fromAltitudeFt: 9500, rocSeaLevelFpm: 240, absoluteCeilingFt: 7800, groundSpeedKt: 100 })
 */
export function driftDown(input: {
  fromAltitudeFt: number;
  rocSeaLevelFpm: number;
  absoluteCeilingFt: number;
  groundSpeedKt: number;
  afterMin?: number | null;
}): DriftDown | null {
  needNumbers('driftDown', input);
  const { fromAltitudeFt: from, absoluteCeilingFt: ceiling, rocSeaLevelFpm } = input;
  if (rocSeaLevelFpm <= 0 || ceiling <= 0) return null;
  const perMin = rocSeaLevelFpm / ceiling;
  const sink = Math.max(0, (from - ceiling) * perMin);
  const end = ceiling + SERVICE_FPM / perMin;
  const over = from <= end;
  const timeMin = over ? 0 : Math.log(((from - ceiling) * perMin) / SERVICE_FPM) / perMin;
  const after = input.afterMin ?? null;
  return {
    initialSinkFpm: sink,
    finalAltitudeFt: Math.min(from, ceiling),
    endAltitudeFt: over ? from : end,
    timeMin,
    distanceNm: (Math.max(0, input.groundSpeedKt) * timeMin) / 60,
    altitudeAfterFt: after === null ? null : ceiling + (from - ceiling) * Math.exp(-perMin * after),
  };
}
