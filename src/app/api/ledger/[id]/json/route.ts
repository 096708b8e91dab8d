import { NextResponse } from 'next/server';
import { currentUser } from '@/server/auth/session';
import { signedEntry } from '@/server/ledger/pdf';
import { entryFor } from '@/server/queries/book';

/** One entry as signed, with the head and the public key, for those who may see it. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const found = await entryFor(await currentUser(), (await params).id);
  if (!found) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  return new NextResponse(JSON.stringify(signedEntry(found.entry), null, 2), {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="entry-${found.entry.seq}.json"`,
      'cache-control': 'private, no-store',
    },
  });
}
