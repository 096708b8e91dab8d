/** Mass and balance: kilograms, metres aft of the datum. The envelope is a polygon; its edges count as inside. */
import { needNumbers } from '../guard';
import { AVGAS_KG_PER_L, SLACK } from '../constants';

export interface EnvelopePoint {
  armM: number;
  massKg: number;
}
export interface EnvelopeResult {
  inside: boolean;
  /** To the nearest edge in span-normalised units: positive inside, negative outside, 0 on the edge. */
  edgeDistance: number;
  forwardMarginM: number | null;
  aftMarginM: number | null;
  massMarginKg: number | null;
}

/**
 * Is a mass and CG inside the envelope, and how far from its edge. Arms are divided by the polygon's arm span and
 * masses by its mass span before distances are taken, because metres and kilograms do not mix.
 * Source: sum of moments about the datum; the envelope as a polygon.
 * @param envelope corners in order, either sense, not closed; need not be convex; at least three
 * @returns inside or not, the distance to the edge in shares of the spans, margins in metres and kg
 * @throws BadNumber when a number handed in is none
 */
export function insideEnvelope(massKg: number, armM: number, envelope: readonly EnvelopePoint[]): EnvelopeResult {
  needNumbers('insideEnvelope', { massKg, armM, envelope });
  const arms = envelope.map((p) => p.armM);
  const masses = envelope.map((p) => p.massKg);
  const armSpan = Math.max(...arms) - Math.min(...arms);
  const massSpan = Math.max(...masses) - Math.min(...masses);
  const at = { x: armM / armSpan, y: massKg / massSpan };
  const edges = envelope.map((p, i) => {
    const q = envelope[(i + 1) % envelope.length] ?? p;
    return {
      a: { x: p.armM / armSpan, y: p.massKg / massSpan },
      b: { x: q.armM / armSpan, y: q.massKg / massSpan },
      p,
      q,
    };
  });
  const nearest = Math.min(...edges.map(({ a, b }) => distanceToSegment(at, a, b)));
  const onEdge = nearest <= SLACK;
  const inside =
    onEdge ||
    edges.reduce(
      (odd, { p, q }) =>
        p.massKg > massKg !== q.massKg > massKg &&
        armM < p.armM + ((massKg - p.massKg) / (q.massKg - p.massKg)) * (q.armM - p.armM)
          ? !odd
          : odd,
      false,
    );
  const edgeDistance = onEdge ? 0 : inside ? nearest : -nearest;
  if (!inside) return { inside, edgeDistance, forwardMarginM: null, aftMarginM: null, massMarginKg: null };
  const across = crossings(
    edges.map(({ p, q }) => ({ along: [p.massKg, q.massKg], value: [p.armM, q.armM] })),
    massKg,
  );
  const up = crossings(
    edges.map(({ p, q }) => ({ along: [p.armM, q.armM], value: [p.massKg, q.massKg] })),
    armM,
  );
  const least = (xs: number[]): number | null => (xs.length === 0 ? null : Math.max(0, Math.min(...xs)));
  return {
    inside,
    edgeDistance,
    forwardMarginM: least(across.filter((x) => x <= armM + SLACK).map((x) => armM - x)),
    aftMarginM: least(across.filter((x) => x >= armM - SLACK).map((x) => x - armM)),
    massMarginKg: least(up.filter((y) => y >= massKg - SLACK).map((y) => y - massKg)),
  };
}

function distanceToSegment(
  at: { x: number; y: number },
  a: { x: number; y: number },
  b: { x: number; y: number },
): number {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const length2 = dx * dx + dy * dy;
  const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((at.x - a.x) * dx + (at.y - a.y) * dy) / length2));
  return Math.hypot(at.x - a.x - t * dx, at.y - a.y - t * dy);
}

/** Where edges cross a line at `at`; an edge lying along it gives both its ends. */
function crossings(edges: { along: [number, number]; value: [number, number] }[], at: number): number[] {
  return edges.flatMap(({ along: [a, b], value: [va, vb] }) => {
    if (Math.abs(a - at) <= SLACK && Math.abs(b - at) <= SLACK) return [va, vb];
    if (at < Math.min(a, b) - SLACK || at > Math.max(a, b) + SLACK || Math.abs(a - b) <= SLACK) return [];
    return [va + ((at - a) / (b - a)) * (vb - va)];
  });
}

export interface Station {
  name: string;
  massKg: number;
  armM: number;
  maxKg: number | null;
}
export interface LoadPoint {
  massKg: number;
  momentKgM: number;
  armM: number;
  inside: boolean;
  edgeDistance: number;
}
export interface MassBalance {
  takeOff: LoadPoint;
  landing: LoadPoint;
  zeroFuel: LoadPoint;
  allInside: boolean;
  overMax: string[];
}

/**
 * Mass, moment and CG at take-off, landing and zero fuel. The three points are judged; the line between them is not.
 * Source: sum of moments about the datum; the envelope as a polygon.
 * @param stations everything but fuel, the empty aeroplane included
 * @param densityKgL kg/L; null = 0.72 (avgas)
 * @returns `overMax` names stations loaded above their own limit
 * @throws BadNumber when a number handed in is none
 */
export function massBalance(input: {
  stations: readonly Station[];
  fuelL: number;
  fuelArmM: number;
  burnL: number;
  densityKgL: number | null;
  envelope: readonly EnvelopePoint[];
}): MassBalance {
  needNumbers('massBalance', input);
  const density = input.densityKgL ?? AVGAS_KG_PER_L;
  const dry = input.stations.reduce(
    (s, x) => ({ massKg: s.massKg + x.massKg, momentKgM: s.momentKgM + x.massKg * x.armM }),
    { massKg: 0, momentKgM: 0 },
  );
  const point = (litres: number): LoadPoint => {
    const massKg = dry.massKg + litres * density;
    const momentKgM = dry.momentKgM + litres * density * input.fuelArmM;
    const armM = momentKgM / massKg;
    const { inside, edgeDistance } = insideEnvelope(massKg, armM, input.envelope);
    return { massKg, momentKgM, armM, inside, edgeDistance };
  };
  const takeOff = point(input.fuelL);
  const landing = point(Math.max(0, input.fuelL - input.burnL));
  const zeroFuel = point(0);
  return {
    takeOff,
    landing,
    zeroFuel,
    allInside: takeOff.inside && landing.inside && zeroFuel.inside,
    overMax: input.stations.filter((s) => s.maxKg !== null && s.massKg > s.maxKg).map((s) => s.name),
  };
}

/**
 * Trim setting for a CG: linear between points, held flat outside with the flag. `trim` in the wheel's own units.
 * Source: sum of moments about the datum; the envelope as a polygon.
 * @returns the setting, and whether the CG is beyond the table
 * @throws BadNumber when a number handed in is none
 * @example trimFor(0.4, []) // { trim: 0, outsideTable: true }
 */
export function trimFor(
  armM: number,
  table: readonly { armM: number; trim: number }[],
): { trim: number; outsideTable: boolean } {
  needNumbers('trimFor', { armM, table });
  const rows = [...table].sort((a, b) => a.armM - b.armM);
  const first = rows[0];
  const last = rows[rows.length - 1];
  if (!first || !last) return { trim: 0, outsideTable: true };
  if (armM <= first.armM) return { trim: first.trim, outsideTable: armM < first.armM - SLACK };
  if (armM >= last.armM) return { trim: last.trim, outsideTable: armM > last.armM + SLACK };
  const i = rows.findIndex((r) => r.armM >= armM);
  const low = rows[i - 1] ?? first;
  const high = rows[i] ?? last;
  return {
    trim: low.trim + ((armM - low.armM) / (high.armM - low.armM)) * (high.trim - low.trim),
    outsideTable: false,
  };
}
