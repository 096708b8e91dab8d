import { told } from '@/server/door/sentences';
import { NextResponse } from 'next/server';
import { door, refusal } from '@/server/door/route';
import { sortiePack } from '@/server/fly/queries/pack';
import { groundings } from '@/server/hangar/queries/groundings';

/**
 * What a device takes along for one flight. A grounded aeroplane is not taken; what was flown before it was grounded may
 * be written in (`?flown=1`), and a flight of which something is recorded goes on.
 */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in' }, async ({ user, params, query }) => {
  const pack = await sortiePack(user, params.id);
  if (!pack) return null;
  const flown = query.get('flown') === '1' || pack.events.length > 0;
  const held = flown ? undefined : (await groundings({ registration: pack.registration, openOnly: true }))[0];
  return held
    ? refusal(409, told('grounded', { registration: pack.registration, why: held.why }))
    : NextResponse.json(pack);
});
