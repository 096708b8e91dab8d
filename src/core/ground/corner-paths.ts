/**
 * Paths of each wheel through a right-angled right turn, to scale. The first leg's centreline is x = 0 flown towards
 * +y, the second's is y = 0 towards +x; metres. No side slip of the mains: the fuselage lies along the axle's path, so
 * third wheel and tips follow exactly.
 */
import { needNumbers } from '../guard';
import { cosDeg, sinDeg } from '../constants';
import { type Corner, taxiCorner } from './turning';

export interface CornerInput {
  wheelbaseM: number;
  trackM: number;
  turnRadiusM: number;
  taxiwayWidthM: number;
  technique: 'centreline' | 'hugInside';
  layout: 'tailwheel' | 'nosewheel';
  spanM: number;
}
export interface Place {
  x: number;
  y: number;
}
export interface CornerFrame {
  headingDeg: number;
  axle: Place;
  inside: Place;
  outside: Place;
  third: Place;
  tipInside: Place;
  tipOutside: Place;
  turning: boolean;
}

/**
 * Frames in order of taxiing, `steps` of them.
 * Source: rigid body whose mains do not slip sideways.
 * @returns places in metres and headings in degrees
 * @throws BadNumber when a number handed in is none
 */
export function cornerPaths(c: CornerInput, steps = 120): CornerFrame[] {
  needNumbers('cornerPaths', { c, steps });
  const r = c.turnRadiusM;
  const half = c.taxiwayWidthM / 2;
  const inner = r - c.trackM / 2;
  // Arc centre: on the diagonal through the inner corner when hugging, else where the axle centre's circle touches both
  // centrelines.
  const centre =
    c.technique === 'hugInside' ? { x: half + inner / Math.SQRT2, y: -half - inner / Math.SQRT2 } : { x: r, y: -r };
  const run = c.wheelbaseM + half + 3;
  const arc = (Math.PI / 2) * r;
  const total = 2 * run + arc;
  const third = c.layout === 'tailwheel' ? -c.wheelbaseM : c.wheelbaseM;
  return Array.from({ length: steps + 1 }, (_, i): CornerFrame => {
    const s = (total * i) / steps;
    const headingDeg = s <= run ? 0 : s >= run + arc ? 90 : ((s - run) / r) * (180 / Math.PI);
    const onArc = { x: centre.x - r * cosDeg(headingDeg), y: centre.y + r * sinDeg(headingDeg) };
    const axle =
      s < run
        ? { x: onArc.x, y: onArc.y - (run - s) }
        : s > run + arc
          ? { x: onArc.x + (s - run - arc), y: onArc.y }
          : onArc;
    const ahead = { x: sinDeg(headingDeg), y: cosDeg(headingDeg) };
    const right = { x: cosDeg(headingDeg), y: -sinDeg(headingDeg) };
    const at = (forward: number, side: number): Place => ({
      x: axle.x + forward * ahead.x + side * right.x,
      y: axle.y + forward * ahead.y + side * right.y,
    });
    return {
      headingDeg,
      axle,
      inside: at(0, c.trackM / 2),
      outside: at(0, -c.trackM / 2),
      third: at(third, 0),
      tipInside: at(0, c.spanM / 2),
      tipOutside: at(0, -c.spanM / 2),
      turning: s >= run && s <= run + arc,
    };
  });
}

export interface CornerVerdict extends Corner {
  state: 'on' | 'edge' | 'off';
  words: string;
}
/** Nearer to the edge than this, the third wheel is called on the edge. */
const EDGE_M = 0.5;

/**
 * What the corner does with this technique: on the taxiway, on its edge, or off it.
 * Source: rigid body whose mains do not slip sideways.
 * @param lightsM how far beyond the edge the lights stand; `lipCm` step down from the edge; null = none
 * @returns the corner in metres, with its state
 * @throws BadNumber when a number handed in is none
 */
export function cornerVerdict(c: CornerInput, edge: { lightsM: number | null; lipCm: number }): CornerVerdict {
  needNumbers('cornerVerdict', { c, edge });
  const corner = taxiCorner(c);
  const name = c.layout === 'tailwheel' ? 'tailwheel' : 'nosewheel';
  const out = corner.tailBeyondEdgeM;
  const inside = corner.insideWheelBeyondCornerM;
  const off: string[] = [];
  if (out > 0)
    off.push(
      `the ${name} runs ${out.toFixed(1)} m off the outer edge${edge.lipCm > 0 ? `, over a lip of ${edge.lipCm} cm` : ''}${edge.lightsM !== null && out >= edge.lightsM ? ', over the lights' : ''}`,
    );
  if (inside > 0.05) off.push(`the inside wheel cuts ${inside.toFixed(1)} m into the inner corner`);
  if (off.length > 0) return { ...corner, state: 'off', words: off.join('; ') };
  if (out > -EDGE_M)
    return { ...corner, state: 'edge', words: `the ${name} passes ${(-out).toFixed(1)} m inside the outer edge` };
  return { ...corner, state: 'on', words: `the ${name} stays ${(-out).toFixed(1)} m inside the outer edge` };
}
