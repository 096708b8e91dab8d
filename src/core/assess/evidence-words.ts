/**
 * The catalogue of evidence: what a rule asks, what there is, what is missing, what is left out and why. The codes are
 * the keys; nothing but a screen, a paper or a signed text reads the sentences.
 */
import { type Coded, sentence } from '@/domain/coded';
import type { EvidenceRule } from '@/domain/programme';
import type { GoAroundExecution, GoAroundDecision, LandingClass } from '@/domain/assess-words';
import { LAB_TITLES, type LabPage } from '@/domain/lab-pages';
import { say } from '@/domain/words';
import { dateText, fixed, list, plural } from '../format';
import { unseenName } from './airwork-words';

type Surface = 'land' | 'water' | null | undefined;
/** Landings as a rule names them. */
interface LandingsAsked {
  attitude: string | null;
  fullStop: boolean;
  prompted: boolean;
  accuracy: boolean;
  surface: Surface;
  windKt: number | null;
  withinDays: number | null | undefined;
}
interface Recent {
  withinDays: number | null | undefined;
}

const onSurface = (surface: Surface): string => (surface ? ` on ${surface}` : '');
const lately = (days: number | null | undefined): string => (days ? `, within ${days} days` : '');
const times = (n: number): string => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);
const inWind = (kt: number | null): string => (kt === null ? '' : `, crosswind ${kt} kt or more`);
/** The help a rule allows. */
const helped = (maxIntervention: number): string => (maxIntervention === 0 ? 'unassisted' : 'prompted at most');
/** `2 h 05` of minutes. */
const hours = (minutes: number): string =>
  `${Math.floor(minutes / 60)} h ${String(Math.round(minutes % 60)).padStart(2, '0')}`;
/** A variant in words; a stall *landing* is one in that configuration, not the phase of flight. */
const variantWord = (v: string): string => (v === 'landing' ? 'landing configuration' : say(v));
/** `unassisted three-point full-stop landing`. */
const landingWords = (l: Pick<LandingsAsked, 'attitude' | 'fullStop' | 'prompted'>): string =>
  `${l.prompted ? 'unassisted or prompted' : 'unassisted'} ` +
  `${l.attitude ? `${say(l.attitude)} ` : ''}${l.fullStop ? 'full-stop ' : ''}landing`;
const landingsWords = (n: number, l: LandingsAsked, more = ''): string =>
  `${plural(n, `${more}${landingWords(l)}`)}${onSurface(l.surface)}${l.accuracy ? ', on target' : ''}${inWind(l.windKt)}${lately(l.withinDays)}`;
const pagesWords = (pages: readonly LabPage[]): string => list(pages.map((p) => LAB_TITLES[p]));
const withPages = (pages: readonly LabPage[]): string =>
  pages.length === 0 ? '' : `, with ${pagesWords(pages)} from the lab`;
const dualWord = (of: 'flights' | 'item'): string => (of === 'flights' ? 'dual flight' : 'it');

/** Why a record that would help is left out. */
export const LEFT_OUT_WORDS = {
  /** Criteria of the item nobody saw in a landing. */
  criteria: ({ ids }: { ids: readonly string[] }) => `${ids.map(say).join(', ')} not seen`,
  /** Parts of an airwork item nobody looked at. */
  details: ({ ids }: { ids: readonly string[] }) => `${ids.map(unseenName).join(', ')} not seen`,
  'clean-tap': () => 'based on the clean tap',
};
export type LeftOut = Coded<typeof LEFT_OUT_WORDS>;
export const leftOutWords = (why: LeftOut): string => sentence(LEFT_OUT_WORDS, why);

/** What was wrong with a go-around that keeps a run open. */
export const GO_AROUND_FAULTS = {
  told: 'told to go for safety',
  assisted: 'flown with help',
  outside: 'outside the standard',
} as const;
export type GoAroundFault = keyof typeof GO_AROUND_FAULTS;

export const MISSING_WORDS = {
  'first-items': ({ ids }: { ids: readonly string[] }) => `needs ${list(ids)} first`,
  'further-training': ({ on, by }: { on: string; by: string }) =>
    `further training was entered on ${dateText(on)} by ${by}: to be shown again`,
  'carried-lapsed': ({ on, lapsesOn }: { on: string; lapsesOn: string }) =>
    `what was shown in another checkout on ${dateText(on)} lapsed on ${dateText(lapsesOn)}`,
  'part-lapsed': ({ on, lapsesOn }: { on: string; lapsesOn: string }) =>
    `the part sign-off of ${dateText(on)} lapsed on ${dateText(lapsesOn)}`,
  'past-a-stop': ({ count }: { count: number }) =>
    `${count} flown past a stop ${count === 1 ? 'does' : 'do'} not count`,
  /** Good records that do not count, with up to two of the reasons. */
  'left-out': ({ whys, judged }: { whys: readonly LeftOut[]; judged: boolean }) => {
    const why = [...new Set(whys.map(leftOutWords))];
    return `${whys.length} ${judged ? 'left out' : 'not judged'}: ${why.length > 2 ? `${why.slice(0, 2).join('; ')}; and more` : why.join('; ')}`;
  },
  'see-more': ({ count, share }: { count: number; share: number }) =>
    `${plural(count, 'more')} with drift, crab, swing and bounce seen: ` +
    `${share === 0 ? 'none' : `at most ${fixed(share * 100)} in 100`} may be based on the clean tap`,
  'clean-tap-spare': ({ count }: { count: number }) =>
    `${count} more are based on the clean tap: with drift, crab, swing and bounce seen they count`,
  'more-in-a-row': ({
    count,
    attitude,
    surface,
    withinDays,
  }: Pick<LandingsAsked, 'attitude' | 'surface' | 'withinDays'> & { count: number }) =>
    `${plural(count, `more unassisted ${attitude ? `${say(attitude)} ` : ''}landing`)} in a row${onSurface(surface)}${lately(withinDays)}`,
  'more-flights': ({ atLeast }: { atLeast: number }) => `spread over at least ${atLeast} flights`,
  'more-days': ({ atLeast }: { atLeast: number }) => `on at least ${atLeast} days`,
  'first-of-flight': () => 'one of them the first landing of a flight',
  'one-in-wind': ({ atLeastKt }: { atLeastKt: number }) => `one of them in a crosswind of ${atLeastKt} kt or more`,
  'go-around': ({ lesson, number, fault }: { lesson: number; number: number; fault: GoAroundFault }) =>
    `a go-around decided in time and flown well, after lesson ${lesson}, number ${number} (${GO_AROUND_FAULTS[fault]})`,
  'more-landings': ({ count, asked }: { count: number; asked: LandingsAsked }) => landingsWords(count, asked, 'more '),
  'more-decided': ({ count, withinDays }: Recent & { count: number }) =>
    `${count} more decided by the pilot, before or at the trigger${lately(withinDays)}`,
  'more-flown-well': ({ count, withinDays }: Recent & { count: number }) =>
    `${count} more flown well, unassisted${lately(withinDays)}`,
  'go-arounds-from': ({ from }: { from: readonly string[] }) => `still to fly: from the ${list(from.map(say))}`,
  'not-seen': () => 'not seen yet',
  'more-times': ({ count, maxIntervention, withinDays }: Recent & { count: number; maxIntervention: number }) =>
    `${plural(count, 'more time', 'more times')} within the standard, ${helped(maxIntervention)}${lately(withinDays)}`,
  variants: ({ variants }: { variants: readonly string[] }) => `still to see: ${list(variants.map(variantWord))}`,
  'last-outside': () => 'outside the standard the last time: to be seen again',
  'more-hours': ({ minutes, of, withinDays }: Recent & { minutes: number; of: 'flights' | 'item' }) =>
    `${hours(minutes)} more of ${dualWord(of)}${lately(withinDays)}`,
  'more-briefs': ({ count, withinDays }: Recent & { count: number }) =>
    `${plural(count, 'more brief')} acknowledged by the pilot${lately(withinDays)}`,
  'lab-pages': ({ pages, withinDays }: Recent & { pages: readonly LabPage[] }) =>
    `in a brief acknowledged by the pilot, from the lab: ${pagesWords(pages)}${lately(withinDays)}`,
  'more-gear-checks': ({ count, surface, after }: { count: number; surface: Surface; after: number }) =>
    `${plural(count, 'more check')} agreed on ` +
    `final${onSurface(surface)}${after > 0 ? `, after the ${plural(after, 'landing')} without` : ''}`,
};
export type Missing = Coded<typeof MISSING_WORDS>;
export const missingWords = (m: Missing): string => sentence(MISSING_WORDS, m);
/** What is missing in one line; empty where nothing is. */
export const missingLine = (all: readonly Missing[]): string => all.map(missingWords).join('; ');

const assertedWords = (asserted: number, n: number): string =>
  asserted === 0 ? '' : `, ${asserted} of ${n} based on the clean tap`;

const landingOf = (attitude: string | null): string => `${attitude ? `${say(attitude)} ` : ''}landing`;

export const HAVE_WORDS = {
  nothing: () => 'nothing recorded',
  'nothing-recent': ({ withinDays }: Recent) => (withinDays ? `nothing within ${withinDays} days` : 'nothing'),
  waived: () => 'waived with reason',
  carried: ({ from, by, on, lapsesOn }: { from: string; by: string; on: string; lapsesOn: string }) =>
    `shown in ${from} with ${by}, last on ${dateText(on)}; carried until ${dateText(lapsesOn)}`,
  part: ({ by, on, lapsesOn }: { by: string; on: string; lapsesOn: string }) =>
    `part sign-off by ${by} on ${dateText(on)}, valid until ${dateText(lapsesOn)}`,
  'credited-held': ({ kind, text }: { kind: string; text: string }) => `credited: holds ${say(kind)}. ${text}`,
  'credited-hours': ({ hours: h, needed, text }: { hours: number; needed: number; text: string }) =>
    `credited: ${fixed(h)} h in this gear and mass, ${fixed(needed)} h required. ${text}`,
  run: ({ count, attitude, asserted }: { count: number; attitude: string | null; asserted: number }) =>
    count === 0
      ? `no unassisted ${landingOf(attitude)} at the end of the record`
      : `the last ${count === 1 ? landingOf(attitude) : plural(count, landingOf(attitude))} unassisted${assertedWords(asserted, count)}`,
  landings: ({ count, asked, asserted }: { count: number; asked: LandingsAsked; asserted: number }) =>
    `${landingsWords(count, asked)}${assertedWords(asserted, count)}`,
  'go-arounds': ({ sound, good }: { sound: number; good: number }) =>
    `${plural(sound, 'sound decision')}, ${good} flown well`,
  seen: ({ count, within }: { count: number; within: number }) =>
    `seen ${times(count)}, ${within === count ? 'within' : `${within} within`}`,
  hours: ({ minutes, of }: { minutes: number; of: 'flights' | 'item' }) => `${hours(minutes)} of ${dualWord(of)}`,
  briefs: ({ count, pages }: { count: number; pages: readonly LabPage[] }) =>
    `${plural(count, 'brief')} acknowledged by the pilot${withPages(pages)}`,
  'gear-checks': ({ count, surface }: { count: number; surface: Surface }) =>
    `${plural(count, 'check')} of wheels against surface agreed on final${onSurface(surface)}`,
};
export type Have = Coded<typeof HAVE_WORDS>;
export const haveWords = (h: Have): string => sentence(HAVE_WORDS, h);

/** The landings a rule counts, as its sentences name them. */
export const landingsAsked = (rule: Extract<EvidenceRule, { kind: 'count' }>): LandingsAsked => ({
  attitude: rule.attitude,
  fullStop: rule.fullStop,
  prompted: rule.prompted,
  accuracy: rule.accuracy,
  surface: rule.surface,
  windKt: rule.minCrosswindKt,
  withinDays: rule.withinDays,
});

/**
 * What a rule asks, in words and counts.
 * @example asksWords({ kind: 'briefs', needed: 1, pages: [], withinDays: null }) // '1 brief acknowledged by the pilot'
 */
export function asksWords(rule: EvidenceRule): string {
  const recent = lately('withinDays' in rule ? rule.withinDays : null);
  switch (rule.kind) {
    case 'run':
      return `${rule.needed} unassisted ${rule.attitude ? `${say(rule.attitude)} ` : ''}landings in a row${onSurface(rule.surface)}, over ${plural(rule.minSorties, 'flight')} and ${plural(rule.minDays, 'day')}, one the first of a flight${rule.windKt === null ? '' : `, one in a crosswind of ${rule.windKt} kt or more`}${rule.accuracy ? ', all on target' : ''}${recent}`;
    case 'count':
      return landingsWords(rule.needed, landingsAsked(rule));
    case 'go-arounds':
      return `${plural(rule.sound, 'go-around')} decided by the pilot in time, ${rule.good} flown well${(rule.from ?? []).length > 0 ? `, from the ${list(rule.from.map(say))}` : ''}${recent}`;
    case 'observed':
      return `seen ${times(rule.needed)} within the standard, ${helped(rule.maxIntervention)}${(rule.minDays ?? 1) > 1 ? `, on ${rule.minDays} days` : ''}${(rule.variants ?? []).length > 0 ? `: ${list((rule.variants ?? []).map(variantWord))}` : ''}${recent}`;
    case 'hours':
      return `${fixed(rule.needed, Number.isInteger(rule.needed) ? 0 : 1)} h of ${dualWord(rule.from)}${recent}`;
    case 'briefs':
      return `${plural(rule.needed, 'brief')} acknowledged by the pilot${withPages(rule.pages ?? [])}${recent}`;
    case 'gear-checks':
      return `${plural(rule.needed, 'check')} of wheels against surface agreed on final${onSurface(rule.surface)}`;
  }
}

/** An item's evidence as it is signed and printed. */
export const itemEvidenceWords = (i: {
  asks: EvidenceRule;
  have: Have;
  missing: readonly Missing[];
  credited: Have | null;
}): { asks: string; have: string; missing: string[]; credited: string | null } => ({
  asks: asksWords(i.asks),
  have: haveWords(i.have),
  missing: i.missing.map(missingWords),
  credited: i.credited ? haveWords(i.credited) : null,
});

/** How a record counts beside an item. */
type Beside = { why: LeftOut; judged: boolean } | 'clean-tap' | null;
const besideWords = (b: Beside): string =>
  b === null
    ? ''
    : b === 'clean-tap'
      ? ', based in part on the clean tap'
      : `, ${b.judged ? 'left out' : 'not judged'}: ${leftOutWords(b.why)}`;
const windWords = (kt: number | null): string => (kt === null ? '' : `, crosswind ${fixed(Math.abs(kt))} kt`);

export const ITEM_RECORD_WORDS = {
  landing: (l: {
    intended: string | null;
    kind: string;
    landingClass: LandingClass | 'go-around' | 'low-pass';
    crosswindKt: number | null;
    beside: Beside;
  }) =>
    `${l.intended ? `${say(l.intended)}, ` : ''}${say(l.kind)}: ${say(l.landingClass)}${windWords(l.crosswindKt)}${besideWords(l.beside)}`,
  'go-around': (l: {
    decision: GoAroundDecision;
    execution: GoAroundExecution;
    crosswindKt: number | null;
    beside: Beside;
  }) => `go-around: ${say(l.decision)}, flown ${say(l.execution)}${windWords(l.crosswindKt)}${besideWords(l.beside)}`,
  seen: (o: {
    variant: string | null;
    verdict: string;
    intervention: number;
    minutes: number | null;
    note: string;
    beside: Beside;
  }) =>
    [
      o.variant ? `${variantWord(o.variant)}: ` : '',
      say(o.verdict),
      o.intervention === 0 ? '' : o.intervention === 1 ? ', prompted' : ', assisted',
      o.minutes === null ? '' : `, ${hours(o.minutes)}`,
      o.note ? `: ${o.note}` : '',
      besideWords(o.beside),
    ].join(''),
  clock: ({ minutes }: { minutes: number }) => `${hours(minutes)} by the clock`,
  brief: ({ acknowledged }: { acknowledged: boolean }) =>
    acknowledged ? 'acknowledged by the pilot' : 'not acknowledged',
  'gear-check': ({ agreed, onFinal }: { agreed: boolean; onFinal: boolean }) =>
    `${agreed ? 'agreed' : 'stopped'}${onFinal ? ' on final' : ''}`,
};
export type ItemRecordSaid = Coded<typeof ITEM_RECORD_WORDS>;
export const itemRecordWords = (said: ItemRecordSaid): string => sentence(ITEM_RECORD_WORDS, said);
