/**
 * What must be dated and good for a pilot to act as pilot in command: flight review, medical, class rating. Source:
 * 14 CFR 61.56(c), 61.23, 61.3; Part-FCL FCL.740, FCL.725(d), MED.A.030; CASR 61.745 to 61.800, as the packs cite them.
 */
import { needNumbers } from '../guard';
import { type RecencyStatus, addMonths, validThrough, validity } from './dates';

export interface DatedRule {
  id: string;
  title: string;
  citation: string;
  days: number | null;
  months: number | null;
  monthEnd: boolean;
  of: string | null;
  /** Ended or not on record: not pilot in command. */
  acting?: boolean;
  /** Renewed in the last months before its end, it runs on from the old end. */
  earlyMonths?: number | null;
  servedBy?: readonly string[];
  untilOnly?: boolean;
  confirm?: boolean;
}
/**
 * Something with a date: done on a day and lasting as its rule says, or good until a day. `before` holds earlier entries
 * of the same, the oldest first.
 */
export interface PersonDate {
  key: string;
  title: string;
  doneOn: string | null;
  until: string | null;
  before?: readonly { doneOn: string | null; until: string | null }[];
}
export interface DatedState {
  status: RecencyStatus;
  validThrough: string;
  daysLeft: number;
}

/** Earlier entries that stand: of one done later, or on the same day, the newer word is a correction. */
function standing(kept: PersonDate): { doneOn: string | null; until: string | null }[] {
  const all = [...(kept.before ?? []), { doneOn: kept.doneOn, until: kept.until }];
  const back: typeof all = [];
  let day = '9999';
  for (const e of all.reverse()) {
    if (e.doneOn !== null && e.doneOn >= day) continue;
    if (e.doneOn !== null) day = e.doneOn;
    back.unshift(e);
  }
  return back;
}

/** Last day of one rule by its own entries; null = nothing to count from. */
function throughOf(rule: DatedRule, kept: PersonDate | undefined): string | null {
  if (!kept) return null;
  if (rule.untilOnly === true) return kept.until;
  let through: string | null = null;
  for (const e of standing(kept)) {
    if (e.until !== null) {
      through = e.until;
      continue;
    }
    if (e.doneOn === null) continue;
    const early: boolean =
      through !== null &&
      rule.earlyMonths != null &&
      e.doneOn <= through &&
      e.doneOn >= addMonths(through, -rule.earlyMonths);
    through = validThrough(early && through !== null ? through : e.doneOn, rule);
  }
  return through;
}

/**
 * State of a dated rule on a day, by its own entries or by a rule that serves it, whichever is good for longer. A
 * renewal in the last months before the end counts from the old end. Null = nothing on record.
 * @param dates one entry of each key, its earlier ones in `before`
 * @returns until when and by what; null when nothing of it is on record
 * @throws BadNumber when a number handed in is none
 * @example datedState({ ...yearly, earlyMonths: 3 }, [{ key: 'mep', title: '', doneOn: '2026-11-10', until: null,
 *  before: [{ doneOn: '2025-12-05', until: null }] }], '2026-11-24') // valid through 2027-12-31
 */
export function datedState(rule: DatedRule, dates: readonly PersonDate[], onDate: string): DatedState | null {
  needNumbers('datedState', { days: rule.days, months: rule.months, earlyMonths: rule.earlyMonths ?? null });
  const ends = [rule.id, ...(rule.servedBy ?? [])]
    .flatMap(
      (key) =>
        throughOf(
          rule,
          dates.find((d) => d.key === key),
        ) ?? [],
    )
    .sort();
  const through = ends.at(-1);
  return through === undefined ? null : validity({ days: 0, months: null, monthEnd: false, fromDate: through, onDate });
}

export interface ActingStop {
  id: string;
  title: string;
  citation: string;
  confirm: boolean;
  /** Ended on `through`, or nothing on record. */
  status: 'expired' | 'missing';
  through: string | null;
}
/**
 * What keeps a pilot from acting as pilot in command on a day in an aeroplane of these classes. Empty = nothing dated
 * does. What is not on record is not known, and stops as what has ended.
 * Source: 14 CFR 61.56 and 61.23, FCL.740 and MED.A.030, CASR 61.745, as the packs cite them.
 * @param classes every name of the class flown (`classNames`)
 * @returns one code a stop
 */
export function actingStops(
  rules: readonly DatedRule[],
  dates: readonly PersonDate[],
  classes: readonly string[],
  onDate: string,
): ActingStop[] {
  return rules.flatMap((rule): ActingStop[] => {
    if (rule.acting !== true || (rule.of !== null && !classes.includes(rule.of))) return [];
    const state = datedState(rule, dates, onDate);
    if (state && state.status !== 'expired') return [];
    const { id, title, citation } = rule;
    return [
      {
        id,
        title,
        citation,
        confirm: rule.confirm ?? false,
        status: state ? 'expired' : 'missing',
        through: state?.validThrough ?? null,
      },
    ];
  });
}

/**
 * Does a twin variant flown last on a day still stand? The last day it does: so many months after it was last flown or
 * trained. Null = never flown, and not known to stand. Source: Part-FCL FCL.710.
 * @param days ISO dates of flights, training and checks in the variant
 * @returns an ISO date
 * @throws BadNumber when a number handed in is none
 * @example variantThrough(['2024-02-29'], 24, '2026-11-24') // '2026-02-28'
 */
export function variantThrough(days: readonly string[], months: number, onDate: string): string | null {
  needNumbers('variantThrough', { months });
  const last = days
    .filter((d) => d <= onDate)
    .sort()
    .at(-1);
  return last === undefined ? null : validThrough(last, { days: null, months, monthEnd: false });
}

/**
 * Most minutes of flight training in any 24 hours, over spans of instants; the second half of a span that runs out of a
 * window is not in it. Source: 14 CFR 61.195(a).
 * @param spans ISO instants; overlapping ones are counted each
 * @returns min
 * @example
 * mostIn24h([{ from: '2026-11-23T08:00:00Z', to: '2026-11-23T12:00:00.000Z' }, { from: '2026-11-24T08:00:00Z',
 * to: '2026-11-24T12:00:00.000Z' }])
 * // 240
 */
export function mostIn24h(spans: readonly { from: string; to: string }[]): number {
  const DAY = 86_400_000;
  const all = spans.map((s) => [Date.parse(s.from), Date.parse(s.to)] as const);
  if (all.some(([a, b]) => !Number.isFinite(a) || !Number.isFinite(b) || b < a))
    throw new RangeError('mostIn24h: a span needs two instants, the end not before the start');
  // The fullest window begins where a span begins, or ends where one ends.
  const starts = all.flatMap(([a, b]) => [a, b - DAY]);
  const within = (from: number) =>
    all.reduce((sum, [a, b]) => sum + Math.max(0, Math.min(b, from + DAY) - Math.max(a, from)), 0);
  return Math.max(0, ...starts.map(within)) / 60_000;
}
