import { NextResponse } from 'next/server';
import { currentUser } from '@/server/auth/session';
import { ledgerEntry } from '@/server/ledger/book';
import { entryPdf } from '@/server/ledger/pdf';
import { bookLines } from '@/server/queries/book';
import { originOf } from '@/server/origin';

/** The PDF of one entry, for those who may see it; the same answer for everybody else. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const { id } = await params;
  const line = user && (await bookLines(user, { id }))[0];
  const entry = line && (await ledgerEntry(id));
  if (!line || !entry) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const pdf = await entryPdf(line, entry, originOf(request));
  return new NextResponse(Buffer.from(pdf), { headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="${line.kind}-${entry.seq}.pdf"`, 'cache-control': 'private, no-store' } });
}
