import { NextResponse } from 'next/server';
import { currentUser } from '@/server/auth/session';
import { sortiePack } from '@/server/queries/pack';
import { groundings } from '@/server/queries/stops';

/**
 * What a device takes along for one flight. A grounded aeroplane is not taken; what was flown before it was grounded may
 * be written in (`?flown=1`), and a flight of which something is recorded goes on.
 */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const pack = user && (await sortiePack(user, (await params).id));
  if (!pack) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const flown = new URL(request.url).searchParams.get('flown') === '1' || pack.events.length > 0;
  const held = flown ? undefined : (await groundings({ registration: pack.registration, openOnly: true }))[0];
  return held
    ? NextResponse.json(
        { message: `${pack.registration} is grounded: ${held.why}. It is taken when its release is entered.` },
        { status: 409 },
      )
    : NextResponse.json(pack);
}
