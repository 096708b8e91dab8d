/**
 * What a touchdown does: load from sink and gear, the hop of a spring, speed across the wheels, the word for it. Feet a
 * minute down, knots, degrees.
 */
import { FT_PER_MIN_PER_MS, G_MS2, MS_PER_KT, M_PER_FT, sinDeg } from '../constants';
import { needNumbers } from '../guard';

/**
 * Greatest load felt at a touch, lift equal to weight throughout: n = 1 + v²/(2·g·η·s).
 * Source: work of the gear against the energy of the sink.
 * @param sinkFpm positive down
 * @param strokeM travel of gear and tyre
 * @param efficiency mean over greatest force of the gear, above 0 to 1
 * @returns null where the sink is upward, or stroke or efficiency are none
 * @throws BadNumber when a number handed in is none
 * @example
 * touchLoad(180, 0.18, 0.5) // 1.4737
 */
export function touchLoad(sinkFpm: number, strokeM: number, efficiency: number): number | null {
  needNumbers('touchLoad', { sinkFpm, strokeM, efficiency });
  if (sinkFpm < 0 || strokeM <= 0 || efficiency <= 0 || efficiency > 1) return null;
  return 1 + (sinkFpm / FT_PER_MIN_PER_MS) ** 2 / (2 * G_MS2 * efficiency * strokeM);
}

/**
 * Height a spring throws the aeroplane back to when no lift is left: inches. It is not *the bounce*, which the wing makes.
 * Source: ballistic rise of the rebound speed e·v.
 * @param sinkFpm positive down
 * @param restitution speed of rebound over sink, 0 to 1
 * @returns null outside those ranges
 * @throws BadNumber when a number handed in is none
 * @example
 * springRebound(240, 0.7) // { heightFt: 0.12184, heightM: 0.037136, airTimeS: 0.17405 }
 */
export function springRebound(
  sinkFpm: number,
  restitution: number,
): { heightFt: number; heightM: number; airTimeS: number } | null {
  needNumbers('springRebound', { sinkFpm, restitution });
  if (sinkFpm < 0 || restitution < 0 || restitution > 1) return null;
  const up = (restitution * sinkFpm) / FT_PER_MIN_PER_MS;
  const heightM = up ** 2 / (2 * G_MS2);
  return { heightFt: heightM / M_PER_FT, heightM, airTimeS: (2 * up) / G_MS2 };
}

/**
 * Speed across the wheels of a touch with the nose off the path.
 * @param groundSpeedKt knots over the ground
 * @param crabDeg heading minus track, + nose right
 * @returns with the sign of the crab, knots and m/s
 * @throws BadNumber when a number handed in is none
 * @example
 * sideSpeed(50, 5) // { kt: 4.35779, ms: 2.24184 }
 */
export function sideSpeed(groundSpeedKt: number, crabDeg: number): { kt: number; ms: number } {
  needNumbers('sideSpeed', { groundSpeedKt, crabDeg });
  const kt = groundSpeedKt * sinDeg(crabDeg);
  return { kt, ms: kt * MS_PER_KT };
}

export type FirmnessWord = 'very-soft' | 'normal' | 'firm' | 'hard' | 'inspect';
/** Sink at the touch beyond which the aeroplane is inspected, ft/min, where the type has no number of its own. */
export const INSPECT_FPM = 600;
/** Upper edges of very soft, normal and firm, and the last of hard, ft/min, where a type has none of its own. */
export const FIRMNESS_FPM = [60, 180, 360, INSPECT_FPM] as const;

/**
 * The word for a sink at the touch. A hard one is logged; beyond the last limit the aeroplane is inspected.
 * @param sinkFpm positive down; null when it was not measured
 * @param limitsFpm four ascending limits of the type; null for {@link FIRMNESS_FPM}
 * @returns null of everything where the sink is unknown or upward
 * @throws BadNumber when a limit handed in is none
 * @example
 * firmnessOf(600, null) // { word: 'hard', logIt: true, inspect: false }
 */
export function firmnessOf(
  sinkFpm: number | null,
  limitsFpm: readonly [number, number, number, number] | null,
): { word: FirmnessWord; logIt: boolean; inspect: boolean } | { word: null; logIt: null; inspect: null } {
  needNumbers('firmnessOf', { limitsFpm });
  if (sinkFpm === null || !(sinkFpm >= 0)) return { word: null, logIt: null, inspect: null };
  const [soft, normal, firm, hard] = limitsFpm ?? FIRMNESS_FPM;
  const word: FirmnessWord =
    sinkFpm < soft
      ? 'very-soft'
      : sinkFpm < normal
        ? 'normal'
        : sinkFpm < firm
          ? 'firm'
          : sinkFpm <= hard
            ? 'hard'
            : 'inspect';
  return { word, logIt: word === 'hard' || word === 'inspect', inspect: word === 'inspect' };
}
