/** Something corrected or undone, in words: what, who, when, what it was and what it became. */
export interface ChangeLine {
  key: string;
  what: string;
  change: 'corrected' | 'undone';
  by: string;
  at: string;
  words: string;
  /** The landing flown in the place of one taken back. */
  again: boolean;
}
