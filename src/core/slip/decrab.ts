import { G_MS2, MS_PER_KT, sinDeg } from '../constants';
import { needNumbers, needPositive } from '../guard';

export interface DecrabInput {
  tasKt: number;
  crosswindKt: number;
  /** Above the ground when the nose is brought straight. */
  heightFt: number;
  /** Mean over the rest of the way down. */
  sinkFpm: number;
  /** Bank into the wind held from then on; less than the wind asks for leaves a drift. */
  bankDeg: number;
  cYBetaPerRad: number;
  massKg: number;
  wingAreaM2: number;
  airDensityKgM3: number;
}
export interface DecrabOutcome {
  secondsToTouch: number;
  /** Downwind of the line at the touch, and across the wheels then. */
  driftM: number;
  driftKt: number;
  /** Time in which the wind takes the aeroplane along with it. */
  timeConstantS: number;
}

/**
 * What the wind does between the nose coming straight and the touch: it takes the aeroplane along with it in a few
 * seconds, unless the wing is down. v = w'(1 − e^(−t/T)), with w' what the bank leaves of the wind.
 * Source: side force of the slip, linear, solved for a constant wind.
 * @param i crosswind of either sign, its size counts; see {@link DecrabInput}
 * @returns drift 0 when the bank is what the wind asks for; negative = into the wind
 * @throws BadNumber when a number handed in is none, or speed, mass, area, density or sink are not above 0
 * @example
 * decrabDrift({ tasKt: 55, crosswindKt: 10, heightFt: 5, sinkFpm: 120, bankDeg: 0, cYBetaPerRad: -0.45, massKg: 560,
 *   wingAreaM2: 16.2, airDensityKgM3: 1.225 }).driftM // 3.03127
 */
export function decrabDrift(i: DecrabInput): DecrabOutcome {
  needNumbers('decrabDrift', i);
  needPositive('decrabDrift', {
    tasKt: i.tasKt,
    massKg: i.massKg,
    wingAreaM2: i.wingAreaM2,
    airDensityKgM3: i.airDensityKgM3,
    sinkFpm: i.sinkFpm,
    sideForceSlope: Math.abs(i.cYBetaPerRad),
  });
  const t = (i.heightFt / i.sinkFpm) * 60;
  const v = i.tasKt * MS_PER_KT;
  const perMs = 0.5 * i.airDensityKgM3 * v * i.wingAreaM2 * Math.abs(i.cYBetaPerRad);
  const timeConstantS = i.massKg / perMs;
  const left = Math.abs(i.crosswindKt) * MS_PER_KT - G_MS2 * sinDeg(i.bankDeg) * timeConstantS;
  const gone = 1 - Math.exp(-t / timeConstantS);
  return {
    secondsToTouch: t,
    driftM: left * (t - timeConstantS * gone),
    driftKt: (left * gone) / MS_PER_KT,
    timeConstantS,
  };
}

export interface CrosswindStation {
  heightFt: number;
  technique: 'crab' | 'slip';
  /** Of the nose off the runway, and of the wings; into the wind positive. */
  crabDeg: number;
  bankDeg: number;
  /** Of the sheet's greatest sideslip, and the share of aileron that goes with it; 0 in a crab. */
  rudderShare: number;
  aileronShare: number;
  /** The greatest sideslip is not enough. */
  short: boolean;
}

/**
 * An approach in a crosswind that gets less towards the ground, by height: crabbed down to one height, wing low below it.
 * Rudder and aileron as shares of what the sheet's greatest sideslip needs: both grow with the sideslip.
 * Source: wind triangle; balance of side force against bank; wind by a power law of height, exponent 1/7, from 33 ft up.
 * @param i crosswind at 33 ft, of either sign; `slipFromFt` Infinity = wing low all the way, 0 = crab to the ground
 * @returns one station a height, in the order asked
 * @throws BadNumber when a number handed in is none, or speed, mass, area or density are not above 0
 * @example
 * crosswindStations([300, 20], { ...urze, tasKt: 52, crosswindKt: 8, slipFromFt: 50 })[0]?.technique // 'crab'
 */
export function crosswindStations(
  heightsFt: readonly number[],
  i: Omit<DecrabInput, 'heightFt' | 'sinkFpm' | 'bankDeg'> & {
    slipFromFt: number;
    sideslipMaxDeg: number;
    aileronInSlip: number;
  },
): CrosswindStation[] {
  const { slipFromFt, ...numbers } = i;
  needNumbers('crosswindStations', numbers);
  needNumbers('crosswindStations', heightsFt);
  needPositive('crosswindStations', {
    tasKt: i.tasKt,
    massKg: i.massKg,
    wingAreaM2: i.wingAreaM2,
    airDensityKgM3: i.airDensityKgM3,
    sideslipMaxDeg: i.sideslipMaxDeg,
  });
  return heightsFt.map((heightFt) => {
    const wind = Math.abs(i.crosswindKt) * (Math.max(33, heightFt) / 33) ** (1 / 7);
    const beta = (Math.asin(Math.min(1, wind / i.tasKt)) * 180) / Math.PI;
    const slips = heightFt <= slipFromFt;
    const q = 0.5 * i.airDensityKgM3 * (i.tasKt * MS_PER_KT) ** 2;
    const sin = (q * i.wingAreaM2 * Math.abs(i.cYBetaPerRad) * ((beta * Math.PI) / 180)) / (i.massKg * G_MS2);
    const share = beta / i.sideslipMaxDeg;
    return {
      heightFt,
      technique: slips ? 'slip' : 'crab',
      crabDeg: slips ? 0 : beta,
      bankDeg: slips ? (Math.asin(Math.min(1, sin)) * 180) / Math.PI : 0,
      rudderShare: slips ? share : 0,
      aileronShare: slips ? share * i.aileronInSlip : 0,
      short: slips && (beta > i.sideslipMaxDeg || sin > 1),
    };
  });
}
