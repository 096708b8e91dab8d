/** When a foot is still in time: a roll for every speed and every first foot, and the edge between held and lost. */
import { coder } from '@/domain/coded';
import type { Figure } from '@/domain/lab';
import { fixed } from '../format';
import { groundRun } from '../ground';
import { box, circle, label, line } from './figure';
import { groundModel, rollInput } from './ground';
import { type LabDay, type LabSentence, type LabSheetData, type Settings, numberOf } from './model';
import { LAB_WORDS } from './lab-words';

const said = coder(LAB_WORDS);
const SPEEDS = 40;
const FEET = 50;
const FOOT_STEP_S = 0.05;
/** Rolls of one map. */
export const FOOT_MAP_RUNS = SPEEDS * FEET;

export interface FootMap {
  /** In the unit of the dial, rising. */
  speeds: number[];
  /** By speed, then by first foot, every 0.05 s from 0: does it stay on the runway and straight? */
  held: boolean[][];
}

/**
 * Rolls at every speed of the page with every first foot, the other settings as they are.
 * @param s settings of the page of the ground, held within what it offers
 * @returns hands back, after each speed, how many rolls are done; ends with the map
 * @throws BadNumber as {@link groundRun}
 */
export function* footMap(sheet: LabSheetData, s: Settings, day: LabDay): Generator<number, FootMap> {
  const of = groundModel.parameters(sheet).find((p) => p.key === 'speed');
  const [min, max] = of?.kind === 'range' ? [of.min, of.max] : [10, 60];
  const feet = s.feet === 'none' ? 'strokes' : (s.feet ?? 'strokes');
  const map: FootMap = { speeds: [], held: [] };
  for (let k = 0; k < SPEEDS; k++) {
    const speed = min + ((max - min) * k) / (SPEEDS - 1);
    map.speeds.push(speed);
    map.held.push(
      Array.from({ length: FEET }, (_, n) => {
        const run = groundRun(rollInput(sheet, { ...s, feet, speed, foot: n * FOOT_STEP_S }, day));
        return run.loop === null && run.offAtS === null;
      }),
    );
    yield (k + 1) * FEET;
  }
  return map;
}

/** The latest first foot up to which every earlier one holds, seconds; null = not even the earliest. */
const latestOf = (held: readonly boolean[]): number | null => {
  const lost = held.indexOf(false);
  return lost === 0 ? null : ((lost < 0 ? held.length : lost) - 1) * FOOT_STEP_S;
};

/** What the map says at a speed. */
export function footMapWords(map: FootMap, s: Settings, unit: string): LabSentence {
  const speed = numberOf(s, 'speed');
  // The next faster column: never later than the truth.
  const at = map.speeds.findIndex((x) => x >= speed - 1e-9);
  const held = map.held[at < 0 ? map.held.length - 1 : at] ?? [];
  const latest = latestOf(held);
  const shown = { value: Math.round(speed), unit };
  if (latest === null) return said('map-never', { speed: shown });
  return held.includes(false)
    ? said('map-latest', { speed: shown, footS: latest })
    : said('map-always', { speed: shown, footS: (FEET - 1) * FOOT_STEP_S });
}

const W = 860;
const H = 360;
/** The map drawn: speed to the right, first foot upward. */
export function footMapFigure(map: FootMap, s: Settings, unit: string): Figure {
  const [x0, x1, y0, y1] = [70, W - 20, H - 50, 30];
  const [first, last] = [map.speeds[0] ?? 0, map.speeds[map.speeds.length - 1] ?? 1];
  const wide = (x1 - x0) / map.speeds.length;
  const X = (speed: number) => x0 + wide / 2 + ((speed - first) / Math.max(1e-9, last - first)) * (x1 - x0 - wide);
  const Y = (footS: number) => y0 + ((y1 - y0) * footS) / (FEET * FOOT_STEP_S);
  const columns = map.held.flatMap((held, k) => {
    const left = x0 + k * wide;
    const out = [];
    for (let n = 0; n < held.length;) {
      let end = n;
      while (end < held.length && held[end] === held[n]) end++;
      if (!held[n])
        out.push(box(left, Y(end * FOOT_STEP_S), wide + 0.4, Y(n * FOOT_STEP_S) - Y(end * FOOT_STEP_S), 'warn'));
      n = end;
    }
    return out;
  });
  const ticks = Array.from({ length: Math.floor(last / 10) + 1 }, (_, i) => i * 10).filter((t) => t >= first);
  return {
    w: W,
    h: H,
    shapes: [
      box(x0, y1, x1 - x0, y0 - y1, 'field'),
      ...columns,
      line(
        [
          [x0, y1],
          [x0, y0],
          [x1, y0],
        ],
        'ink',
        { width: 2 },
      ),
      circle(X(numberOf(s, 'speed')), Y(numberOf(s, 'foot')), 8, 'this'),
    ],
    texts: [
      ...ticks.map((t) => label(X(t), y0 + 22, fixed(t), 'soft', 'middle')),
      ...[0, 1, 2].map((t) => label(x0 - 8, Y(t) + 5, `${t} s`, 'soft', 'end')),
      label(x1, y0 + 42, `speed over the ground, ${unit}`, 'soft', 'end'),
      label(x0, y1 - 10, 'first foot after; filled: lost within 6 s; disc: as set', 'soft'),
    ],
  };
}
