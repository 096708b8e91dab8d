import { needNumbers, needPositive } from '../guard';
import { G_MS2, MS_PER_KT, acosDeg, cosDeg, tanDeg } from '../constants';

export interface LevelTurn {
  loadFactor: number | null;
  radiusM: number | null;
  rateDegS: number | null;
  time360S: number | null;
}

/**
 * Level co-ordinated turn: n = 1/cos φ, r = V²/(g·tan φ), rate = g·tan φ/V.
 * @param tasKt true airspeed, kt
 * @param bankDeg positive right; 0 gives no radius or time, 90 or more gives nothing
 * @returns load factor in g, radius in metres, degrees a second, seconds for a turn
 * @throws BadNumber when a number handed in is none
 */
export function levelTurn(tasKt: number, bankDeg: number): LevelTurn {
  needNumbers('levelTurn', { tasKt, bankDeg });
  needPositive('levelTurn', { tasKt });
  if (Math.abs(bankDeg) >= 90) return { loadFactor: null, radiusM: null, rateDegS: null, time360S: null };
  if (bankDeg === 0) return { loadFactor: 1, radiusM: null, rateDegS: 0, time360S: null };
  const vMs = tasKt * MS_PER_KT;
  const rateDegS = ((G_MS2 * tanDeg(bankDeg)) / vMs) * (180 / Math.PI);
  return {
    loadFactor: 1 / cosDeg(bankDeg),
    radiusM: vMs ** 2 / (G_MS2 * tanDeg(Math.abs(bankDeg))),
    rateDegS,
    time360S: 360 / Math.abs(rateDegS),
  };
}

export interface AcceleratedStall {
  vsnKt: number | null;
  stallLoadFactor: number;
  stallBankDeg: number | null;
  buffetMarginKt: number | null;
}

/**
 * Positive-g stall: Vs·√n, the load factor at which `speedKt` is the stall speed, the bank of a level turn with it,
 * and the buffet margin. `vsnKt` is null for negative n; `stallBankDeg` null when that load factor is below 1.
 * @returns kt, g, degrees
 * @throws BadNumber when a number handed in is none
 */
export function acceleratedStall(
  vsKt: number,
  loadFactor: number,
  speedKt: number,
  buffetKt: number | null,
): AcceleratedStall {
  needNumbers('acceleratedStall', { vsKt, loadFactor, speedKt, buffetKt });
  needPositive('acceleratedStall', { vsKt });
  const stallLoadFactor = (speedKt / vsKt) ** 2;
  return {
    vsnKt: loadFactor < 0 ? null : vsKt * Math.sqrt(loadFactor),
    stallLoadFactor,
    stallBankDeg: stallLoadFactor < 1 ? null : acosDeg(1 / stallLoadFactor),
    buffetMarginKt: buffetKt === null ? null : buffetKt - vsKt,
  };
}
