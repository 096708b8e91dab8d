/**
 * Gear and surface of an amphibian: do the words, the lamps and the eyes agree on wheels up for water or down for land?
 * Any disagreement or silence is *stop*. The answer is never a permission. Seconds.
 */

export type Surface = 'water' | 'land';
export type WheelState = 'up' | 'down' | 'transit';
export const GEAR_EVENTS = ['lever-moved', 'surface-changed', 'go-around', 'touch-and-go'] as const;
export type GearEvent = (typeof GEAR_EVENTS)[number];
export const STOP_REASONS = [
  'surface-not-stated',
  'no-wheels',
  'lamp-missing',
  'lamp-failed',
  'lamp-unmapped',
  'lamp-in-transit',
  'lamp-wrong',
  'lamps-disagree',
  'wheel-not-seen',
  'wheel-seen-wrong',
  'word-missing',
  'word-wrong',
  'expired',
  ...GEAR_EVENTS,
  'repeat-on-final',
] as const;
export type StopReason = (typeof STOP_REASONS)[number];
/** Seconds for which an agreement stands. */
export const AGREEMENT_S = 180;
/** A lamp that should be lit and cannot be. */
export const FAILED_LAMP = 'failed';

/** What each lamp state means, wheel by wheel, from the sheet: an unlit lamp may be a wheel that is up. */
export type LampMeaning = Readonly<Record<string, Readonly<Record<string, WheelState>>>>;
/**
 * What each lamp of a sheet means, by wheel. @example lampMeaning([{ wheel: 'nose', state: 'lit', means: 'down' }])
 * Source: every source must agree; silence is no agreement.
 * @returns by wheel and lamp: what the wheel does
 */
export const lampMeaning = (lamps: readonly { wheel: string; state: string; means: WheelState }[]): LampMeaning =>
  lamps.reduce<Record<string, Record<string, WheelState>>>(
    (by, l) => ({ ...by, [l.wheel]: { ...by[l.wheel], [l.state]: l.means } }),
    {},
  );
export interface GearCheck {
  /** Where it is going to land; anything else counts as not stated. */
  surface: string | null;
  lampMeaning: LampMeaning;
  lamps: Readonly<Record<string, string | null>>;
  /** Each wheel as seen by mirror or eye. */
  seen: Readonly<Record<string, string | null>>;
  /** The word from the other seat: `water-up` or `land-down`. */
  spoken: string | null;
  /** Since the oldest of the checks; null = not known. */
  ageS: number | null;
  eventsSince: readonly string[];
  onFinal: boolean;
  madeOnFinal: boolean;
}
export interface GearAnswer {
  decision: 'agree' | 'stop';
  reasons: StopReason[];
  next: 'abnormal-check' | null;
  words: string | null;
}

function own<T>(table: Readonly<Record<string, T>>, key: string): T | undefined {
  return Object.hasOwn(table, key) ? table[key] : undefined;
}
const isUpOrDown = (v: unknown): v is 'up' | 'down' => v === 'up' || v === 'down';

/**
 * Agree or stop. Every reason that applies is named, in the order of the checks.
 * Source: every source must agree; silence is no agreement.
 * @returns `agree` only with no reason at all; `next` the abnormal check when a lamp has failed
 */
export function gearSurface(check: GearCheck): GearAnswer {
  const surface: Surface | null = check.surface === 'water' || check.surface === 'land' ? check.surface : null;
  const need = surface === null ? null : surface === 'water' ? 'up' : 'down';
  const wheels = Object.keys(check.lampMeaning);
  const lamp = (wheel: string) => own(check.lamps, wheel) ?? null;
  const meaning = (wheel: string): WheelState | null => {
    const state = lamp(wheel);
    const table = own(check.lampMeaning, wheel);
    const found = state === null || state === FAILED_LAMP || !table ? undefined : own(table, state);
    return found === 'up' || found === 'down' || found === 'transit' ? found : null;
  };
  const meanings = wheels.map(meaning).filter((m) => m !== null);
  const strangeLamp = Object.keys(check.lamps).some((w) => !wheels.includes(w) && own(check.lamps, w) != null);
  const spoken = check.spoken === null || check.spoken.trim() === '' ? null : check.spoken;
  const failed = wheels.some((w) => lamp(w) === FAILED_LAMP);
  const holds: Record<StopReason, boolean> = {
    'surface-not-stated': surface === null,
    'no-wheels': wheels.length === 0,
    'lamp-missing': wheels.some((w) => lamp(w) === null),
    'lamp-failed': failed,
    'lamp-unmapped':
      strangeLamp || wheels.some((w) => lamp(w) !== null && lamp(w) !== FAILED_LAMP && meaning(w) === null),
    'lamp-in-transit': meanings.includes('transit'),
    'lamp-wrong': need !== null && meanings.some((m) => m !== 'transit' && m !== need),
    'lamps-disagree': new Set(meanings).size > 1,
    'wheel-not-seen': wheels.some((w) => !isUpOrDown(own(check.seen, w))),
    'wheel-seen-wrong':
      need !== null &&
      Object.keys(check.seen).some((w) => isUpOrDown(own(check.seen, w)) && own(check.seen, w) !== need),
    'word-missing': spoken === null,
    'word-wrong': spoken !== null && (surface === null || spoken !== `${surface}-${need ?? ''}`),
    expired: check.ageS === null || !(check.ageS <= AGREEMENT_S),
    'lever-moved': check.eventsSince.includes('lever-moved'),
    'surface-changed': check.eventsSince.includes('surface-changed'),
    'go-around': check.eventsSince.includes('go-around'),
    'touch-and-go': check.eventsSince.includes('touch-and-go'),
    'repeat-on-final': check.onFinal && !check.madeOnFinal,
  };
  const reasons = STOP_REASONS.filter((r) => holds[r]);
  const agree = reasons.length === 0 && surface !== null;
  return {
    decision: agree ? 'agree' : 'stop',
    reasons,
    next: failed ? 'abnormal-check' : null,
    words: agree ? `checks agree: wheels ${surface === 'water' ? 'UP for WATER' : 'DOWN for LAND'}. Look again.` : null,
  };
}

export interface TableRow {
  surface: string | null;
  spoken: string | null;
  lamps: Record<string, string | null>;
  seen: Record<string, string | null>;
}
export interface GearTable {
  total: number;
  agree: TableRow[];
  stop: number;
  reasonCounts: Partial<Record<StopReason, number>>;
}

/**
 * The whole truth table over given domains; fresh, no events, not on final. Loops: surface, word, lamps (first wheel
 * slowest), eyes.
 * Source: every source must agree; silence is no agreement.
 * @returns how many combinations agree and stop, and how often for each reason
 */
export function gearSurfaceTable(input: {
  surfaces: readonly (string | null)[];
  lampMeaning: LampMeaning;
  lampStates: readonly (string | null)[];
  seenStates: readonly (string | null)[];
  spokens: readonly (string | null)[];
}): GearTable {
  const wheels = Object.keys(input.lampMeaning);
  const every = (states: readonly (string | null)[]): Record<string, string | null>[] =>
    wheels.reduce<Record<string, string | null>[]>(
      (rows, w) => rows.flatMap((r) => states.map((s) => ({ ...r, [w]: s }))),
      [{}],
    );
  const table: GearTable = { total: 0, agree: [], stop: 0, reasonCounts: {} };
  const lampRows = every(input.lampStates);
  const seenRows = every(input.seenStates);
  for (const surface of input.surfaces)
    for (const spoken of input.spokens)
      for (const lamps of lampRows)
        for (const seen of seenRows) {
          const answer = gearSurface({
            surface,
            lampMeaning: input.lampMeaning,
            lamps,
            seen,
            spoken,
            ageS: 0,
            eventsSince: [],
            onFinal: false,
            madeOnFinal: false,
          });
          table.total++;
          if (answer.decision === 'agree') table.agree.push({ surface, spoken, lamps, seen });
          else table.stop++;
          for (const r of answer.reasons) table.reasonCounts[r] = (table.reasonCounts[r] ?? 0) + 1;
        }
  return table;
}
