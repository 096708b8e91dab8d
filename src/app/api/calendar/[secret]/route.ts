import { told } from '@/server/door/sentences';
import { icsOf } from '@/server/schedule/papers/calendar';
import { nowIso } from '@/server/floor/clock';
import { feedOwner } from '@/server/schedule/commands/feed';
import { takeTry } from '@/server/floor/auth/limiter';
import { door, fileAnswer, refusal } from '@/server/door/route';
import { originOf } from '@/server/floor/origin';
import { placeNames } from '@/server/rules/content';
import { ownBookings } from '@/server/schedule/queries/bookings';

const BACK_MS = 90 * 86_400_000;
/**
 * A calendar that can be subscribed to. The address is the key; an unknown one answers like any page that is not there.
 */
export const GET = door<'anyone', { secret: string }>({ who: 'anyone' }, async ({ params, request, address }) => {
  if ((await takeTry('open', `calendar ${address}`)) > 0) return refusal(429, told('too-many-requests'));
  const owner = await feedOwner(params.secret.replace(/\.ics$/, ''));
  if (!owner) return null;
  const bookings = await ownBookings(owner.user, new Date(Date.parse(nowIso()) - BACK_MS).toISOString(), true);
  const text = icsOf(bookings, {
    placeOf: await placeNames(),
    alarmMin: owner.alarmMin,
    now: nowIso(),
    origin: originOf(request),
    name: `Jeito, ${owner.user.name}`,
  });
  return fileAnswer(text, { type: 'text/calendar; charset=utf-8', name: 'jeito.ics', inline: true });
});
