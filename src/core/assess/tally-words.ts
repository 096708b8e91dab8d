/** The catalogue of reading a tally: the one thing to correct in a line. */
import { type Coded, coder, sentence } from '@/domain/coded';

export const TALLY_WORDS = {
  'nothing-above': ({ column }: { column: string | null }) =>
    `There is no line above to repeat for ${column ?? 'this column'}.`,
  'no-kind': ({ written }: { written: string }) => `${written} is not a kind. Write F, T, G or L first.`,
  columns: ({ written, of }: { written: number; of: number }) =>
    `${written} columns of ${of}. Write a dash for what was not seen.`,
  'no-code': ({ written, column, codes }: { written: string; column: string; codes: readonly string[] }) =>
    `${written} is not a code for ${column}. Use ${codes.join(' ')}.`,
  'low-pass-touched': () => 'A low pass does not touch. Write F or T, or dashes for where it touched.',
  'low-pass-bounced': () => 'A low pass does not bounce. Write F or T, or a dash for the bounce.',
} as const;
/** What is wrong with a line. */
export type TallyWrong = Coded<typeof TALLY_WORDS>;
export const tallyWrong = coder(TALLY_WORDS);
/** What is wrong with a line, as a sentence. */
export const tallyWords = (why: TallyWrong): string => sentence(TALLY_WORDS, why);
