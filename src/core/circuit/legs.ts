/**
 * The circuit to scale: wind triangle on each leg, times, spacing of two aeroplanes, seconds between tasks. Knots,
 * metres, seconds, degrees.
 */
import { needNumbers, needPositive } from '../guard';
import { G_MS2, MS_PER_KT, SLACK, cosDeg, norm360, sinDeg, tanDeg } from '../constants';

export interface WindTriangle {
  feasible: boolean;
  headingDeg: number | null;
  crabDeg: number | null;
  driftDeg: number | null;
  groundSpeedKt: number | null;
}

/**
 * Heading, drift and ground speed that hold a track; directions in one reference.
 * Source: wind triangle on each leg.
 * @returns all null when the wind is too strong to hold the track or to make way along it
 * @throws BadNumber when a number handed in is none
 * @example
 * windTriangle({ trackDeg: 38, tasKt: 72, windFromDeg: 260, windKt: 90 })
 * // { feasible: true, headingDeg: 341.24, crabDeg: -56.763, driftDeg: 56.763, groundSpeedKt: 106.35 }
 */
export function windTriangle(input: {
  trackDeg: number;
  tasKt: number;
  windFromDeg: number;
  windKt: number;
}): WindTriangle {
  needNumbers('windTriangle', input);
  const none: WindTriangle = { feasible: false, headingDeg: null, crabDeg: null, driftDeg: null, groundSpeedKt: null };
  const angle = input.windFromDeg - input.trackDeg;
  const across = input.windKt * sinDeg(angle);
  if (Math.abs(across) > input.tasKt) return none;
  const crabDeg = (Math.asin(across / input.tasKt) * 180) / Math.PI;
  const groundSpeedKt = input.tasKt * cosDeg(crabDeg) - input.windKt * cosDeg(angle);
  if (groundSpeedKt <= 0) return none;
  return { feasible: true, headingDeg: norm360(input.trackDeg + crabDeg), crabDeg, driftDeg: -crabDeg, groundSpeedKt };
}

export const CIRCUIT_LEGS = ['upwind', 'crosswind', 'downwind', 'base', 'final'] as const;
export type CircuitLegName = (typeof CIRCUIT_LEGS)[number];
export interface CircuitLeg extends WindTriangle {
  leg: CircuitLegName;
  trackDeg: number;
  lengthM: number;
  timeS: number | null;
  turnRadiusM: number;
}
export interface CircuitInput {
  runwayDeg: number;
  side: 'left' | 'right';
  windFromDeg: number;
  windKt: number;
  runwayLengthM: number;
  /** From the threshold. */
  liftOffM: number;
  /** Past the far end, where the crosswind turn is made. */
  beyondEndM: number;
  /** Downwind to centreline. */
  spacingM: number;
  /** How far the threshold lies behind abeam at the base turn. */
  baseAngleDeg: number;
  bankDeg: number;
  tasKt: Readonly<Record<CircuitLegName, number>>;
}

/**
 * A sharp-cornered rectangular circuit. Turn radii are those of still air at each leg's speed; they do not shorten the
 * legs.
 * Source: wind triangle on each leg.
 * @returns legs with length in metres, heading in degrees and time in seconds; null times where no headway is made
 * @throws BadNumber when a number handed in is none
 */
export function circuitLegs(input: CircuitInput): { legs: CircuitLeg[]; totalTimeS: number | null } {
  needNumbers('circuitLegs', input);
  needPositive('circuitLegs', { bankDeg: input.bankDeg, ...input.tasKt });
  const turn = input.side === 'left' ? -90 : 90;
  const finalM = input.spacingM * tanDeg(input.baseAngleDeg);
  const track: Record<CircuitLegName, number> = { upwind: 0, crosswind: turn, downwind: 180, base: -turn, final: 0 };
  const length: Record<CircuitLegName, number> = {
    upwind: input.runwayLengthM + input.beyondEndM - input.liftOffM,
    crosswind: input.spacingM,
    downwind: input.runwayLengthM + input.beyondEndM + finalM,
    base: input.spacingM,
    final: finalM,
  };
  const legs = CIRCUIT_LEGS.map((leg): CircuitLeg => {
    const trackDeg = norm360(input.runwayDeg + track[leg]);
    const tasKt = input.tasKt[leg];
    const w = windTriangle({ trackDeg, tasKt, windFromDeg: input.windFromDeg, windKt: input.windKt });
    return {
      leg,
      trackDeg,
      lengthM: length[leg],
      ...w,
      timeS: w.groundSpeedKt === null ? null : length[leg] / (w.groundSpeedKt * MS_PER_KT),
      turnRadiusM: (tasKt * MS_PER_KT) ** 2 / (G_MS2 * tanDeg(input.bankDeg)),
    };
  });
  return {
    legs,
    totalTimeS: legs.reduce<number | null>((sum, l) => (sum === null || l.timeS === null ? null : sum + l.timeS), 0),
  };
}

/**
 * Metres between two aeroplanes on the downwind after a break at an interval: over the same point (trail) the second
 * has the headwind against it, (V + headwind)·t; abreast (echelon) it flies on while the first comes back, 2·V·t.
 * Source: wind triangle on each leg.
 * @returns metres
 * @throws BadNumber when a number handed in is none
 */
export function breakSpacing(input: {
  tasKt: number;
  intervalS: number;
  headwindKt: number;
  formation: 'trail' | 'echelon';
}): number {
  needNumbers('breakSpacing', input);
  const kt = input.formation === 'trail' ? input.tasKt + input.headwindKt : 2 * input.tasKt;
  return kt * MS_PER_KT * input.intervalS;
}

export interface TaskGaps {
  shortestGapS: number | null;
  tooClose: { first: string; second: string; gapS: number }[];
}

/**
 * Seconds between consecutive pilot tasks; those nearer than `minGapS` are named, in time order.
 * Source: wind triangle on each leg.
 * @returns seconds; null with fewer than two tasks
 * @throws BadNumber when a number handed in is none
 * @example
 * taskGaps([{ name: 'flap', tS: 12 }, { name: 'power', tS: 2 }, { name: 'check', tS: 10 }], 4)
 * // { shortestGapS: 2, tooClose: [{ first: 'check', second: 'flap', gapS: 2 }] }
 */
export function taskGaps(tasks: readonly { name: string; tS: number }[], minGapS: number): TaskGaps {
  needNumbers('taskGaps', { tasks, minGapS });
  const sorted = tasks.map((t, i) => ({ ...t, i })).sort((a, b) => a.tS - b.tS || a.i - b.i);
  const gaps = sorted
    .slice(1)
    .map((t, i) => ({ first: sorted[i]?.name ?? '', second: t.name, gapS: t.tS - (sorted[i]?.tS ?? t.tS) }));
  return {
    shortestGapS: gaps.length === 0 ? null : Math.min(...gaps.map((g) => g.gapS)),
    tooClose: gaps.filter((g) => g.gapS < minGapS - SLACK),
  };
}
