import { NextResponse } from 'next/server';
import { currentUser } from '@/server/auth/session';
import { icsOf } from '@/server/calendar';
import { nowIso } from '@/server/clock';
import { originOf } from '@/server/origin';
import { bookingById, fieldFacts } from '@/server/queries/schedule';

/** One booking as a calendar file. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const booking = user ? await bookingById(user, (await params).id) : null;
  if (!booking) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const { aerodrome } = await fieldFacts();
  return new NextResponse(
    icsOf([booking], {
      place: `${aerodrome.name} ${aerodrome.ident}`,
      alarmMin: 60,
      now: nowIso(),
      origin: originOf(request),
      name: 'Jeito',
    }),
    {
      headers: {
        'content-type': 'text/calendar; charset=utf-8',
        'content-disposition': `attachment; filename="booking-${booking.startsAt.slice(0, 10)}.ics"`,
        'cache-control': 'no-store',
      },
    },
  );
}
