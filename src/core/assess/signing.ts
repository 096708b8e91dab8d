import { daysBetween } from '../recency/dates';
import type { EvidenceRecord, ItemEvidence } from './evidence';
import type { SigningSaid } from './signing-words';

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
  /** Last day of the signer's certificate or recent experience; null = not on record. */
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
  openLimits: readonly { traceId: string | null; what: string; flownOn: string }[];
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
/** What is in the way, where it is done, and whether an instructor may sign past it with a reason. */
export type SigningProblem = SigningSaid & {
  target: SigningTarget;
  itemId?: string;
  /** Null = seen by eye, and in no recording. */
  traceId?: string | null;
  overridable: boolean;
};

/**
 * What stands between a checkout and its signature. Empty = it may be signed. What the law itself asks is never
 * overridden; of the rest only a missing item of which something has been seen, or one that is not a safety item. A trigger *met and continued* stays unresolved
 * until the pilot has flown a go-around decided in time after it. Source: the packs' duties of the signing instructor
 * (14 CFR 61.189, 61.195; Part-FCL FCL.710) and the house's signing rules.
 * @param items those to be signed: the whole programme, or the part
 * @returns one code a problem, each with whether it may be overridden
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
      const of = { id: item.id, title: item.title };
      const target: SigningTarget = item.where === 'ground' ? 'brief' : 'fly';
      if (entry.refused)
        return [
          {
            code: 'refused',
            itemId: item.id,
            params: { ...of, on: entry.refused.on, by: entry.refused.by, where: item.where },
            target,
            overridable: false,
          },
        ];
      if (item.safety && !seen)
        return [
          {
            code: 'not-seen',
            itemId: item.id,
            params: { ...of, missing },
            target,
            overridable: false,
          },
        ];
      if (item.legal)
        return [
          {
            code: 'legal',
            itemId: item.id,
            params: { ...of, missing, citation: item.citation },
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
            params: of,
            target: 'override',
            overridable: false,
          },
        ];
      return [
        {
          code: 'item',
          itemId: item.id,
          params: { ...of, missing },
          target,
          overridable: true,
        },
      ];
    }),
    ...facts.openLimits.map((l): SigningProblem => ({
      code: 'limit',
      params: { what: l.what, flownOn: l.flownOn },
      target: 'trace',
      traceId: l.traceId,
      overridable: false,
    })),
    ...unresolvedTriggers(record).map((l): SigningProblem => ({
      code: 'trigger',
      params: { lesson: l.lesson, number: l.number },
      target: 'debrief',
      overridable: false,
    })),
    ...facts.stops
      .filter((s) => !s.explained)
      .map((s): SigningProblem => ({
        code: 'stop',
        params: { name: s.name, words: s.words },
        target: 'debrief',
        overridable: false,
      })),
    ...facts.prerequisites
      .filter((p) => p.met !== true)
      .map((p): SigningProblem => ({
        code: 'prerequisite',
        params: { text: p.text, known: p.met === false },
        target: 'people',
        overridable: false,
      })),
    ...(facts.reviewWithout.length > 0
      ? [
          {
            code: 'class',
            params: { classes: facts.reviewWithout },
            target: 'people',
            overridable: false,
          } satisfies SigningProblem,
        ]
      : []),
    ...(facts.sheetOpen.length > 0
      ? [
          {
            code: 'sheet',
            params: { facts: facts.sheetOpen },
            target: 'none',
            overridable: false,
          } satisfies SigningProblem,
        ]
      : []),
  ];
}

/**
 * What the signer lacks. The same for a whole sign-off, a part of it and a recommendation.
 * @returns one code a problem
 */
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
  const lacking = (said: SigningSaid, target: SigningTarget = 'people') =>
    problems.push({ ...said, target, overridable: false });
  if (facts.ownCheckout) lacking({ code: 'own' }, 'none');
  if (!facts.authorised) lacking({ code: 'not-authorised' });
  if (facts.certificateUntil === null || facts.certificateUntil < facts.onDate)
    lacking({ code: 'certificate', params: { until: facts.certificateUntil } });
  if (facts.signerLacks.length > 0) lacking({ code: 'lacks', params: { kinds: facts.signerLacks } });
  for (const { text, citation } of facts.ratings) lacking({ code: 'rating', params: { text, citation } });
  if (facts.modelHours && facts.modelHours.have < facts.modelHours.needed)
    lacking({ code: 'model-hours', params: facts.modelHours });
  for (const rule of facts.notRecent) lacking({ code: 'not-recent', params: rule });
  const days = facts.lastFlownTogether === null ? null : daysBetween(facts.lastFlownTogether, facts.onDate);
  if (days === null || days > facts.withinDays)
    lacking({ code: 'not-flown', params: { days, withinDays: facts.withinDays } }, 'fly');
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
 * @example
 * fillTemplate('{pilot} in {type}, {recentUntil}', { pilot: 'Ada', recentUntil: null })
 * // { text: 'Ada in {type}, {recentUntil}', open: ['type', 'recentUntil'] }
 */
export function fillTemplate(
  template: string,
  words: Readonly<Record<string, string | null | undefined>>,
): { text: string; open: string[] } {
  const text = template.replace(WORD, (whole, name: string) => words[name] ?? whole);
  return { text, open: openWords(text) };
}
/**
 * Words in braces that are still to be filled in.
 * @returns the words, without their braces
 * @example openWords('Ada in {type}, {recentUntil}') // ['type', 'recentUntil']
 */
export const openWords = (text: string): string[] => [...new Set([...text.matchAll(WORD)].map((m) => m[1] ?? ''))];
