/**
 * Flying sideways on purpose: the crosswind a slip holds, the bank it needs, the height it loses, what the lower wing
 * clears. Knots true, degrees, kilograms, metres; ft/min down.
 */
import { FT_PER_MIN_PER_MS, G_MS2, MS_PER_KT, M_PER_FT, cosDeg, sinDeg, tanDeg } from '../constants';
import { needNumbers, needPositive } from '../guard';

const DEG = 180 / Math.PI;

/**
 * Greatest crosswind that is held wings-low with heading and track along the runway: V·sin β.
 * @param tasKt true airspeed
 * @param betaMaxDeg greatest sideslip of the sheet
 * @returns knots
 * @throws BadNumber when a number handed in is none
 * @example
 * crosswindHeld(55, 14) // 13.3057
 */
export function crosswindHeld(tasKt: number, betaMaxDeg: number): number {
  needNumbers('crosswindHeld', { tasKt, betaMaxDeg });
  return tasKt * sinDeg(betaMaxDeg);
}

/**
 * Sideslip and bank that hold a crosswind with the heading along the runway: sin φ = q·S·|C_Yβ|·β/(m·g).
 * Source: side force of the slip against the weight's share along the wing.
 * @param i crosswind + from the right; `cYBetaPerRad` of either sign
 * @returns + wind from the right and right wing low; `held` when the sheet's greatest sideslip is enough and such a bank
 * exists; null angles where the wind is more than the airspeed
 * @throws BadNumber when a number handed in is none, or mass, area or density are not above 0
 * @example
 * slipBank({ tasKt: 52, crosswindKt: 10, sideslipMaxDeg: 15, cYBetaPerRad: -0.45, massKg: 820, wingAreaM2: 16.6,
 *   airDensityKgM3: 1.225 }) // { sideslipDeg: 11.08749, bankDeg: 4.51917, held: true }
 */
export function slipBank(i: {
  tasKt: number;
  crosswindKt: number;
  sideslipMaxDeg: number;
  cYBetaPerRad: number;
  massKg: number;
  wingAreaM2: number;
  airDensityKgM3: number;
}): { sideslipDeg: number | null; bankDeg: number | null; held: boolean } {
  needNumbers('slipBank', i);
  needPositive('slipBank', { massKg: i.massKg, wingAreaM2: i.wingAreaM2, airDensityKgM3: i.airDensityKgM3 });
  if (i.tasKt <= 0 || Math.abs(i.crosswindKt) > i.tasKt) return { sideslipDeg: null, bankDeg: null, held: false };
  const beta = Math.asin(i.crosswindKt / i.tasKt);
  const q = 0.5 * i.airDensityKgM3 * (i.tasKt * MS_PER_KT) ** 2;
  const sin = (q * i.wingAreaM2 * Math.abs(i.cYBetaPerRad) * beta) / (i.massKg * G_MS2);
  const bankDeg = Math.abs(sin) > 1 ? null : Math.asin(sin) * DEG;
  return {
    sideslipDeg: beta * DEG,
    bankDeg,
    held: bankDeg !== null && Math.abs(beta * DEG) <= i.sideslipMaxDeg,
  };
}

export interface SlipBody {
  massKg: number;
  wingAreaM2: number;
  /** Zero-lift drag in this configuration. */
  cd0: number;
  /** k of CD = cd0 + k·CL². */
  inducedK: number;
  /** kβ of ΔCD = kβ·sin²β. */
  slipK: number;
  airDensityKgM3: number;
}
function checked(where: string, b: SlipBody): void {
  needPositive(where, { massKg: b.massKg, wingAreaM2: b.wingAreaM2, airDensityKgM3: b.airDensityKgM3 });
}
/** Sink, m/s, with the wing carrying so many times the weight. */
function sinkMs(b: SlipBody, v: number, load: number, sideslipDeg: number): number {
  const lift = 0.5 * b.airDensityKgM3 * v * v * b.wingAreaM2;
  const weight = b.massKg * G_MS2;
  const cl = (load * weight) / lift;
  return (v * lift * (b.cd0 + b.inducedK * cl * cl + b.slipK * sinDeg(sideslipDeg) ** 2)) / weight;
}

/**
 * Sink of a steady straight slip with the power off, and what it is more than without the slip. Lift is taken equal to
 * the weight: the bank of the slip is not added.
 * Source: drag polar with a term of sideslip.
 * @returns null everywhere without airspeed; the path null where the sink is more than the airspeed
 * @throws BadNumber when a number handed in is none, or mass, area or density are not above 0
 * @example
 * slipSink(body, 58, 12) // { sinkFpm: 870, extraSinkFpm: 157, heightLostPerSFt: 14.5, glidePathDeg: 8.5 }
 */
export function slipSink(
  body: SlipBody,
  tasKt: number,
  sideslipDeg: number,
): {
  sinkFpm: number | null;
  extraSinkFpm: number | null;
  heightLostPerSFt: number | null;
  glidePathDeg: number | null;
} {
  needNumbers('slipSink', { ...body, tasKt, sideslipDeg });
  checked('slipSink', body);
  if (tasKt <= 0) return { sinkFpm: null, extraSinkFpm: null, heightLostPerSFt: null, glidePathDeg: null };
  const v = tasKt * MS_PER_KT;
  const sink = sinkMs(body, v, 1, sideslipDeg);
  return {
    sinkFpm: sink * FT_PER_MIN_PER_MS,
    extraSinkFpm: (sink - sinkMs(body, v, 1, 0)) * FT_PER_MIN_PER_MS,
    heightLostPerSFt: sink / M_PER_FT,
    glidePathDeg: sink > v ? null : Math.asin(sink / v) * DEG,
  };
}

/**
 * Height lost in a turn that is slipped, the quarter onto final for one.
 * Source: as {@link slipSink}, the wing carrying 1/cos φ; rate of turn g·tan φ/V.
 * @param turn bank above 0 and below 90°, degrees turned, sideslip held
 * @returns null everywhere outside those ranges
 * @throws BadNumber when a number handed in is none, or mass, area or density are not above 0
 * @example
 * slipTurn(body, 58, { bankDeg: 20, turnDeg: 90, sideslipDeg: 10 }) // { timeS: 13.1, sinkFpm: 862, heightLostFt: 189 }
 */
export function slipTurn(
  body: SlipBody,
  tasKt: number,
  turn: { bankDeg: number; turnDeg: number; sideslipDeg: number },
): { timeS: number | null; sinkFpm: number | null; heightLostFt: number | null } {
  needNumbers('slipTurn', { ...body, tasKt, ...turn });
  checked('slipTurn', body);
  if (tasKt <= 0 || turn.bankDeg <= 0 || turn.bankDeg >= 90 || turn.turnDeg < 0)
    return { timeS: null, sinkFpm: null, heightLostFt: null };
  const v = tasKt * MS_PER_KT;
  const timeS = turn.turnDeg / (((G_MS2 * tanDeg(turn.bankDeg)) / v) * DEG);
  const sink = sinkMs(body, v, 1 / cosDeg(turn.bankDeg), turn.sideslipDeg);
  return { timeS, sinkFpm: sink * FT_PER_MIN_PER_MS, heightLostFt: (sink * timeS) / M_PER_FT };
}

/**
 * What the lower wing tip, or a float, clears with the wheel of that side on the ground. Flat ground; gear and tyres do
 * not give.
 * @param bankDeg either side
 * @param wing height of the tip with wings level, centreline to tip, centreline to wheel, metres
 * @returns clearance negative when it would touch; the bank at which it does, null where the tip is inside the wheel
 * @throws BadNumber when a number handed in is none
 * @example
 * tipClearance(8, { tipHeightM: 2.1, semiSpanM: 5.4, halfTrackM: 1 }) // { clearanceM: 1.4672, touchBankDeg: 25.51387 }
 */
export function tipClearance(
  bankDeg: number,
  wing: { tipHeightM: number; semiSpanM: number; halfTrackM: number },
): { clearanceM: number; touchBankDeg: number | null } {
  needNumbers('tipClearance', { bankDeg, ...wing });
  const bank = Math.abs(bankDeg);
  const out = wing.semiSpanM - wing.halfTrackM;
  return {
    clearanceM: wing.tipHeightM * cosDeg(bank) - out * sinDeg(bank),
    touchBankDeg: out > 0 ? Math.atan(wing.tipHeightM / out) * DEG : null,
  };
}
