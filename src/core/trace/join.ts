/**
 * Found arrivals beside tapped landings: which is which, what each says, and what the measure would make of the
 * landing.
 */
import type { FoundEvent, TraceAnalysis } from '@/domain/trace';
import type { AirworkKind, AirworkQuantity } from '@/domain/airwork';
import type { AirworkDetail, CapturedLanding } from '@/domain/capture';
import type { LandingKind } from '@/domain/words';

type Item = TraceAnalysis['airwork'][number];
export interface Tapped {
  id: string;
  kind: LandingKind;
  /** When it ended, or was saved: UTC ms. */
  endedMs: number | null;
}
export interface Pair {
  found: FoundEvent | null;
  foundIndex: number | null;
  tappedId: string | null;
  /** Tapped end less found end, seconds; null without both times. */
  apartS: number | null;
}

const SAME: Record<string, readonly LandingKind[]> = {
  landing: ['full-stop'],
  'stop-and-go': ['full-stop', 'touch-and-go'],
  'touch-and-go': ['touch-and-go', 'full-stop'],
  'go-around': ['go-around'],
  'low-pass': ['low-pass', 'go-around'],
};
const SKIP = 1.6;
/** Apart by more than this counts fully: a memory is seldom older. */
const APART_S = 240;

/**
 * An arrival, not a take-off.
 * @returns true for an arrival
 * @example
 * isArrival({ kind: 'landing', runway: '22', startS: 840, endS: 900, confidence: 0.9, touchdown: { tS: 885,
 * alongM: 130, lateralM: -1.9, iasKt: 44, gsKt: 40, sinkFpm: 150, crabDeg: 1, driftKt: 0.2, bounces: 0,
 * peakG: 1.3 } })
 * // true
 */
export const isArrival = (e: FoundEvent): boolean => e.kind !== 'takeoff';

/**
 * Pairs by order and time: the cheapest alignment of the two lists, in which an unlike kind or a time far apart costs
 * and leaving one unpaired costs too. Order is never crossed. @param startUtcMs of the trace; null = only the order is
 * known
 * @returns pairs in order; one side is null where nothing stands beside it
 */
export function pairLandings(
  events: readonly FoundEvent[],
  tapped: readonly Tapped[],
  startUtcMs: number | null,
): Pair[] {
  const found = events.map((e, i) => ({ e, i })).filter(({ e }) => isArrival(e));
  const n = found.length;
  const m = tapped.length;
  const apart = (i: number, j: number): number | null => {
    const t = tapped[j]?.endedMs ?? null;
    const e = found[i]?.e;
    return t === null || startUtcMs === null || !e ? null : (t - startUtcMs) / 1000 - e.endS;
  };
  const match = (i: number, j: number): number => {
    const kinds = SAME[found[i]?.e.kind ?? ''] ?? [];
    const at = kinds.indexOf(tapped[j]?.kind ?? 'full-stop');
    const s = apart(i, j);
    return (at === 0 ? 0 : at > 0 ? 0.4 : 2.2) + (s === null ? 0 : Math.min(1, Math.abs(s) / APART_S));
  };
  const cost = Array.from({ length: n + 1 }, () => new Float64Array(m + 1));
  const at = (i: number, j: number): number => cost[i]?.[j] ?? Infinity;
  for (let i = 0; i <= n; i++)
    for (let j = 0; j <= m; j++) {
      const row = cost[i];
      if (!row || (i === 0 && j === 0)) continue;
      row[j] = Math.min(
        i > 0 ? at(i - 1, j) + SKIP : Infinity,
        j > 0 ? at(i, j - 1) + SKIP : Infinity,
        i > 0 && j > 0 ? at(i - 1, j - 1) + match(i - 1, j - 1) : Infinity,
      );
    }
  const out: Pair[] = [];
  let i = n;
  let j = m;
  while (i > 0 || j > 0) {
    if (i > 0 && j > 0 && Math.abs(at(i, j) - at(i - 1, j - 1) - match(i - 1, j - 1)) < 1e-9) {
      const f = found[i - 1];
      out.push({
        found: f?.e ?? null,
        foundIndex: f?.i ?? null,
        tappedId: tapped[j - 1]?.id ?? null,
        apartS: apart(i - 1, j - 1),
      });
      i--;
      j--;
    } else if (i > 0 && Math.abs(at(i, j) - at(i - 1, j) - SKIP) < 1e-9) {
      const f = found[i - 1];
      out.push({ found: f?.e ?? null, foundIndex: f?.i ?? null, tappedId: null, apartS: null });
      i--;
    } else {
      out.push({ found: null, foundIndex: null, tappedId: tapped[j - 1]?.id ?? null, apartS: null });
      j--;
    }
  }
  return out.reverse();
}

/** Criteria that a trace can measure, in the order they are debriefed, each in its unit. */
export const MEASURES = ['speed', 'along', 'lateral', 'firmness', 'drift', 'crab', 'swing', 'bounce', 'peakG'] as const;
export type MeasureId = (typeof MEASURES)[number];
export const MEASURE_UNIT: Record<MeasureId, string> = {
  speed: 'kt',
  along: 'm',
  lateral: 'm',
  firmness: 'fpm',
  drift: 'kt',
  crab: '\u00b0',
  swing: '\u00b0',
  bounce: '',
  peakG: 'g',
};
export interface Measure {
  id: MeasureId;
  /** In the standard's terms: speed about its target, place along past the touchdown point, right positive. */
  value: number;
  confidence: number;
  /** The tapped word for the same, or null. */
  tapped: string | null;
  /** Does the eye say something else? */
  conflict: boolean;
}

const band = (x: number, edges: readonly [number, number]): number =>
  Math.abs(x) < edges[0] ? 0 : Math.abs(x) < edges[1] ? 1 : 2;
const sided = (x: number, edges: readonly [number, number], words: readonly [string, string, string]): string => {
  const k = band(x, edges);
  return k === 0 ? words[0] : `${words[k] ?? ''} ${x < 0 ? 'left' : 'right'}`;
};
const SIDED: readonly [string, string, string] = ['none', 'slight', 'marked'];

/**
 * What the eye would have called a measured value: the bands of the tap screen, about where its tolerances lie.
 * @returns the band
 * @example
 * eyeWord('crab', -3, { trackM: 1.7, boxM: { before: 0, past: 122 }, blindNose: false, reducing: false,
 * speedHighKt: 10 })
 * // 'slight left'
 */
export function eyeWord(
  id: MeasureId,
  x: number,
  c: { trackM: number; boxM: { before: number; past: number } },
): string {
  switch (id) {
    case 'lateral':
      return Math.abs(x) < c.trackM / 4
        ? 'line'
        : Math.abs(x) <= c.trackM
          ? x < 0
            ? 'wheel-left'
            : 'wheel-right'
          : x < 0
            ? 'beyond-left'
            : 'beyond-right';
    case 'along':
      return x < -c.boxM.before
        ? 'short'
        : x <= c.boxM.past
          ? 'in-the-box'
          : x <= 2 * c.boxM.past
            ? 'long'
            : 'very-long';
    case 'drift':
      return sided(x, [0.8, 2], SIDED);
    case 'crab':
      return sided(x, [2, 5], SIDED);
    case 'swing':
      return sided(x, [4, 10], ['none', 'small', 'large']);
    case 'bounce':
      return String(x);
    case 'firmness':
      return x < 120 ? 'soft' : x < 240 ? 'normal' : x < 360 ? 'firm' : 'hard';
    // The eye has no word for these.
    case 'speed':
    case 'peakG':
      return '';
  }
}
function tappedWord(id: MeasureId, l: CapturedLanding): string | null {
  const of = (v: { band: string; side: string | null } | null) =>
    v === null ? null : v.band === 'none' ? 'none' : `${v.band} ${v.side ?? ''}`.trim();
  switch (id) {
    case 'lateral':
      return l.lateral;
    case 'along':
      return l.along;
    case 'drift':
      return of(l.drift);
    case 'crab':
      return of(l.crab);
    case 'swing':
      return of(l.swing);
    case 'bounce':
      return l.bounce === null ? null : String(l.bounce.count);
    case 'firmness':
      return l.firmness;
    case 'speed':
      return l.fenceSpeed === null ? null : String(l.fenceSpeed);
    case 'peakG':
      return l.peakG === null ? null : String(l.peakG);
  }
}

export interface MeasureContext {
  /** Declared touchdown point from the threshold: places along are measured from it. */
  touchdownM: number;
  trackM: number;
  boxM: { before: number; past: number };
  /** Target at the threshold and knots in one unit of the dial. */
  fenceTarget: number | null;
  ktPerUnit: number;
}

/**
 * Every measure of an arrival that its file supports, with its confidence and what was tapped beside it.
 * @returns measures in their units, with confidence 0 to 1
 */
export function measuresOf(e: FoundEvent, landing: CapturedLanding, c: MeasureContext): Measure[] {
  const t = e.touchdown;
  if (!t) return [];
  const fence = e.gates?.[e.gates.length - 1];
  const speed = fence?.deviationKt ?? null;
  const values: Record<MeasureId, number | null> = {
    speed,
    along: t.alongM === null ? null : t.alongM - c.touchdownM,
    lateral: t.lateralM,
    firmness: t.sinkFpm,
    drift: t.driftKt,
    crab: t.crabDeg,
    swing: e.rollout?.swingDeg ?? null,
    bounce: t.bounces,
    peakG: t.peakG,
  };
  // A place across and a sink lean on single samples; a speed and a heading do not. Without a felt knock the touch is a
  // bend in the height: its moment, and with it the place along and the sink, may be a second or more off.
  const felt = t.peakG === null ? 0.7 : 1;
  const trust: Record<MeasureId, number> = {
    speed: 1,
    along: 0.95 * felt,
    lateral: 0.8,
    firmness: 0.85 * felt,
    drift: 0.8,
    crab: 0.9,
    swing: 0.95,
    bounce: 0.95,
    peakG: 1,
  };
  return MEASURES.flatMap((id): Measure[] => {
    const value = values[id];
    if (value === null || !Number.isFinite(value)) return [];
    const tapped = tappedWord(id, landing);
    const conflict =
      tapped !== null &&
      (id === 'speed'
        ? c.fenceTarget !== null && Math.abs((Number(tapped) - c.fenceTarget) * c.ktPerUnit - value) > 3
        : id === 'peakG'
          ? Math.abs(Number(tapped) - value) > 0.3
          : eyeWord(id, value, c) !== tapped.replace('late-correction', 'small'));
    return [
      {
        id,
        value: Math.round(value * 10) / 10,
        confidence: Math.round(e.confidence * trust[id] * 100) / 100,
        tapped,
        conflict,
      },
    ];
  });
}

/** Kinds of airwork as tapped, for a kind as found. */
export const TAPPED_AS: Partial<Record<Item['kind'], AirworkKind>> = {
  'steep-turn': 'steep-turn',
  'slow-flight': 'slow-flight',
  stall: 'stall',
  'climb-reversal': 'energy',
  loop: 'energy',
  roll: 'energy',
  'emergency-descent': 'emergency-descent',
  'engine-out': 'asymmetric',
};
export interface TappedItem {
  id: string;
  kind: AirworkKind | null;
  atMs: number;
}
/**
 * Pairs found airwork with tapped items of the same kind, in order of time, each once.
 * @returns pairs; what was tapped is null where nothing stands beside it
 */
export function pairAirwork(
  items: readonly Item[],
  tapped: readonly TappedItem[],
  startUtcMs: number | null,
): { found: Item; foundIndex: number; tappedId: string | null }[] {
  const free = [...tapped];
  return items.flatMap((found, foundIndex) => {
    const kind = TAPPED_AS[found.kind];
    if (!kind) return [];
    const endMs = startUtcMs === null ? null : startUtcMs + found.endS * 1000;
    const fits = free.filter((t) => t.kind === kind);
    const near =
      endMs === null ? fits[0] : [...fits].sort((a, b) => Math.abs(a.atMs - endMs) - Math.abs(b.atMs - endMs))[0];
    if (near) free.splice(free.indexOf(near), 1);
    return [{ found, foundIndex, tappedId: near?.id ?? null }];
  });
}
/**
 * Greatest deviations of a found item in the quantities of the standard; speed in knots.
 * @returns deviations: kt, ft, degrees; a quantity the file has not is absent
 */
export function itemMeasures(item: Item, setBankDeg: number | null): Partial<Record<AirworkQuantity, number>> {
  const far = (d: { min: number | null; max: number | null }): number | undefined =>
    d.min === null || d.max === null ? undefined : Math.abs(d.min) > Math.abs(d.max) ? d.min : d.max;
  const out: Partial<Record<AirworkQuantity, number>> = {};
  const put = (q: AirworkQuantity, v: number | undefined | null) => {
    if (v !== undefined && v !== null) out[q] = v;
  };
  if (item.kind === 'steep-turn' || item.kind === 'slow-flight') {
    put('height', far(item.heightDeviationFt));
  }
  if (item.kind === 'steep-turn') put('speed', far(item.speedDeviationKt));
  if (item.kind === 'steep-turn') {
    put('rollOut', item.rolloutErrorDeg);
    if (setBankDeg !== null && item.maxBankDeg !== null)
      put('bank', Math.round((Math.abs(item.maxBankDeg) - setBankDeg) * 10) / 10);
  }
  return out;
}
/**
 * An item's detail with measured extremes in it; an item tapped as seen gets the form with numbers.
 * @returns the detail; null where nothing of it was measured
 * @example
 * withMeasured({ form: 'numbers', kind: 'steep-turn', set: { bank: 45 }, seen: { height: 'inside',
 * heading: 3 } }, 'steep-turn', { height: 20 }, 1)
 * // { form: 'numbers', kind: 'steep-turn', set: { bank: 45 }, seen: { height: 20, heading: 3 } }
 */
export function withMeasured(
  detail: AirworkDetail | null,
  kind: AirworkKind,
  measured: Partial<Record<AirworkQuantity, number>>,
  ktPerUnit: number,
): AirworkDetail {
  const seen =
    measured.speed === undefined
      ? measured
      : { ...measured, speed: Math.round((measured.speed / ktPerUnit) * 10) / 10 };
  if (detail && 'seen' in detail) return { ...detail, seen: { ...detail.seen, ...seen } };
  return { form: 'numbers', kind, set: {}, seen };
}
