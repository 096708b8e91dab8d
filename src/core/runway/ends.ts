/**
 * The two ends of a runway with their slopes and threshold elevations: the one place where slope is turned round.
 * Positive = rises in the direction of the first end's take-off.
 */
import type { Aerodrome } from '@/domain/sheet';
import { M_PER_FT } from '../constants';
import { needNumbers, needPositive } from '../guard';

export type Strip = Aerodrome['runways'][number];
export type StripEnd = Strip['ends'][number];
export interface EndOfRunway {
  end: StripEnd;
  /** Per cent along a take-off from this end: positive uphill. A landing towards it has the same sign. */
  slopePct: number;
  /** Of this end's threshold, ft. */
  thresholdFt: number;
  /** The elevations of both ends are entered, and the slope comes from them. */
  surveyed: boolean;
}

/**
 * Both ends of a runway as they are used.
 * @param strip lengths in metres, elevations in feet above the sea, slope in per cent
 * @returns both ends: metres, feet, per cent
 * @throws BadNumber when a number is none or the length is not above 0
 * @example endsOf({ ...strip, slopePct: 0.4 })[1].slopePct // -0.4: landing or taking off the other way it falls
 */
export function endsOf(strip: Strip): EndOfRunway[] {
  needNumbers('endsOf', strip);
  needPositive('endsOf', { lengthM: strip.lengthM });
  const [low, high] = strip.ends.map((e) => e.elevationFt ?? null);
  const surveyed = typeof low === 'number' && typeof high === 'number';
  const first = surveyed ? (((high - low) * M_PER_FT) / strip.lengthM) * 100 : strip.slopePct;
  const halfRiseFt = ((first / 100) * strip.lengthM) / 2 / M_PER_FT;
  return strip.ends.map((end, i) => ({
    end,
    slopePct: i === 0 ? first : -first,
    thresholdFt: surveyed ? (i === 0 ? low : high) : strip.elevationFt + (i === 0 ? -halfRiseFt : halfRiseFt),
    surveyed,
  }));
}
