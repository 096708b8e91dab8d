import { NextResponse } from 'next/server';
import { may } from '@/server/auth/permissions';
import { currentUser } from '@/server/auth/session';
import { ledgerRows } from '@/server/ledger/book';
import { publicKeys, readHead } from '@/server/ledger/keys';
import { bookCsv } from '@/server/record';
import { bookLines } from '@/server/queries/book';

/** The book as a file: JSON whole and checkable, or CSV of what the search found. */
export async function GET(request: Request) {
  const user = await currentUser();
  if (!user || !may.exportBook(user))
    return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const q = new URL(request.url).searchParams;
  if (q.get('as') === 'csv') {
    const pick = (key: string) => {
      const v = q.get(key)?.trim();
      return v ? { [key]: v.slice(0, 80) } : {};
    };
    const lines = await bookLines(user, {
      ...pick('q'),
      ...pick('kind'),
      ...pick('from'),
      ...pick('to'),
      limit: 100_000,
    });
    return new NextResponse(bookCsv(lines), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="book.csv"',
        'cache-control': 'private, no-store',
      },
    });
  }
  // The head first: it may then count fewer entries than the rows, never more.
  const head = readHead();
  const entries = await ledgerRows();
  return new NextResponse(JSON.stringify({ schema: 'ledger-export/1', entries, head, publicKeys: publicKeys() }), {
    headers: {
      'content-type': 'application/json',
      'content-disposition': 'attachment; filename="book.json"',
      'cache-control': 'private, no-store',
    },
  });
}
