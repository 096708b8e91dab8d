import { door, fileAnswer } from '@/server/door/route';
import { paper } from '@/server/papers/papers';
import { briefCard } from '@/server/checkout/queries/card';

/** The card of one brief, as a PDF. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in', heavy: 'pdf' }, async ({ user, params }) => {
  const found = await briefCard(user, params.id);
  return (
    found &&
    fileAnswer(await paper('card', found.card, found.savedAt), {
      type: 'application/pdf',
      name: `card-${found.choices.flownOn}.pdf`,
      inline: true,
    })
  );
});
