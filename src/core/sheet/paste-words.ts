/** What is wrong with rows pasted from a spreadsheet; lines count from 1. */
import { type Coded, sentence } from '@/domain/coded';

export const PASTE_WORDS = {
  'paste-empty': () => 'Nothing to read: copy the rows in the spreadsheet and paste them here.',
  'paste-columns': ({ line, have, columns }: { line: number; have: number; columns: string }) =>
    `Line ${line} has ${have === 1 ? '1 column' : `${have} columns`}; in this order there should be: ${columns}.`,
  'paste-number': ({ line, column, text }: { line: number; column: string; text: string }) =>
    `Line ${line}, ${column}: "${text}" is not a number.`,
  'paste-comma': ({ line, column, text }: { line: number; column: string; text: string }) =>
    `Line ${line}, ${column}: "${text}" can be read in two ways. Write it without the comma, or with a point.`,
  'paste-missing': ({ line, column }: { line: number; column: string }) => `Line ${line}: ${column} is empty.`,
  'paste-many': ({ most }: { most: number }) => `At most ${most} rows.`,
} as const;
export type PasteProblem = Coded<typeof PASTE_WORDS>;

/** The sentence of what is wrong with pasted rows. */
export const pasteWords = (problem: PasteProblem): string => sentence(PASTE_WORDS, problem);
