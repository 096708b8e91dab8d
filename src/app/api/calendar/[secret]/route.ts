import { NextResponse } from 'next/server';
import { icsOf } from '@/server/calendar';
import { nowIso } from '@/server/clock';
import { feedOwner } from '@/server/commands/schedule';
import { originOf } from '@/server/origin';
import { fieldFacts, ownBookings } from '@/server/queries/schedule';

const BACK_MS = 90 * 86_400_000;
/**
 * A calendar that can be subscribed to. The address is the key; an unknown one answers like any page that is not there.
 */
export async function GET(request: Request, { params }: { params: Promise<{ secret: string }> }) {
  const owner = await feedOwner((await params).secret.replace(/\.ics$/, ''));
  if (!owner) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const bookings = await ownBookings(owner.user, new Date(Date.parse(nowIso()) - BACK_MS).toISOString(), true);
  const { aerodrome } = await fieldFacts();
  return new NextResponse(
    icsOf(bookings, {
      place: `${aerodrome.name} ${aerodrome.ident}`,
      alarmMin: owner.alarmMin,
      now: nowIso(),
      origin: originOf(request),
      name: `Jeito, ${owner.user.name}`,
    }),
    { headers: { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'no-store' } },
  );
}
