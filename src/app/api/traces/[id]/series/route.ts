import { NextResponse } from 'next/server';
import { currentUser } from '@/server/auth/session';
import { traceById } from '@/server/queries/traces';
import { seriesBytes } from '@/server/traces/again';
import { nothingHere } from '../../../v1/answer';

/** The columns a replay draws, as one block of single-precision numbers. They never change. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const trace = user && (await traceById(user, (await params).id));
  const series = trace && (await seriesBytes(trace));
  return series
    ? new NextResponse(new Uint8Array(series), {
        headers: {
          'content-type': 'application/octet-stream',
          'cache-control': 'private, max-age=31536000, immutable',
        },
      })
    : nothingHere();
}
