import { NextResponse } from 'next/server';
import { traceById } from '@/server/queries/traces';
import { caller, nothingHere } from '../../answer';

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await caller(request);
  const trace = user && (await traceById(user, (await params).id));
  return trace
    ? NextResponse.json({
        id: trace.id,
        checkoutId: trace.checkoutId,
        lesson: trace.lesson,
        flownOn: trace.flownOn,
        registration: trace.registration,
        startUtc: trace.startUtc,
        context: trace.context,
        analysis: trace.analysis,
      })
    : nothingHere();
}
