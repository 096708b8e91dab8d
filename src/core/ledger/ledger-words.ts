/** The catalogue of the ledger: what does not check, and of which entry. Each follows _Entry 4 …_. */
import { type Coded, sentence } from '@/domain/coded';

export const LEDGER_PROBLEM_WORDS = {
  gap: ({ after }: { after: number }) => `follows entry ${after}: what stood between is missing, or this one was added`,
  chain: () => 'does not follow from the entry before it',
  'key-unknown': () => 'is signed with a key that the ledger does not know',
  'not-json': () => 'has a text that is not JSON',
  'not-an-entry': () => 'has a text that is not an entry',
  'not-canonical': () => 'has a text that is not in canonical form',
  column: ({ name }: { name: string }) => `has a column ${name} that differs from its signed text`,
  hash: () => 'has a hash that does not match its text',
  'signature-form': () => 'has a signature that is not written in the strict form',
  signature: () => 'has a signature that does not match its text',
  'dated-before': (d: { signedAt: string; seq: number; latest: string }) =>
    `is dated ${d.signedAt}, before entry ${d.seq} of ${d.latest}: the clock was not right for one of them`,
  'head-missing': () => 'is the newest here, and the signed head is missing: a cut tail cannot be excluded',
  'head-key-unknown': () =>
    'is the newest the signed head counts, and that head is signed with a key that the ledger does not know',
  'head-changed': () => 'is the newest the signed head counts, and that head itself was changed',
  missing: ({ at, count }: { at: string; count: number }) =>
    `is missing: the signed head of ${at} counts ${count} entries`,
  'head-differs': () => 'differs from what the signed head recorded',
};
/** What is wrong with an entry taken by itself, or with its place. */
export type EntryProblem = Coded<typeof LEDGER_PROBLEM_WORDS>;
export type LedgerProblem = { seq: number; id: string | null } & EntryProblem;
export const entryProblemWords = (p: EntryProblem): string => sentence(LEDGER_PROBLEM_WORDS, p);
/** `Entry 4 (id) has a hash that does not match its text.` */
export const ledgerProblemWords = (p: LedgerProblem): string =>
  `Entry ${p.seq}${p.id ? ` (${p.id})` : ''} ${entryProblemWords(p)}.`;
