/**
 * The clock of a flight in progress: block and airborne time, what is left of booking and fuel, and the circuits that
 * still fit. Minutes, litres.
 */
import { median } from '../constants';
import { needNumbers } from '../guard';
import { circuitsThatFit, endurance } from './endurance';

export type ClockMark = 'off-block' | 'take-off' | 'landed' | 'on-block' | 'booking-ends';
export interface FlightClockInput {
  /**
   * In any order, paired as they come: of two off-blocks without an on-block between them the first counts, of two
   * on-blocks the last; of the ends of the booking the last in the list. Times in ms of one clock.
   */
  marks: readonly { mark: ClockMark; atMs: number }[];
  nowMs: number;
  bookingMin: number;
  /** On board at the start; null = not known. */
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
export type ClockAlert = 'reserve' | 'fuel-unknown' | 'booking-over' | 'last-circuit' | null;
/** What fuel is counted from; *unknown* once something was flown with no mark to count from, or with no fuel known. */
export type FuelFrom = 'not-started' | 'off-block' | 'take-off' | 'unknown';
export interface FlightClock {
  /** All block spans of the flight together; null with no off-block mark. */
  blockMin: number | null;
  airborneMin: number;
  bookingLeftMin: number;
  /** Null = unknown: never zero, never the fuel at the start. */
  fuelLeftL: number | null;
  fuelFrom: FuelFrom;
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

/** One time with the engine running: from its mark to on blocks, or to now. */
interface Span {
  fromMs: number;
  toMs: number;
  by: 'off-block' | 'take-off';
}

/** Spans the engine ran, in order. A take-off with no off-block before it opens one of its own. */
function runs(marks: FlightClockInput['marks'], nowMs: number): { spans: Span[]; open: boolean } {
  const spans: Span[] = [];
  let open = false;
  for (const m of marks) {
    const last = spans[spans.length - 1];
    if ((m.mark === 'off-block' || m.mark === 'take-off') && !open) {
      spans.push({ fromMs: m.atMs, toMs: Math.max(nowMs, m.atMs), by: m.mark });
      open = true;
    } else if (m.mark === 'on-block' && last) {
      last.toMs = m.atMs;
      open = false;
    }
  }
  return { spans, open };
}

/**
 * Fuel burns at the sheet's flow through every span from off blocks to on blocks; with no off-block mark, from the
 * take-off; with neither, once something was flown, or with a landing before the first mark, it is unknown. The booking begins with the first span and ends when
 * it says, or at the mark moved by hand. Once airborne half of the ground time is behind. The last landing on the
 * ground ends airborne time.
 * Source: block, airborne and fuel time as logged.
 * @param c minutes, litres, ms of one clock; marks whose time is no number are left out
 * @returns minutes and litres; `fuelLeftL` and `fuelTimeMin` null when fuel is unknown, and then `circuits` is 0 with
 * `limitedBy` *fuel*
 * @throws RangeError when `nowMs`, the booking, ground or circuit time is no number
 * @example flightClock({ ...flight, marks: [{ mark: 'off-block', atMs: 0 }], nowMs: 3_600_000 }).blockMin // 60
 */
export function flightClock(c: FlightClockInput): FlightClock {
  if (!Number.isFinite(c.nowMs)) throw new RangeError('the flight clock needs the time of now');
  needNumbers('flightClock', { bookingMin: c.bookingMin, groundMin: c.groundMin, circuitMin: c.circuitMin });
  const marks = c.marks.filter((m) => Number.isFinite(m.atMs)).sort((a, b) => a.atMs - b.atMs);
  const { spans, open } = runs(marks, c.nowMs);
  const ranMs = spans.reduce((a, s) => a + Math.max(0, s.toMs - s.fromMs), 0);
  const blocks = spans.filter((s) => s.by === 'off-block');
  const blockMin = blocks.length === 0 ? null : blocks.reduce((a, s) => a + Math.max(0, s.toMs - s.fromMs), 0) / MIN_MS;
  const ended = open ? c.nowMs : (spans[spans.length - 1]?.toMs ?? c.nowMs);
  let up: number | null = null;
  let airborneMs = 0;
  for (const m of marks) {
    if (m.mark === 'take-off') up ??= m.atMs;
    else if ((m.mark === 'landed' || m.mark === 'on-block') && up !== null) {
      airborneMs += m.atMs - up;
      up = null;
    }
  }
  if (up !== null) airborneMs += Math.max(0, ended - up);
  // As they were tapped: an end moved forward is earlier than the one it replaces.
  const moved = c.marks.filter((m) => m.mark === 'booking-ends' && Number.isFinite(m.atMs));
  const movedMs = moved[moved.length - 1]?.atMs ?? null;
  const firstMs = spans[0]?.fromMs ?? null;
  const ends = movedMs ?? (firstMs === null ? null : firstMs + c.bookingMin * MIN_MS);
  const bookingLeftMin = ends === null ? c.bookingMin : (ends - c.nowMs) / MIN_MS;

  const flown = marks.some((m) => m.mark === 'take-off' || m.mark === 'landed') || c.landingsMs.length > 0;
  const burns = Number.isFinite(c.flowLPerH) && c.flowLPerH > 0;
  const known = c.fuelL !== null && Number.isFinite(c.fuelL) && c.fuelL >= 0 && burns;
  // What was burnt for a landing before the first mark, nobody knows.
  const before = firstMs !== null && c.landingsMs.some((t) => t < firstMs);
  const fuelFrom: FuelFrom =
    !known || before
      ? 'unknown'
      : spans.length === 0
        ? flown
          ? 'unknown'
          : 'not-started'
        : spans.some((s) => s.by === 'take-off')
          ? 'take-off'
          : 'off-block';
  const fuelLeftL =
    fuelFrom === 'unknown' || c.fuelL === null ? null : Math.max(0, c.fuelL - (ranMs / MIN_MS / 60) * c.flowLPerH);
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
  const fit = circuitsThatFit({
    bookingLeftMin: Math.max(0, bookingLeftMin),
    fuelTimeMin: fuelTimeMin ?? 0,
    groundSamplesMin: [],
    groundDefaultMin: flown ? c.groundMin / 2 : c.groundMin,
    circuitMin,
  });
  const alert: ClockAlert =
    !open && fuelFrom !== 'unknown'
      ? null
      : fuelTimeMin !== null && fuelTimeMin <= 0
        ? 'reserve'
        : bookingLeftMin <= 0
          ? 'booking-over'
          : fuelFrom === 'unknown'
            ? flown || open
              ? 'fuel-unknown'
              : null
            : fit.circuits <= 1
              ? 'last-circuit'
              : null;
  return {
    blockMin,
    airborneMin: airborneMs / MIN_MS,
    bookingLeftMin,
    fuelLeftL,
    fuelFrom,
    fuelTimeMin,
    circuitMin,
    circuitLearned,
    circuits: fit.circuits,
    limitedBy: fit.limitedBy,
    alert,
  };
}
