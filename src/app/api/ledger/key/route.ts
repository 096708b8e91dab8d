import { NextResponse } from 'next/server';
import { publicKeys } from '@/server/ledger/keys';

/** The public keys of the book, for everybody: what they prove rests on where you keep them. */
export function GET() {
  const keys = Object.values(publicKeys());
  return new NextResponse(keys.join('\n'), {
    headers: {
      'content-type': 'application/x-pem-file',
      'content-disposition': 'attachment; filename="jeito-book.pub.pem"',
      'cache-control': 'no-store',
    },
  });
}
