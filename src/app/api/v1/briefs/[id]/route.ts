import { NextResponse } from 'next/server';
import { briefCard } from '@/server/queries/card';
import { caller, nothingHere } from '../../answer';

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await caller(request);
  const found = user && (await briefCard(user, (await params).id));
  if (!found) return nothingHere();
  const { id, checkoutId, lesson, version, savedAt, choices, card } = found;
  const { title, line, revision, warnings, gates, caution } = card;
  return NextResponse.json({
    id,
    checkoutId,
    lesson,
    version,
    savedAt,
    choices,
    card: { title, line, revision, warnings, gates, caution },
  });
}
