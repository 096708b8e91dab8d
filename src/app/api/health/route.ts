import { NextResponse } from 'next/server';
import { door } from '@/server/door/route';
import { health } from '@/server/running/health';

/**
 * For whatever watches the server: 200 while it answers and its database reads, else 503. It says nothing about anybody,
 * and nothing about the machine.
 */
export const GET = door({ who: 'anyone' }, async () => {
  const state = await health();
  return NextResponse.json(state, { status: state.status === 'ok' ? 200 : 503 });
});
