import { NextResponse } from 'next/server';
import { told } from '@/server/door/sentences';
import { door, refusal } from '@/server/door/route';
import { shareFlight } from '@/server/fly/commands/capture';
import { seatsOf } from '@/server/fly/queries/seats';

/** Who may swap seats in this flight, and who does: asked in the cockpit, where a change is there at once. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in' }, async ({ user, params }) => {
  const seats = await seatsOf(user, params.id);
  return seats && NextResponse.json(seats);
});

export const POST = door<'signed-in', { id: string }>(
  { who: 'signed-in', writes: true },
  async ({ user, params, json }) => {
    const body = (await json()) as { pilotId?: unknown } | null | undefined;
    const done = await shareFlight(user, { sortieId: params.id, pilotId: body?.pilotId });
    if (!done.ok) return NextResponse.json({ ok: false, problems: done.problems }, { status: 400 });
    const seats = await seatsOf(user, params.id);
    return seats ? NextResponse.json(seats) : refusal(404, told('not-found'));
  },
);
