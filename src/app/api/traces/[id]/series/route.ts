import { NextResponse } from 'next/server';
import { door } from '@/server/door/route';
import { traceById } from '@/server/traces/queries/traces';
import { seriesBytes } from '@/server/traces/again';

/** The columns a replay draws, as one block of single-precision numbers. Of a person, so no browser keeps them. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in' }, async ({ user, params }) => {
  const trace = await traceById(user, params.id);
  const series = trace && (await seriesBytes(trace));
  return series
    ? new NextResponse(new Uint8Array(series), { headers: { 'content-type': 'application/octet-stream' } })
    : null;
});
