/**
 * Measures of landings as the all-lessons page shows them: what was measured or read, gate by gate, its bias against a
 * size worth a word, its trend.
 */
import { fixed } from '../format';
import type { DebriefLanding } from './facts';
import { type Bias, type EwmaPoint, type Trend, bias, ewma, theilSen } from './spread';

/**
 * A measure: its unit, the criterion of the standard it belongs to, and the smallest mean worth a word. Sizes are the
 * house's: two knots are a needle's width, a metre is what an eye on the line can see, two degrees what a seat can
 * feel, 20 m a second of flying, 60 ft/min half a firmness.
 */
export const SHOWN_MEASURES = [
  { key: 'fence', name: 'speed at the threshold', unit: 'kt', criterion: 'speed', zero: 'the target', practical: 2 },
  { key: 'along', name: 'place along', unit: 'm', criterion: 'along', zero: 'the touchdown point', practical: 20 },
  { key: 'lateral', name: 'place across', unit: 'm', criterion: 'lateral', zero: 'the line', practical: 1 },
  { key: 'crab', name: 'nose at the touch', unit: 'degrees', criterion: 'crab', zero: 'straight', practical: 2 },
  { key: 'sink', name: 'sink at the touch', unit: 'ft/min', criterion: 'firmness', zero: 'level', practical: 60 },
] as const;
export type ShownMeasure = (typeof SHOWN_MEASURES)[number];
export type MeasureKey = ShownMeasure['key'];
export interface Limits {
  low: number;
  high: number;
}

/**
 * One landing's measure with where it came from; null where nobody measured or read it. The eye's bands are never made
 * into metres.
 * @returns the value in the measure's unit, and whether it was measured
 */
export function measureOf(l: DebriefLanding, key: MeasureKey): { value: number; measured: boolean } | null {
  const m = l.measured?.values ?? {};
  const of = (v: number | undefined) => (v === undefined ? null : { value: v, measured: true });
  if (key === 'fence') {
    const g = l.gates[l.gates.length - 1];
    return m.speed !== undefined
      ? of(m.speed)
      : g?.offKt == null
        ? null
        : { value: g.offKt, measured: g.source === 'measured' };
  }
  return of(key === 'along' ? m.along : key === 'lateral' ? m.lateral : key === 'crab' ? m.crab : m.firmness);
}

/**
 * A touch that says something of the pilot's own aim: no pass, no demonstration, no hands or feet of the instructor.
 * @returns true where it does
 */
export const ownHands = (l: DebriefLanding): boolean =>
  l.kind !== 'go-around' &&
  l.kind !== 'low-pass' &&
  l.judged.landingClass !== 'demonstration' &&
  (l.captured.intervention ?? 0) < 2;

export interface GateStrip {
  gate: string;
  values: { label: string; offKt: number; source: 'eye' | 'measured' }[];
  mean: number | null;
  lower: number | null;
  upper: number | null;
}
/**
 * Speeds about their target at each gate of the briefs, in the order of the approach, knots; gates without a reading
 * are left out.
 * @returns knots above the target, landing by landing
 */
export function gateStrips(landings: readonly DebriefLanding[]): GateStrip[] {
  return [...new Set(landings.flatMap((l) => l.briefed.map((g) => g.name)))].flatMap((gate): GateStrip[] => {
    const values = landings.flatMap((l) => {
      const g = l.gates.find((x) => x.gate === gate);
      return g?.offKt == null ? [] : [{ label: `${l.lesson}.${l.number}`, offKt: g.offKt, source: g.source }];
    });
    const b = bias(
      values.map((v) => v.offKt),
      0,
    );
    return values.length === 0 ? [] : [{ gate, values, mean: b.mean, lower: b.lower, upper: b.upper }];
  });
}

export interface MeasureTrend {
  measure: ShownMeasure;
  points: { label: string; value: number; measured: boolean }[];
  trend: Trend;
  ewma: EwmaPoint[];
  standard: Limits | null;
  /** What the control limits lie about. */
  centre: number;
}
/**
 * A measure landing by landing: Theil-Sen, and the smoothed mean between control limits about its target (a sink has
 * none: about its mean). Sigma is the spread of the points.
 * @returns points, trend and smoothed mean in the unit of the measure
 */
export function measureTrend(
  landings: readonly DebriefLanding[],
  measure: ShownMeasure,
  standard: Limits | null,
): MeasureTrend {
  const points = landings.flatMap((l) => {
    const v = measureOf(l, measure.key);
    return v ? [{ label: `${l.lesson}.${l.number}`, ...v }] : [];
  });
  const values = points.map((p) => p.value);
  const b = bias(values, 0);
  const centre =
    measure.key === 'sink'
      ? (b.mean ?? 0)
      : measure.key === 'along' && standard
        ? (standard.low + standard.high) / 2
        : 0;
  return {
    measure,
    points,
    trend: theilSen(
      values.map((_, i) => i),
      values,
    ),
    ewma: ewma(values, centre, b.sd ?? 1).points,
    standard: measure.key === 'sink' ? null : standard,
    centre,
  };
}

/**
 * With its sign, never "-0": `+1.2`, `\u20130.4`.
 * @returns the number with its sign
 * @example signed(2) // '+2.0'
 */
export const signed = (x: number, digits = 1): string =>
  `${x >= 0 || Number(x.toFixed(digits)) === 0 ? '+' : '\u2013'}${fixed(Math.abs(x), digits)}`;

/**
 * A trend in a sentence; only a slope whose interval excludes 0 is said to go anywhere.
 * @returns a sentence
 */
export function trendWords({ measure, points, trend: { slope, lower, upper } }: MeasureTrend): string {
  const name = `${measure.name.charAt(0).toUpperCase()}${measure.name.slice(1)}`;
  if (slope === null || lower === null || upper === null) return `${name}: no trend to speak of yet.`;
  const range = `between ${signed(lower, 2)} and ${signed(upper, 2)}`;
  const goes = lower > 0 ? 'It increases.' : upper < 0 ? 'It decreases.' : 'No clear trend.';
  return `${name}: ${signed(slope, 2)} ${measure.unit} a landing over ${points.length}, ${range}. ${goes}`;
}

/**
 * What a bias comes to, in words. A place along is set against the box, a sink is a level and has no side.
 * @returns a sentence
 */
export function biasWords(b: Bias, measure: ShownMeasure, standard: Limits | null): string {
  if (b.lower === null || b.upper === null || b.mean === null) return 'too few';
  if (measure.key === 'sink') return 'a level, not a bias';
  if (measure.key === 'along' && standard)
    return b.lower > standard.high
      ? 'beyond the box'
      : b.upper < standard.low
        ? 'short of the box'
        : b.lower >= standard.low && b.upper <= standard.high
          ? 'in the box'
          : 'in part beyond the box';
  if (!b.flag)
    return b.lower > 0 || b.upper < 0
      ? `to one side, smaller than the ${measure.practical} ${measure.unit} that matter`
      : 'no clear tendency';
  return measure.key === 'fence'
    ? b.mean > 0
      ? 'fast'
      : 'slow'
    : `${b.mean > 0 ? 'right' : 'left'}, and large enough to matter`;
}
