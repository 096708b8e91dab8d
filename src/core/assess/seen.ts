/**
 * Required observations for an item, and what only was asserted. A landing of which the item's own criteria were not
 * looked at is still judged as a landing: the item leaves it out and says why. Method: the programme's items and the
 * standard, as data.
 */
import { CLEAN_ASSERTS } from './landing';
import { MUST_SEE, type Subject } from '@/domain/assess-words';
import type { ProgrammeItem } from '@/domain/programme';
import type { CriterionJudged, JudgedLanding } from './captured';

/**
 * What an item is about. Items of before say nothing of it: a wind asked across is about the crosswind, with a full
 * stop about the roll-out, wheels first about the wheel landing.
 * @returns the subjects, none twice
 * @example subjectsOf(crosswindLandings) // ['crosswind']
 */
export function subjectsOf({ about, evidence }: Pick<ProgrammeItem, 'about' | 'evidence'>): readonly Subject[] {
  if (about) return about;
  if (evidence.kind === 'count' && evidence.minCrosswindKt !== null)
    return [evidence.fullStop ? 'roll-out' : 'crosswind'];
  return (evidence.kind === 'run' || evidence.kind === 'count') && evidence.attitude === 'mains-first'
    ? ['wheel-landing']
    : [];
}

const CLEAN: ReadonlySet<string> = new Set(CLEAN_ASSERTS);
const notSeen = (c: CriterionJudged | undefined): boolean =>
  c !== undefined &&
  (c.verdict === 'not-seen' || (c.form === 'asserted' && c.overruled === undefined && !CLEAN.has(c.id)));

/**
 * Criteria of the subjects that nobody saw in a landing, in the order of the standard. A criterion the standard does not
 * have cannot be asked.
 * Source: the programme's own list of what must be seen.
 * @param seen what the standard asks to have been seen, by subject
 * @returns ids of criteria
 * @example unseenFor(['roll-out'], MUST_SEE, judged) // ['aileron', 'stick']
 */
export function unseenFor(
  subjects: readonly Subject[],
  seen: Readonly<Partial<Record<Subject, readonly string[]>>>,
  judged: Pick<JudgedLanding, 'criteria'>,
): string[] {
  const asked = new Set(subjects.flatMap((s) => seen[s] ?? MUST_SEE[s]));
  return judged.criteria.filter((c) => asked.has(c.id) && notSeen(c)).map((c) => c.id);
}

/**
 * Criteria of a landing that rest on the clean tap alone; what was overruled since rests on its reason.
 * @returns ids of criteria
 */
export const assertedIn = (judged: Pick<JudgedLanding, 'criteria'>): string[] =>
  judged.criteria.filter((c) => c.form === 'asserted' && c.overruled === undefined).map((c) => c.id);

/**
 * Of an item's landings, how many rest on the clean tap, and how many more must be seen before the share allows it.
 * @param landings for each landing, whether any of it was asserted
 * @param share 0 to 1
 * @returns how many of them are asserted, and how many more must be seen
 * @example assertedShare([true, true, true, false], 0.5) // { asserted: 3, seeMore: 2 }
 */
export function assertedShare(landings: readonly boolean[], share: number): { asserted: number; seeMore: number } {
  const n = landings.length;
  const asserted = landings.filter(Boolean).length;
  const allowed = Math.floor(share * n + 1e-9);
  if (asserted <= allowed) return { asserted, seeMore: 0 };
  // Each landing seen adds to the whole and not to what was asserted: asserted <= share * (n + more).
  return { asserted, seeMore: share > 0 ? Math.ceil(asserted / share - n - 1e-9) : asserted };
}
