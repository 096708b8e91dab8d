import { may } from '@/server/floor/auth/permissions';
import { door, fileAnswer } from '@/server/door/route';
import { ledgerRows } from '@/server/ledger/entries';
import { publicKeys, readHead } from '@/server/ledger/keys';
import { ledgerCsv } from '@/server/ledger/papers/record';
import { ledgerLines } from '@/server/ledger/queries/entries';

/** The ledger as a file: JSON whole and checkable, or CSV of what the search found. */
export const GET = door({ who: 'signed-in' }, async ({ user, query }) => {
  if (!may.exportBook(user)) return null;
  if (query.get('as') === 'csv') {
    const pick = (key: string) => {
      const v = query.get(key)?.trim();
      return v ? { [key]: v.slice(0, 80) } : {};
    };
    const lines = await ledgerLines(user, {
      ...pick('q'),
      ...pick('kind'),
      ...pick('from'),
      ...pick('to'),
      limit: 100_000,
    });
    return fileAnswer(ledgerCsv(lines), { type: 'text/csv; charset=utf-8', name: 'ledger.csv' });
  }
  // The head first: it may then count fewer entries than the rows, never more.
  const head = readHead();
  const entries = await ledgerRows();
  return fileAnswer(JSON.stringify({ schema: 'ledger-export/1', entries, head, publicKeys: publicKeys() }), {
    type: 'application/json',
    name: 'ledger.json',
  });
});
