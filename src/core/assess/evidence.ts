/**
 * Evidence of a programme: for each item whether it is met, nearly, not, waived or credited, what is missing in words
 * and counts, and exactly which records it rests on. Pure: the same records in any order give the same answer. Method:
 * the programme's own rules, as data.
 */
import type { Subject } from '@/domain/assess-words';
import type { EvidenceRule, Programme, ProgrammeItem } from '@/domain/programme';
import type { GearChecked, ItemObserved } from '@/domain/capture';
import type { LandingKind } from '@/domain/words';
import type { Stop } from '@/domain/stops';
import { meant, say } from '@/domain/words';
import { SLACK } from '../constants';
import { dateText, fixed, list, plural } from '../format';
import { addDays } from '../recency/dates';
import type { JudgedLanding } from './captured';
import { assertedIn, assertedShare, subjectsOf, unseenFor, unseenWords } from './seen';
import { type RunCondition, runRule } from './stats';

/** A judged landing with what evidence asks of it. */
export interface RecordedLanding {
  id: string;
  number: number;
  sortieId: string;
  lesson: number;
  date: string;
  firstOfSortie: boolean;
  group: string;
  kind: LandingKind;
  intended: string | null;
  crosswindKt: number | null;
  /** Absent = land. */
  surface?: 'land' | 'water';
  /** Flown past a stop: kept, and no evidence of a safety item. Instant of the touch beside it. */
  stops?: readonly Stop[];
  at?: string;
  /** Of a go-around: where it began; absent or null = not said. */
  goAroundFrom?: string | null;
  judged: JudgedLanding;
}
export interface Observation {
  id: string;
  date: string;
  lesson: number;
  /** Instant of capture; orders what was seen in one lesson. */
  at?: string;
  data: ItemObserved;
  /** Flown past a stop: no evidence of a safety item. */
  stops?: readonly Stop[];
  /** What of it was not looked at and would have to be before it is judged, in words; absent = nothing. */
  unseen?: readonly string[];
  /** An instructor's later word; the verdict that was captured or measured stays. */
  overruled?: {
    reason: string;
    computed: ItemObserved['verdict'];
  } | null;
}
export interface Waiver {
  itemId: string;
  reason: string;
}
/** An item signed before the rest, by an instructor who saw it; lapses by the house's rule. */
export interface PartSignOff {
  itemId: string;
  entryId: string;
  by: string;
  on: string;
  lapsesOn: string;
}
/** What the pilot holds and has flown, for items that may be credited. */
export interface Experience {
  held: readonly string[];
  /** Hours in aeroplanes of the same gear and mass. */
  groupHours: number;
}
/** Everything a checkout has to show, in any order. */
export interface EvidenceRecord {
  landings: readonly RecordedLanding[];
  observations: readonly Observation[];
  waivers: readonly Waiver[];
  group: string;
  /** The day it is weighed for; absent = the newest day in it. Records after it do not count. */
  onDate?: string;
  /** Flights with their minutes by the clock; null = the clock was not tapped. */
  flights?: readonly { id: string; lesson: number; date: string; minutes: number | null }[];
  briefs?: readonly { id: string; lesson: number; date: string; acknowledged: boolean }[];
  gearChecks?: readonly {
    id: string;
    lesson: number;
    date: string;
    /** Instant of the check; absent = before everything. */
    at?: string;
    check: Pick<GearChecked, 'decision' | 'onFinal' | 'surface'>;
  }[];
  parts?: readonly PartSignOff[];
  experience?: Experience | null;
  /** What must have been seen, by what an item is about; absent = the product's. */
  seen?: Readonly<Partial<Record<Subject, readonly string[]>>>;
  /** Share of an item's landings that may rest on the clean tap, 0 to 1; absent = half. */
  assertedShare?: number;
  /** Days after which evidence of what fades has lapsed; absent = 90. */
  fadesDays?: number;
  /** Further training asked for in the book: the items, when, and by whom; the newest of an item stands. */
  refused?: readonly { itemId: string; at: string; on: string; by: string; entryId: string }[];
}
const ASSERTED_SHARE = 0.5;
const FADES_DAYS = 90;

export const ITEM_STATES = ['met', 'nearly', 'not', 'waived', 'credited'] as const;
export type ItemState = (typeof ITEM_STATES)[number];
export interface ItemEvidence {
  item: ProgrammeItem;
  state: ItemState;
  /** Met, waived or credited. */
  met: boolean;
  waived: string | null;
  /** What the item was credited by. */
  credited: string | null;
  part: PartSignOff | null;
  /** Something of it has been seen, whatever came of it. */
  seen: boolean;
  /** It was outside the standard the last time it was shown. */
  lastOutside: boolean;
  /** What the rule asks, in words. */
  asks: string;
  /** Share of the way, 0 to 1, for the wheel; never shown as a probability. */
  progress: number;
  have: string;
  missing: string[];
  /** Ids of the landings, observations, flights, briefs, checks or entries that support it. */
  evidence: string[];
  /** Good landings and items that it leaves out, each with why. */
  leftOut: { id: string; why: string }[];
  /** Of the landings that support it, those that rest in part on the clean tap. */
  asserted: string[];
  /** Further training was entered for it and it has not been flown again since. */
  refused: { on: string; by: string; entryId: string } | null;
}

/** From this share of the way on an item is *nearly*. */
const NEARLY = 0.5;

/** Evidence of every item of a programme; prerequisites not met are named as missing. */
export function assessProgramme(programme: Programme, given: EvidenceRecord): ItemEvidence[] {
  const record = inOrder(given);
  const items = programme.items.map((item) => assessItem(item, record));
  const metIds = new Set(items.filter((i) => i.met).map((i) => i.item.id));
  return items.map((entry) => {
    const open = entry.item.prerequisites.filter((id) => !metIds.has(id));
    return open.length === 0 || entry.met ? entry : { ...entry, missing: [...entry.missing, `first ${list(open)}`] };
  });
}

type Ordered = EvidenceRecord & { day: string };
const later = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
/** One order for the same records, and nothing after the day they are weighed for. */
function inOrder(r: EvidenceRecord): Ordered {
  const day = r.onDate ?? [...r.landings, ...r.observations].reduce((d, x) => (x.date > d ? x.date : d), '');
  const until = <T extends { date: string }>(all: readonly T[]): T[] => all.filter((x) => day === '' || x.date <= day);
  return {
    ...r,
    day,
    landings: until(r.landings).sort(
      (a, b) => later(a.date, b.date) || a.lesson - b.lesson || a.number - b.number || later(a.id, b.id),
    ),
    observations: until(r.observations).sort(
      (a, b) =>
        later(a.date, b.date) ||
        a.lesson - b.lesson ||
        later(a.at ?? '', b.at ?? '') ||
        (a.at === undefined ? 0 : later(a.id, b.id)),
    ),
    flights: until(r.flights ?? []).sort((a, b) => later(a.date, b.date) || later(a.id, b.id)),
    briefs: until(r.briefs ?? []).sort((a, b) => later(a.date, b.date) || later(a.id, b.id)),
    gearChecks: until(r.gearChecks ?? []).sort((a, b) => later(a.date, b.date) || later(a.id, b.id)),
    parts: [...(r.parts ?? [])]
      .filter((p) => p.on <= day || day === '')
      .sort((a, b) => later(b.on, a.on) || later(a.entryId, b.entryId)),
    waivers: [...r.waivers].sort((a, b) => later(a.itemId, b.itemId) || later(a.reason, b.reason)),
  };
}

function assessItem(item: ProgrammeItem, record: Ordered): ItemEvidence {
  const rule = ruleOf(item, record);
  const found = assessRule(item, rule, record);
  const base = {
    item,
    asks: asksOf(rule),
    waived: null,
    credited: null,
    part: null,
    seen: found.seen,
    lastOutside: false,
    leftOut: [],
    asserted: [],
    refused: null,
  };
  const settled = { met: true, progress: 1, missing: [] };
  const refused = refusedOf(item, record);
  if (refused)
    return {
      ...base,
      ...found,
      met: false,
      refused,
      state: found.progress >= NEARLY - SLACK ? 'nearly' : 'not',
      progress: Math.min(found.progress, 0.9),
      missing: [
        ...found.missing,
        `further training was entered on ${dateText(refused.on)} by ${refused.by}: fly it again`,
      ],
    };
  const waiver = item.waivable === null ? undefined : record.waivers.find((w) => w.itemId === item.id);
  if (waiver)
    return { ...base, ...settled, state: 'waived', waived: waiver.reason, have: 'waived with reason', evidence: [] };
  if (found.met) return { ...base, ...found, state: 'met' };
  const part = record.parts?.find((p) => p.itemId === item.id) ?? null;
  if (part && part.lapsesOn >= record.day)
    return {
      ...base,
      ...settled,
      state: 'met',
      part,
      seen: true,
      have: `signed in part by ${part.by} on ${dateText(part.on)}, holds to ${dateText(part.lapsesOn)}`,
      evidence: [part.entryId],
    };
  const credit = creditOf(item, record.experience ?? null);
  if (credit) return { ...base, ...settled, state: 'credited', credited: credit, have: credit, evidence: [] };
  return {
    ...base,
    ...found,
    state: found.progress >= NEARLY - SLACK ? 'nearly' : 'not',
    missing: [
      ...found.missing,
      ...(part ? [`the part sign-off of ${dateText(part.on)} lapsed on ${dateText(part.lapsesOn)}`] : []),
    ],
  };
}

function creditOf(item: ProgrammeItem, x: Experience | null): string | null {
  if (!item.credit || !x) return null;
  const held = item.credit.holds.find((h) => x.held.includes(h));
  if (held) return `credited: holds ${say(held)}. ${item.credit.text}`;
  if (item.credit.groupHours !== null && x.groupHours >= item.credit.groupHours)
    return `credited: ${fixed(x.groupHours)} h in this gear and mass, ${fixed(item.credit.groupHours)} h asked. ${item.credit.text}`;
  return null;
}

interface RuleOutcome {
  met: boolean;
  seen: boolean;
  lastOutside?: boolean;
  progress: number;
  have: string;
  missing: string[];
  evidence: string[];
  leftOut?: ItemEvidence['leftOut'];
  asserted?: string[];
}

/** Forms of emergencies and stalls, which fade. */
const FADING: ReadonlySet<string> = new Set(['stall', 'asymmetric', 'emergency-descent', 'surprise']);
/** Does evidence of an item lapse when a checkout sleeps for months? By its own word, else emergencies, stalls and briefs do. */
export const itemFades = (item: Pick<ProgrammeItem, 'fades' | 'forms' | 'where' | 'evidence'>): boolean =>
  item.fades ?? (item.evidence.kind === 'briefs' || (item.where === 'flight' && item.forms.some((f) => FADING.has(f))));

/** The rule of an item with the house's figure for what fades; a stricter one of its own stands. */
function ruleOf(item: ProgrammeItem, { fadesDays }: EvidenceRecord): EvidenceRule {
  const rule = item.evidence;
  if (!itemFades(item) || !('withinDays' in rule)) return rule;
  return { ...rule, withinDays: Math.min(rule.withinDays ?? Infinity, fadesDays ?? FADES_DAYS) };
}

/** Further training entered for an item, unless something of it was flown or shown again since. */
function refusedOf(item: ProgrammeItem, given: Ordered): ItemEvidence['refused'] {
  const record = item.safety ? withoutStops(given) : given;
  const newest = (record.refused ?? [])
    .filter((r) => r.itemId === item.id && (record.day === '' || r.on <= record.day))
    .sort((a, b) => later(a.at, b.at))
    .at(-1);
  if (!newest) return null;
  // Instants may be written with any offset: they are compared as instants.
  const since = (x: { at?: string; date: string }): boolean => Date.parse(x.at ?? x.date) > Date.parse(newest.at);
  const rule = item.evidence;
  const goodAgain = (): boolean => {
    switch (rule.kind) {
      case 'run':
      case 'count':
      case 'go-arounds': {
        const after: Ordered = { ...record, landings: record.landings.filter(since) };
        // Of itself, once: the whole rule is asked beside it.
        const once: EvidenceRule =
          rule.kind === 'run'
            ? { ...rule, needed: 1, minSorties: 1, minDays: 1, windKt: null }
            : rule.kind === 'count'
              ? { ...rule, needed: 1 }
              : { ...rule, sound: Math.min(1, rule.sound), good: Math.min(1, rule.good), from: [] };
        const again = judgeRule(item, once, after);
        return rule.kind === 'go-arounds' ? again.met : again.evidence.length > 0;
      }
      case 'observed':
        return record.observations.some((o) => o.data.itemId === item.id && since(o) && isGood(o, rule));
      case 'hours':
        return [...record.observations.filter((o) => o.data.itemId === item.id), ...(record.flights ?? [])].some(since);
      case 'briefs':
        return (record.briefs ?? []).some((b) => b.acknowledged && since(b));
      case 'gear-checks':
        return (record.gearChecks ?? []).some((g) => g.check.decision === 'agree' && since(g));
    }
  };
  return goodAgain() ? null : { on: newest.on, by: newest.by, entryId: newest.entryId };
}

/** More help than any rule allows. */
const NOT_THE_PILOTS = 9;
/** Past a stop nothing is good: a landing is then as one nobody judged, an item as one with too much help. */
function withoutStops(record: Ordered): Ordered {
  const stopped = (x: { stops?: readonly Stop[] }) => (x.stops?.length ?? 0) > 0;
  return {
    ...record,
    landings: record.landings.map((l) =>
      stopped(l)
        ? {
            ...l,
            judged: {
              ...l.judged,
              landingClass: l.judged.landingClass === 'outside' ? 'outside' : 'not-judged',
              goAround: l.judged.goAround && {
                ...l.judged.goAround,
                decisionEvidence: false,
                executionEvidence: false,
              },
            },
          }
        : l,
    ),
    observations: record.observations.map((o) =>
      stopped(o) ? { ...o, data: { ...o.data, intervention: NOT_THE_PILOTS } } : o,
    ),
  };
}
/** How much of what a safety item looks at was flown past a stop, in words; null = nothing. */
function stoppedWords(item: ProgrammeItem, record: Ordered): string | null {
  const rule = item.evidence;
  const n =
    rule.kind === 'observed'
      ? record.observations.filter((o) => o.data.itemId === item.id && (o.stops?.length ?? 0) > 0).length
      : rule.kind === 'run' || rule.kind === 'count' || rule.kind === 'go-arounds'
        ? looked(rule, record).filter((l) => (l.stops?.length ?? 0) > 0).length
        : 0;
  return n === 0 ? null : `${n} flown past a stop ${n === 1 ? 'does' : 'do'} not count`;
}

function assessRule(item: ProgrammeItem, rule: EvidenceRule, given: Ordered): RuleOutcome {
  const record = item.safety ? withoutStops(given) : given;
  const found = judgeRule(item, rule, record);
  const stopped = item.safety && !found.met ? stoppedWords(item, given) : null;
  return stopped === null ? found : { ...found, missing: [...found.missing, stopped] };
}

function judgeRule(item: ProgrammeItem, rule: EvidenceRule, record: Ordered): RuleOutcome {
  switch (rule.kind) {
    case 'run':
      return runEvidence(item, rule, record);
    case 'count':
      return countEvidence(item, rule, record);
    case 'go-arounds':
      return goAroundEvidence(rule, record);
    case 'observed':
      return observedEvidence(item.id, rule, record);
    case 'hours':
      return hoursEvidence(item.id, rule, record);
    case 'briefs':
      return briefEvidence(rule, record);
    case 'gear-checks':
      return gearEvidence(rule, record);
  }
}

const times = (n: number): string => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);
const onSurface = (surface: 'land' | 'water' | null | undefined): string => (surface ? ` on ${surface}` : '');
const lately = (days: number | null | undefined): string => (days ? ` within ${days} days` : '');
/** Landings a rule looks at: of its surface, and as recent as it asks. */
function looked(
  rule: { withinDays?: number | null; surface?: 'land' | 'water' | null },
  record: Ordered,
): RecordedLanding[] {
  return recently(rule, record, record.landings).filter(
    (l) => l.judged.landingClass !== 'low-pass' && (!rule.surface || (l.surface ?? 'land') === rule.surface),
  );
}
function recently<T extends { date: string }>(
  rule: { withinDays?: number | null },
  record: Ordered,
  all: readonly T[],
): T[] {
  const from = rule.withinDays && record.day !== '' ? addDays(record.day, -rule.withinDays) : '';
  return all.filter((x) => x.date >= from);
}

/** Classes that help an item, and so must have been looked at; what speaks against the pilot needs no second look. */
const HELPFUL: ReadonlySet<string> = new Set(['own', 'own-off-target', 'prompted']);
/** Landings an item leaves out because what it is about was not seen in them, and the others. */
function looking(
  item: ProgrammeItem,
  landings: readonly RecordedLanding[],
  record: Ordered,
  about: (l: RecordedLanding) => boolean = () => true,
) {
  const subjects = subjectsOf(item);
  const leftOut: ItemEvidence['leftOut'] = [];
  const kept = landings.filter((l) => {
    if (subjects.length === 0 || !HELPFUL.has(l.judged.landingClass) || !about(l)) return true;
    const unseen = unseenFor(subjects, record.seen ?? {}, l.judged);
    if (unseen.length > 0) leftOut.push({ id: l.id, why: unseenWords(unseen) });
    return unseen.length === 0;
  });
  return { kept, leftOut };
}
/** `3 left out: into-wind aileron, stick back not seen`; null = none. */
function leftOutWords(leftOut: readonly { why: string }[], what = 'left out'): string | null {
  const n = leftOut.length;
  if (n === 0) return null;
  const why = [...new Set(leftOut.map((l) => l.why))];
  return `${n} ${what}: ${why.length > 2 ? `${why.slice(0, 2).join('; ')}; and more` : why.join('; ')}`;
}
const assertedWords = (asserted: number, n: number): string =>
  asserted === 0 ? '' : `, ${asserted} of ${n} resting on the clean tap`;
const seeWords = (more: number, share: number): string =>
  `${plural(more, 'more')} with drift, crab, swing and bounce seen: ${share === 0 ? 'none' : `at most ${fixed(share * 100)} in 100`} may rest on the clean tap`;

function runEvidence(item: ProgrammeItem, rule: Extract<EvidenceRule, { kind: 'run' }>, record: Ordered): RuleOutcome {
  const all = looked(rule, record);
  const { kept: landings, leftOut } = looking(
    item,
    all,
    record,
    (l) => l.group === record.group && (rule.attitude === null || meant(l.intended) === rule.attitude),
  );
  const given = landings.map((l) => ({
    sortieId: l.sortieId,
    date: l.date,
    firstOfSortie: l.firstOfSortie,
    group: l.group,
    attitude: meant(l.intended),
    crosswindKt: l.crosswindKt,
    landingClass: runClass(l),
  }));
  const runFrom = (from: number) =>
    runRule({
      landings: from === 0 ? given : given.slice(from),
      needed: rule.needed,
      group: record.group,
      attitude: rule.attitude,
      windKt: rule.windKt,
      accuracyItem: rule.accuracy,
      minSorties: rule.minSorties,
      minDays: rule.minDays,
    });
  const run = runFrom(0);
  const kind = rule.attitude ? `${say(rule.attitude)} ` : '';
  const where = `${onSurface(rule.surface)}${lately(rule.withinDays)}`;
  const words: Record<RunCondition, string> = {
    count: `${run.stillNeeded} more ${kind}landings of the pilot\u2019s own in a row${where}`,
    sorties: `spread over at least ${rule.minSorties} flights`,
    days: `on at least ${rule.minDays} days`,
    'first-landing': 'one of them the first landing of a flight',
    wind: `one of them in a crosswind of ${rule.windKt ?? 0} kt or more`,
  };
  const whole = run.counted.flatMap((i) => landings[i] ?? []);
  const share = record.assertedShare ?? ASSERTED_SHARE;
  const rests = (ls: readonly RecordedLanding[]) => ls.map((l) => assertedIn(l.judged).length > 0);
  // An old beginning that rests on the clean tap is let go where the rest of the run stands by itself.
  const start = run.met
    ? run.counted.findIndex(
        (i, k) =>
          k <= MOST_STARTS &&
          whole.length - k >= rule.needed &&
          assertedShare(rests(whole.slice(k)), share).seeMore === 0 &&
          runFrom(i).met,
      )
    : 0;
  const members = whole.slice(Math.max(0, start));
  const { seeMore } = assertedShare(rests(members), share);
  const resting = members.filter((l) => assertedIn(l.judged).length > 0).map((l) => l.id);
  const unanswered = goAroundOpen(all, whole[0] ?? null, record.group);
  const missing = [
    ...run.missing.map((c) => words[c]),
    ...(seeMore > 0 ? [seeWords(seeMore, share)] : []),
    ...(unanswered
      ? [
          `a go-around decided in time and flown well, after lesson ${unanswered.lesson}, number ${unanswered.number} (${goAroundFault(unanswered)})`,
        ]
      : []),
  ];
  const out = missing.length > 0 ? leftOutWords(leftOut) : null;
  return {
    met: missing.length === 0,
    seen: all.some(
      (l) =>
        l.group === record.group &&
        l.kind !== 'go-around' &&
        l.judged.landingClass !== 'demonstration' &&
        (rule.attitude === null || meant(l.intended) === rule.attitude),
    ),
    progress:
      missing.length === 0
        ? 1
        : Math.min(0.95, run.currentRun / Math.max(1, rule.needed)) * (missing.length > 1 ? 0.9 : 1),
    have: `the last ${members.length} ${kind}landings his or her own${assertedWords(resting.length, members.length)}`,
    missing: out ? [...missing, out] : missing,
    evidence: members.map((l) => l.id),
    leftOut,
    asserted: resting,
  };
}

/** Beginnings of a run that are tried. */
const MOST_STARTS = 60;
/** With nothing meant an attitude cannot be judged; a word from the instructor stands all the same. */
const runClass = (l: RecordedLanding): string =>
  l.judged.landingClass === 'not-judged' && l.judged.level === 1 && meant(l.intended) === null
    ? 'prompted'
    : l.judged.landingClass;

/** Told for safety, helped or badly flown: a run that holds one waits for a sound, well flown one. */
const goAroundFault = ({ judged: { goAround: g } }: RecordedLanding): string =>
  g?.decision === 'told' ? 'told for safety' : g?.execution === 'assisted' ? 'flown with help' : 'badly flown';
function goAroundOpen(
  all: readonly RecordedLanding[],
  first: RecordedLanding | null,
  group: string,
): RecordedLanding | null {
  if (first === null) return null;
  let open: RecordedLanding | null = null;
  for (const l of all.slice(all.indexOf(first))) {
    const g = l.judged.goAround;
    if (!g || l.group !== group || g.decision === 'demonstration') continue;
    if (g.decision === 'told' || g.execution === 'assisted' || g.execution === 'outside') open = l;
    else if (g.decisionEvidence && g.executionEvidence) open = null;
  }
  return open;
}

function countEvidence(
  item: ProgrammeItem,
  rule: Extract<EvidenceRule, { kind: 'count' }>,
  record: Ordered,
): RuleOutcome {
  const windKt = rule.minCrosswindKt;
  const classes = ['own', ...(rule.accuracy ? [] : ['own-off-target']), ...(rule.prompted ? ['prompted'] : [])];
  const tried = looked(rule, record).filter(
    (l) =>
      l.kind !== 'go-around' &&
      l.judged.landingClass !== 'demonstration' &&
      l.group === record.group &&
      (rule.attitude === null || meant(l.intended) === rule.attitude) &&
      (!rule.fullStop || l.kind === 'full-stop') &&
      (windKt === null || (l.crosswindKt !== null && Math.abs(l.crosswindKt) >= windKt - SLACK)),
  );
  const { kept: good, leftOut } = looking(
    item,
    tried.filter((l) => classes.includes(l.judged.landingClass)),
    record,
  );
  // Of those that rest on the clean tap only as many count as the share allows beside those that were seen.
  const share = record.assertedShare ?? ASSERTED_SHARE;
  const resting = good.filter((l) => assertedIn(l.judged).length > 0);
  const plainly = good.length - resting.length;
  const room = share >= 1 ? resting.length : Math.floor((share / (1 - share)) * plainly + SLACK);
  const spare = new Set(resting.slice(0, Math.max(0, resting.length - room)));
  const counts = good.filter((l) => !spare.has(l));
  const what = `${rule.attitude ? `${say(rule.attitude)} ` : ''}${rule.fullStop ? 'full-stop ' : ''}landing`;
  const whose = rule.prompted
    ? ' without help on the controls'
    : rule.accuracy
      ? ' of the pilot\u2019s own, on target'
      : ' of the pilot\u2019s own';
  const where = `${onSurface(rule.surface)}${windKt === null ? '' : ` in ${windKt} kt or more across`}${lately(rule.withinDays)}`;
  const short = rule.needed - counts.length;
  const asserted = counts.filter((l) => resting.includes(l)).map((l) => l.id);
  const missing = [
    ...(short > 0 ? [`${short} more ${what}${short === 1 ? '' : 's'}${whose}${where}`] : []),
    ...(short > 0 && spare.size > 0
      ? [`${spare.size} more rest on the clean tap: with drift, crab, swing and bounce seen they count`]
      : []),
  ];
  const out = short > 0 ? leftOutWords(leftOut) : null;
  return {
    met: short <= 0,
    seen: tried.length > 0,
    progress: Math.min(1, counts.length / Math.max(1, rule.needed)),
    have: `${plural(counts.length, what)}${whose}${where}${assertedWords(asserted.length, counts.length)}`,
    missing: out ? [...missing, out] : missing,
    evidence: counts.map((l) => l.id),
    leftOut: [...leftOut, ...[...spare].map((l) => ({ id: l.id, why: 'rests on the clean tap' }))],
    asserted,
  };
}

function goAroundEvidence(rule: Extract<EvidenceRule, { kind: 'go-arounds' }>, record: Ordered): RuleOutcome {
  const flown = looked(rule, record).flatMap((l) =>
    l.judged.goAround ? [{ id: l.id, g: l.judged.goAround, from: l.goAroundFrom ?? null }] : [],
  );
  const sound = flown.filter((f) => f.g.decisionEvidence);
  const good = flown.filter((f) => f.g.executionEvidence);
  // A pinned rule of before asks for none.
  const still = (rule.from ?? []).filter((w) => !good.some((f) => f.from === w));
  const missing: string[] = [];
  if (sound.length < rule.sound)
    missing.push(
      `${rule.sound - sound.length} more decided by the pilot, before or at the trigger${lately(rule.withinDays)}`,
    );
  if (good.length < rule.good)
    missing.push(`${rule.good - good.length} more flown well without help${lately(rule.withinDays)}`);
  if (still.length > 0 && flown.length > 0) missing.push(`still to fly: from the ${list(still.map(say))}`);
  return {
    met: missing.length === 0 && still.length === 0,
    seen: flown.length > 0,
    progress:
      missing.length === 0
        ? 1
        : Math.min(
            0.95,
            (Math.min(1, sound.length / Math.max(1, rule.sound)) + Math.min(1, good.length / Math.max(1, rule.good))) /
              2,
          ),
    have: `${plural(sound.length, 'sound decision')}, ${good.length} flown well`,
    missing,
    evidence: [...new Set([...sound, ...good].map((f) => f.id))],
  };
}

/** Which of the named kinds an observation was: the stall, the energy item, the failure. */
const variantOf = ({ detail }: ItemObserved): string | null =>
  detail?.form === 'stall'
    ? detail.stall
    : detail?.form === 'energy' || detail?.form === 'asymmetric'
      ? detail.item
      : null;

/** A variant in words; a stall *landing* is one in that configuration, not the phase of flight. */
const variantWord = (v: string): string => (v === 'landing' ? 'landing configuration' : say(v));

function observedEvidence(
  itemId: string,
  rule: Extract<EvidenceRule, { kind: 'observed' }>,
  record: Ordered,
): RuleOutcome {
  const all = record.observations.filter((o) => o.data.itemId === itemId);
  const seen = recently(rule, record, all);
  const good = seen.filter((o) => isGood(o, rule));
  const leftOut = seen
    .filter((o) => o.data.verdict !== 'outside' && inPart(o))
    .map((o) => ({ id: o.id, why: `${(o.unseen ?? []).join(', ')} not seen` }));
  const latest = seen[seen.length - 1];
  const latestBad = latest !== undefined && latest.data.verdict === 'outside';
  const short = rule.needed - good.length;
  const days = new Set(good.map((o) => o.date)).size;
  const unseen = (rule.variants ?? []).filter((v) => !good.some((o) => variantOf(o.data) === v));
  const missing: string[] = [];
  if (short > 0)
    missing.push(
      all.length === 0
        ? 'not seen yet'
        : `${plural(short, 'more time', 'more times')} within the standard, ${rule.maxIntervention === 0 ? 'without help' : 'with a word at most'}${lately(rule.withinDays)}`,
    );
  if (days < (rule.minDays ?? 1) && good.length > 0) missing.push(`on at least ${rule.minDays} days`);
  if (unseen.length > 0 && all.length > 0) missing.push(`still to see: ${list(unseen.map(variantWord))}`);
  if (latestBad) missing.push('the last time it was outside: see it again');
  const out = leftOutWords(leftOut, 'not judged');
  if (missing.length > 0 && out) missing.push(out);
  const parts = rule.needed + (rule.variants ?? []).length;
  const done = Math.min(good.length, rule.needed) + (rule.variants ?? []).length - unseen.length;
  return {
    met: missing.length === 0 && short <= 0 && unseen.length === 0,
    seen: all.length > 0,
    progress: missing.length === 0 ? 1 : Math.min(0.9, Math.max(0, done / Math.max(1, parts))),
    have:
      seen.length === 0
        ? all.length === 0
          ? 'nothing recorded'
          : `nothing${lately(rule.withinDays)}`
        : `seen ${times(seen.length)}, ${good.length === seen.length ? 'within' : `${good.length} within`}`,
    missing,
    evidence: good.map((o) => o.id),
    leftOut,
    lastOutside: latestBad,
  };
}
/** Looked at only in part: kept, and not judged, unless an instructor has given a later word with a reason. */
const inPart = (o: Observation): boolean => (o.unseen?.length ?? 0) > 0 && !o.overruled;
const isGood = (o: Observation, rule: Extract<EvidenceRule, { kind: 'observed' }>): boolean =>
  o.data.verdict !== 'outside' && o.data.intervention <= rule.maxIntervention && !inPart(o);

function hoursEvidence(itemId: string, rule: Extract<EvidenceRule, { kind: 'hours' }>, record: Ordered): RuleOutcome {
  const entered = recently(rule, record, record.observations)
    .filter((o) => o.data.itemId === itemId && typeof o.data.minutes === 'number')
    .map((o) => ({ id: o.id, minutes: o.data.minutes ?? 0 }));
  const clocked =
    rule.from === 'flights'
      ? recently(rule, record, record.flights ?? [])
          .filter((f) => f.minutes !== null)
          .map((f) => ({ id: f.id, minutes: f.minutes ?? 0 }))
      : [];
  const all = [...clocked, ...entered];
  const have = all.reduce((a, x) => a + x.minutes, 0);
  const needed = Math.round(rule.needed * 60);
  const what = rule.from === 'flights' ? 'dual flight' : 'this';
  return {
    met: have >= needed,
    seen: all.length > 0,
    progress: needed === 0 ? 1 : Math.min(1, have / needed),
    have: `${hours(have)} of ${what}`,
    missing: have >= needed ? [] : [`${hours(needed - have)} more of ${what}${lately(rule.withinDays)}`],
    evidence: all.map((x) => x.id),
  };
}
const hours = (minutes: number): string =>
  `${Math.floor(minutes / 60)} h ${String(Math.round(minutes % 60)).padStart(2, '0')}`;

function briefEvidence(rule: Extract<EvidenceRule, { kind: 'briefs' }>, record: Ordered): RuleOutcome {
  const all = recently(rule, record, record.briefs ?? []);
  const good = all.filter((b) => b.acknowledged);
  const short = rule.needed - good.length;
  return {
    met: short <= 0,
    seen: all.length > 0,
    progress: Math.min(1, good.length / Math.max(1, rule.needed)),
    have: `${plural(good.length, 'brief')} acknowledged by the pilot`,
    missing: short > 0 ? [`${plural(short, 'more brief')} acknowledged by the pilot${lately(rule.withinDays)}`] : [],
    evidence: good.map((b) => b.id),
  };
}

function gearEvidence(rule: Extract<EvidenceRule, { kind: 'gear-checks' }>, record: Ordered): RuleOutcome {
  const all = (record.gearChecks ?? []).filter((g) => !rule.surface || g.check.surface === rule.surface);
  // A landing past the check of the wheels takes back the checks before it: they are shown again.
  const past = record.landings
    .filter(
      (l) => l.stops?.some((s) => s.code === 'wheels') && (!rule.surface || (l.surface ?? 'land') === rule.surface),
    )
    .map((l) => ({ date: l.date, at: l.at ?? '' }));
  const after = (g: { date: string; at?: string }) =>
    past.every((p) => g.date > p.date || (g.date === p.date && (g.at ?? '') > p.at));
  const good = all.filter((g) => g.check.decision === 'agree' && g.check.onFinal && after(g));
  const short = rule.needed - good.length;
  const what = `agreed on final${onSurface(rule.surface)}`;
  return {
    met: short <= 0,
    seen: all.length > 0,
    progress: Math.min(1, good.length / Math.max(1, rule.needed)),
    have: `${plural(good.length, 'check')} of wheels against surface ${what}`,
    missing:
      short > 0
        ? [
            `${plural(short, 'more check')} ${what}${past.length > 0 ? `, after the ${plural(past.length, 'landing')} without` : ''}`,
          ]
        : [],
    evidence: good.map((g) => g.id),
  };
}

/** What a rule asks, in words and counts. */
export function asksOf(rule: EvidenceRule): string {
  const recent = lately('withinDays' in rule ? rule.withinDays : null);
  switch (rule.kind) {
    case 'run':
      return `${rule.needed} ${rule.attitude ? `${say(rule.attitude)} ` : ''}landings of the pilot\u2019s own in a row${onSurface(rule.surface)}, over ${plural(rule.minSorties, 'flight')} and ${plural(rule.minDays, 'day')}, one the first of a flight${rule.windKt === null ? '' : `, one in ${rule.windKt} kt or more across`}${rule.accuracy ? ', all on target' : ''}${recent}`;
    case 'count':
      return `${plural(rule.needed, `${rule.attitude ? `${say(rule.attitude)} ` : ''}${rule.fullStop ? 'full-stop ' : ''}landing`)}${rule.prompted ? ' without help on the controls' : ' of the pilot\u2019s own'}${rule.accuracy ? ', on target' : ''}${onSurface(rule.surface)}${rule.minCrosswindKt === null ? '' : `, in ${rule.minCrosswindKt} kt or more across`}${recent}`;
    case 'go-arounds':
      return `${plural(rule.sound, 'go-around')} decided by the pilot in time, ${rule.good} flown well${(rule.from ?? []).length > 0 ? `, from the ${list(rule.from.map(say))}` : ''}${recent}`;
    case 'observed':
      return `seen ${times(rule.needed)} within the standard, ${rule.maxIntervention === 0 ? 'without help' : 'with a word at most'}${(rule.minDays ?? 1) > 1 ? `, on ${rule.minDays} days` : ''}${(rule.variants ?? []).length > 0 ? `: ${list((rule.variants ?? []).map(variantWord))}` : ''}${recent}`;
    case 'hours':
      return `${fixed(rule.needed, Number.isInteger(rule.needed) ? 0 : 1)} h of ${rule.from === 'flights' ? 'dual flight' : 'it'}${recent}`;
    case 'briefs':
      return `${plural(rule.needed, 'brief')} acknowledged by the pilot${recent}`;
    case 'gear-checks':
      return `${plural(rule.needed, 'check')} of wheels against surface agreed on final${onSurface(rule.surface)}`;
  }
}

/** One record an item looks at: does it support the item, and what is it in a few words. */
export interface ItemRecord {
  id: string;
  lesson: number;
  kind: 'landing' | 'seen' | 'time' | 'brief' | 'gear-check';
  number: number | null;
  supports: boolean;
  words: string;
}
/** Every record of an item's kind, in order, those that support it marked: what stands behind a cell of the matrix. */
export function recordsOf(
  entry: Pick<ItemEvidence, 'item' | 'evidence'> & Partial<Pick<ItemEvidence, 'leftOut' | 'asserted'>>,
  given: EvidenceRecord,
): ItemRecord[] {
  const record = inOrder(given);
  const { id: itemId, evidence: rule } = entry.item;
  const used = new Set(entry.evidence);
  /** Why it is left out, or what of it only was asserted. */
  const beside = (id: string, what: 'left out' | 'not judged' = 'left out'): string => {
    const out = entry.leftOut?.find((l) => l.id === id);
    return out ? `, ${what}: ${out.why}` : entry.asserted?.includes(id) ? ', resting in part on the clean tap' : '';
  };
  const landing = (l: RecordedLanding): ItemRecord => ({
    id: l.id,
    lesson: l.lesson,
    kind: 'landing',
    number: l.number,
    supports: used.has(l.id),
    words: `${l.judged.goAround ? `go-around: ${say(l.judged.goAround.decision)}, flown ${say(l.judged.goAround.execution)}` : `${l.intended ? `${say(l.intended)}, ` : ''}${say(l.kind)}: ${say(l.judged.landingClass)}`}${l.crosswindKt === null ? '' : `, ${fixed(Math.abs(l.crosswindKt))} kt across`}${beside(l.id)}`,
  });
  const seen = (o: Observation): ItemRecord => ({
    id: o.id,
    lesson: o.lesson,
    kind: typeof o.data.minutes === 'number' ? 'time' : 'seen',
    number: null,
    supports: used.has(o.id),
    words: [
      variantOf(o.data) ? `${variantWord(variantOf(o.data) ?? '')}: ` : '',
      say(o.data.verdict),
      o.data.intervention === 0 ? '' : o.data.intervention === 1 ? ', with a word' : ', with help',
      typeof o.data.minutes === 'number' ? `, ${hours(o.data.minutes)}` : '',
      o.data.note ? `: ${o.data.note}` : '',
      beside(o.id, 'not judged'),
    ].join(''),
  });
  switch (rule.kind) {
    case 'run':
    case 'count':
      return looked(rule, record)
        .filter(
          (l) =>
            l.kind !== 'go-around' &&
            l.group === record.group &&
            (rule.attitude === null || meant(l.intended) === rule.attitude),
        )
        .map(landing);
    case 'go-arounds':
      return looked(rule, record)
        .filter((l) => l.judged.goAround !== null)
        .map(landing);
    case 'observed':
      return record.observations.filter((o) => o.data.itemId === itemId).map(seen);
    case 'hours':
      return [
        ...(rule.from === 'flights'
          ? (record.flights ?? [])
              .filter((f) => f.minutes !== null)
              .map((f): ItemRecord => ({
                id: f.id,
                lesson: f.lesson,
                kind: 'time',
                number: null,
                supports: used.has(f.id),
                words: `${hours(f.minutes ?? 0)} by the clock`,
              }))
          : []),
        ...record.observations.filter((o) => o.data.itemId === itemId).map(seen),
      ];
    case 'briefs':
      return (record.briefs ?? []).map((b) => ({
        id: b.id,
        lesson: b.lesson,
        kind: 'brief',
        number: null,
        supports: used.has(b.id),
        words: b.acknowledged ? 'acknowledged by the pilot' : 'not acknowledged',
      }));
    case 'gear-checks':
      return (record.gearChecks ?? [])
        .filter((g) => !rule.surface || g.check.surface === rule.surface)
        .map((g) => ({
          id: g.id,
          lesson: g.lesson,
          kind: 'gear-check',
          number: null,
          supports: used.has(g.id),
          words: `${g.check.decision === 'agree' ? 'agreed' : 'stopped'}${g.check.onFinal ? ' on final' : ''}`,
        }));
  }
}
