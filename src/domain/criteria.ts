/**
 * Criteria of a landing that the eye tells with one word. What a landing is recorded with, what was not seen, what a
 * go-around does not have, what is judged, the row of the cockpit, the column of the debrief, the list of changes and
 * the facts findings read all come from here; the limits stand in `content/standards`. Plain, without a schema library.
 */
export const KEPT_WORDS = ['kept', 'released-early', 'not'] as const;
export const FIRMNESS_WORDS = ['soft', 'normal', 'firm', 'hard'] as const;
export const CONFIGURATION_WORDS = ['right', 'late', 'wrong'] as const;

export interface WordCriterionRow {
  /** What the eye may say, from good to bad. */
  words: readonly [string, ...string[]];
  /** As it is named in a sentence. */
  name: string;
  /** Above its column in the table of a lesson. */
  short: string;
  /**
   * Its row in the cockpit's *More*: the title over its words, and for which aeroplanes; null = it has a place of its
   * own on the first screen.
   */
  more: { title: string; tailwheelOnly?: boolean } | null;
}
export const WORD_CRITERIA = {
  aileron: { words: KEPT_WORDS, name: 'into-wind aileron', short: 'aileron', more: null },
  stick: { words: KEPT_WORDS, name: 'stick back', short: 'stick', more: null },
  rollout: {
    words: KEPT_WORDS,
    name: 'roll-out sequence',
    short: 'roll-out',
    more: { title: 'Roll-out flown until stopped' },
  },
  configuration: { words: CONFIGURATION_WORDS, name: 'configuration', short: 'config.', more: null },
  firmness: { words: FIRMNESS_WORDS, name: 'firmness', short: 'firm', more: null },
} as const satisfies Record<string, WordCriterionRow>;

export type WordCriterion = keyof typeof WORD_CRITERIA;
export const WORD_CRITERION_IDS = Object.keys(WORD_CRITERIA) as WordCriterion[];
/** What was said of each; null = not seen. */
export type WordsSeen = { [K in WordCriterion]: (typeof WORD_CRITERIA)[K]['words'][number] | null };

/** One value for each of them. */
const forEach = <V>(of: (id: WordCriterion) => V): Record<WordCriterion, V> =>
  Object.fromEntries(WORD_CRITERION_IDS.map((id) => [id, of(id)])) as Record<WordCriterion, V>;

/** None of them seen. */
export const NO_WORDS: Record<WordCriterion, null> = forEach(() => null);
/** Those of a landing, without the rest of it. */
export const wordsSeen = (l: WordsSeen): WordsSeen => forEach((id) => l[id]) as WordsSeen;
/** What each is called. */
export const WORD_CRITERION_NAMES: Record<WordCriterion, string> = forEach((id) => WORD_CRITERIA[id].name);
