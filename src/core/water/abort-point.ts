import { M_PER_FT, SLACK } from '../constants';
import { needNumbers } from '../guard';

export interface AbortPoint {
  abortPointM: number | null;
  liftOffSpareM: number | null;
  stopSpareM: number | null;
  shorelineSpareFt: number | null;
  liftOffFits: boolean | null;
  stopFits: boolean | null;
  shorelineFits: boolean | null;
  /** All three; anything unknown does not fit. */
  fits: boolean;
}

/** Share of the usable lane at which a take-off that has not lifted off is given up. */
const ABORT_SHARE = 0.75;
const CLEAR_FT = 50;

/**
 * Abort point of a take-off from water: lift-off before three quarters of the lane, stopping in the rest, and the climb
 * from there over the shoreline. Metres from the start, feet.
 * @returns null for what is not known, and then it does not fit; all null on a lane of no length
 * @throws BadNumber on a value that is no number
 * @example waterAbortPoint({ usableLaneM: 1200, liftOffM: 700, stopFromAbortM: 260, climbGradient: 0.09, shorelineFt: 20 })
 */
export function waterAbortPoint(input: {
  usableLaneM: number;
  liftOffM: number | null;
  stopFromAbortM: number | null;
  climbGradient: number | null;
  shorelineFt: number | null;
  clearFt?: number;
}): AbortPoint {
  needNumbers('waterAbortPoint', input);
  const { usableLaneM: lane, liftOffM, stopFromAbortM, climbGradient, shorelineFt } = input;
  if (lane <= 0)
    return {
      abortPointM: null,
      liftOffSpareM: null,
      stopSpareM: null,
      shorelineSpareFt: null,
      liftOffFits: null,
      stopFits: null,
      shorelineFits: null,
      fits: false,
    };
  const abortPointM = ABORT_SHARE * lane;
  const restM = lane - abortPointM;
  const liftOffSpareM = liftOffM === null ? null : abortPointM - liftOffM;
  const stopSpareM = stopFromAbortM === null ? null : restM - stopFromAbortM;
  const shorelineSpareFt =
    climbGradient === null || shorelineFt === null
      ? null
      : (restM / M_PER_FT) * climbGradient - shorelineFt - (input.clearFt ?? CLEAR_FT);
  const fit = (spare: number | null) => (spare === null ? null : spare >= -SLACK);
  const all = [fit(liftOffSpareM), fit(stopSpareM), fit(shorelineSpareFt)] as const;
  return {
    abortPointM,
    liftOffSpareM,
    stopSpareM,
    shorelineSpareFt,
    liftOffFits: all[0],
    stopFits: all[1],
    shorelineFits: all[2],
    fits: all.every((f) => f === true),
  };
}
