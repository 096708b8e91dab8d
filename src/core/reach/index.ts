/**
 * Reach without the engine, from one point of the circuit to a key point and into line with the runway. A model for
 * talking, never a permission. Knots, feet, metres, degrees; directions in one reference. Method: steady glide from the
 * polar at the load factor of the turn.
 */
import { needNumbers, needPositive } from '../guard';
import {
  FT_PER_MIN_PER_MS,
  G_MS2,
  MS_PER_KT,
  M_PER_FT,
  SLACK,
  cosDeg,
  norm180,
  norm360,
  sinDeg,
  tanDeg,
} from '../constants';
import { type Flown, dragAt } from '../energy';

export interface GlideBody {
  massKg: number;
  wingAreaM2: number;
  /** Stopped or windmilling propeller and configuration included. */
  cd0: number;
  inducedK: number;
  airDensityKgM3: number;
}

const flown = (b: GlideBody, tasKt: number): Flown => ({
  polar: { cd0: b.cd0, k: b.inducedK },
  massKg: b.massKg,
  wingAreaM2: b.wingAreaM2,
  rhoKgM3: b.airDensityKgM3,
  tasKt,
  deltaCd0: [],
});
/** Sink, m/s, at a load factor: V·D/W with the lift of that load factor. */
function sinkMs(b: GlideBody, tasKt: number, loadFactor: number): number {
  const { dragN, weightN } = dragAt(flown(b, tasKt), loadFactor);
  return (tasKt * MS_PER_KT * dragN) / weightN;
}

export interface GlidingTurn {
  loadFactor: number;
  radiusM: number;
  timeS: number;
  sinkFpm: number;
  heightLostFt: number;
}

/**
 * Height lost in a gliding turn. Null outside 0 < bank < 90 or at no speed.
 * Source: steady glide and co-ordinated turn in the wind.
 * @returns load factor, radius in metres, seconds, ft/min and ft lost
 * @throws BadNumber when a number handed in is none
 */
export function glidingTurn(b: GlideBody, tasKt: number, bankDeg: number, turnDeg: number): GlidingTurn | null {
  needNumbers('glidingTurn', { b, tasKt, bankDeg, turnDeg });
  if (!(bankDeg > 0 && bankDeg < 90) || !(tasKt > 0)) return null;
  const vMs = tasKt * MS_PER_KT;
  const loadFactor = 1 / cosDeg(bankDeg);
  const sink = sinkMs(b, tasKt, loadFactor);
  const timeS = ((Math.abs(turnDeg) * Math.PI) / 180) * (vMs / (G_MS2 * tanDeg(bankDeg)));
  return {
    loadFactor,
    radiusM: vMs ** 2 / (G_MS2 * tanDeg(bankDeg)),
    timeS,
    sinkFpm: sink * FT_PER_MIN_PER_MS,
    heightLostFt: (sink * timeS) / M_PER_FT,
  };
}

/**
 * Best glide from the polar: CL = √(cd0/k). True airspeed.
 * Source: steady glide and co-ordinated turn in the wind.
 * @returns kt, ratio, ft/min
 * @throws BadNumber when a number handed in is none
 * @example
 * bestGlide({ massKg: 560, wingAreaM2: 16.2, cd0: 0.05, inducedK: 0.063, airDensityKgM3: 1.18 })
 * // { tasKt: 49.366, glideRatio: 8.9087, sinkFpm: 561.16 }
 */
export function bestGlide(b: GlideBody): { tasKt: number; glideRatio: number; sinkFpm: number } {
  needNumbers('bestGlide', b);
  needPositive('bestGlide', { ...b });
  const cl = Math.sqrt(b.cd0 / b.inducedK);
  const vMs = Math.sqrt((2 * b.massKg * G_MS2) / (b.airDensityKgM3 * b.wingAreaM2 * cl));
  const glideRatio = 1 / (2 * Math.sqrt(b.cd0 * b.inducedK));
  return { tasKt: vMs / MS_PER_KT, glideRatio, sinkFpm: (vMs / glideRatio) * FT_PER_MIN_PER_MS };
}

export interface StraightGlide {
  sinkFpm: number | null;
  headwindKt: number | null;
  crosswindKt: number | null;
  groundSpeedKt: number | null;
  distanceM: number | null;
  groundGlideRatio: number | null;
}

/**
 * Straight glide over the ground in wind. Distance 0 when it makes no headway; all null for a negative height or no
 * speed.
 * Source: steady glide and co-ordinated turn in the wind.
 * @returns ft/min, kt, metres and the ratio over the ground
 * @throws BadNumber when a number handed in is none
 * @example
 * straightGlide({ massKg: 560, wingAreaM2: 16.2, cd0: 0.05, inducedK: 0.063, airDensityKgM3: 1.18 },
 * { heightFt: 500, tasKt: 40, trackDeg: 0, windFromDeg: 0, windKt: 45 })
 * // { sinkFpm: 495.54, headwindKt: 45, crosswindKt: 0, groundSpeedKt: -5, distanceM: 0, groundGlideRatio: null }
 */
export function straightGlide(
  b: GlideBody,
  input: { heightFt: number; tasKt: number; trackDeg: number; windFromDeg: number; windKt: number },
): StraightGlide {
  needNumbers('straightGlide', { b, input });
  if (input.heightFt < 0 || input.tasKt <= 0)
    return {
      sinkFpm: null,
      headwindKt: null,
      crosswindKt: null,
      groundSpeedKt: null,
      distanceM: null,
      groundGlideRatio: null,
    };
  const angle = input.windFromDeg - input.trackDeg;
  const headwindKt = input.windKt * cosDeg(angle);
  const crosswindKt = input.windKt * sinDeg(angle);
  const sink = sinkMs(b, input.tasKt, 1);
  const under = input.tasKt ** 2 - crosswindKt ** 2;
  const groundSpeedKt = under < 0 ? null : Math.sqrt(under) - headwindKt;
  const base = { sinkFpm: sink * FT_PER_MIN_PER_MS, headwindKt, crosswindKt, groundSpeedKt };
  if (groundSpeedKt === null || groundSpeedKt <= 0) return { ...base, distanceM: 0, groundGlideRatio: null };
  const ratio = (groundSpeedKt * MS_PER_KT) / sink;
  return { ...base, distanceM: ratio * input.heightFt * M_PER_FT, groundGlideRatio: ratio };
}

export interface ReachFrom extends GlideBody {
  /** Above the key point; also taken as height above ground. */
  heightFt: number;
  tasKt: number;
  glideTasKt: number;
  headingDeg: number;
  bankDeg: number;
  windFromDeg: number;
  windKt: number;
  reactionS?: number | null;
  rollRateDegS?: number | null;
  /** At 1 g in this configuration; null = not checked. */
  stallTasKt: number | null;
  /** Least height for a turn back; null = none. */
  houseTurnBackFt: number | null;
}
export interface ReachTarget {
  targetBearingDeg: number;
  targetDistanceM: number;
  landingHeadingDeg: number;
  neededHeightFt: number;
}
export type ReachVerdict = 'reaches' | 'doubtful' | 'no';
export interface Reach {
  verdict: ReachVerdict;
  reason: 'stall-margin' | 'no-path' | 'turn-back-below-house-height' | null;
  zoomFt: number | null;
  turnSide: 'left' | 'right' | 'none' | null;
  turnDeg: number | null;
  alignDeg: number | null;
  timeS: number | null;
  reactionLossFt: number | null;
  heightLostFt: number | null;
  heightAtPointFt: number | null;
  marginFt: number | null;
}
/** Height in hand at the key point that makes it *reaches*; down to 0 it is *doubtful*. */
export const IN_HAND_FT = 200;
type Vec = { x: number; y: number };
/** Unit vector of a heading: x east, y north. */
const unit = (headingDeg: number): Vec => ({ x: sinDeg(headingDeg), y: cosDeg(headingDeg) });
const TURN_SCAN_DEG = 0.25;

/**
 * Reaction straight on, zoom or spend to glide speed, roll in, turn until the ground track points at the key point,
 * glide there, align. Both turn directions are tried; less height lost wins, right on a tie.
 * Source: steady glide and co-ordinated turn in the wind.
 * @returns numbers null where no path exists or the stall margin of 1.1 in the turn would be broken
 * @throws BadNumber when a number handed in is none
 */
export function reachPoint(from: ReachFrom, to: ReachTarget): Reach {
  needNumbers('reachPoint', { from, to });
  const none: Reach = {
    verdict: 'no',
    reason: 'no-path',
    zoomFt: null,
    turnSide: null,
    turnDeg: null,
    alignDeg: null,
    timeS: null,
    reactionLossFt: null,
    heightLostFt: null,
    heightAtPointFt: null,
    marginFt: null,
  };
  const loadFactor = 1 / cosDeg(from.bankDeg);
  if (from.stallTasKt !== null && from.glideTasKt < 1.1 * from.stallTasKt * Math.sqrt(loadFactor) - SLACK)
    return { ...none, reason: 'stall-margin' };
  const reactionS = from.reactionS ?? 4;
  const windTo = unit(from.windFromDeg);
  const wind: Vec = { x: -windTo.x * from.windKt * MS_PER_KT, y: -windTo.y * from.windKt * MS_PER_KT };
  const v1 = from.tasKt * MS_PER_KT;
  const v2 = from.glideTasKt * MS_PER_KT;
  const reactionLossFt = (sinkMs(from, from.tasKt, 1) * reactionS) / M_PER_FT;
  const zoomFt = (v1 ** 2 - v2 ** 2) / (2 * G_MS2) / M_PER_FT;
  const start = unit(from.headingDeg);
  const target: Vec = {
    x: unit(to.targetBearingDeg).x * to.targetDistanceM,
    y: unit(to.targetBearingDeg).y * to.targetDistanceM,
  };
  const after: Vec = { x: (start.x * v1 + wind.x) * reactionS, y: (start.y * v1 + wind.y) * reactionS };
  const lagS = (0.5 * from.bankDeg) / (from.rollRateDegS ?? 15);
  const sink1 = sinkMs(from, from.glideTasKt, 1);
  const sinkN = sinkMs(from, from.glideTasKt, loadFactor);
  const omega = (G_MS2 * tanDeg(from.bankDeg)) / v2;

  /** Where it is after turning `deg` to one side (−1 left, 1 right), roll-in included; no turn, no roll-in. */
  const turned = (side: -1 | 1, deg: number): { at: Vec; headingDeg: number; turnS: number; rollS: number } => {
    if (deg <= 0) return { at: after, headingDeg: from.headingDeg, turnS: 0, rollS: 0 };
    const radius = v2 / omega;
    const turnS = (deg * Math.PI) / 180 / omega;
    const right = unit(from.headingDeg + 90);
    const end = from.headingDeg + side * deg;
    const endRight = unit(end + 90);
    const rolled: Vec = { x: after.x + (start.x * v2 + wind.x) * lagS, y: after.y + (start.y * v2 + wind.y) * lagS };
    return {
      at: {
        x: rolled.x + side * radius * (right.x - endRight.x) + wind.x * turnS,
        y: rolled.y + side * radius * (right.y - endRight.y) + wind.y * turnS,
      },
      headingDeg: end,
      turnS,
      rollS: lagS,
    };
  };
  /** How far the ground track on that heading misses the target, and the seconds along it. */
  const aim = (side: -1 | 1, deg: number) => {
    const t = turned(side, deg);
    const u = unit(t.headingDeg);
    const g: Vec = { x: u.x * v2 + wind.x, y: u.y * v2 + wind.y };
    const d: Vec = { x: target.x - t.at.x, y: target.y - t.at.y };
    return {
      ...t,
      miss: g.x * d.y - g.y * d.x,
      timeS: (g.x * d.x + g.y * d.y) / (g.x ** 2 + g.y ** 2),
      far: Math.hypot(d.x, d.y),
    };
  };
  /** The miss alone, in plain numbers: the scan asks for it some thousand times. */
  const startRad = (from.headingDeg * Math.PI) / 180;
  const rolledX = after.x + (start.x * v2 + wind.x) * lagS;
  const rolledY = after.y + (start.y * v2 + wind.y) * lagS;
  const radiusM = v2 / omega;
  const miss = (side: -1 | 1, deg: number): number => {
    const turn = (deg * Math.PI) / 180;
    const end = startRad + side * turn;
    const sin = Math.sin(end);
    const cos = Math.cos(end);
    const s = turn / omega;
    const gx = sin * v2 + wind.x;
    const gy = cos * v2 + wind.y;
    const dx = target.x - (rolledX + side * radiusM * (Math.cos(startRad) - cos) + wind.x * s);
    const dy = target.y - (rolledY + side * radiusM * (-Math.sin(startRad) + sin) + wind.y * s);
    return gx * dy - gy * dx;
  };
  const solve = (side: -1 | 1): { deg: number; state: ReturnType<typeof aim> } | null => {
    const straight = aim(side, 0);
    if (Math.abs(straight.miss) <= 1e-6 * Math.max(1, straight.far) * v2 && straight.timeS > 0)
      return { deg: 0, state: straight };
    let before = miss(side, 1e-9);
    for (let deg = TURN_SCAN_DEG; deg <= 360 + SLACK; deg += TURN_SCAN_DEG) {
      const now = miss(side, deg);
      if (before * now <= 0 && Math.abs(before - now) > 0) {
        let low = Math.max(1e-9, deg - TURN_SCAN_DEG);
        let high = deg;
        const sign = Math.sign(miss(side, low));
        for (let i = 0; i < 60; i++) {
          const mid = (low + high) / 2;
          if (Math.sign(miss(side, mid)) === sign) low = mid;
          else high = mid;
        }
        const found = aim(side, (low + high) / 2);
        if (found.timeS > 0) return { deg: (low + high) / 2, state: found };
      }
      before = now;
    }
    return null;
  };
  const candidates = ([1, -1] as const).flatMap((side) => {
    const s = solve(side);
    if (!s) return [];
    const short = norm180(to.landingHeadingDeg - s.state.headingDeg);
    const alignDeg = Math.abs(short) <= 1e-6 ? 0 : Math.abs(Math.abs(short) - 180) < 1e-9 ? -180 : short;
    const alignS = alignDeg === 0 ? 0 : (Math.abs(alignDeg) * Math.PI) / 180 / omega;
    const alignRollS = alignDeg === 0 ? 0 : 2 * lagS;
    const lostM = sink1 * (s.state.rollS + s.state.timeS + alignRollS) + sinkN * (s.state.turnS + alignS);
    return [
      {
        side,
        deg: s.deg,
        alignDeg,
        timeS: reactionS + s.state.rollS + s.state.turnS + s.state.timeS + alignS + alignRollS,
        heightLostFt: lostM / M_PER_FT,
      },
    ];
  });
  const best = candidates.reduce<(typeof candidates)[number] | null>(
    (a, c) => (a === null || c.heightLostFt < a.heightLostFt - 1e-9 ? c : a),
    null,
  );
  if (best === null) return { ...none, zoomFt, reactionLossFt };
  const heightAtPointFt = from.heightFt + zoomFt - reactionLossFt - best.heightLostFt;
  const marginFt = heightAtPointFt - to.neededHeightFt;
  const result: Reach = {
    verdict: marginFt >= IN_HAND_FT - SLACK ? 'reaches' : marginFt >= -SLACK ? 'doubtful' : 'no',
    reason: null,
    zoomFt,
    reactionLossFt,
    turnSide: best.deg === 0 ? 'none' : best.side === 1 ? 'right' : 'left',
    turnDeg: best.deg,
    alignDeg: best.alignDeg,
    timeS: best.timeS,
    heightLostFt: best.heightLostFt,
    heightAtPointFt,
    marginFt,
  };
  const turnBack =
    from.houseTurnBackFt !== null &&
    from.heightFt < from.houseTurnBackFt &&
    best.deg + Math.abs(best.alignDeg) > 90 + SLACK;
  return turnBack ? { ...result, verdict: 'no', reason: 'turn-back-below-house-height' } : result;
}

export interface RunwayEndReach {
  id: string;
  verdict: ReachVerdict;
  reason: Reach['reason'];
  marginFt: number | null;
}
const RANK: Record<ReachVerdict, number> = { reaches: 2, doubtful: 1, no: 0 };

/**
 * Every runway end from one point of the circuit; the best by verdict, then margin, then listed order.
 * Source: steady glide and co-ordinated turn in the wind.
 * @returns ends with their verdict and margin in ft, and the id of the best
 * @throws BadNumber when a number handed in is none
 */
export function reachEnds(
  from: ReachFrom,
  ends: readonly {
    id: string;
    bearingDeg: number;
    distanceM: number;
    landingHeadingDeg: number;
    neededHeightFt: number;
  }[],
): { ends: RunwayEndReach[]; bestId: string | null; nothingReached: boolean } {
  needNumbers('reachEnds', { from, ends });
  const seen = ends.map((e): RunwayEndReach => {
    const { verdict, reason, marginFt } = reachPoint(from, {
      targetBearingDeg: norm360(e.bearingDeg),
      targetDistanceM: e.distanceM,
      landingHeadingDeg: e.landingHeadingDeg,
      neededHeightFt: e.neededHeightFt,
    });
    return { id: e.id, verdict, reason, marginFt };
  });
  const best = seen.reduce<RunwayEndReach | null>(
    (a, e) =>
      e.verdict !== 'no' &&
      (a === null ||
        RANK[e.verdict] > RANK[a.verdict] ||
        (RANK[e.verdict] === RANK[a.verdict] && (e.marginFt ?? 0) > (a.marginFt ?? 0)))
        ? e
        : a,
    null,
  );
  return { ends: seen, bestId: best?.id ?? null, nothingReached: !seen.some((e) => e.verdict === 'reaches') };
}
