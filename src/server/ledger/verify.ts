import { z } from 'zod';
import { type LedgerRow, type LedgerTools, entryProblems, verifyLedger, ledgerProblemWords } from '@/core/ledger';
import { toolsWith } from './keys';
import { entryTitle } from './titles';

const text = (max: number) => z.string().max(max);
const Entry = z.object({
  seq: z.number().int(),
  id: text(64),
  kind: text(40),
  checkoutId: text(64),
  signedAt: text(40),
  signerId: text(64),
  canonical: text(2_000_000),
  prevHash: text(64),
  hash: text(64),
  signature: text(120),
  keyId: text(64),
});
const Head = z.object({
  count: z.number().int().min(0).max(1_000_000),
  hash: text(64),
  at: text(40),
  signature: text(120),
  keyId: text(64),
});
const Keys = z
  .record(text(64), text(400))
  .refine((keys) => Object.keys(keys).length <= 100)
  .default({});
export const SignedEntry = z.object({
  schema: z.literal('signed-entry/1'),
  entry: Entry,
  head: Head.nullable(),
  publicKeys: Keys,
});
export const LedgerExport = z.object({
  schema: z.literal('ledger-export/1'),
  entries: z.array(Entry).max(200_000),
  head: Head.nullable(),
  publicKeys: Keys,
});

export interface Checked {
  what: 'entry' | 'ledger' | 'unreadable';
  /** Every check held, with keys that are trusted. */
  ok: boolean;
  /** The key came with the file itself: the file fits together, and that says nothing of who made it. */
  ownKeyOnly: boolean;
  problems: string[];
  line: string | null;
  entries: number;
  entry: LedgerRow | null;
}
export const unreadable = (why: string): Checked => ({
  what: 'unreadable',
  ok: false,
  ownKeyOnly: false,
  problems: [why],
  line: null,
  entries: 0,
  entry: null,
});

/**
 * Checks a copy of one entry, or of the whole ledger, from its text alone: no database, no network.
 * @param trusted public keys known from elsewhere, by id; without them only whether the file fits together can be said
 * @param mostEntries of an export, beyond which it is not checked here
 */
export function checkDocument(json: string, trusted: Readonly<Record<string, string>>, mostEntries = 200_000): Checked {
  let parsed: unknown;
  try {
    parsed = JSON.parse(json);
  } catch {
    return unreadable(
      'This is not JSON. Give the PDF of an entry, the JSON attached to it, or an export of the ledger.',
    );
  }
  const one = SignedEntry.safeParse(parsed);
  const book = one.success ? null : LedgerExport.safeParse(parsed);
  if (!one.success && !book?.success)
    return unreadable('This JSON is neither a signed entry nor an export of the ledger.');
  if (book?.data && book.data.entries.length > mostEntries)
    return unreadable(
      `This export has ${book.data.entries.length} entries, more than are checked here. Check it away from ` +
        'here: npm run verify-ledger -- FILE.',
    );
  const carried = one.success ? one.data.publicKeys : (book?.data?.publicKeys ?? {});
  const tools = (keys: Readonly<Record<string, string>>): LedgerTools => toolsWith(keys);
  const judge = (problems: (t: LedgerTools) => string[]): { problems: string[]; ownKeyOnly: boolean } => {
    const strict = problems(tools(trusted));
    if (strict.length === 0) return { problems: [], ownKeyOnly: false };
    // With the file's own keys beside the trusted ones: does it at least fit together?
    const own = problems(tools({ ...carried, ...trusted }));
    return own.length === 0 ? { problems: [], ownKeyOnly: true } : { problems: own, ownKeyOnly: false };
  };
  if (one.success) {
    const { entry } = one.data;
    const j = judge((t) =>
      entryProblems(entry, t).map((p) => ledgerProblemWords({ seq: entry.seq, id: entry.id, ...p })),
    );
    return {
      what: 'entry',
      ok: j.problems.length === 0 && !j.ownKeyOnly,
      ...j,
      line: lineOf(entry),
      entries: 1,
      entry,
    };
  }
  const { entries, head } = book?.data ?? { entries: [], head: null };
  const j = judge((t) => verifyLedger(entries, head, t).map(ledgerProblemWords));
  return {
    what: 'ledger',
    ok: j.problems.length === 0 && !j.ownKeyOnly,
    ...j,
    line: null,
    entries: entries.length,
    entry: null,
  };
}

/** An entry in a line, from its signed text. */
function lineOf(entry: LedgerRow): string | null {
  try {
    const { body } = JSON.parse(entry.canonical) as {
      body: {
        pilot?: { name?: string };
        signer?: { name?: string };
        signedOn?: string;
        airframe?: { registration?: string; type?: string };
        goals?: string[];
      };
    };
    return `${entryTitle(entry.kind)} ${entry.seq}: ${body.pilot?.name ?? ''}${body.goals ? `, ${body.goals.join(', ')}` : ''}${body.airframe ? `, ${body.airframe.registration} ${body.airframe.type}` : ''}; signed by ${body.signer?.name ?? ''} on ${body.signedOn ?? entry.signedAt.slice(0, 10)}`;
  } catch {
    return null;
  }
}
