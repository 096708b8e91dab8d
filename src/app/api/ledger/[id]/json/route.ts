import { NextResponse } from 'next/server';
import { currentUser } from '@/server/auth/session';
import { ledgerEntry } from '@/server/ledger/book';
import { signedEntry } from '@/server/ledger/pdf';
import { bookLines } from '@/server/queries/book';

/** One entry as signed, with the head and the public key, for those who may see it. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const { id } = await params;
  const line = user && (await bookLines(user, { id }))[0];
  const entry = line && (await ledgerEntry(id));
  if (!line || !entry) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  return new NextResponse(JSON.stringify(signedEntry(entry), null, 2), { headers: { 'content-type': 'application/json', 'content-disposition': `attachment; filename="entry-${entry.seq}.json"`, 'cache-control': 'private, no-store' } });
}
