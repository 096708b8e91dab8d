/**
 * The clock of a flight in progress: block and airborne time, what is left of booking and fuel, and the circuits that
 * still fit. Minutes, litres.
 */
import { median } from '../constants';
import { circuitsThatFit, endurance } from './endurance';

export type ClockMark = 'off-block' | 'take-off' | 'landed' | 'on-block' | 'booking-ends';
export interface FlightClockInput {
  /**
   * In any order; of the same mark the newest counts, take-offs and landings are paired as they come. Times in ms of
   * one clock.
   */
  marks: readonly { mark: ClockMark; atMs: number }[];
  nowMs: number;
  bookingMin: number;
  /** On board at the start; null = not known, and fuel does not limit. */
  fuelL: number | null;
  flowLPerH: number;
  night: boolean;
  reserveMin: number | null;
  /** Start to line-up and landing to shut-down together. */
  groundMin: number;
  circuitMin: number;
  /** Ends of the landings of this flight, ms, in order: with four or more the circuit is taken from them. */
  landingsMs: readonly number[];
}
export type ClockAlert = 'reserve' | 'booking-over' | 'last-circuit' | null;
export interface FlightClock {
  blockMin: number | null;
  airborneMin: number;
  bookingLeftMin: number;
  fuelLeftL: number | null;
  fuelTimeMin: number | null;
  circuitMin: number;
  circuitLearned: boolean;
  circuits: number;
  limitedBy: 'booking' | 'fuel';
  alert: ClockAlert;
}
const MIN_MS = 60_000;
/** Landings from which the time of a circuit is learned, and gaps that can be a circuit. */
const LEARN_FROM = 4;
const CIRCUIT_MIN = [2, 20] as const;

/**
 * Fuel burns at the sheet's flow from off blocks to on blocks. The booking begins off blocks and ends when it says, or
 * at the mark moved by hand. Once airborne half of the ground time is behind. The last landing on the ground ends
 * airborne time.
 */
export function flightClock(c: FlightClockInput): FlightClock {
  const newest = (mark: ClockMark): number | null =>
    c.marks
      .filter((m) => m.mark === mark)
      .reduce<number | null>((a, m) => (a === null || m.atMs > a ? m.atMs : a), null);
  const off = newest('off-block');
  const on = newest('on-block');
  const ended = off !== null && on !== null && on > off ? on : c.nowMs;
  const blockMin = off === null ? null : Math.max(0, (ended - off) / MIN_MS);
  let up: number | null = null;
  let airborneMs = 0;
  for (const m of c.marks.filter((x) => x.mark === 'take-off' || x.mark === 'landed').sort((a, b) => a.atMs - b.atMs)) {
    if (m.mark === 'take-off') up ??= m.atMs;
    else if (up !== null) {
      airborneMs += m.atMs - up;
      up = null;
    }
  }
  if (up !== null) airborneMs += Math.max(0, ended - up);
  const ends = newest('booking-ends') ?? (off === null ? null : off + c.bookingMin * MIN_MS);
  const bookingLeftMin = ends === null ? c.bookingMin : (ends - c.nowMs) / MIN_MS;
  const fuelLeftL = c.fuelL === null ? null : Math.max(0, c.fuelL - ((blockMin ?? 0) / 60) * c.flowLPerH);
  const fuelTimeMin =
    fuelLeftL === null
      ? null
      : endurance({ usableL: fuelLeftL, flowLH: c.flowLPerH, night: c.night, reserveMin: c.reserveMin }).usableMin;
  const gaps = c.landingsMs
    .slice(1)
    .map((t, i) => (t - (c.landingsMs[i] ?? t)) / MIN_MS)
    .filter((g) => g >= CIRCUIT_MIN[0] && g <= CIRCUIT_MIN[1]);
  const circuitLearned = c.landingsMs.length >= LEARN_FROM && gaps.length >= LEARN_FROM - 1;
  const circuitMin = circuitLearned ? median(gaps) : c.circuitMin;
  const flown = c.marks.some((m) => m.mark === 'take-off');
  const fit = circuitsThatFit({
    bookingLeftMin: Math.max(0, bookingLeftMin),
    fuelTimeMin: fuelTimeMin ?? Number.MAX_SAFE_INTEGER,
    groundSamplesMin: [],
    groundDefaultMin: flown ? c.groundMin / 2 : c.groundMin,
    circuitMin,
  });
  const running = off !== null && on === null;
  const alert: ClockAlert = !running
    ? null
    : fuelTimeMin !== null && fuelTimeMin <= 0
      ? 'reserve'
      : bookingLeftMin <= 0
        ? 'booking-over'
        : fit.circuits <= 1
          ? 'last-circuit'
          : null;
  return {
    blockMin,
    airborneMin: airborneMs / MIN_MS,
    bookingLeftMin,
    fuelLeftL,
    fuelTimeMin,
    circuitMin,
    circuitLearned,
    circuits: fit.circuits,
    limitedBy: fit.limitedBy,
    alert,
  };
}
