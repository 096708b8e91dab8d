/** Runway needed, from the handbook's own table. Metres. No table: no distance, never a guess. */
import { SLACK } from '../constants';
import { needNumbers } from '../guard';

export * from './ends';

type Nested = number | null | readonly Nested[];
export interface DistanceTable {
  /** Ascending; null = the table does not vary with it. */
  axes: { massKg: readonly number[] | null; pressureAltFt: readonly number[] | null; oatC: readonly number[] | null };
  /**
   * Nested in the order mass, pressure altitude, temperature, leaving out the axes that are null; a cell may be null.
   */
  valuesM: Nested;
}
export type Refusal = 'no-table' | 'outside-mass' | 'outside-pressure-altitude' | 'outside-temperature' | 'no-data';
export interface TableDistance {
  distanceM: number | null;
  refused: Refusal | null;
  words: string | null;
}

export const NO_DATA_WORDS = 'no data on the sheet: runway not computed';

/**
 * A distance from the table, linear between its points on each axis, refused outside (low as well as high) and where a
 * cell it needs is missing. On a table point only that point is used.
 * Source: the handbook's table, linear between its points.
 * @returns metres; null with the reason where the table does not say
 * @throws BadNumber when a number handed in is none
 * @example
 * tableDistance(null, { massKg: 1107, pressureAltFt: 1345, oatC: 15 })
 * // { distanceM: null, refused: 'no-table', words: 'no data on the sheet: runway not computed' }
 */
export function tableDistance(
  table: DistanceTable | null,
  at: { massKg: number | null; pressureAltFt: number | null; oatC: number | null },
): TableDistance {
  needNumbers('tableDistance', { table, at });
  const refuse = (refused: Refusal): TableDistance => ({
    distanceM: null,
    refused,
    words: refused === 'no-table' || refused === 'no-data' ? NO_DATA_WORDS : null,
  });
  if (table === null) return refuse('no-table');
  const axes = [
    { points: table.axes.massKg, value: at.massKg, outside: 'outside-mass' },
    { points: table.axes.pressureAltFt, value: at.pressureAltFt, outside: 'outside-pressure-altitude' },
    { points: table.axes.oatC, value: at.oatC, outside: 'outside-temperature' },
  ] as const;
  const weights: { index: number; weight: number }[][] = [];
  for (const axis of axes) {
    if (axis.points === null) continue;
    const placed = axis.value === null ? null : place(axis.points, axis.value);
    if (placed === null) return refuse(axis.outside);
    weights.push(placed);
  }
  let sum = 0;
  let missing = false;
  const walk = (node: Nested, depth: number, weight: number): void => {
    const corners = weights[depth];
    if (corners === undefined) {
      if (typeof node === 'number') sum += weight * node;
      else missing = true;
      return;
    }
    for (const c of corners)
      walk(Array.isArray(node) ? ((node as readonly Nested[])[c.index] ?? null) : null, depth + 1, weight * c.weight);
  };
  walk(table.valuesM, 0, 1);
  return missing ? refuse('no-data') : { distanceM: sum, refused: null, words: null };
}

function place(points: readonly number[], x: number): { index: number; weight: number }[] | null {
  const on = points.findIndex((p) => Math.abs(p - x) <= SLACK);
  if (on >= 0) return [{ index: on, weight: 1 }];
  const above = points.findIndex((p) => p > x);
  if (above <= 0) return null;
  const low = points[above - 1] ?? 0;
  const high = points[above] ?? 0;
  const share = (x - low) / (high - low);
  return [
    { index: above - 1, weight: 1 - share },
    { index: above, weight: share },
  ];
}

export interface RunwayFactor {
  name: string;
  factor: number;
}
export interface RunwayNeed {
  totalFactor: number | null;
  groundRollM: number | null;
  over50M: number | null;
  /** Each factor with the running distance over 50 ft; the safety factor last. */
  steps: { name: string; factor: number; over50M: number | null }[];
  marginM: number | null;
  length: 'enough' | 'not-enough' | null;
  width: 'enough' | 'not-enough' | null;
  verdict: 'enough' | 'not-enough' | null;
  words: string | null;
}

/**
 * Distance needed today against the declared one. All factors multiply, both distances; equal is enough.
 * Source: the handbook's table, linear between its points.
 * @param safetyFactor the house's or authority's; null = none
 * @returns words and no verdict when the table gave nothing or a factor is not above 0
 * @throws BadNumber when a number handed in is none
 */
export function runwayNeeded(input: {
  groundRollM: number | null;
  over50M: number | null;
  factors: readonly RunwayFactor[];
  safetyFactor: number | null;
  declaredM: number | null;
  widthM: number | null;
  requiredWidthM: number | null;
}): RunwayNeed {
  needNumbers('runwayNeeded', input);
  const all = [
    ...input.factors,
    ...(input.safetyFactor === null ? [] : [{ name: 'safety', factor: input.safetyFactor }]),
  ];
  const nothing: RunwayNeed = {
    totalFactor: null,
    groundRollM: null,
    over50M: null,
    steps: [],
    marginM: null,
    length: null,
    width: null,
    verdict: null,
    words: null,
  };
  if (all.some((f) => f.factor <= 0)) return { ...nothing, words: 'factor not valid: runway not computed' };
  let running = 1;
  const steps = all.map((f) => {
    running *= f.factor;
    return { ...f, over50M: input.over50M === null ? null : input.over50M * running };
  });
  const groundRollM = input.groundRollM === null ? null : input.groundRollM * running;
  if (input.over50M === null) return { ...nothing, totalFactor: running, groundRollM, steps, words: NO_DATA_WORDS };
  const over50M = input.over50M * running;
  const length = input.declaredM === null ? null : over50M <= input.declaredM + SLACK ? 'enough' : 'not-enough';
  const width =
    input.widthM === null || input.requiredWidthM === null
      ? null
      : input.widthM >= input.requiredWidthM
        ? 'enough'
        : 'not-enough';
  return {
    totalFactor: running,
    groundRollM,
    over50M,
    steps,
    marginM: input.declaredM === null ? null : input.declaredM - over50M,
    length,
    width,
    verdict: length === 'not-enough' || width === 'not-enough' ? 'not-enough' : length,
    words: null,
  };
}

/**
 * A table of loose rows as a grid; a combination that has no row is a hole.
 * Source: the handbook's table, linear between its points.
 * @returns a grid; null without a row
 */
export function tableFromRows<R extends { massKg: number; pressureAltFt: number; oatC: number }>(
  rows: readonly R[],
  pick: (row: R) => number,
): DistanceTable | null {
  if (rows.length === 0) return null;
  const axis = (of: (r: R) => number) => [...new Set(rows.map(of))].sort((a, b) => a - b);
  const masses = axis((r) => r.massKg);
  const heights = axis((r) => r.pressureAltFt);
  const airs = axis((r) => r.oatC);
  const cell = (m: number, p: number, t: number) => {
    const row = rows.find((r) => r.massKg === m && r.pressureAltFt === p && r.oatC === t);
    return row ? pick(row) : null;
  };
  return {
    axes: { massKg: masses, pressureAltFt: heights, oatC: airs },
    valuesM: masses.map((m) => heights.map((p) => airs.map((t) => cell(m, p, t)))),
  };
}
