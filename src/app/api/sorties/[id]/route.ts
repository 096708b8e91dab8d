import { NextResponse } from 'next/server';
import { currentUser } from '@/server/auth/session';
import { sortiePack } from '@/server/queries/pack';

/** What a device takes along for one flight. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const pack = user && (await sortiePack(user, (await params).id));
  return pack
    ? NextResponse.json(pack)
    : NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
}
