import { NextResponse } from 'next/server';
import { currentUser } from '@/server/auth/session';
import { cardPdf } from '@/server/brief/card-pdf';
import { briefCard } from '@/server/queries/card';

export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const found = user && (await briefCard(user, (await params).id));
  if (!found) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const bytes = await cardPdf(found.card, found.savedAt);
  return new NextResponse(Buffer.from(bytes), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="card-${found.choices.flownOn}.pdf"`,
      'cache-control': 'private, no-store',
    },
  });
}
