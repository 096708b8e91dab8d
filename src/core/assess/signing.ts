import type { EvidenceRecord, ItemEvidence } from './evidence';

export interface SigningFacts {
  authorised: boolean;
  ownCheckout: boolean;
  goalDecidedBy: 'instructor' | 'examiner';
  /** ISO date of the last sortie the signer flew with this pilot on this type; null = never. */
  lastFlownTogether: string | null;
  onDate: string;
  withinDays: number;
  /** Lesson numbers whose brief the pilot has not acknowledged, of lessons with something recorded. */
  unacknowledgedLessons: readonly number[];
  unsentOrOpen: number;
}
export interface SigningProblem { code: 'not-authorised' | 'own' | 'not-flown' | 'item' | 'trigger' | 'acknowledge'; message: string; target: 'brief' | 'fly' | 'debrief' | 'people' | 'none' }

const DAY_MS = 86_400_000;

/**
 * What stands between a checkout and its signature. Empty = it may be signed. A trigger *met and continued* stays
 * unresolved until the pilot has flown a go-around decided in time after it.
 */
export function signingProblems(items: readonly ItemEvidence[], record: EvidenceRecord, facts: SigningFacts): SigningProblem[] {
  const problems: SigningProblem[] = [];
  if (facts.ownCheckout) problems.push({ code: 'own', message: 'Nobody signs for themselves. Another instructor signs this checkout.', target: 'none' });
  if (!facts.authorised) problems.push({ code: 'not-authorised', message: 'You are not authorised to sign this goal. The chief instructor grants it.', target: 'people' });
  const days = facts.lastFlownTogether === null ? null : Math.floor((Date.parse(facts.onDate.slice(0, 10)) - Date.parse(facts.lastFlownTogether.slice(0, 10))) / DAY_MS);
  if (days === null) problems.push({ code: 'not-flown', message: 'You have no flight with this pilot in this checkout. The signer has flown with the pilot.', target: 'fly' });
  else if (days > facts.withinDays) problems.push({ code: 'not-flown', message: `Your last flight with this pilot was ${days} days ago; the house asks for ${facts.withinDays} at most.`, target: 'fly' });
  for (const { item, met, missing } of items) if (!met) problems.push({ code: 'item', message: `${item.id} ${item.title}: ${missing.join('; ')}.`, target: item.where === 'ground' ? 'brief' : 'fly' });
  for (const landing of unresolvedTriggers(record)) {
    problems.push({ code: 'trigger', message: `Lesson ${landing.lesson}, landing ${landing.number}: the go-around trigger was met and the approach continued. It is resolved by a go-around decided in time.`, target: 'debrief' });
  }
  for (const lesson of facts.unacknowledgedLessons) problems.push({ code: 'acknowledge', message: `The pilot has not acknowledged the brief of lesson ${lesson}.`, target: 'brief' });
  return problems;
}

function unresolvedTriggers(record: EvidenceRecord) {
  const lastSound = record.landings.reduce((last, l, i) => (l.judged.goAround?.decisionEvidence ? i : last), -1);
  return record.landings.filter((l, i) => l.judged.triggerContinued && i > lastSound);
}
