/** The catalogue of the one next action of a checkout: what waits, and the button that does it. */
import { list } from '@/core/format';
import { type Coded, coder, sentence } from '@/domain/coded';

interface Lesson {
  lesson: number;
}
export const NEXT_WORDS = {
  'enter-result': () => 'Recommended: the examiner decides, and the result is entered here.',
  signed: () => 'Signed. See the entry in the ledger.',
  sign: () => 'All items have evidence: check and sign.',
  fly: ({ lesson }: Lesson) => `Lesson ${lesson} is briefed and acknowledged: fly it.`,
  acknowledge: ({ lesson }: Lesson) => `Lesson ${lesson} is briefed: the pilot acknowledges, then fly.`,
  debrief: ({ lesson }: Lesson) => `Debrief lesson ${lesson}, then brief the next.`,
  brief: ({ lesson }: Lesson) => `Brief lesson ${lesson}.`,
} as const;
export type NextStep = Coded<typeof NEXT_WORDS>;
export const nextStep = coder(NEXT_WORDS);

const BUTTON_WORDS: { [K in NextStep['code']]: (typeof NEXT_WORDS)[K] } = {
  'enter-result': () => 'Enter the result',
  signed: () => 'See the ledger',
  sign: () => 'Check and sign',
  fly: ({ lesson }) => `Fly lesson ${lesson}`,
  acknowledge: ({ lesson }) => `Brief and fly lesson ${lesson}`,
  debrief: ({ lesson }) => `Debrief lesson ${lesson}`,
  brief: ({ lesson }) => `Brief lesson ${lesson}`,
};
export interface NextAction {
  step: NextStep;
  /** Items that need further training before anybody signs. */
  refused: string[];
  href: string;
}
/** What waits, as a sentence; what needs further training stands first. */
export const nextText = ({ step, refused }: NextAction): string =>
  `${refused.length > 0 ? `Further training: ${list(refused)} again before anybody signs. ` : ''}${sentence(NEXT_WORDS, step)}`;
/** What is on the button. */
export const nextButton = ({ step }: NextAction): string => sentence(BUTTON_WORDS, step);
