/**
 * The way down as the eye flies it, in the runway's frame: x along the runway from the threshold, y right of the
 * centreline, z up; metres. Down the gates, from the first gate on final straight to the aim point. With an offset the
 * aim point is kept at one angle beside the nose: that path is a spiral, then one shallow alignment arc, then the
 * centreline. No wash, no ground effect, steady wind.
 */
import { needNumbers } from '../guard';
import { G_MS2, MS_PER_KT, M_PER_FT, cosDeg, sinDeg, tanDeg } from '../constants';
import { type ProfilePoint, type SightGate, leastOffset, pointVisible, thresholdLost } from './nose';

export interface PathGate {
  name: string;
  heightFt: number;
  /** To the threshold. */
  distanceM: number;
  pitchDeg: number;
  tasKt: number;
  finalGate: boolean;
}
export interface PathInput {
  gates: readonly PathGate[];
  aimPointM: number;
  /** Of the path from the first gate on final to the aim point; null = as the gates give it. */
  slopeDeg: number | null;
  /** Between the nose and the aim point, held down to `downToFt`; 0 = straight in. */
  offsetDeg: number;
  /** On which side of the nose the runway is kept. */
  side: 'left' | 'right';
  downToFt: number;
  /** Positive from the right. */
  crosswindKt: number;
}
export interface Station {
  /** Along the flown path to the aim point, along the ground. */
  toAimM: number;
  heightFt: number;
  pitchDeg: number;
  bankDeg: number;
  /** Of the nose from the runway direction, right positive: track and crab. */
  headingDeg: number;
  crabDeg: number;
  x: number;
  y: number;
  zM: number;
  tasKt: number;
  /** Azimuth of the aim point from the nose. */
  aimAzimuthDeg: number;
  phase: 'gates' | 'offset' | 'alignment' | 'final';
}
const atan2Deg = (y: number, x: number): number => (Math.atan2(y, x) * 180) / Math.PI;
const asinDeg = (x: number): number => (Math.asin(Math.max(-1, Math.min(1, x))) * 180) / Math.PI;

/** Where the alignment arc ends, as a share of the distance at which it begins. */
const ALIGNED_AT = 0.25;

/**
 * Slope of the last straight part, degrees; from the first gate on final to the aim point.
 * Source: straight lines between the sheet's gates.
 * @returns degrees
 * @throws BadNumber when a number handed in is none
 */
export function pathSlope(gates: readonly PathGate[], aimPointM: number): number {
  needNumbers('pathSlope', { gates, aimPointM });
  const first = firstFinal(gates);
  return first ? atan2Deg(first.heightFt * M_PER_FT, first.distanceM + aimPointM) : 3;
}
const firstFinal = (gates: readonly PathGate[]): PathGate | undefined =>
  gates.find((g) => g.finalGate) ?? gates[gates.length - 1];

/** Height above the field at a distance from the aim point, and the pitch and speed there. */
function profileAt(input: PathInput, toAimM: number): { heightFt: number; pitchDeg: number; tasKt: number } {
  const slope = input.slopeDeg ?? pathSlope(input.gates, input.aimPointM);
  const first = firstFinal(input.gates);
  const onSlopeFt = (m: number) => (m * tanDeg(slope)) / M_PER_FT;
  const rows = input.gates
    .map((g) => ({
      m: g.distanceM + input.aimPointM,
      ft: first && g.distanceM > first.distanceM ? g.heightFt : onSlopeFt(g.distanceM + input.aimPointM),
      pitchDeg: g.pitchDeg,
      tasKt: g.tasKt,
    }))
    .sort((a, b) => b.m - a.m);
  const last = rows[rows.length - 1];
  if (!last) return { heightFt: onSlopeFt(toAimM), pitchDeg: 0, tasKt: 60 };
  if (toAimM <= last.m) return { heightFt: onSlopeFt(toAimM), pitchDeg: last.pitchDeg, tasKt: last.tasKt };
  const i = rows.findIndex((r) => r.m <= toAimM);
  const low = rows[i] ?? last;
  const high = rows[i - 1] ?? low;
  const t = high.m === low.m ? 0 : Math.min(1, (toAimM - low.m) / (high.m - low.m));
  return {
    heightFt: low.ft + t * (high.ft - low.ft),
    pitchDeg: low.pitchDeg + t * (high.pitchDeg - low.pitchDeg),
    tasKt: low.tasKt + t * (high.tasKt - low.tasKt),
  };
}

/** Distances from the aim point between which the offset is held, metres. */
function offsetSpan(input: PathInput): { from: number; to: number } {
  const first = firstFinal(input.gates);
  const slope = input.slopeDeg ?? pathSlope(input.gates, input.aimPointM);
  const from = (first?.distanceM ?? 0) + input.aimPointM;
  return { from, to: Math.min(from, (input.downToFt * M_PER_FT) / tanDeg(slope)) };
}

/**
 * Bearing of the aim point from the runway direction where the alignment arc begins, so that one arc ends on the
 * centreline: sin β = (cos β − share)·tan((β + ψ)/2).
 */
function bearingAtAlignment(trackOffsetDeg: number): number {
  let low = 0;
  let high = 45;
  for (let i = 0; i < 50; i++) {
    const b = (low + high) / 2;
    if (sinDeg(b) < (cosDeg(b) - ALIGNED_AT) * tanDeg((b + trackOffsetDeg) / 2)) low = b;
    else high = b;
  }
  return (low + high) / 2;
}

/**
 * The aeroplane at a distance from the aim point.
 * Source: straight lines between the sheet's gates.
 * @param toAimM metres, from the first gate down to 0
 * @returns metres, feet and degrees
 * @throws BadNumber when a number handed in is none
 */
export function stationAt(input: PathInput, toAimM: number): Station {
  needNumbers('stationAt', { input, toAimM });
  const { heightFt, pitchDeg, tasKt } = profileAt(input, toAimM);
  const v = tasKt * MS_PER_KT;
  const crabDeg = asinDeg(input.crosswindKt / tasKt);
  const sign = input.side === 'left' ? -1 : 1;
  const span = offsetSpan(input);
  // Angle between the track and the aim point that gives the wanted angle beside the nose; never past the other side.
  const trackOffset = input.offsetDeg === 0 ? 0 : Math.max(0, input.offsetDeg + sign * crabDeg);
  const base = { toAimM, heightFt, pitchDeg, tasKt, crabDeg, zM: heightFt * M_PER_FT };
  const place = (bearing: number, track: number, bank: number, phase: Station['phase']): Station => {
    // Seen from above with the runway on the left the aeroplane stands left of the centreline and turns left; mirrored
    // for the right.
    const mirror = -sign;
    return {
      ...base,
      phase,
      bankDeg: -mirror * bank,
      headingDeg: mirror * track + crabDeg,
      x: input.aimPointM - toAimM * cosDeg(bearing),
      y: -mirror * toAimM * sinDeg(bearing),
      aimAzimuthDeg: mirror * (bearing - track) - crabDeg,
    };
  };
  if (trackOffset < 1e-6) return place(0, 0, 0, toAimM > span.from ? 'gates' : 'final');
  const atAlign = bearingAtAlignment(trackOffset);
  const bankFor = (radiusM: number): number => atan2Deg(v * v, G_MS2 * radiusM);
  if (toAimM >= span.to) {
    const far = Math.min(toAimM, span.from);
    const bearing = atAlign + (tanDeg(trackOffset) * Math.log(far / span.to) * 180) / Math.PI;
    return place(
      bearing,
      bearing + trackOffset,
      bankFor(toAimM / sinDeg(trackOffset)),
      toAimM > span.from ? 'gates' : 'offset',
    );
  }
  const endM = ALIGNED_AT * span.to;
  if (toAimM <= endM) return place(0, 0, 0, 'final');
  // The arc: from heading β + ψ to 0, tangent to the centreline where it ends.
  const turn = atAlign + trackOffset;
  const radius = (span.to * cosDeg(atAlign) - endM) / sinDeg(turn);
  const left = turn * ((toAimM - endM) / (span.to - endM));
  const along = endM + radius * sinDeg(left);
  const across = radius * (1 - cosDeg(left));
  const mirror = -sign;
  return {
    ...base,
    phase: 'alignment',
    bankDeg: -mirror * bankFor(radius),
    headingDeg: mirror * left + crabDeg,
    x: input.aimPointM - along,
    y: -mirror * across,
    aimAzimuthDeg: mirror * (atan2Deg(across, along) - left) - crabDeg,
  };
}

export interface GateSeen {
  name: string;
  heightFt: number;
  pitchDeg: number;
  depressionDeg: number;
  noseBelowHorizonDeg: number;
  straightInMarginDeg: number;
  marginDeg: number;
  visible: boolean;
}
export interface SightAnswers {
  slopeDeg: number;
  gates: GateSeen[];
  /** Angle from the nose to the aim point that keeps it visible with the margin; null = no angle up to 90° does. */
  leastOffsetDeg: number | null;
  governingGate: string | null;
  /**
   * Straight in: eye height at which the aim point or the threshold is lost on the way down; null = kept, 0 = from the
   * start never seen.
   */
  lost: { heightFt: number | null; neverSeen: boolean };
  /** The same with the margin kept. */
  lostWithMargin: { heightFt: number | null; neverSeen: boolean };
  /** On the flown path with its offset, margin kept, down to `downToFt`. */
  keptOnPath: boolean;
  lostOnPathFt: number | null;
  /** Steepest bank the curved part needs at these speeds. */
  curveBankDeg: number;
}

/**
 * What is seen on the way down. `profile` as the eye has it; `keep` the same nose with the margin.
 * Source: straight lines between the sheet's gates.
 * @param attitude one attitude held all the way (level, glide, …); null = the gates' own
 * @returns degrees and ft, gate by gate and for the whole path
 * @throws BadNumber when a number handed in is none
 */
export function sightAnswers(
  profile: readonly ProfilePoint[],
  keep: readonly ProfilePoint[],
  input: PathInput,
  attitude: { pitchDeg: number; bankDeg: number } | null,
): SightAnswers {
  needNumbers('sightAnswers', { profile, keep, input, attitude });
  const slopeDeg = input.slopeDeg ?? pathSlope(input.gates, input.aimPointM);
  const finals = input.gates.filter((g) => g.finalGate);
  const span = offsetSpan(input);
  const at = profileAt(input, span.to);
  // The lowest place at which the aim point is still wanted counts as a gate of its own.
  const lowest = {
    name: `${Math.round(input.downToFt)} ft`,
    heightFt: at.heightFt,
    distanceM: span.to - input.aimPointM,
    pitchDeg: at.pitchDeg,
    tasKt: at.tasKt,
    finalGate: true,
  };
  const wanted = [
    ...finals.filter((g) => g.distanceM + input.aimPointM > span.to + 1),
    lowest,
    ...finals.filter((g) => g.distanceM + input.aimPointM <= span.to + 1),
  ];
  const sightGates = wanted.map((g): SightGate & { name: string } => {
    const at = profileAt(input, g.distanceM + input.aimPointM);
    return {
      name: g.name,
      heightFt: at.heightFt,
      distanceM: g.distanceM + input.aimPointM,
      pitchDeg: attitude?.pitchDeg ?? g.pitchDeg,
      bankDeg: attitude?.bankDeg ?? 0,
    };
  });
  const least = leastOffset({ profile: keep, gates: sightGates, downToFt: input.downToFt, side: input.side });
  const straight = { ...input, offsetDeg: 0, crosswindKt: 0 };
  const lostAt = (nose: readonly ProfilePoint[]) => {
    const first = finals[0];
    if (attitude || finals.length < 2) {
      const t = thresholdLost({
        profile: nose,
        pitchDeg: attitude?.pitchDeg ?? first?.pitchDeg ?? 0,
        slopeDeg,
        aimPastThresholdM: input.aimPointM,
      });
      return { heightFt: t.lostAtHeightFt, neverSeen: t.state === 'neverVisible' };
    }
    return lostStraightIn(nose, straight);
  };
  let keptOnPath = true;
  let lostOnPathFt: number | null = null;
  let curveBankDeg = 0;
  for (let i = 0; i <= STEPS; i++) {
    const m = span.from - (i / STEPS) * (span.from - span.to);
    const s = stationAt(input, m);
    curveBankDeg = Math.max(curveBankDeg, Math.abs(s.bankDeg));
    if (
      keptOnPath &&
      !pointVisible({
        profile: keep,
        pitchDeg: attitude?.pitchDeg ?? s.pitchDeg,
        bankDeg: 0,
        eyeHeightM: s.zM,
        distanceM: m,
        azimuthDeg: s.aimAzimuthDeg,
      }).visible
    ) {
      keptOnPath = false;
      lostOnPathFt = s.heightFt;
    }
  }
  return {
    slopeDeg,
    leastOffsetDeg: least.offsetDeg,
    governingGate: least.governingGate === null ? null : (sightGates[least.governingGate]?.name ?? null),
    lost: lostAt(profile),
    lostWithMargin: lostAt(keep),
    keptOnPath,
    lostOnPathFt,
    curveBankDeg,
    gates: sightGates.map((g) => {
      const s = stationAt(input, g.distanceM);
      const see = (azimuthDeg: number) =>
        pointVisible({
          profile,
          pitchDeg: g.pitchDeg,
          bankDeg: g.bankDeg,
          eyeHeightM: g.heightFt * M_PER_FT,
          distanceM: g.distanceM,
          azimuthDeg,
        });
      const here = see(s.aimAzimuthDeg);
      const ahead = see(0);
      return {
        name: g.name,
        heightFt: g.heightFt,
        pitchDeg: g.pitchDeg,
        depressionDeg: here.depressionDeg,
        noseBelowHorizonDeg: ahead.noseDepressionDeg - g.pitchDeg,
        straightInMarginDeg: ahead.marginDeg,
        marginDeg: here.marginDeg,
        visible: here.visible,
      };
    }),
  };
}
const STEPS = 160;

/** Straight in with the gates' own, changing pitch: the height at which the threshold or the aim point goes under. */
function lostStraightIn(
  nose: readonly ProfilePoint[],
  input: PathInput,
): { heightFt: number | null; neverSeen: boolean } {
  const span = offsetSpan(input);
  const sees = (m: number): boolean => {
    const s = stationAt(input, m);
    const see = (distanceM: number) =>
      distanceM <= 0 ||
      pointVisible({ profile: nose, pitchDeg: s.pitchDeg, bankDeg: 0, eyeHeightM: s.zM, distanceM, azimuthDeg: 0 })
        .visible;
    return see(m) && see(m - input.aimPointM);
  };
  if (!sees(span.from)) return { heightFt: null, neverSeen: true };
  let seenM = span.from;
  for (let i = 1; i <= STEPS * 4; i++) {
    const m = span.from * (1 - i / (STEPS * 4)) + 0.01;
    if (sees(m)) {
      seenM = m;
      continue;
    }
    let low = m;
    let high = seenM;
    for (let k = 0; k < 40; k++) {
      const mid = (low + high) / 2;
      if (sees(mid)) high = mid;
      else low = mid;
    }
    return { heightFt: stationAt(input, (low + high) / 2).heightFt, neverSeen: false };
  }
  return { heightFt: null, neverSeen: false };
}
