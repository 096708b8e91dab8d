import { NextResponse } from 'next/server';
import { currentUser } from '@/server/auth/session';
import { recordJson } from '@/server/record';

/** Everything kept about a pilot, for themselves and the staff. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const record = user && (await recordJson(user, (await params).id));
  if (!record) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  return new NextResponse(JSON.stringify(record, null, 1), {
    headers: {
      'content-type': 'application/json',
      'content-disposition': 'attachment; filename="record.json"',
      'cache-control': 'private, no-store',
    },
  });
}
