import type { CountRule, RecencyEvent } from '@/domain/recency';
import { needNumbers } from '../guard';
import { type RecencyStatus, WARN_DAYS, addDays, daysBetween } from './dates';

export interface RuleResult {
  ruleId: string;
  counted: number;
  status: RecencyStatus;
  /** Last day on which the rule holds; may lie in the past; null = too few in the whole log. */
  validThrough: string | null;
  /** The event whose ageing out of the window ends it. */
  limitingEventId: string | null;
  needed: number;
  /** What flying on that day would restore it, in words; null = nothing needed. */
  restore: string | null;
  /** Where it is to be flown; null = anywhere. */
  surface: 'land' | 'water' | null;
}
export interface LeastFlying {
  circuits: number;
  bySurface: Record<string, number>;
  atNight: number;
  fullStop: number;
  tailwheel: number;
}
export interface RecencyResult {
  rules: RuleResult[];
  overall: RecencyStatus;
  firstToLapseRuleId: string | null;
  firstToLapseEventId: string | null;
  leastFlying: LeastFlying;
}

const NUMBERS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];
const inWords = (n: number): string => NUMBERS[n] ?? String(n);
const WORST: Record<RecencyStatus, number> = { current: 0, expiring: 1, expired: 2 };

/**
 * Alone on the controls? A logbook row with nobody's help noted was; a landing recorded in a lesson with nothing noted
 * is not known to be.
 */
const soleManipulator = (e: RecencyEvent): boolean =>
  e.demonstration !== true && (e.intervention == null ? e.recorded !== true : e.intervention < 2);

/**
 * Does an event meet every condition of a rule? A flag the event does not carry is not met.
 * Source: 14 CFR 61.57, FCL.060 and CASR 61.395, as the packs cite them.
 * @returns true where it counts
 */
export function counts(rule: CountRule, e: RecencyEvent): boolean {
  return (
    e.kind === rule.kind &&
    (!rule.fullStop || e.fullStop === true) &&
    (!rule.night || e.night === true) &&
    (!rule.tailwheel || e.tailwheel === true) &&
    (!rule.soleManipulator || soleManipulator(e)) &&
    (rule.surface === null || e.surface === rule.surface) &&
    (rule.classes === null || (e.class != null && rule.classes.includes(e.class)))
  );
}

/**
 * Events not after a day, the newest first; of events on the same day the later in the list is the more recent.
 * Source: 14 CFR 61.57, FCL.060 and CASR 61.395, as the packs cite them.
 * @returns events, newest first
 */
export function newestFirst<E extends RecencyEvent>(events: readonly E[], onDate: string): E[] {
  // Most logs come in order of their days: then the last that counts is walked back to the first.
  if (events.every((e, i) => i === 0 || (events[i - 1]?.date ?? '') <= e.date)) {
    const back: E[] = [];
    for (let i = events.length - 1; i >= 0; i--) {
      const e = events[i];
      if (e !== undefined && e.date <= onDate) back.push(e);
    }
    return back;
  }
  return events
    .map((e, index) => ({ e, index }))
    .filter(({ e }) => e.date <= onDate)
    .sort((a, b) => (a.e.date === b.e.date ? b.index - a.index : a.e.date < b.e.date ? 1 : -1))
    .map(({ e }) => e);
}

/**
 * Count rules over a log on one day: what holds and until when, what lapses first, and the least flying that restores
 * it. Both ends of a window count. Rules are taken as of one class.
 * Source: 14 CFR 61.57, FCL.060 and CASR 61.395, as the packs cite them.
 * @param events any order; of events on the same day the later in the list is the more recent
 * @returns rule by rule: held, how many, until when, and what restores it
 */
export function evaluateRecency({
  rules,
  events,
  onDate,
  warnDays = WARN_DAYS,
}: {
  rules: readonly CountRule[];
  events: readonly RecencyEvent[];
  onDate: string;
  warnDays?: number;
}): RecencyResult {
  return evaluateOrdered(rules, newestFirst(events, onDate), onDate, warnDays);
}

/**
 * The same for events already in order, the newest first, none after the day. `only` names those looked at, where not
 * all are.
 * Source: 14 CFR 61.57, FCL.060 and CASR 61.395, as the packs cite them.
 * @returns as evaluateRecency
 * @throws BadNumber when a number handed in is none
 */
export function evaluateOrdered<E extends RecencyEvent>(
  rules: readonly CountRule[],
  ordered: readonly E[],
  onDate: string,
  warnDays = WARN_DAYS,
  only: ((e: E) => boolean) | null = null,
): RecencyResult {
  needNumbers('evaluateRecency', { counts: rules.map((r) => [r.count, r.windowDays]), warnDays });
  const results = rules.map((rule) => evaluateRule(rule, ordered, onDate, warnDays, only));
  return {
    rules: results,
    overall: worstOf(results),
    ...firstToLapse(results),
    leastFlying: leastFlying(rules, results),
  };
}
/**
 * The worst state of several.
 * Source: 14 CFR 61.57, FCL.060 and CASR 61.395, as the packs cite them.
 * @returns the state
 * @example
 * worstOf([{ ruleId: 'us-tailwheel', counted: 3, status: 'current', validThrough: '2027-02-08',
 * limitingEventId: '1s', needed: 0, restore: null, surface: 'land' }])
 * // 'current'
 */
export const worstOf = (results: readonly { status: RecencyStatus }[]): RecencyStatus =>
  results.reduce<RecencyStatus>((worst, r) => (WORST[r.status] > WORST[worst] ? r.status : worst), 'current');
/**
 * Of the rules that hold, the one that ends first, and the event whose ageing ends it.
 * Source: 14 CFR 61.57, FCL.060 and CASR 61.395, as the packs cite them.
 * @returns ids, or nulls when nothing holds
 * @example
 * firstToLapse([{ ruleId: 'us-tailwheel', counted: 3, status: 'current', validThrough: '2027-02-08',
 * limitingEventId: '1s', needed: 0, restore: null, surface: 'land' }])
 * // { firstToLapseRuleId: 'us-tailwheel', firstToLapseEventId: '1s' }
 */
export function firstToLapse(results: readonly RuleResult[]): {
  firstToLapseRuleId: string | null;
  firstToLapseEventId: string | null;
} {
  let first: RuleResult | null = null;
  for (const r of results)
    if (
      r.status !== 'expired' &&
      r.validThrough !== null &&
      (first === null || r.validThrough < (first.validThrough ?? ''))
    )
      first = r;
  return { firstToLapseRuleId: first?.ruleId ?? null, firstToLapseEventId: first?.limitingEventId ?? null };
}

/** Walks back until the window is past and enough were found: a long log is not read to its end. */
function evaluateRule<E extends RecencyEvent>(
  rule: CountRule,
  ordered: readonly E[],
  onDate: string,
  warnDays: number,
  only: ((e: E) => boolean) | null,
): RuleResult {
  const windowFrom = addDays(onDate, -rule.windowDays);
  let counted = 0;
  let all = 0;
  let limiting: RecencyEvent | null = null;
  for (const e of ordered) {
    if (limiting !== null && e.date < windowFrom) break;
    if ((only !== null && !only(e)) || !counts(rule, e)) continue;
    const times = e.times ?? 1;
    if (e.date >= windowFrom) counted += times;
    all += times;
    if (limiting === null && all >= rule.count) limiting = e;
  }
  const through = limiting ? addDays(limiting.date, rule.windowDays) : null;
  const status: RecencyStatus =
    through === null || through < onDate ? 'expired' : daysBetween(onDate, through) < warnDays ? 'expiring' : 'current';
  const needed = Math.max(0, rule.count - counted);
  return {
    ruleId: rule.id,
    counted,
    status,
    validThrough: through,
    limitingEventId: status === 'expired' ? null : (limiting?.id ?? null),
    needed,
    restore: needed === 0 ? null : restoreWords(rule, needed),
    surface: rule.surface ?? null,
  };
}

/**
 * So many landings or take-offs of a rule, with every condition of it, in words.
 * @param n how many, 1 or more
 * @returns such as `two night full-stop landings`
 * @example restoreWords({ id: 'n', kind: 'landing', count: 3, windowDays: 90, night: true, fullStop: true }, 2)
 * // 'two night full-stop landings'
 */
export function restoreWords(rule: CountRule, n: number): string {
  const what = rule.kind === 'landing' ? 'landing' : 'take-off';
  return `${inWords(n)} ${rule.night ? 'night ' : ''}${rule.fullStop ? 'full-stop ' : ''}${what}${n === 1 ? '' : 's'}${rule.surface ? ` on ${rule.surface}` : ''}${rule.tailwheel ? ' in a tailwheel aeroplane' : ''}${rule.classes ? ` in class ${either(rule.classes)}` : ''}`;
}
const either = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} or ${words[words.length - 1] ?? ''}`;

/** A circuit gives one take-off and one full-stop landing of one surface and serves every rule it fits. */
function leastFlying(rules: readonly CountRule[], results: readonly RuleResult[]): LeastFlying {
  const open = rules.flatMap((rule, i) =>
    (results[i]?.needed ?? 0) > 0 ? [{ rule, needed: results[i]?.needed ?? 0 }] : [],
  );
  const surfaceOf = (rule: CountRule): string | null => rule.surface ?? (rule.tailwheel ? 'land' : null);
  const of = (some: typeof open): { total: number; bySurface: Record<string, number> } => {
    const bySurface: Record<string, number> = {};
    let any = 0;
    for (const { rule, needed } of some) {
      const surface = surfaceOf(rule);
      if (surface === null) any = Math.max(any, needed);
      else bySurface[surface] = Math.max(bySurface[surface] ?? 0, needed);
    }
    return {
      total: Math.max(
        any,
        Object.values(bySurface).reduce((a, b) => a + b, 0),
      ),
      bySurface,
    };
  };
  const all = of(open);
  return {
    circuits: all.total,
    bySurface: all.bySurface,
    atNight: of(open.filter((o) => o.rule.night)).total,
    fullStop: of(open.filter((o) => o.rule.fullStop)).total,
    tailwheel: of(open.filter((o) => o.rule.tailwheel)).total,
  };
}
