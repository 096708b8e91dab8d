/**
 * Evidence of a programme: for each item whether it is met, nearly, not, waived or credited, what is missing in words
 * and counts, and exactly which records it rests on. Pure: the same records in any order give the same answer. Method:
 * the programme's own rules, as data.
 */
import type { Subject } from '@/domain/assess-words';
import type { LabPage } from '@/domain/lab-pages';
import type { EvidenceRule, Programme, ProgrammeItem } from '@/domain/programme';
import type { GearChecked, ItemObserved } from '@/domain/capture';
import type { LandingKind } from '@/domain/words';
import type { Stop } from '@/domain/stops';
import { coder } from '@/domain/coded';
import { meant } from '@/domain/words';
import { SLACK } from '../constants';
import { addDays } from '../recency/dates';
import type { JudgedLanding } from './captured';
import {
  type GoAroundFault,
  HAVE_WORDS,
  type Have,
  type ItemRecordSaid,
  type LeftOut,
  MISSING_WORDS,
  type Missing,
  landingsAsked,
} from './evidence-words';
import { assertedIn, assertedShare, subjectsOf, unseenFor } from './seen';
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
  /** What of it was not looked at and would have to be before it is judged; absent = nothing. */
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
  /** Shown in another checkout that was open, in this aeroplane; absent = signed in part in this one. */
  from?: string;
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
  briefs?: readonly {
    id: string;
    lesson: number;
    date: string;
    acknowledged: boolean;
    /** Pages of the lab it carries. */
    pages?: readonly LabPage[];
  }[];
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
  /** Required observations, by what an item is about; absent = the product's. */
  seen?: Readonly<Partial<Record<Subject, readonly string[]>>>;
  /** Share of an item's landings that may be based on the clean tap, 0 to 1; absent = half. */
  assertedShare?: number;
  /** Since when it is flown in this airframe, an instant; absent = from the start. */
  airframeSince?: string;
  /** Days after which evidence of what fades has lapsed; absent = 90. */
  fadesDays?: number;
  /** Further training asked for in the ledger: the items, when, and by whom; the newest of an item stands. */
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
  credited: Have | null;
  part: PartSignOff | null;
  /** Something of it has been seen, whatever came of it. */
  seen: boolean;
  /** It was outside the standard the last time it was shown. */
  lastOutside: boolean;
  /** The rule it is weighed by, with the school's figure for what fades. */
  asks: EvidenceRule;
  /** Share of the way, 0 to 1, for the wheel; never shown as a probability. */
  progress: number;
  have: Have;
  missing: Missing[];
  /** Ids of the landings, observations, flights, briefs, checks or entries that support it. */
  evidence: string[];
  /** Good landings and items that it leaves out, each with why. */
  leftOut: { id: string; why: LeftOut }[];
  /** Of the landings that support it, those that rest in part on the clean tap. */
  asserted: string[];
  /** Further training was entered for it and it has not been flown again since. */
  refused: { on: string; by: string; entryId: string } | null;
}

// Marked pure, so that a page that only judges does not carry the sentences of evidence.
const missing = /* @__PURE__ */ coder(MISSING_WORDS);
const have = /* @__PURE__ */ coder(HAVE_WORDS);

/** From this share of the way on an item is *nearly*. */
const NEARLY = 0.5;

/**
 * Evidence of every item of a programme; prerequisites not met are named as missing.
 * Source: the evidence rule of each item of the programme.
 * @returns one entry an item: met, what counts for it, and what is missing, by code
 */
export function assessProgramme(programme: Programme, given: EvidenceRecord): ItemEvidence[] {
  const record = inOrder(given);
  const items = programme.items.map((item) => assessItem(item, record));
  const metIds = new Set(items.filter((i) => i.met).map((i) => i.item.id));
  return items.map((entry) => {
    const open = entry.item.prerequisites.filter((id) => !metIds.has(id));
    return open.length === 0 || entry.met
      ? entry
      : { ...entry, missing: [...entry.missing, missing('first-items', { ids: open })] };
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
    asks: rule,
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
      missing: [...found.missing, missing('further-training', { on: refused.on, by: refused.by })],
    };
  const waiver = item.waivable === null ? undefined : record.waivers.find((w) => w.itemId === item.id);
  if (waiver)
    return { ...base, ...settled, state: 'waived', waived: waiver.reason, have: have('waived'), evidence: [] };
  if (found.met) return { ...base, ...found, state: 'met' };
  const part = record.parts?.find((p) => p.itemId === item.id) ?? null;
  if (part && part.lapsesOn >= record.day)
    return {
      ...base,
      ...settled,
      state: 'met',
      part,
      seen: true,
      have: part.from
        ? have('carried', { from: part.from, by: part.by, on: part.on, lapsesOn: part.lapsesOn })
        : have('part', { by: part.by, on: part.on, lapsesOn: part.lapsesOn }),
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
      ...(part
        ? [missing(part.from ? 'carried-lapsed' : 'part-lapsed', { on: part.on, lapsesOn: part.lapsesOn })]
        : []),
    ],
  };
}

function creditOf({ credit }: ProgrammeItem, x: Experience | null): Have | null {
  if (!credit || !x) return null;
  const { text, groupHours: needed } = credit;
  const held = credit.holds.find((h) => x.held.includes(h));
  if (held) return have('credited-held', { kind: held, text });
  if (needed !== null && x.groupHours >= needed) return have('credited-hours', { hours: x.groupHours, needed, text });
  return null;
}

interface RuleOutcome {
  met: boolean;
  seen: boolean;
  lastOutside?: boolean;
  progress: number;
  have: Have;
  missing: Missing[];
  evidence: string[];
  leftOut?: ItemEvidence['leftOut'];
  asserted?: string[];
}

/** Forms of emergencies and stalls, which fade. */
const FADING: ReadonlySet<string> = new Set(['stall', 'asymmetric', 'emergency-descent', 'surprise']);
/**
 * Does evidence of an item lapse when a checkout sleeps for months? By its own word, else emergencies, stalls and briefs do.
 * @returns true where it lapses
 */
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
/** How many of what a safety item looks at were flown past a stop. */
function pastStops(item: ProgrammeItem, record: Ordered): number {
  const rule = item.evidence;
  return rule.kind === 'observed'
    ? record.observations.filter((o) => o.data.itemId === item.id && (o.stops?.length ?? 0) > 0).length
    : rule.kind === 'run' || rule.kind === 'count' || rule.kind === 'go-arounds'
      ? looked(rule, record).filter((l) => (l.stops?.length ?? 0) > 0).length
      : 0;
}

function assessRule(item: ProgrammeItem, rule: EvidenceRule, given: Ordered): RuleOutcome {
  const record = item.safety ? withoutStops(given) : given;
  const found = judgeRule(item, rule, record);
  const count = item.safety && !found.met ? pastStops(item, given) : 0;
  return count === 0 ? found : { ...found, missing: [...found.missing, missing('past-a-stop', { count })] };
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
      return observedEvidence(item.id, rule, item.perAirframe ? sinceSwap(record) : record);
    case 'hours':
      return hoursEvidence(item.id, rule, record);
    case 'briefs':
      return briefEvidence(rule, record);
    case 'gear-checks':
      return gearEvidence(rule, record);
  }
}

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
    if (unseen.length > 0) leftOut.push({ id: l.id, why: { code: 'criteria', params: { ids: unseen } } });
    return unseen.length === 0;
  });
  return { kept, leftOut };
}
/** What is missing of what is left out; nothing where nothing is. */
const missingLeftOut = (leftOut: ItemEvidence['leftOut'], judged = true): Missing[] =>
  leftOut.length === 0 ? [] : [missing('left-out', { whys: leftOut.map((l) => l.why), judged })];

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
  const ofRun: Record<RunCondition, () => Missing> = {
    count: () =>
      missing('more-in-a-row', {
        count: run.stillNeeded,
        attitude: rule.attitude,
        surface: rule.surface,
        withinDays: rule.withinDays,
      }),
    sorties: () => missing('more-flights', { atLeast: rule.minSorties }),
    days: () => missing('more-days', { atLeast: rule.minDays }),
    'first-landing': () => missing('first-of-flight'),
    wind: () => missing('one-in-wind', { atLeastKt: rule.windKt ?? 0 }),
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
  const short = [
    ...run.missing.map((c) => ofRun[c]()),
    ...(seeMore > 0 ? [missing('see-more', { count: seeMore, share })] : []),
    ...(unanswered
      ? [
          missing('go-around', {
            lesson: unanswered.lesson,
            number: unanswered.number,
            fault: goAroundFault(unanswered),
          }),
        ]
      : []),
  ];
  return {
    met: short.length === 0,
    seen: all.some(
      (l) =>
        l.group === record.group &&
        l.kind !== 'go-around' &&
        l.judged.landingClass !== 'demonstration' &&
        (rule.attitude === null || meant(l.intended) === rule.attitude),
    ),
    progress:
      short.length === 0 ? 1 : Math.min(0.95, run.currentRun / Math.max(1, rule.needed)) * (short.length > 1 ? 0.9 : 1),
    have: have('run', { count: members.length, attitude: rule.attitude, asserted: resting.length }),
    missing: short.length > 0 ? [...short, ...missingLeftOut(leftOut)] : [],
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
const goAroundFault = ({ judged: { goAround: g } }: RecordedLanding): GoAroundFault =>
  g?.decision === 'told' ? 'told' : g?.execution === 'assisted' ? 'assisted' : 'outside';
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
  const short = rule.needed - counts.length;
  const asserted = counts.filter((l) => resting.includes(l)).map((l) => l.id);
  const asked = landingsAsked(rule);
  return {
    met: short <= 0,
    seen: tried.length > 0,
    progress: Math.min(1, counts.length / Math.max(1, rule.needed)),
    have: have('landings', { count: counts.length, asked, asserted: asserted.length }),
    missing:
      short <= 0
        ? []
        : [
            missing('more-landings', { count: short, asked }),
            ...(spare.size > 0 ? [missing('clean-tap-spare', { count: spare.size })] : []),
            ...missingLeftOut(leftOut),
          ],
    evidence: counts.map((l) => l.id),
    leftOut: [...leftOut, ...[...spare].map((l) => ({ id: l.id, why: { code: 'clean-tap' as const } }))],
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
  const { withinDays } = rule;
  const short: Missing[] = [];
  if (sound.length < rule.sound) short.push(missing('more-decided', { count: rule.sound - sound.length, withinDays }));
  if (good.length < rule.good) short.push(missing('more-flown-well', { count: rule.good - good.length, withinDays }));
  if (still.length > 0 && flown.length > 0) short.push(missing('go-arounds-from', { from: still }));
  return {
    met: short.length === 0 && still.length === 0,
    seen: flown.length > 0,
    progress:
      short.length === 0
        ? 1
        : Math.min(
            0.95,
            (Math.min(1, sound.length / Math.max(1, rule.sound)) + Math.min(1, good.length / Math.max(1, rule.good))) /
              2,
          ),
    have: have('go-arounds', { sound: sound.length, good: good.length }),
    missing: short,
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

/** What was seen before the checkout went on in another airframe speaks of that one. */
function sinceSwap(record: Ordered): Ordered {
  const { airframeSince } = record;
  return airframeSince === undefined
    ? record
    : { ...record, observations: record.observations.filter((o) => (o.at ?? o.date) >= airframeSince) };
}

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
    .map((o) => ({ id: o.id, why: { code: 'details' as const, params: { ids: o.unseen ?? [] } } }));
  const latest = seen[seen.length - 1];
  const latestBad = latest !== undefined && latest.data.verdict === 'outside';
  const short = rule.needed - good.length;
  const days = new Set(good.map((o) => o.date)).size;
  const unseen = (rule.variants ?? []).filter((v) => !good.some((o) => variantOf(o.data) === v));
  const { withinDays, maxIntervention } = rule;
  const open: Missing[] = [];
  if (short > 0)
    open.push(
      all.length === 0 ? missing('not-seen') : missing('more-times', { count: short, maxIntervention, withinDays }),
    );
  if (days < (rule.minDays ?? 1) && good.length > 0) open.push(missing('more-days', { atLeast: rule.minDays ?? 1 }));
  if (unseen.length > 0 && all.length > 0) open.push(missing('variants', { variants: unseen }));
  if (latestBad) open.push(missing('last-outside'));
  if (open.length > 0) open.push(...missingLeftOut(leftOut, false));
  const parts = rule.needed + (rule.variants ?? []).length;
  const done = Math.min(good.length, rule.needed) + (rule.variants ?? []).length - unseen.length;
  return {
    met: open.length === 0 && short <= 0 && unseen.length === 0,
    seen: all.length > 0,
    progress: open.length === 0 ? 1 : Math.min(0.9, Math.max(0, done / Math.max(1, parts))),
    have:
      seen.length > 0
        ? have('seen', { count: seen.length, within: good.length })
        : all.length === 0
          ? have('nothing')
          : have('nothing-recent', { withinDays }),
    missing: open,
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
  const minutes = all.reduce((a, x) => a + x.minutes, 0);
  const needed = Math.round(rule.needed * 60);
  const { from: of, withinDays } = rule;
  return {
    met: minutes >= needed,
    seen: all.length > 0,
    progress: needed === 0 ? 1 : Math.min(1, minutes / needed),
    have: have('hours', { minutes, of }),
    missing: minutes >= needed ? [] : [missing('more-hours', { minutes: needed - minutes, of, withinDays })],
    evidence: all.map((x) => x.id),
  };
}

type Brief = NonNullable<EvidenceRecord['briefs']>[number];
function briefEvidence(rule: Extract<EvidenceRule, { kind: 'briefs' }>, record: Ordered): RuleOutcome {
  const pages = rule.pages ?? [];
  const carries = (b: Brief): boolean => pages.length === 0 || pages.some((p) => b.pages?.includes(p));
  const all = recently(rule, record, record.briefs ?? []).filter(carries);
  const good = all.filter((b) => b.acknowledged);
  const short = Math.max(0, rule.needed - good.length);
  const open = pages.filter((p) => !good.some((b) => b.pages?.includes(p)));
  const { withinDays } = rule;
  return {
    met: short === 0 && open.length === 0,
    seen: all.length > 0,
    progress: (rule.needed - short + pages.length - open.length) / Math.max(1, rule.needed + pages.length),
    have: have('briefs', { count: good.length, pages: pages.filter((p) => !open.includes(p)) }),
    missing: [
      ...(open.length > 0 ? [missing('lab-pages', { pages: open, withinDays })] : []),
      ...(short > 0 && open.length < short ? [missing('more-briefs', { count: short, withinDays })] : []),
    ],
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
  const { surface } = rule;
  return {
    met: short <= 0,
    seen: all.length > 0,
    progress: Math.min(1, good.length / Math.max(1, rule.needed)),
    have: have('gear-checks', { count: good.length, surface }),
    missing: short > 0 ? [missing('more-gear-checks', { count: short, surface, after: past.length })] : [],
    evidence: good.map((g) => g.id),
  };
}

/** One record an item looks at: does it support the item, and what is it. */
export interface ItemRecord {
  id: string;
  lesson: number;
  kind: 'landing' | 'seen' | 'time' | 'brief' | 'gear-check';
  number: number | null;
  supports: boolean;
  shown: ItemRecordSaid;
}
/**
 * Every record of an item's kind, in order, those that support it marked: what stands behind a cell of the matrix.
 * @returns records, oldest first
 */
export function recordsOf(
  entry: Pick<ItemEvidence, 'item' | 'evidence'> & Partial<Pick<ItemEvidence, 'leftOut' | 'asserted'>>,
  given: EvidenceRecord,
): ItemRecord[] {
  const record = inOrder(given);
  const { id: itemId, evidence: rule } = entry.item;
  const used = new Set(entry.evidence);
  /** Why it is left out, or what of it only was asserted. */
  const beside = (id: string, judged = true) => {
    const out = entry.leftOut?.find((l) => l.id === id);
    return out ? { why: out.why, judged } : entry.asserted?.includes(id) ? 'clean-tap' : null;
  };
  const landing = (l: RecordedLanding): ItemRecord => ({
    id: l.id,
    lesson: l.lesson,
    kind: 'landing',
    number: l.number,
    supports: used.has(l.id),
    shown: l.judged.goAround
      ? {
          code: 'go-around',
          params: {
            decision: l.judged.goAround.decision,
            execution: l.judged.goAround.execution,
            crosswindKt: l.crosswindKt,
            beside: beside(l.id),
          },
        }
      : {
          code: 'landing',
          params: {
            intended: l.intended,
            kind: l.kind,
            landingClass: l.judged.landingClass,
            crosswindKt: l.crosswindKt,
            beside: beside(l.id),
          },
        },
  });
  const seen = (o: Observation): ItemRecord => ({
    id: o.id,
    lesson: o.lesson,
    kind: typeof o.data.minutes === 'number' ? 'time' : 'seen',
    number: null,
    supports: used.has(o.id),
    shown: {
      code: 'seen',
      params: {
        variant: variantOf(o.data),
        verdict: o.data.verdict,
        intervention: o.data.intervention,
        minutes: o.data.minutes ?? null,
        note: o.data.note,
        beside: beside(o.id, false),
      },
    },
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
                shown: { code: 'clock', params: { minutes: f.minutes ?? 0 } },
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
        shown: { code: 'brief', params: { acknowledged: b.acknowledged } },
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
          shown: { code: 'gear-check', params: { agreed: g.check.decision === 'agree', onFinal: g.check.onFinal } },
        }));
  }
}
