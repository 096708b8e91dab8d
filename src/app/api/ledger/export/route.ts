import { may } from '@/server/floor/auth/permissions';
import { door, fileAnswer } from '@/server/door/route';
import { ledgerRows } from '@/server/ledger/book';
import { publicKeys, readHead } from '@/server/ledger/keys';
import { bookCsv } from '@/server/ledger/papers/record';
import { bookLines } from '@/server/ledger/queries/book';

/** The book as a file: JSON whole and checkable, or CSV of what the search found. */
export const GET = door({ who: 'signed-in' }, async ({ user, query }) => {
  if (!may.exportBook(user)) return null;
  if (query.get('as') === 'csv') {
    const pick = (key: string) => {
      const v = query.get(key)?.trim();
      return v ? { [key]: v.slice(0, 80) } : {};
    };
    const lines = await bookLines(user, {
      ...pick('q'),
      ...pick('kind'),
      ...pick('from'),
      ...pick('to'),
      limit: 100_000,
    });
    return fileAnswer(bookCsv(lines), { type: 'text/csv; charset=utf-8', name: 'book.csv' });
  }
  // The head first: it may then count fewer entries than the rows, never more.
  const head = readHead();
  const entries = await ledgerRows();
  return fileAnswer(JSON.stringify({ schema: 'ledger-export/1', entries, head, publicKeys: publicKeys() }), {
    type: 'application/json',
    name: 'book.json',
  });
});
