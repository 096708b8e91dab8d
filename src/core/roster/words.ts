/** What is wrong with a list of people from a file; lines count from 1, the header included. */
import { type Coded, sentence } from '@/domain/coded';

export const ROSTER_WORDS = {
  'roster-empty': () =>
    'There is nobody in this file: it needs a first line that names the columns, and a line a person.',
  'roster-column': ({ column }: { column: string }) => `There is no column for ${column}. Name one in the first line.`,
  'roster-many': ({ most }: { most: number }) => `At most ${most} people at once.`,
  'roster-ragged': ({ line }: { line: number }) =>
    `Line ${line} has more or fewer columns than the first line. Put what holds a comma between quotation marks.`,
  'roster-number': ({ line, column, text }: { line: number; column: string; text: string }) =>
    `Line ${line}: "${text}" is no number for ${column}.`,
  'roster-role': ({ line, text }: { line: number; text: string }) =>
    `Line ${line}: "${text}" is no role. Write pilot, instructor or chief.`,
  'roster-email-twice': ({ line, email }: { line: number; email: string }) =>
    `Line ${line}: ${email} stands in this file twice.`,
} as const;
export type RosterProblem = Coded<typeof ROSTER_WORDS>;

/** The sentence of what is wrong with a list of people. */
export const rosterWords = (problem: RosterProblem): string => sentence(ROSTER_WORDS, problem);
