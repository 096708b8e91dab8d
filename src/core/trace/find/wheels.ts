/**
 * Did wheels touch on a low stretch over a runway, or did it only fly low? Each thing the file shows is weighed as the
 * logarithm of how much likelier it is with wheels on the ground; what the file does not show weighs nothing.
 */
import { median } from '../../constants';
import type { Placed } from './frame';
import { fitLine, indexAt } from './sample';

/** How far the recorded ground may be off, one sigma: a pressure height holds, a satellite's wanders. */
const OFF_FT = { pressure: 3, satellite: 6, loose: 30 };

export const groundOffFt = (p: Placed): number => {
  if (!p.calibrated) return OFF_FT.loose;
  const { altGps, altMsl, altPressure } = p.trace.channels;
  const bySatellite = altGps !== undefined || (altMsl !== undefined && p.trace.format !== 'csv');
  return bySatellite || (altMsl === undefined && altPressure === undefined) ? OFF_FT.satellite : OFF_FT.pressure;
};

const spreadOf = (x: Float64Array, from: number, to: number): number => {
  const v = [...x.subarray(Math.max(0, from), to + 1)].filter((y) => y === y);
  if (v.length < 4) return Number.NaN;
  const m = median(v);
  return 1.4826 * median(v.map((y) => Math.abs(y - m)));
};

/**
 * @param h height above the surface of the runway, smoothed; `from` to `to` its low stretch
 * @param restFt noise left in it
 * @returns positive where wheels are likelier
 */
export function wheelsLikely(p: Placed, h: Float64Array, from: number, to: number, restFt: number): number {
  const lasts = (p.tS[to] ?? 0) - (p.tS[from] ?? 0);
  let lowest = Infinity;
  for (let i = from; i <= to; i++) if ((h[i] ?? Infinity) < lowest) lowest = h[i] ?? Infinity;
  // How high the lowest is: of a pass anything up to a hundred feet, of a touch what the height may be off.
  const off = Math.hypot(groundOffFt(p), restFt);
  let odds = Math.log(100 / (2.5 * off)) - 0.7 * (Math.max(0, lowest) / off) ** 2;
  // Level: nothing flown is as flat as a runway.
  const line = fitLine(h, p.tS, from, to, (p.tS[from] ?? 0) + lasts / 2);
  if (line && lasts >= 1.5) {
    let square = 0;
    let n = 0;
    for (let i = from; i <= to; i++) {
      const r = (h[i] ?? Number.NaN) - line.value - line.slope * ((p.tS[i] ?? 0) - (p.tS[from] ?? 0) - lasts / 2);
      if (r !== r) continue;
      square += r * r;
      n++;
    }
    const rms = Math.sqrt(square / Math.max(1, n));
    odds += rms < 0.5 + 1.3 * restFt ? Math.min(2.5, 0.6 * lasts) : -1.5;
    if (Math.abs(line.slope) > 1.2 + restFt) odds -= 1.5;
  } else odds -= 1.5;
  // Speed: rolling it slows, at least at first; over a runway it flies on as fast, or faster.
  let fastest = 0;
  let drop = 0;
  for (let i = indexAt(p.tS, (p.tS[from] ?? 0) - 1); i <= to; i++) {
    const v = p.gsKt[i] ?? Number.NaN;
    if (v > fastest) fastest = v;
    if (fastest - v > drop) drop = fastest - v;
  }
  const gained = (p.gsKt[to] ?? Number.NaN) - (p.gsKt[from] ?? Number.NaN);
  // Of what led to it nothing was recorded: then neither a slowing nor a knock can be missed.
  const unseen = from > 0 && (p.tS[from] ?? 0) - (p.tS[from - 1] ?? 0) > 2.5;
  // Wheels slow it or, with the power on, it gains; only in the air does it keep its speed for long.
  const keeps = drop < 1.2 && (gained > 2 || lasts > 4);
  odds += drop > 4 ? 2 : keeps && !unseen ? -2.5 : 0;
  // Load: a knock, and the rumble of a roll.
  if (p.nz && p.trace.rateHz >= 1.8) {
    const aloft = spreadOf(p.nz, indexAt(p.tS, (p.tS[from] ?? 0) - 9), from - 1);
    let knock = 0;
    for (let i = Math.max(0, indexAt(p.tS, (p.tS[from] ?? 0) - 1.5)); i <= to; i++)
      knock = Math.max(knock, (p.nz[i] ?? 1) - 1);
    odds += knock > Math.max(0.16, 6 * aloft) ? 2.5 : knock < 0.1 && !unseen ? (p.trace.rateHz >= 4 ? -1.5 : -0.8) : 0;
  }
  const { bank } = p.trace.channels;
  if (bank && lasts > 2) {
    const still = spreadOf(bank, indexAt(p.tS, (p.tS[from] ?? 0) + 1), to);
    const aloft = spreadOf(bank, indexAt(p.tS, (p.tS[from] ?? 0) - 9), from - 1);
    if (Number.isFinite(still) && Number.isFinite(aloft)) odds += still < 0.5 * aloft ? 1.5 : still > aloft ? -0.7 : 0;
  }
  return odds;
}
