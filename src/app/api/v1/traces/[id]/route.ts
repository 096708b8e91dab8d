import { NextResponse } from 'next/server';
import { door } from '@/server/door/route';
import { traceById } from '@/server/traces/queries/traces';

export const GET = door<'caller', { id: string }>({ who: 'caller', scope: 'traces' }, async ({ user, params }) => {
  const trace = await traceById(user, params.id);
  if (!trace) return null;
  const { id, checkoutId, lesson, flownOn, registration, startUtc, context, analysis } = trace;
  return NextResponse.json({ id, checkoutId, lesson, flownOn, registration, startUtc, context, analysis });
});
