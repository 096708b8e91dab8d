/**
 * Atmosphere and the airspeed dial. Feet, hPa, degrees Celsius, knots.
 * Method: ICAO standard atmosphere, ideal gas; humidity by virtual temperature.
 */
import { needNumbers, needPositive } from '../guard';
import { G_MS2, M_PER_FT } from '../constants';

const ISA = {
  pressureHpa: 1013.25,
  temperatureK: 288.15,
  lapseKPerM: 0.0065,
  gasConstant: 287.05287,
  densityKgM3: 1.225,
};

/**
 * Pressure altitude of a field.
 * Source: ICAO standard atmosphere (Doc 7488).
 * @param elevFt field elevation, ft
 * @param qnhHpa altimeter setting, hPa (870 to 1085 is plausible; not checked here)
 * @returns feet in the standard atmosphere
 * @throws BadNumber when a number handed in is none
 * @example pressureAltitude(1345, 1013.25) // 1345
 */
export function pressureAltitude(elevFt: number, qnhHpa: number): number {
  needNumbers('pressureAltitude', { elevFt, qnhHpa });
  return elevFt + 145366.45 * (1 - (qnhHpa / ISA.pressureHpa) ** 0.190284);
}

export interface AirDensity {
  pressureHpa: number;
  densityKgM3: number;
  sigma: number;
  isaDevC: number;
}

/**
 * Air density at a pressure altitude.
 * Source: ICAO standard atmosphere (Doc 7488).
 * @param pressureAltFt ft, below the tropopause
 * @param oatC outside air temperature, °C
 * @param dewPointC dew point, °C, or null for dry air
 * @returns pressure in hPa, density in kg/m³, its ratio to sea level, and °C above the standard atmosphere
 * @throws BadNumber when a number handed in is none
 * @example
 * density(1345, 15, null)
 * // { pressureHpa: 964.96, densityKgM3: 1.1666, sigma: 0.95234, isaDevC: 2.6647 }
 */
export function density(pressureAltFt: number, oatC: number, dewPointC: number | null): AirDensity {
  needNumbers('density', { pressureAltFt, oatC, dewPointC });
  const heightM = pressureAltFt * M_PER_FT;
  const exponent = G_MS2 / (ISA.gasConstant * ISA.lapseKPerM);
  const pressureHpa = ISA.pressureHpa * (1 - (ISA.lapseKPerM * heightM) / ISA.temperatureK) ** exponent;
  const temperatureK = oatC + 273.15;
  const vapourHpa = dewPointC === null ? 0 : 6.112 * Math.exp((17.67 * dewPointC) / (dewPointC + 243.5));
  const virtualK = temperatureK / (1 - (0.378 * vapourHpa) / pressureHpa);
  const densityKgM3 = (100 * pressureHpa) / (ISA.gasConstant * virtualK);
  return {
    pressureHpa,
    densityKgM3,
    sigma: densityKgM3 / ISA.densityKgM3,
    isaDevC: oatC - (15 - ISA.lapseKPerM * heightM),
  };
}

/**
 * Density altitude, ft, from the density ratio `sigma` (dimensionless, > 0).
 * Source: ICAO standard atmosphere (Doc 7488).
 * @returns ft
 * @throws BadNumber when a number handed in is none
 * @example densityAltitude(0.9052199934611362) // 3363.5
 */
export function densityAltitude(sigma: number): number {
  needNumbers('densityAltitude', { sigma });
  return 145442.16 * (1 - sigma ** 0.234969);
}

/**
 * True airspeed from calibrated airspeed: CAS/√σ, good below 200 kt and 12 000 ft.
 * Source: ICAO standard atmosphere (Doc 7488).
 * @returns `outsideRange` true beyond those (the value is still given)
 * @throws BadNumber when a number handed in is none
 * @example tas(100, 0.952342325239436, 1345) // { tasKt: 102.47, outsideRange: false }
 */
export function tas(casKt: number, sigma: number, pressureAltFt: number): { tasKt: number; outsideRange: boolean } {
  needNumbers('tas', { casKt, sigma, pressureAltFt });
  needPositive('tas', { sigma });
  return { tasKt: casKt / Math.sqrt(sigma), outsideRange: casKt > 200 || pressureAltFt > 12000 };
}

/** One row of an airspeed indicator's error table, in one unit throughout: `correction` = CAS - IAS. */
export interface DialRow {
  ias: number;
  correction: number;
}

export interface Calibrated {
  cas: number;
  correction: number;
  outsideTable: boolean;
}

/**
 * Indicated to calibrated airspeed. The correction is linear between rows and held flat outside with a flag.
 * Source: ICAO standard atmosphere (Doc 7488).
 * @param ias indicated, any unit, the same as the table's
 * @param table rows in any order; none: correction 0, `outsideTable` true
 * @returns CAS in the unit of `ias`; `outsideTable` where the reading lies beyond the rows
 * @throws BadNumber when a number handed in is none
 * @example
 * iasToCas(50, [{ ias: 45, correction: 3.6 }, { ias: 60, correction: 1.8 }, { ias: 80, correction: 0.8 },
 * { ias: 110, correction: 0 }, { ias: 160, correction: -2 }])
 * // { cas: 53, correction: 3, outsideTable: false }
 */
export function iasToCas(ias: number, table: readonly DialRow[]): Calibrated {
  needNumbers('iasToCas', { ias, table });
  const rows = [...table].sort((a, b) => a.ias - b.ias);
  const first = rows[0];
  const last = rows[rows.length - 1];
  if (!first || !last) return { cas: ias, correction: 0, outsideTable: true };
  if (ias <= first.ias)
    return { cas: ias + first.correction, correction: first.correction, outsideTable: ias < first.ias };
  for (let i = 1; i < rows.length; i++) {
    const low = rows[i - 1];
    const high = rows[i];
    if (!low || !high || ias > high.ias) continue;
    const share = (ias - low.ias) / (high.ias - low.ias);
    const correction = low.correction + share * (high.correction - low.correction);
    return { cas: ias + correction, correction, outsideTable: false };
  }
  return { cas: ias + last.correction, correction: last.correction, outsideTable: true };
}

/**
 * Calibrated to indicated airspeed: the reading that {@link iasToCas} turns into `cas`, found by bisection.
 * Holds for tables whose CAS grows with IAS (the sheet validator asks for that).
 * Source: ICAO standard atmosphere (Doc 7488).
 * @returns IAS in the unit of `cas`
 * @throws BadNumber when a number handed in is none
 */
export function casToIas(cas: number, table: readonly DialRow[]): number {
  needNumbers('casToIas', { cas, table });
  let low = cas - 60;
  let high = cas + 60;
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2;
    if (iasToCas(mid, table).cas < cas) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}
