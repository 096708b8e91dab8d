/**
 * Pace: one type's circuit on a runway in today's wind, to scale, with every pilot task at its second. Corners are
 * sharp: turn radii are given beside the legs. Method: legs by wind triangle; climb by power less drag from the sheet's
 * polar; the descent down the sheet's gates.
 */
import { needNumbers } from '../guard';
import type { Gate, TypeSheet } from '@/domain/sheet';
import { M_PER_FT, cosDeg, sinDeg, tanDeg } from '../constants';
import { powered } from '../energy';
import { sheetCas, sheetPolar, sheetOn, surfaceOfStrip } from '../sheet';
import { type CircuitLeg, type CircuitLegName, CIRCUIT_LEGS, circuitLegs, taskGaps } from './legs';

/** What pace and reach need of a sheet. */
export type PaceSheet = Pick<
  TypeSheet,
  | 'name'
  | 'dial'
  | 'gear'
  | 'engine'
  | 'wing'
  | 'masses'
  | 'drag'
  | 'speeds'
  | 'stalls'
  | 'approach'
  | 'flows'
  | 'flapSteps'
  | 'distances'
  | 'surface'
  | 'twin'
  | 'landing'
> &
  Partial<Pick<TypeSheet, 'onLand'>>;
export interface PaceRunway {
  ident: string;
  trueBearingDeg: number;
  lengthM: number;
  elevationFt: number;
  surface: string;
}
export interface PaceChoices {
  side: 'left' | 'right';
  windFromDeg: number;
  windKt: number;
  /** Air density over that of the standard at sea level. */
  sigma: number;
  circuitHeightFt: number;
  crosswindTurnFt: number;
  bankDeg: number;
  baseAngleDeg: number;
  /** Null = from the sheet's own distances. */
  spacingM: number | null;
}
/** Closer than this and two tasks are one worry. */
export const TASK_GAP_S = 4;
const LIFT_OFF_FALLBACK_M = 300;

export interface PaceTask {
  name: string;
  tS: number;
  leg: CircuitLegName;
  /** Things to do in it. */
  items: number;
}
export interface PacePoint {
  x: number;
  y: number;
  heightFt: number;
  tS: number;
  leg: CircuitLegName;
  trackDeg: number;
  headingDeg: number;
  tasKt: number;
}
export interface Pace {
  legs: (CircuitLeg & { tasks: number; perMinute: number | null })[];
  totalTimeS: number | null;
  spacingM: number;
  liftOffM: number;
  climbDeg: number | null;
  tasks: PaceTask[];
  shortestGapS: number | null;
  tooClose: { first: string; second: string; gapS: number }[];
  busiestLeg: CircuitLegName | null;
  /** Corners and gates in flying order: x along the runway from its threshold, y right of it, metres. */
  points: PacePoint[];
  /** Where the turns need more room than the spacing gives them. */
  tooTight: { turns: 'to the downwind' | 'to final'; radiiM: number } | null;
  problem: string | null;
}

const approachLegs = (
  gates: readonly Gate[],
): { downwind: Gate | undefined; base: Gate | undefined; final: Gate | undefined } => {
  const before = gates.filter((g) => !g.finalGate);
  return {
    base: before[before.length - 1],
    downwind: before[before.length - 2] ?? before[before.length - 1],
    final: gates.find((g) => g.finalGate),
  };
};

/**
 * Downwind to centreline so that the path from abeam the threshold has the length the sheet gives its first gate.
 * Source: wind triangle on each leg; climb by power less drag.
 * @returns metres
 */
export function sheetSpacing(sheet: PaceSheet, baseAngleDeg: number): number {
  const { downwind } = approachLegs(sheet.approach);
  return (downwind?.distanceM ?? 3300) / (1 + 2 * tanDeg(baseAngleDeg));
}

/**
 * True airspeed of an indicated one.
 * Source: wind triangle on each leg; climb by power less drag.
 * @returns knots
 */
export const sheetTas = (sheet: PaceSheet, ias: number, sigma: number): number =>
  sheetCas(sheet, ias) / Math.sqrt(sigma);

/**
 * One circuit. `problem` says what is missing or cannot be flown; numbers that do not exist are null.
 * Source: wind triangle on each leg; climb by power less drag.
 * @returns legs, points of the path in metres and seconds, and tasks; `problem` by code
 * @throws BadNumber when a number handed in is none
 */
export function circuitPace(of: PaceSheet, runway: PaceRunway, choices: PaceChoices): Pace {
  needNumbers('circuitPace', { sheet: of, runway, choices });
  const surface = surfaceOfStrip(runway.surface);
  const here = sheetOn(of, surface);
  const sheet = here ?? of;
  const { downwind, base, final } = approachLegs(sheet.approach);
  // The sheet's own downwind height, where it is lower, is the height flown.
  const c = {
    ...choices,
    circuitHeightFt: Math.min(choices.circuitHeightFt, downwind?.heightFt ?? choices.circuitHeightFt),
  };
  const spacingM = c.spacingM ?? sheetSpacing(sheet, c.baseAngleDeg);
  const vyTas = sheetTas(sheet, sheet.speeds.vy.value, c.sigma);
  const tasOf = (g: Gate | undefined): number => (g ? sheetTas(sheet, g.speed.value, c.sigma) : vyTas);
  const climb = powered(
    {
      polar: sheetPolar(sheet),
      massKg: sheet.masses.refMassKg,
      wingAreaM2: sheet.wing.areaM2.value,
      rhoKgM3: 1.225 * c.sigma,
      tasKt: vyTas,
      deltaCd0: [],
    },
    // Unboosted power falls with density.
    {
      powerHp: sheet.engine.powerHp.value * sheet.engine.count * (c.sigma - (1 - c.sigma) / 7.55),
      eta: sheet.engine.propEfficiency?.value ?? null,
      staticThrustN: sheet.engine.staticThrustN === null ? null : sheet.engine.staticThrustN.value * sheet.engine.count,
    },
  );
  const liftOffM = Math.min(runway.lengthM, rollOf(sheet) ?? LIFT_OFF_FALLBACK_M);
  const climbDeg = climb.gammaDeg;
  const none: Pace = {
    legs: [],
    totalTimeS: null,
    spacingM,
    liftOffM,
    climbDeg,
    tasks: [],
    shortestGapS: null,
    tooClose: [],
    busiestLeg: null,
    points: [],
    tooTight: null,
    problem: null,
  };
  if (here === null) return { ...none, problem: `The sheet has no approach schedule for ${surface}.` };
  if (climbDeg === null || climbDeg <= 0.2)
    return {
      ...none,
      problem: 'By the sheet’s power and drag it does not climb here: check power, mass and temperature.',
    };
  const headwind = c.windKt * cosDeg(c.windFromDeg - runway.trueBearingDeg);
  const groundShare = Math.max(0.2, (vyTas - headwind) / vyTas);
  const climbM = (ft: number): number => ((ft * M_PER_FT) / tanDeg(climbDeg)) * groundShare;
  const turnFt = Math.min(c.crosswindTurnFt, c.circuitHeightFt);
  const beyondEndM = Math.max(0, liftOffM + climbM(turnFt) - runway.lengthM);
  const tasKt: Record<CircuitLegName, number> = {
    upwind: vyTas,
    crosswind: vyTas,
    downwind: tasOf(downwind),
    base: tasOf(base),
    final: tasOf(final),
  };
  const { legs, totalTimeS } = circuitLegs({
    runwayDeg: runway.trueBearingDeg,
    side: c.side,
    windFromDeg: c.windFromDeg,
    windKt: c.windKt,
    runwayLengthM: runway.lengthM,
    liftOffM,
    beyondEndM,
    spacingM,
    baseAngleDeg: c.baseAngleDeg,
    bankDeg: c.bankDeg,
    tasKt,
  });
  const stuck = legs.find((l) => l.timeS === null);
  if (stuck)
    return {
      ...none,
      legs: legs.map((l) => ({ ...l, tasks: 0, perMinute: null })),
      problem: `In this wind the ${stuck.leg} leg cannot be flown at its speed.`,
    };
  const points = shape(legs, c, tasKt, { runway, liftOffM, gates: sheet.approach, climbFtPerM: 1 / (climbM(1) || 1) });
  const tasks = tasksOf(sheet, points, c, downwind);
  const gaps = taskGaps(tasks, TASK_GAP_S);
  const withTasks = legs.map((l) => {
    const n = tasks.filter((t) => t.leg === l.leg).reduce((sum, t) => sum + t.items, 0);
    return { ...l, tasks: n, perMinute: l.timeS === null || l.timeS === 0 ? null : (n * 60) / l.timeS };
  });
  const busiest = withTasks.reduce<(typeof withTasks)[number] | null>(
    (a, l) => (a === null || (l.perMinute ?? 0) > (a.perMinute ?? 0) ? l : a),
    null,
  );
  return {
    legs: withTasks,
    totalTimeS,
    spacingM,
    liftOffM,
    climbDeg,
    tasks,
    shortestGapS: gaps.shortestGapS,
    tooClose: gaps.tooClose,
    busiestLeg: busiest?.leg ?? null,
    points,
    tooTight: tooTight(legs, spacingM),
    problem: null,
  };
}

/** Two quarter turns stand between upwind and downwind, and two between downwind and final: their radii must fit. */
function tooTight(legs: readonly CircuitLeg[], spacingM: number): Pace['tooTight'] {
  const of = (leg: CircuitLegName) => legs.find((l) => l.leg === leg)?.turnRadiusM ?? 0;
  const out = of('upwind') + of('crosswind');
  const back = of('downwind') + of('base');
  const radiiM = Math.max(out, back);
  return radiiM <= spacingM ? null : { turns: back >= out ? 'to final' : 'to the downwind', radiiM };
}

/** The handbook's roll nearest to the reference mass, sea level and 15 °C: only where the upwind leg begins. */
function rollOf(sheet: PaceSheet): number | null {
  const rows = sheet.distances?.takeoff ?? [];
  const best = [...rows].sort(
    (a, b) =>
      Math.abs(a.massKg - sheet.masses.refMassKg) +
      Math.abs(a.pressureAltFt) / 10 +
      Math.abs(a.oatC - 15) -
      (Math.abs(b.massKg - sheet.masses.refMassKg) + Math.abs(b.pressureAltFt) / 10 + Math.abs(b.oatC - 15)),
  )[0];
  return best?.groundRollM ?? null;
}

/** Corners, the end of the climb and every gate, with height and second. */
function shape(
  legs: readonly CircuitLeg[],
  c: PaceChoices,
  tasKt: Readonly<Record<CircuitLegName, number>>,
  s: { runway: PaceRunway; liftOffM: number; gates: readonly Gate[]; climbFtPerM: number },
): PacePoint[] {
  const total = legs.reduce((m, l) => m + l.lengthM, 0);
  const away = c.side === 'left' ? -1 : 1;
  const direction: Record<CircuitLegName, [number, number]> = {
    upwind: [1, 0],
    crosswind: [0, away],
    downwind: [-1, 0],
    base: [0, -away],
    final: [1, 0],
  };
  const stops = new Set<number>([0]);
  let at = 0;
  for (const l of legs) stops.add((at += l.lengthM));
  const climbTop = Math.min(total, c.circuitHeightFt / s.climbFtPerM);
  stops.add(climbTop);
  const gates = s.gates.filter((g) => g.distanceM < total && g.distanceM >= 0);
  for (const g of gates) stops.add(total - g.distanceM);
  const legAt = (m: number): { leg: CircuitLeg; into: number; startS: number; start: [number, number] } => {
    let from = 0;
    let startS = 0;
    let x = s.liftOffM;
    let y = 0;
    for (const [i, leg] of legs.entries()) {
      const last = i === legs.length - 1;
      if (m <= from + leg.lengthM + 1e-6 || last)
        return { leg, into: Math.min(leg.lengthM, m - from), startS, start: [x, y] };
      const d = direction[leg.leg];
      x += d[0] * leg.lengthM;
      y += d[1] * leg.lengthM;
      from += leg.lengthM;
      startS += leg.timeS ?? 0;
    }
    throw new Error('a circuit has legs');
  };
  const ordered = [...gates].sort((a, b) => b.distanceM - a.distanceM);
  const descentFt = (toGoM: number): number | null => {
    const i = ordered.findIndex((g) => g.distanceM <= toGoM);
    if (i === 0) return null;
    const low = ordered[i < 0 ? ordered.length - 1 : i];
    const high = ordered[(i < 0 ? ordered.length : i) - 1];
    if (!low || !high || low === high) return low?.heightFt ?? null;
    return low.heightFt + ((toGoM - low.distanceM) / (high.distanceM - low.distanceM)) * (high.heightFt - low.heightFt);
  };
  return [...stops]
    .sort((a, b) => a - b)
    .map((m) => {
      const { leg, into, startS, start } = legAt(m);
      const d = direction[leg.leg];
      const climbed = Math.min(c.circuitHeightFt, m * s.climbFtPerM);
      const down = descentFt(total - m);
      return {
        x: start[0] + d[0] * into,
        y: start[1] + d[1] * into,
        heightFt: down === null ? climbed : Math.min(climbed, down),
        tS: startS + (leg.lengthM === 0 ? 0 : (into / leg.lengthM) * (leg.timeS ?? 0)),
        leg: leg.leg,
        trackDeg: leg.trackDeg,
        headingDeg: leg.headingDeg ?? leg.trackDeg,
        tasKt: tasKt[leg.leg],
      };
    });
}
/** Every task of the circuit at its second. A gate's changes are one task with as many items as it has changes. */
function tasksOf(
  sheet: PaceSheet,
  points: readonly PacePoint[],
  c: PaceChoices,
  downwind: Gate | undefined,
): PaceTask[] {
  const tasks: PaceTask[] = [];
  const put = (name: string, tS: number, items = 1) => {
    const at = [...points].reverse().find((p) => p.tS <= tS + 1e-6) ?? points[0];
    const next = points.find((p) => p.tS > tS + 1e-6);
    tasks.push({ name, tS, items, leg: next?.leg ?? at?.leg ?? 'upwind' });
  };
  const when = (heightFt: number): number => timeAtHeight(points, heightFt);
  if (sheet.gear.retractable) put('positive climb, gear up', when(60));
  put(
    [sheet.flapSteps.length > 1 ? 'flap up' : '', sheet.engine.propeller === 'constant-speed' ? 'climb power' : 'trim']
      .filter(Boolean)
      .join(', '),
    when(300),
    sheet.flapSteps.length > 1 ? 2 : 1,
  );
  for (const leg of CIRCUIT_LEGS.slice(1)) {
    const start = points.find((p) => p.leg === leg);
    const corner = points[Math.max(0, points.indexOf(start as PacePoint) - 1)];
    if (corner && (leg === 'crosswind' || leg === 'downwind')) put(`look out, turn ${leg}`, corner.tS);
  }
  put('level, power, trim', when(c.circuitHeightFt), 3);
  const gates = sheet.approach.filter((g) => !downwind || g.distanceM <= downwind.distanceM);
  const total = points[points.length - 1]?.tS ?? 0;
  const gateTime = (g: Gate): number =>
    points.find((p) => Math.abs(distanceToGo(points, p) - g.distanceM) < 1)?.tS ?? total;
  // The checks before landing are spread over the downwind leg up to its gate.
  const steps = sheet.flows.find((f) => /landing|downwind/i.test(f.name))?.steps ?? [];
  const turned = points.filter((p) => p.leg === 'crosswind').pop();
  const gateS = downwind ? gateTime(downwind) : total;
  const fromS = Math.max(turned?.tS ?? 0, Math.min(when(c.circuitHeightFt), gateS - (steps.length + 1) * TASK_GAP_S));
  steps.forEach((s, i) => put(s, fromS + ((i + 1) / (steps.length + 1)) * Math.max(0, gateS - fromS)));
  gates.forEach((g, i) => {
    const before = gates[i - 1] ?? { flapDeg: 0, gear: sheet.gear.retractable ? 'up' : 'fixed', power: '' };
    const changes = [
      g.power && g.power !== before.power ? g.power : '',
      g.gear !== before.gear && g.gear !== 'fixed' ? `gear ${g.gear}` : '',
      g.flapDeg !== before.flapDeg ? `flap ${g.flapDeg}°` : '',
      `${g.speed.value} ${sheet.dial.unit}`,
    ].filter(Boolean);
    put(`${g.name}: ${changes.join(', ')}`, gateTime(g), changes.length);
  });
  return tasks.sort((a, b) => a.tS - b.tS);
}

/**
 * Metres along the circuit from a second to the threshold.
 * Source: wind triangle on each leg; climb by power less drag.
 * @returns metres
 * @throws BadNumber when a number handed in is none
 */
export function togoM(points: readonly PacePoint[], tS: number): number {
  needNumbers('togoM', { points, tS });
  const at = placeAt(points, tS);
  const next = points.findIndex((p) => p.tS >= tS);
  const b = points[next];
  return at === null || b === undefined ? 0 : Math.hypot(b.x - at.x, b.y - at.y) + distanceToGo(points, b);
}

function distanceToGo(points: readonly PacePoint[], p: PacePoint): number {
  const i = points.indexOf(p);
  let m = 0;
  for (let k = i; k < points.length - 1; k++) {
    const a = points[k];
    const b = points[k + 1];
    if (a && b) m += Math.hypot(b.x - a.x, b.y - a.y);
  }
  return m;
}

/** When a height is first reached; the end of the climb when it never is. */
function timeAtHeight(points: readonly PacePoint[], heightFt: number): number {
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1];
    const b = points[i];
    if (a && b && b.heightFt >= heightFt - 0.01 && a.heightFt < heightFt - 0.01)
      return a.tS + ((heightFt - a.heightFt) / (b.heightFt - a.heightFt)) * (b.tS - a.tS);
  }
  return [...points].reduce((best, p) => (p.heightFt > best.heightFt ? p : best), points[0] ?? { heightFt: 0, tS: 0 })
    .tS;
}

/**
 * The flown place at a second, between two points.
 * Source: wind triangle on each leg; climb by power less drag.
 * @returns metres, feet and knots at that second; null without a path
 */
export function placeAt(points: readonly PacePoint[], tS: number): PacePoint | null {
  const i = points.findIndex((p) => p.tS >= tS);
  const b = points[i < 0 ? points.length - 1 : i];
  const a = points[Math.max(0, (i < 0 ? points.length : i) - 1)];
  if (!a || !b) return null;
  const t = b.tS === a.tS ? 0 : Math.min(1, Math.max(0, (tS - a.tS) / (b.tS - a.tS)));
  return {
    ...b,
    x: a.x + t * (b.x - a.x),
    y: a.y + t * (b.y - a.y),
    heightFt: a.heightFt + t * (b.heightFt - a.heightFt),
    tS,
  };
}
/**
 * Runway frame (x along, y right) to true east and north, metres from the threshold.
 * Source: wind triangle on each leg; climb by power less drag.
 * @returns metres
 */
export const toNorth = (p: { x: number; y: number }, trueBearingDeg: number): { east: number; north: number } => ({
  east: p.x * sinDeg(trueBearingDeg) + p.y * cosDeg(trueBearingDeg),
  north: p.x * cosDeg(trueBearingDeg) - p.y * sinDeg(trueBearingDeg),
});
