import { type DialRow, casToIas, iasToCas } from '../air';
import { KT_PER_MPH } from '../constants';

export type DialUnit = 'kt' | 'mph';
/** An airspeed indicator: the unit painted on it and its error table in that unit. */
export interface Dial {
  unit: DialUnit;
  table: readonly DialRow[];
}

/**
 * Knots in one unit of the dial.
 * Source: the sheet's own error table, linear between its rows.
 * @returns kt
 */
export const ktPerUnit = (unit: DialUnit): number => (unit === 'mph' ? KT_PER_MPH : 1);

/**
 * Calibrated knots behind a reading of this dial.
 * Source: the sheet's own error table, linear between its rows.
 * @returns kt CAS
 */
export const dialToCasKt = (reading: number, dial: Dial): number =>
  iasToCas(reading, dial.table).cas * ktPerUnit(dial.unit);

/**
 * The reading of this dial, in its own unit, that means `casKt`.
 * Source: the sheet's own error table, linear between its rows.
 * @returns in the unit of the dial
 */
export const casKtToDial = (casKt: number, dial: Dial): number => casToIas(casKt / ktPerUnit(dial.unit), dial.table);

/**
 * A difference of speed (gust additive, tolerance) from knots into the dial's unit.
 * Source: the sheet's own error table, linear between its rows.
 * @returns in the unit of the dial
 */
export const ktToDialDelta = (kt: number, dial: Dial): number => kt / ktPerUnit(dial.unit);
