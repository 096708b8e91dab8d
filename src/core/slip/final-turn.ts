import { G_MS2, MS_PER_KT, cosDeg, tanDeg } from '../constants';
import { needNumbers, needPositive } from '../guard';

export interface FinalTurnInput {
  casKt: number;
  bankDeg: number;
  /** + = foot into the turn (a skid), - = foot out of it (a slip), 0 = ball centred; of the sheet's greatest sideslip. */
  skid: number;
  stallCasKt: number;
  spanM: number;
  sideslipMaxDeg: number;
  /** Share of full aileron in the greatest sideslip. */
  aileronInSlip: number;
}
export interface WingInTurn {
  /** Speed of the aeroplane at which this wing stalls, kt CAS, and how much is left of it. */
  stallsAtCasKt: number;
  marginKt: number;
}
export interface FinalTurn {
  loadFactor: number;
  /** Ball centred, the whole wing. */
  stallsAtCasKt: number;
  inner: WingInTurn;
  outer: WingInTurn;
  first: 'inner' | 'outer';
  /** Where the roll goes when the first wing lets go: under, further into the turn; or over, back through level. */
  rolls: 'under' | 'over';
  /** Degrees to inverted for the roll that goes under, to level for the one that goes over. */
  rollAwayDeg: number;
}
/** Where on the half span a wing is judged, and what full aileron adds to its share of the lift there. */
const AT_SPAN = 0.7;
const AILERON_LIFT = 0.3;

/**
 * A level turn with the wrong foot: which wing stalls first, at what speed, and which way it rolls. In a skid the aileron is
 * held against the turn: the inner wing is the slower one and its aileron is down. In a slip the outer wing has its aileron
 * down and is the faster one.
 * Source: speed across the span in a turn, load factor, share of aileron by the sheet's greatest sideslip; a model of the
 * difference between the wings, not of a spin.
 * @param i see {@link FinalTurnInput}; bank above 0 and below 80
 * @returns null outside that range
 * @throws BadNumber when a number handed in is none, or speeds or span are not above 0
 * @example
 * finalTurn({ casKt: 58, bankDeg: 30, skid: 0.5, stallCasKt: 40, spanM: 10.7, sideslipMaxDeg: 16, aileronInSlip: 0.55 })
 * ?.first // 'inner'
 */
export function finalTurn(i: FinalTurnInput): FinalTurn | null {
  needNumbers('finalTurn', i);
  needPositive('finalTurn', { casKt: i.casKt, stallCasKt: i.stallCasKt, spanM: i.spanM });
  if (i.bankDeg <= 0 || i.bankDeg >= 80) return null;
  const n = 1 / cosDeg(i.bankDeg);
  const straight = i.stallCasKt * Math.sqrt(n);
  const v = i.casKt * MS_PER_KT;
  // Seen along the wing, the two halves of a turn fly circles of different size.
  const yaw = (G_MS2 * tanDeg(i.bankDeg)) / v;
  const spread = (yaw * cosDeg(i.bankDeg) * AT_SPAN * (i.spanM / 2)) / v;
  const aileron = AILERON_LIFT * i.aileronInSlip * Math.max(-1, Math.min(1, i.skid));
  const wing = (side: 1 | -1): WingInTurn => {
    // Inner: slower, and its aileron is down in a skid; outer the other way round.
    const speed = 1 - side * spread;
    const demand = 1 + side * aileron;
    const at = (straight * Math.sqrt(Math.max(0.1, demand))) / speed;
    return { stallsAtCasKt: at, marginKt: i.casKt - at };
  };
  const [inner, outer] = [wing(1), wing(-1)];
  const first = inner.marginKt <= outer.marginKt ? 'inner' : 'outer';
  return {
    loadFactor: n,
    stallsAtCasKt: straight,
    inner,
    outer,
    first,
    rolls: first === 'inner' ? 'under' : 'over',
    rollAwayDeg: first === 'inner' ? 180 - i.bankDeg : i.bankDeg,
  };
}
