import type { RecencyRule } from '@/domain/recency';
import { type DatedRule, type DatedState, type PersonDate, datedState } from './acting';
import { type Beside, type TypedEvent, type IntervalState, intervalState, recencyOrdered, rulesFor } from './apply';
import { type RecencyStatus, daysBetween, validity } from './dates';
import { newestFirst, restoreWords } from './evaluate';

/** A type as a person flies it. */
export interface PersonType {
  code: string;
  name: string;
  /** Where it is at home; an amphibian is flown in two, by the surface used. */
  class: string;
  classes?: readonly string[];
  tailwheel: boolean;
  water: boolean;
  /** The house's days without flying it; null = no rule. */
  intervalDays: number | null;
  /** Days on which a check in it was signed. */
  checkedOn: readonly string[];
  /** Days flown that are known only as the office entered them. */
  flownOn: readonly string[];
}
export interface Person {
  events: readonly TypedEvent[];
  types: readonly PersonType[];
  holds: readonly string[];
  dates: readonly PersonDate[];
  teaches: boolean;
  certificateUntil: string | null;
}
export interface RuleBook {
  recency: readonly RecencyRule[];
  dated: readonly DatedRule[];
  teach: readonly RecencyRule[];
  intervalSource: string;
  /** What the pack calls the right to fly a tailwheel; absent = not looked at. */
  tailwheel?: string;
}

export const LAPSE_KINDS = ['dated', 'certificate', 'interval', 'passengers', 'teach', 'night'] as const;
export type LapseKind = (typeof LAPSE_KINDS)[number];
/** One thing of a person that holds for a time. */
export interface Lapse {
  key: string;
  kind: LapseKind;
  what: string;
  /** The same where its kind is said already; absent = `what`. */
  short?: string;
  citation: string;
  /** 'never' = nothing to count from; 'missing' = the office has no date. */
  status: RecencyStatus | 'never' | 'missing';
  /** Without it the pilot is not pilot in command. */
  acting?: boolean;
  /** Recent, and the class or the endorsement is not held: recency is no endorsement. */
  notHeld?: boolean;
  /** Last day on which it holds. */
  through: string | null;
  daysLeft: number | null;
  /** The least flying that restores it, or keeps it when flown on that day. */
  restore: string | null;
  /** While it holds by flying: what flown again gives it its whole time; absent = it is no count. */
  keep?: string;
  typeCode: string | null;
  /** What it hangs on: the event that ages out first. */
  eventId: string | null;
}

/** A title inside a sentence; a word with capitals of its own keeps them. */
const inSentence = (title: string): string => title.charAt(0).toLowerCase() + title.slice(1);
const CATEGORY = 'aeroplane';
/** Checks by the day they were done, and what is held: what a rule may take in place of flying. */
const besideOf = (p: Person): Beside => ({
  doneOn: Object.fromEntries(p.dates.flatMap((d) => (d.doneOn === null ? [] : [[d.key, d.doneOn]]))),
  holds: p.holds,
});
const WORDS: Record<string, string> = {
  'single-engine-land': 'single-engine land',
  'single-engine-sea': 'single-engine sea',
  'multi-engine-land': 'multi-engine land',
  'multi-engine-sea': 'multi-engine sea',
};
const SOLD: Record<RecencyRule['when'], string> = {
  always: '',
  tailwheel: ', tailwheel',
  night: ' at night',
  water: ' on water',
};

/**
 * Everything of one person that holds for a time, on one day, what ends first in front. Passengers by class, and again
 * for a tailwheel and for the night; the house's interval by type; what is dated; for an instructor the right to teach
 * each type flown.
 * Source: the rules of the packs and the school, as they cite them.
 * @returns one entry a thing that holds, with its state and last day
 */
export function lapsesOf(person: Person, book: RuleBook, onDate: string): Lapse[] {
  const ordered = newestFirst(person.events, onDate);
  const lines: Lapse[] = [...datedLines(person, book, onDate)];
  const beside = besideOf(person);
  const classes = new Map<string, PersonType[]>();
  // A rule of the category is one line for all of them.
  const byCategory = (r: RecencyRule) => r.within === 'category';
  if (person.types.length > 0 && book.recency.some(byCategory)) classes.set(CATEGORY, [...person.types]);
  for (const t of person.types)
    for (const cls of t.classes ?? [t.class]) classes.set(cls, [...(classes.get(cls) ?? []), t]);
  for (const [cls, types] of classes) {
    const first = types[0];
    if (!first) continue;
    const of = {
      typeCode: first.code,
      class: cls,
      tailwheel: types.some((t) => t.tailwheel) && !cls.endsWith('-sea'),
      water: types.some((t) => t.water) && !cls.endsWith('-land'),
      night: true,
    };
    const asked = rulesFor(book.recency, of).filter((r) => byCategory(r) === (cls === CATEGORY));
    for (const when of ['always', 'tailwheel', 'water', 'night'] as const) {
      const rules = asked.filter((r) => r.when === when);
      if (rules.length === 0) continue;
      const missing =
        (cls !== CATEGORY && !person.holds.includes(cls)) ||
        (when === 'tailwheel' && book.tailwheel !== undefined && !person.holds.includes(book.tailwheel));
      lines.push({
        ...counted(
          `${when}:${cls}`,
          when === 'night' ? 'night' : 'passengers',
          `passengers, ${WORDS[cls] ?? cls}${SOLD[when]}`,
          rules,
          ordered,
          of,
          onDate,
          beside,
        ),
        short: `${WORDS[cls] ?? cls}${SOLD[when]}`,
        ...(missing ? { notHeld: true } : {}),
      });
    }
  }
  for (const t of person.types) {
    if (t.intervalDays !== null) {
      const last = ordered.find((e) => e.typeCode === t.code && e.kind === 'landing');
      const flownOn = last ? [...t.flownOn, last.date] : t.flownOn;
      const s: IntervalState = intervalState({ flownOn, checkedOn: t.checkedOn, onDate, days: t.intervalDays });
      lines.push({
        key: `interval:${t.code}`,
        kind: 'interval',
        what: `school recurrent check, ${t.name} (${t.intervalDays} days)`,
        short: t.name,
        citation: book.intervalSource,
        status: s.status,
        through: s.validThrough,
        daysLeft: s.daysLeft,
        restore:
          s.status === 'expired' || s.status === 'never'
            ? 'one flight in the type with an instructor, or a recurrent check'
            : 'one flight in the type',
        typeCode: t.code,
        eventId: null,
      });
    }
    if (!person.teaches || book.teach.length === 0) continue;
    const of = { typeCode: t.code, class: t.class, tailwheel: t.tailwheel, water: t.water, night: false };
    lines.push({
      ...counted(`teach:${t.code}`, 'teach', `to teach ${t.name}`, rulesFor(book.teach, of), ordered, of, onDate),
      typeCode: t.code,
    });
  }
  return lines.sort(byUrgency);
}

function counted(
  key: string,
  kind: LapseKind,
  what: string,
  rules: RecencyRule[],
  ordered: readonly TypedEvent[],
  of: Parameters<typeof recencyOrdered>[2],
  onDate: string,
  beside?: Beside,
): Lapse {
  const r = recencyOrdered(rules, ordered, of, onDate, beside);
  // What a rating held makes unnecessary holds while the rating does.
  if (rules.length > 0 && r.asked.length === 0)
    return {
      key,
      kind,
      what,
      citation: [...new Set(rules.map((x) => x.citation))].join('; '),
      status: 'current',
      through: null,
      daysLeft: null,
      restore: null,
      typeCode: null,
      eventId: null,
    };
  const ends = r.rules.map((x) => x.validThrough);
  const through = ends.some((x) => x === null) ? null : ((ends as string[]).sort()[0] ?? null);
  // A rule of the type is restored in the type alone; the class stands in what the line is called.
  const inType = (i: number) => (r.asked[i]?.within === 'type' ? ' in the type' : '');
  const restore = r.rules.flatMap((x, i) => (x.restore === null ? [] : `${x.restore}${inType(i)}`));
  const keep = r.asked.map((rule, i) => `${restoreWords(rule, rule.count)}${inType(i)}`).join(' and ');
  return {
    key,
    kind,
    what,
    citation: [...new Set(rules.map((x) => x.citation))].join('; '),
    status: through === null ? 'never' : r.overall,
    through,
    daysLeft: through === null ? null : daysBetween(onDate, through),
    restore: restore.length > 0 ? restore.join(' and ') : null,
    ...(restore.length === 0 && keep !== '' ? { keep } : {}),
    typeCode: null,
    eventId: r.firstToLapseEventId,
  };
}

function datedLines(person: Person, book: RuleBook, onDate: string): Lapse[] {
  const lines: Lapse[] = [];
  const line = (
    key: string,
    kind: LapseKind,
    what: string,
    citation: string,
    restore: string,
    state: DatedState | null,
  ): Lapse => ({
    key,
    kind,
    what,
    citation,
    status: state?.status ?? 'missing',
    through: state?.validThrough ?? null,
    daysLeft: state?.daysLeft ?? null,
    restore,
    typeCode: null,
    eventId: null,
  });
  const plain = { days: 0, months: null, monthEnd: false };
  for (const rule of book.dated) {
    if (rule.of !== null && !person.holds.includes(rule.of)) continue;
    lines.push({
      ...line(
        rule.id,
        'dated',
        inSentence(rule.title),
        rule.citation,
        `a new ${inSentence(rule.title)}`,
        datedState(rule, person.dates, onDate),
      ),
      ...(rule.acting === true ? { acting: true } : {}),
    });
  }
  for (const d of person.dates) {
    if (book.dated.some((r) => r.id === d.key) || d.until === null) continue;
    lines.push(
      line(
        d.key,
        'dated',
        d.title.toLowerCase(),
        'as on record',
        `a new ${d.title.toLowerCase()}`,
        validity({ ...plain, fromDate: d.until, onDate }),
      ),
    );
  }
  if (person.certificateUntil !== null)
    lines.push(
      line(
        'certificate',
        'certificate',
        'instructor’s certificate',
        'as on record',
        'its renewal',
        validity({ ...plain, fromDate: person.certificateUntil, onDate }),
      ),
    );
  return lines;
}

const RANK: Record<Lapse['status'], number> = { expired: 0, missing: 1, expiring: 2, current: 3, never: 4 };
const byUrgency = (a: Lapse, b: Lapse): number =>
  RANK[a.status] - RANK[b.status] ||
  (a.through ?? '9999').localeCompare(b.through ?? '9999') ||
  a.key.localeCompare(b.key);

/**
 * What holds today and ends first; the night is told apart and does not count here.
 * @returns what ends first; null when nothing holds
 */
export function firstLapse(lapses: readonly Lapse[]): Lapse | null {
  return (
    lapses
      .filter((l) => l.kind !== 'night' && l.through !== null && (l.status === 'current' || l.status === 'expiring'))
      .sort((a, b) => (a.through ?? '').localeCompare(b.through ?? '') || a.key.localeCompare(b.key))[0] ?? null
  );
}
/** What ended longer ago than this by not flying is a type given up, and no alarm. */
const GIVEN_UP_DAYS = 180;
/**
 * Ended so long ago by not flying that the type is given up.
 * @returns true where it is no alarm any more
 * @example givenUp({ kind: 'interval', status: 'expired', daysLeft: -200 }) // true
 */
export const givenUp = (l: Pick<Lapse, 'kind' | 'status' | 'daysLeft'>): boolean =>
  l.kind !== 'dated' && l.kind !== 'certificate' && l.status === 'expired' && (l.daysLeft ?? 0) < -GIVEN_UP_DAYS;
/**
 * The state of a person in one word. *Expired* is what stops a flight under the law: a medical, a review, a certificate.
 * *Unknown* where what the right to act rests on is not on record. *Due* where a recurrent check of the school is due in
 * a type that is not given up. Passengers, the night and teaching are told apart.
 * @returns the state
 */
export function standingOf(lapses: readonly Lapse[]): RecencyStatus | 'unknown' | 'due' {
  const law = lapses.filter((l) => l.kind === 'dated' || l.kind === 'certificate');
  const school = lapses.filter((l) => l.kind === 'interval' && !givenUp(l));
  if (law.some((l) => l.status === 'expired')) return 'expired';
  if (lapses.some((l) => l.status === 'missing' && l.acting === true)) return 'unknown';
  if (school.some((l) => l.status === 'expired')) return 'due';
  return [...law, ...school].some((l) => l.status === 'expiring') ? 'expiring' : 'current';
}
/**
 * What a person would have on a day after flying what is planned: the same rules over what is recorded and what would
 * be.
 * Source: the rules of the packs and the school, as they cite them.
 * @returns as lapsesOf
 */
export const whatIf = (person: Person, planned: readonly TypedEvent[], book: RuleBook, onDate: string): Lapse[] =>
  lapsesOf({ ...person, events: [...person.events, ...planned] }, book, onDate);
