import { needNumbers, needPositive } from '../guard';
import { SLACK, cosDeg } from '../constants';

/** Speeds that follow the stall and so the square root of mass. */
const SCALES = new Set(['vs0', 'vs1', 'vref', 'gate', 'va', 'bestGlide']);
export type SpeedKind =
  | 'vs0'
  | 'vs1'
  | 'vref'
  | 'gate'
  | 'va'
  | 'bestGlide'
  | 'vfe'
  | 'vlo'
  | 'vle'
  | 'vno'
  | 'vne'
  | 'vmca'
  | 'vsse'
  | 'vyse';

/**
 * A sheet speed at today's mass: stall-based speeds by √(m/m_ref), above as well as below the reference;
 * limits and the twin's Vmca, Vsse, Vyse are never scaled.
 * Source: stall speed follows the square root of mass (lift equation).
 * @param speedKt CAS at `refMassKg`
 * @returns in the unit of the speed
 * @throws BadNumber when a number handed in is none
 * @example scaleForMass('vs0', 53, 1450, 1107) // 46.309
 */
export function scaleForMass(kind: SpeedKind, speedKt: number, refMassKg: number, massKg: number): number {
  needNumbers('scaleForMass', { kind, speedKt, refMassKg, massKg });
  needPositive('scaleForMass', { refMassKg, massKg });
  return SCALES.has(kind) ? speedKt * Math.sqrt(massKg / refMassKg) : speedKt;
}

export type GustSchool = 'none' | 'half' | 'full';
export interface GateInput {
  /** CAS at `refMassKg`. */
  speedKt: number;
  refMassKg: number;
  massKg: number;
  school: GustSchool;
  finalGate: boolean;
  windKt: number;
  gustKt: number | null;
  /** Cap of the additive, kt; null = 10. */
  capKt: number | null;
  /** CAS limit of the configuration held, or null. */
  configLimitKt: number | null;
  twin: { vyseKt: number; vsseKt: number; landingAssured: boolean } | null;
}
export interface GateTarget {
  scaledKt: number;
  additiveKt: number;
  floorKt: number | null;
  targetKt: number;
  raisedToFloor: boolean;
  limited: boolean;
  belowFloor: boolean;
}

const DEFAULT_GUST_CAP_KT = 10;
/** A target is kept this far below the limit of the configuration held, kt. */
export const LIMIT_BUFFER_KT = 3;

/**
 * Target speed at a gate, in CAS: mass, gust additive by school (final gates only, capped), the twin's floor,
 * and last the cap 3 kt below the configuration's limit. The additive is not added on top of the floor.
 * Source: stall speed follows the square root of mass (lift equation).
 * @returns kt CAS, with each step that was taken
 * @throws BadNumber when a number handed in is none
 * @example
 * gateTarget({ speedKt: 77, refMassKg: 1450, massKg: 1424.2, school: 'half', finalGate: false, windKt: 9,
 * gustKt: null, capKt: 10, configLimitKt: 73.2, twin: null })
 * // { scaledKt: 76.312, additiveKt: 0, floorKt: null, targetKt: 70.2, raisedToFloor: false, limited: true,
 * // belowFloor: false }
 */
export function gateTarget(input: GateInput): GateTarget {
  needNumbers('gateTarget', input);
  needPositive('gateTarget', { refMassKg: input.refMassKg, massKg: input.massKg });
  const scaledKt = scaleForMass('gate', input.speedKt, input.refMassKg, input.massKg);
  const spread = input.gustKt === null ? 0 : Math.max(0, input.gustKt - input.windKt);
  const share = !input.finalGate || input.school === 'none' ? 0 : input.school === 'half' ? 0.5 : 1;
  const additiveKt = Math.min(share * spread, input.capKt ?? DEFAULT_GUST_CAP_KT);
  const floorKt = input.twin === null ? null : input.twin.landingAssured ? input.twin.vsseKt : input.twin.vyseKt;
  const wanted = scaledKt + additiveKt;
  const floored = floorKt === null ? wanted : Math.max(wanted, floorKt);
  const ceiling = input.configLimitKt === null ? Infinity : input.configLimitKt - LIMIT_BUFFER_KT;
  const limited = floored > ceiling + SLACK;
  const targetKt = limited ? ceiling : floored;
  return {
    scaledKt,
    additiveKt,
    floorKt,
    targetKt,
    raisedToFloor: floorKt !== null && floorKt > wanted + SLACK,
    limited,
    belowFloor: floorKt !== null && targetKt < floorKt - SLACK,
  };
}

export interface StallMarginInput {
  casKt: number;
  flapDeg: number;
  /** Power off, 1 g, CAS at `refMassKg`. */
  stalls: readonly { flapDeg: number; vsCasKt: number }[];
  refMassKg: number;
  massKg: number;
  bankDeg: number;
  /** Ratio the handbook gives for this approach, or null. */
  sanctioned: { ratio: number; source: string } | null;
}
export interface StallMargin {
  reason: null | 'no-stall-speed-for-flap';
  vsTodayKt: number | null;
  marginLevel: number | null;
  marginBanked: number | null;
  lowLevel: boolean | null;
  lowBanked: boolean | null;
  sanctionedBy: string | null;
}

/**
 * Stall margin of a gate, level and in the planned bank, with the stall speed of exactly this flap at today's mass.
 * Flags below 1.3 level (unless the handbook sanctions the ratio) and below 1.1 banked.
 * Source: stall speed follows the square root of mass (lift equation).
 * @returns ratios, the stall speeds in kt CAS, and flags
 * @throws BadNumber when a number handed in is none
 */
export function stallMargin(input: StallMarginInput): StallMargin {
  needNumbers('stallMargin', input);
  for (const s of input.stalls) needPositive('stallMargin', { vsCasKt: s.vsCasKt });
  const stall = input.stalls.find((s) => s.flapDeg === input.flapDeg);
  if (!stall) {
    return {
      reason: 'no-stall-speed-for-flap',
      vsTodayKt: null,
      marginLevel: null,
      marginBanked: null,
      lowLevel: null,
      lowBanked: null,
      sanctionedBy: null,
    };
  }
  const vsTodayKt = scaleForMass('vs0', stall.vsCasKt, input.refMassKg, input.massKg);
  const marginLevel = input.casKt / vsTodayKt;
  const below13 = marginLevel < 1.3 - SLACK;
  const excused = below13 && input.sanctioned !== null && marginLevel >= input.sanctioned.ratio - SLACK;
  const banked = Math.abs(input.bankDeg) < 90 ? marginLevel * Math.sqrt(cosDeg(input.bankDeg)) : null;
  return {
    reason: null,
    vsTodayKt,
    marginLevel,
    marginBanked: banked,
    lowLevel: below13 && !excused,
    lowBanked: banked === null ? null : banked < 1.1 - SLACK,
    sanctionedBy: excused ? (input.sanctioned?.source ?? null) : null,
  };
}
