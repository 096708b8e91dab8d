const TITLES: ReadonlyMap<string, string> = new Map([
  ['sign-off', 'Sign-off'],
  ['recommendation', 'Recommendation to the examiner'],
  ['part-sign-off', 'Part sign-off'],
  ['test-result', 'Examiner\u2019s result'],
  ['not-yet', 'Further training'],
  ['void', 'Void'],
  ['correction', 'Correction'],
  ['key-rotated', 'New key of the ledger'],
]);
export const entryTitle = (kind: string): string => TITLES.get(kind) ?? kind;
