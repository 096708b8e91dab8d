import { NextResponse } from 'next/server';
import { door } from '@/server/door/route';
import { briefCard } from '@/server/checkout/queries/card';

export const GET = door<'caller', { id: string }>({ who: 'caller', scope: 'checkouts' }, async ({ user, params }) => {
  const found = await briefCard(user, params.id);
  if (!found) return null;
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
});
