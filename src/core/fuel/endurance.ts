/** Fuel flow, endurance and how many circuits fit. Litres, minutes. */
import { needNumbers, needPositive } from '../guard';
import { L_PER_US_GAL, SLACK, median } from '../constants';

const DEFAULT_BSFC = { injected: 0.45, carburetted: 0.49 } as const;

/**
 * Flow from power and specific consumption: P·%·BSFC/6 US gal/h.
 * Source: the handbook's flow, less the reserve.
 * @param bsfcLbHpH lb/hp/h; null = 0.45 injected, 0.49 carburetted
 * @returns US gallons and litres an hour
 * @throws BadNumber when a number handed in is none
 * @example
 * bsfcFlow({ ratedHp: 200, powerPct: 65, bsfcLbHpH: null, induction: 'injected' })
 * // { flowGalH: 9.75, flowLH: 36.908 }
 */
export function bsfcFlow(input: {
  ratedHp: number;
  powerPct: number;
  bsfcLbHpH: number | null;
  induction: 'injected' | 'carburetted';
}): { flowGalH: number; flowLH: number } {
  needNumbers('bsfcFlow', input);
  const flowGalH = (((input.ratedHp * input.powerPct) / 100) * (input.bsfcLbHpH ?? DEFAULT_BSFC[input.induction])) / 6;
  return { flowGalH, flowLH: flowGalH * L_PER_US_GAL };
}

export interface Endurance {
  totalMin: number;
  reserveMin: number;
  usableMin: number;
}

/**
 * Endurance less the reserve (null = 30 min by day, 45 by night, at the same flow). `usableMin` is never below 0.
 * Source: the handbook's flow, less the reserve.
 * @returns minutes, and litres held back
 * @throws BadNumber when a number handed in is none
 * @example
 * endurance({ usableL: 5, flowLH: 20, night: true, reserveMin: null })
 * // { totalMin: 15, reserveMin: 45, usableMin: 0 }
 */
export function endurance(input: {
  usableL: number;
  flowLH: number;
  night: boolean;
  reserveMin: number | null;
}): Endurance {
  needNumbers('endurance', input);
  needPositive('endurance', { flowLH: input.flowLH });
  const totalMin = (input.usableL / input.flowLH) * 60;
  const reserveMin = input.reserveMin ?? (input.night ? 45 : 30);
  return { totalMin, reserveMin, usableMin: Math.max(0, totalMin - reserveMin) };
}

export interface CircuitsFit {
  groundMin: number;
  availableMin: number;
  circuits: number;
  limitedBy: 'booking' | 'fuel';
}

/**
 * How many circuits fit: (min(booking left, fuel time) − ground time)/circuit time, whole ones. Ground time is the
 * median of past flights; `groundDefaultMin` when there are none. Ground time burns fuel at the same flow.
 * Source: the handbook's flow, less the reserve.
 * @param circuitMin minutes each, > 0
 * @returns whole circuits, and whether fuel or booking limits them
 * @throws BadNumber when a number handed in is none
 * @example
 * circuitsThatFit({ bookingLeftMin: 60, fuelTimeMin: 90, groundSamplesMin: [30, 10, 20], groundDefaultMin: 99,
 * circuitMin: 6 })
 * // { groundMin: 20, availableMin: 40, circuits: 6, limitedBy: 'booking' }
 */
export function circuitsThatFit(input: {
  bookingLeftMin: number;
  fuelTimeMin: number;
  groundSamplesMin: readonly number[];
  groundDefaultMin: number;
  circuitMin: number;
}): CircuitsFit {
  needNumbers('circuitsThatFit', input);
  needPositive('circuitsThatFit', { circuitMin: input.circuitMin });
  const groundMin = input.groundSamplesMin.length === 0 ? input.groundDefaultMin : median(input.groundSamplesMin);
  const availableMin = Math.max(0, Math.min(input.bookingLeftMin, input.fuelTimeMin) - groundMin);
  return {
    groundMin,
    availableMin,
    circuits: Math.floor(availableMin / input.circuitMin + SLACK),
    limitedBy: input.fuelTimeMin < input.bookingLeftMin ? 'fuel' : 'booking',
  };
}
