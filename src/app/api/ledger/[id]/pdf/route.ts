import { NextResponse } from 'next/server';
import { currentUser } from '@/server/auth/session';
import { entryPdf } from '@/server/ledger/pdf';
import { entryFor } from '@/server/queries/book';
import { originOf } from '@/server/origin';

/** The PDF of one entry, for those who may see it; the same answer for everybody else. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const found = await entryFor(await currentUser(), (await params).id);
  if (!found) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const pdf = await entryPdf(found.line, found.entry, originOf(request));
  return new NextResponse(Buffer.from(pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="${found.line.kind}-${found.entry.seq}.pdf"`,
      'cache-control': 'private, no-store',
    },
  });
}
