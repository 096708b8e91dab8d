/** The page of the lab that explains a finding, set with what was measured of the landings behind it. */
import type { LabPage } from '@/domain/lab-pages';
import { type Coded, coder, sentence } from '@/domain/coded';
import { fixed, plural } from '../format';
import { medianOf } from '../constants';
import type { Settings } from './model';

export const FROM_FINDING_WORDS = {
  crab: (p: { deg: number; landings: number }) =>
    `${fixed(p.deg)}\u00b0 of crab: the median of ${plural(p.landings, 'measured landing')}.`,
  sink: (p: { fpm: number; landings: number }) =>
    `${fixed(p.fpm)} ft/min at the touch: the median of ${plural(p.landings, 'measured landing')}.`,
  swing: (p: { deg: number; landings: number }) =>
    `A swing of ${fixed(p.deg)}\u00b0: the median of ${plural(p.landings, 'measured landing')}.`,
  foot: (p: { deg: number; footS: number }) =>
    `In this model a swing of ${fixed(p.deg)}\u00b0 is a foot that comes after ${fixed(p.footS, 1)}\u00a0s.`,
  'not-measured': () => 'Not measured on these landings: set as the page starts.',
} as const;
export type FromFinding = Coded<typeof FROM_FINDING_WORDS>;
const said = coder(FROM_FINDING_WORDS);
export const fromFindingWords = (s: FromFinding): string => sentence(FROM_FINDING_WORDS, s);

/** What was measured of one landing behind a finding, where it was. */
export interface MeasuredOfLanding {
  crabDeg: number | null;
  sinkFpm: number | null;
  swingDeg: number | null;
}
type Uses = 'crab' | 'sink' | 'swing' | null;
interface Row {
  page: LabPage;
  set: Settings;
  uses: Uses;
}
const touch = (set: Settings, uses: Uses = 'sink'): Row => ({ page: 'touch', set, uses });
/** With the tailwheel castering: steered, even a late foot makes no swing in the model. */
const ground = (set: Settings, uses: Uses = 'swing'): Row => ({
  page: 'ground',
  set: { steering: 'free', ...set },
  uses,
});
/** By finding; those of which no page says anything are not here. */
const ROWS: Readonly<Record<string, Row>> = {
  'crab-left': touch({}, 'crab'),
  'crab-right': touch({}, 'crab'),
  'drift-at-touch': { page: 'crosswind', set: { technique: 'crab' }, uses: null },
  'drops-in': touch({ hands: 'hold' }),
  'not-held-off': touch({ hands: 'hold', ratio: 1.2 }),
  'pushes-in-bounce': touch({ hands: 'push' }),
  bounces: touch({ hands: 'hold' }),
  'timid-forward': touch({ attitude: 'wheel', ratio: 1.2, hands: 'hold' }),
  'early-shove': touch({ attitude: 'wheel', ratio: 1.2, hands: 'ease-early' }),
  'nose-first': touch({ attitude: 'flat', ratio: 1.25 }),
  'high-round-out': touch({ hands: 'hold' }),
  'tail-up-too-long': ground({ tail: 'up' }),
  'stick-not-back': ground({ steering: 'free' }),
  'late-foot-on-power': { page: 'take-off', set: { foot: 'follows' }, uses: null },
  weave: ground({ feet: 'continuous', delay: 0.5 }),
  'brake-steering': ground({ toe: 'yes' }),
  'same-side-swing': ground({}),
  'aileron-released': { page: 'crosswind', set: {}, uses: null },
  'no-wind-controls': { page: 'crosswind', set: {}, uses: null },
  'skidded-final-turn': { page: 'slip', set: {}, uses: null },
  'sags-on-shallow-slope': { page: 'slow-approach', set: {}, uses: null },
};

/**
 * Where a finding is explained, and what is set there.
 * @param findingId of the pattern
 * @param landings behind it, in any order
 * @returns page and settings; null where no page of the lab explains it
 * @example
 * labOfFinding('crab-left', [{ crabDeg: -4.2, sinkFpm: null, swingDeg: null }])
 * // { page: 'touch', settings: { crab: 4 }, from: { code: 'crab', params: { deg: 4, landings: 1 } } }
 */
export function labOfFinding(
  findingId: string,
  landings: readonly MeasuredOfLanding[],
): { page: LabPage; settings: Settings; from: FromFinding | null } | null {
  const row = Object.hasOwn(ROWS, findingId) ? ROWS[findingId] : undefined;
  if (!row) return null;
  const of = (pick: (l: MeasuredOfLanding) => number | null) =>
    landings.flatMap((l) => {
      const x = pick(l);
      return x === null || !Number.isFinite(x) ? [] : [Math.abs(x)];
    });
  const { page, set, uses } = row;
  if (uses === null) return { page, settings: set, from: null };
  const seen = of((l) => (uses === 'crab' ? l.crabDeg : uses === 'sink' ? l.sinkFpm : l.swingDeg));
  const median = medianOf(seen);
  if (median === null) return { page, settings: set, from: said('not-measured') };
  const n = seen.length;
  if (uses === 'crab') {
    const deg = Math.round(median);
    return { page, settings: { ...set, crab: deg }, from: said('crab', { deg, landings: n }) };
  }
  if (uses === 'sink') {
    const fpm = Math.round(median / 10) * 10;
    return { page, settings: { ...set, sink: fpm }, from: said('sink', { fpm, landings: n }) };
  }
  const deg = Math.round(median);
  return { page, settings: { ...set, swing: deg }, from: said('swing', { deg, landings: n }) };
}

/**
 * The same sentence from the address of the page, where a finding led there; numbers only, so that nothing else is shown.
 * @example fromAddress('crab-left', { crab: '4', of: '3' }) // { code: 'crab', params: { deg: 4, landings: 3 } }
 */
export function fromAddress(
  findingId: string,
  query: Readonly<Record<string, string | string[] | undefined>>,
): FromFinding | null {
  const uses = Object.hasOwn(ROWS, findingId) ? (ROWS[findingId]?.uses ?? null) : null;
  if (uses === null) return null;
  const at = Number(query[uses]);
  const landings = Number(query.of);
  if (!(at > 0 && at < 2000) || !(Number.isInteger(landings) && landings > 0 && landings < 10_000))
    return said('not-measured');
  return uses === 'sink' ? said('sink', { fpm: at, landings }) : said(uses, { deg: at, landings });
}
