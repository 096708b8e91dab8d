import { NextResponse } from 'next/server';
import { may } from '@/server/auth/permissions';
import { currentUser } from '@/server/auth/session';
import { checkoutHead, checkoutRecord } from '@/server/queries/checkout';
import { bookletPdf } from '@/server/record';

/** A checkout as a booklet, for its pilot and the staff. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const head = user && (await checkoutHead((await params).id));
  if (!user || !head || !may.exportRecord(user, head))
    return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const pdf = await bookletPdf(user, await checkoutRecord(head));
  return new NextResponse(Buffer.from(pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': 'inline; filename="checkout.pdf"',
      'cache-control': 'private, no-store',
    },
  });
}
