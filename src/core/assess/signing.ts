import { say } from '@/domain/words';
import { dateText, list } from '../format';
import { daysBetween } from '../recency/dates';
import type { EvidenceRecord, ItemEvidence } from './evidence';

export interface OverrideWish {
  itemId: string;
  reason: string;
  /** A chief has said yes, or the house does not ask one. */
  approved: boolean;
}
export interface SigningFacts {
  authorised: boolean;
  ownCheckout: boolean;
  /** ISO date of the last sortie the signer flew with this pilot on this type; null = never. */
  lastFlownTogether: string | null;
  /** The aerodrome's own date. */
  onDate: string;
  withinDays: number;
  /** Lesson numbers whose brief the pilot has not acknowledged, of lessons with something recorded. */
  unacknowledgedLessons: readonly number[];
  /** Lessons flown on a brief acknowledged longer before than the house allows, with the days between. */
  oldBriefs: readonly { lesson: number; days: number }[];
  /** Last day of the signer's certificate or recent experience; null = not in the book of people. */
  certificateUntil: string | null;
  /** What this aeroplane demands and the signer does not hold. */
  signerLacks: readonly string[];
  /** Ratings the law asks of an instructor here that the signer does not hold. */
  ratings: readonly { text: string; citation: string; confirm: boolean }[];
  /** Hours in command in the make and model the law asks of an instructor; null = it asks none. */
  modelHours: { needed: number; have: number; citation: string; inCommand: boolean; within: 'model' | 'class' } | null;
  /** Of the house's rules to teach this type, those that do not hold today, with what restores them. */
  notRecent: readonly { title: string; restore: string; citation: string }[];
  /** Limits this pilot passed and nobody has released. */
  openLimits: readonly { traceId: string; what: string; flownOn: string }[];
  overrides: readonly OverrideWish[];
  /** What was flown past a stop, and whether somebody has said why. */
  stops: readonly { name: string; words: string; explained: boolean }[];
  /**
   * Demanded of the pilot before this goal, and not shown: what, and whether it is known to be short or only not shown.
   */
  prerequisites: readonly { text: string; met: boolean | null }[];
  /** A review is flown in a class the pilot holds: those missing, where a goal is one. */
  reviewWithout: readonly string[];
  /** What the aeroplane demands cannot be told from its sheet: what of it is not known, in words. */
  sheetOpen: readonly string[];
}
export type SigningTarget = 'brief' | 'fly' | 'debrief' | 'people' | 'trace' | 'override' | 'none';
export interface SigningProblem {
  code:
    | 'not-authorised'
    | 'own'
    | 'certificate'
    | 'lacks'
    | 'rating'
    | 'legal'
    | 'class'
    | 'sheet'
    | 'model-hours'
    | 'not-recent'
    | 'not-flown'
    | 'limit'
    | 'item'
    | 'not-seen'
    | 'refused'
    | 'override'
    | 'trigger'
    | 'stop'
    | 'acknowledge'
    | 'prerequisite';
  message: string;
  target: SigningTarget;
  itemId?: string;
  traceId?: string;
  /** An instructor may sign past it with a reason. */
  overridable: boolean;
}

/**
 * What stands between a checkout and its signature. Empty = it may be signed. What the law itself asks is never
 * overridden; of the rest only a missing item of which something has been seen, or one that is not a safety item. A trigger *met and continued* stays unresolved
 * until the pilot has flown a go-around decided in time after it. Source: the packs' duties of the signing instructor
 * (14 CFR 61.189, 61.195; Part-FCL FCL.710) and the house's signing rules.
 * @param items those to be signed: the whole programme, or the part
 */
export function signingProblems(
  items: readonly ItemEvidence[],
  record: EvidenceRecord,
  facts: SigningFacts,
): SigningProblem[] {
  const open = items.filter((i) => !i.met);
  const overridden = (id: string) => facts.overrides.find((o) => o.itemId === id && o.approved);
  return [
    ...signerProblems(facts),
    ...open.flatMap((entry): SigningProblem[] => {
      const { item, missing, seen } = entry;
      const target: SigningTarget = item.where === 'ground' ? 'brief' : 'fly';
      if (entry.refused)
        return [
          {
            code: 'refused',
            itemId: item.id,
            message: `${item.id} ${item.title}: further training was entered on ${dateText(entry.refused.on)} by ${entry.refused.by}. It is ${item.where === 'ground' ? 'shown' : 'flown'} again before anybody signs, and cannot be overridden.`,
            target,
            overridable: false,
          },
        ];
      if (item.safety && !seen)
        return [
          {
            code: 'not-seen',
            itemId: item.id,
            message: `${item.id} ${item.title} is a safety item and nothing of it has been seen: ${missing.join('; ')}. It cannot be overridden.`,
            target,
            overridable: false,
          },
        ];
      if (item.legal)
        return [
          {
            code: 'legal',
            itemId: item.id,
            message: `${item.id} ${item.title}: ${missing.join('; ')}. The law asks it (${item.citation}), so nobody can override it.`,
            target,
            overridable: false,
          },
        ];
      if (overridden(item.id)) return [];
      const asked = facts.overrides.find((o) => o.itemId === item.id);
      if (asked)
        return [
          {
            code: 'override',
            itemId: item.id,
            message: `${item.id} ${item.title}: the override waits for the chief instructor.`,
            target: 'override',
            overridable: false,
          },
        ];
      return [
        {
          code: 'item',
          itemId: item.id,
          message: `${item.id} ${item.title}: ${missing.join('; ')}.`,
          target,
          overridable: true,
        },
      ];
    }),
    ...facts.openLimits.map((l): SigningProblem => ({
      code: 'limit',
      message: `A limit was passed on ${dateText(l.flownOn)} and is not released: ${l.what}. A chief who neither flew nor taught it releases it.`,
      target: 'trace',
      traceId: l.traceId,
      overridable: false,
    })),
    ...unresolvedTriggers(record).map((l): SigningProblem => ({
      code: 'trigger',
      message: `Lesson ${l.lesson}, landing ${l.number}: the go-around trigger was met and the approach continued. It is resolved by a go-around decided in time.`,
      target: 'debrief',
      overridable: false,
    })),
    ...facts.stops
      .filter((s) => !s.explained)
      .map((s): SigningProblem => ({
        code: 'stop',
        message: `${s.name} was flown past a stop and nobody has said why: ${s.words}.`,
        target: 'debrief',
        overridable: false,
      })),
    ...facts.unacknowledgedLessons.map((lesson): SigningProblem => ({
      code: 'acknowledge',
      message: `The pilot has not acknowledged the brief of lesson ${lesson}.`,
      target: 'brief',
      overridable: false,
    })),
    ...facts.oldBriefs.map(({ lesson, days }): SigningProblem => ({
      code: 'acknowledge',
      message: `The brief of lesson ${lesson} was acknowledged ${days} days before the flight: it was not that day’s. Brief it again and have it acknowledged.`,
      target: 'brief',
      overridable: false,
    })),
    ...facts.prerequisites
      .filter((p) => p.met !== true)
      .map((p): SigningProblem => ({
        code: 'prerequisite',
        message:
          p.met === false
            ? `Before this goal: ${p.text}.`
            : `Before this goal: ${p.text}. It is not on record: enter it on the person’s page.`,
        target: 'people',
        overridable: false,
      })),
    ...(facts.reviewWithout.length > 0
      ? [
          {
            code: 'class',
            message: `A review is flown in a class the pilot is rated for; ${facts.reviewWithout.map(say).join(', ')} is not held.`,
            target: 'people',
            overridable: false,
          } satisfies SigningProblem,
        ]
      : []),
    ...(facts.sheetOpen.length > 0
      ? [
          {
            code: 'sheet',
            message: `The sheet does not give ${list(facts.sheetOpen)}, so what this aeroplane demands is not known. Complete the sheet, update this checkout to it, then sign.`,
            target: 'none',
            overridable: false,
          } satisfies SigningProblem,
        ]
      : []),
  ];
}

/** What the signer lacks. The same for a whole sign-off, a part of it and a recommendation. */
export function signerProblems(
  facts: Pick<
    SigningFacts,
    | 'ownCheckout'
    | 'authorised'
    | 'certificateUntil'
    | 'signerLacks'
    | 'ratings'
    | 'modelHours'
    | 'notRecent'
    | 'lastFlownTogether'
    | 'onDate'
    | 'withinDays'
  >,
): SigningProblem[] {
  const problems: SigningProblem[] = [];
  const say_ = (code: SigningProblem['code'], message: string, target: SigningTarget = 'people') =>
    problems.push({ code, message, target, overridable: false });
  if (facts.ownCheckout) say_('own', 'Nobody signs for themselves. Another instructor signs this checkout.', 'none');
  if (!facts.authorised)
    say_('not-authorised', 'You are not authorised to sign this goal. The chief instructor grants it.');
  if (facts.certificateUntil === null)
    say_(
      'certificate',
      'The end of your certificate or recent experience is not in the book of people. Enter it there.',
    );
  else if (facts.certificateUntil < facts.onDate)
    say_('certificate', `Your certificate or recent experience ended on ${dateText(facts.certificateUntil)}.`);
  if (facts.signerLacks.length > 0)
    say_('lacks', `This aeroplane demands what you do not hold: ${facts.signerLacks.map(say).join(', ')}.`);
  for (const r of facts.ratings)
    say_('rating', `The law asks ${r.text} to teach and sign this (${r.citation}), and it is not on your record.`);
  if (facts.modelHours && facts.modelHours.have < facts.modelHours.needed)
    say_(
      'model-hours',
      `You have ${Math.floor(facts.modelHours.have * 10) / 10} h ${facts.modelHours.inCommand ? 'known to be in command' : 'in command'} in this ${facts.modelHours.within}; ${facts.modelHours.needed} h are asked (${facts.modelHours.citation}).`,
    );
  for (const r of facts.notRecent)
    say_(
      'not-recent',
      `You are out of recency to teach this type. ${r.title}: fly ${r.restore} first (${r.citation}).`,
    );
  const days = facts.lastFlownTogether === null ? null : daysBetween(facts.lastFlownTogether, facts.onDate);
  if (days === null)
    say_('not-flown', 'You have no flight with this pilot in this type. The signer has flown with the pilot.', 'fly');
  else if (days > facts.withinDays)
    say_(
      'not-flown',
      `Your last flight with this pilot was ${days} days ago; the house asks for ${facts.withinDays} at most.`,
      'fly',
    );
  return problems;
}

function unresolvedTriggers(record: EvidenceRecord) {
  const landings = [...record.landings].sort((a, b) =>
    a.date === b.date ? a.lesson - b.lesson || a.number - b.number : a.date < b.date ? -1 : 1,
  );
  const lastSound = landings.reduce((last, l, i) => (l.judged.goAround?.decisionEvidence ? i : last), -1);
  return landings.filter((l, i) => l.judged.triggerContinued && i > lastSound);
}

/** Words of a template in braces, e.g. `{pilot}`. */
const WORD = /\{([a-zA-Z]+)\}/g;
/**
 * Fills a template. A word nothing is known of stays in braces, so that the signer sees it and cannot sign past it.
 * @returns the text, and the words still open
 */
export function fillTemplate(
  template: string,
  words: Readonly<Record<string, string | null | undefined>>,
): { text: string; open: string[] } {
  const text = template.replace(WORD, (whole, name: string) => words[name] ?? whole);
  return { text, open: openWords(text) };
}
/** Words in braces that are still to be filled in. */
export const openWords = (text: string): string[] => [...new Set([...text.matchAll(WORD)].map((m) => m[1] ?? ''))];
