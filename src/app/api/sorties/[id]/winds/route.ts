import { NextResponse } from 'next/server';
import { door } from '@/server/door/route';
import { windsOf } from '@/server/fly/queries/winds';

/** Winds a device may confirm now, asked while it records with a network. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in' }, async ({ user, params }) => {
  const winds = await windsOf(user, params.id);
  return winds && NextResponse.json({ winds });
});
