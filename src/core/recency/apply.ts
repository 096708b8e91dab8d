import type { RecencyEvent, RecencyRule } from '@/domain/recency';
import { type RecencyResult, type RuleResult, evaluateOrdered, firstToLapse, newestFirst, worstOf } from './evaluate';
import { type Period, type RecencyStatus, WARN_DAYS, validity } from './dates';

/** The aeroplane a rule is asked of. */
export interface RecencyFor {
  typeCode: string;
  class: string;
  tailwheel: boolean;
  water: boolean;
  night: boolean;
}
export interface TypedEvent extends RecencyEvent {
  typeCode: string;
}

/**
 * Rules that speak of this aeroplane; the others say nothing of it.
 * Source: 14 CFR 61.57, FCL.060 and CASR 61.395, as the packs cite them.
 * @returns rules, in the order of the pack
 */
export const rulesFor = (rules: readonly RecencyRule[], of: RecencyFor): RecencyRule[] =>
  rules.filter(
    (r) =>
      r.when === 'always' ||
      (r.when === 'tailwheel' && of.tailwheel) ||
      (r.when === 'night' && of.night) ||
      (r.when === 'water' && of.water),
  );

/** What stands beside the flying: dated checks by the day they were done, and what is held. */
export interface Beside {
  doneOn: Readonly<Record<string, string>>;
  holds: readonly string[];
}
const NOTHING: Beside = { doneOn: {}, holds: [] };

/**
 * A pack's or the house's count rules for one aeroplane on one day. A rule within the class looks at flying of that
 * class, a rule within the type at flying of that type, one within the category at every aeroplane.
 * @param beside checks done and ratings held that a rule takes in place of flying
 * @returns as evaluateRecency, with the rules that were asked
 */
export function recencyIn(
  rules: readonly RecencyRule[],
  events: readonly TypedEvent[],
  of: RecencyFor,
  onDate: string,
  beside: Beside = NOTHING,
): RecencyResult & { asked: RecencyRule[] } {
  return recencyOrdered(rulesFor(rules, of), newestFirst(events, onDate), of, onDate, beside);
}

/** A rule served by a check in its window holds from that check, where that is longer than by the flying. */
function served(rule: RecencyRule, r: RuleResult, onDate: string, beside: Beside): RuleResult {
  const done = (rule.servedBy ?? [])
    .flatMap((k) => beside.doneOn[k] ?? [])
    .filter((d) => d <= onDate)
    .sort()
    .at(-1);
  if (done === undefined) return r;
  const { validThrough, status } = validity({
    days: rule.windowDays,
    months: null,
    monthEnd: false,
    fromDate: done,
    onDate,
  });
  if (status === 'expired' || (r.validThrough !== null && r.validThrough >= validThrough)) return r;
  return { ...r, status, validThrough, limitingEventId: null, needed: 0, restore: null };
}

/**
 * The same for rules already chosen and events in order, the newest first, none after the day.
 * @returns as evaluateRecency, with the rules that were asked
 */
export function recencyOrdered(
  asked: RecencyRule[],
  ordered: readonly TypedEvent[],
  of: RecencyFor,
  onDate: string,
  beside: Beside = NOTHING,
): RecencyResult & { asked: RecencyRule[] } {
  const only = {
    type: (e: TypedEvent) => e.typeCode === of.typeCode,
    class: (e: TypedEvent) => e.class === of.class,
    category: null,
  };
  const held = asked.filter((rule) => !(rule.unlessHeld ?? []).some((k) => beside.holds.includes(k)));
  const each = held.map((rule) => {
    const flown = evaluateOrdered([rule], ordered, onDate, WARN_DAYS, only[rule.within]);
    const by = flown.rules.map((r) => served(rule, r, onDate, beside));
    return by.every((r) => r.needed === 0) ? { ...flown, rules: by, leastFlying: NO_FLYING } : { ...flown, rules: by };
  });
  // The least flying serves every rule at once, so it is reckoned over all of them; each rule's own answer comes from
  // its own flying.
  const rulesOf = each.flatMap((e) => e.rules);
  const most = (pick: (e: RecencyResult['leastFlying']) => number) =>
    Math.max(0, ...each.map((e) => pick(e.leastFlying)));
  const surfaces = [...new Set(each.flatMap((e) => Object.keys(e.leastFlying.bySurface)))];
  const bySurface = Object.fromEntries(surfaces.map((s) => [s, most((l) => l.bySurface[s] ?? 0)]));
  return {
    asked: held,
    rules: rulesOf,
    overall: worstOf(rulesOf),
    ...firstToLapse(rulesOf),
    leastFlying: {
      circuits: Math.max(
        most((l) => l.circuits),
        Object.values(bySurface).reduce((a, b) => a + b, 0),
      ),
      bySurface,
      atNight: most((l) => l.atNight),
      fullStop: most((l) => l.fullStop),
      tailwheel: most((l) => l.tailwheel),
    },
  };
}

const NO_FLYING: RecencyResult['leastFlying'] = { circuits: 0, bySurface: {}, atNight: 0, fullStop: 0, tailwheel: 0 };

export interface IntervalState {
  status: RecencyStatus | 'never';
  from: string | null;
  because: 'flight' | 'check' | null;
  validThrough: string | null;
  daysLeft: number | null;
}
/**
 * The house's interval without flying the type. A flight in it and a signed interval check each start the clock again,
 * whichever is later.
 * @param flownOn days on which the type was flown; @param checkedOn days on which a check in it was signed
 * @returns the state, what started the clock, the last day and the days left
 * @example
 * intervalState({ flownOn: ['2026-10-01'], checkedOn: ['2026-11-10'], onDate: '2026-11-24', days: 60 })
 * // { status: 'current', from: '2026-11-10', because: 'check', validThrough: '2027-01-09', daysLeft: 46 }
 */
export function intervalState(i: {
  flownOn: readonly string[];
  checkedOn: readonly string[];
  onDate: string;
  days: number;
}): IntervalState {
  const newest = (dates: readonly string[]) =>
    dates.reduce<string | null>((a, d) => (d <= i.onDate && (a === null || d > a) ? d : a), null);
  const [flight, check] = [newest(i.flownOn), newest(i.checkedOn)];
  if (flight === null && check === null)
    return { status: 'never', from: null, because: null, validThrough: null, daysLeft: null };
  const because = (check ?? '') >= (flight ?? '') ? 'check' : 'flight';
  const from = because === 'check' ? check : flight;
  const period: Period = { days: i.days, months: null, monthEnd: false };
  const state = validity({ ...period, fromDate: from ?? '', onDate: i.onDate });
  return { status: state.status, from, because, validThrough: state.validThrough, daysLeft: state.daysLeft };
}
