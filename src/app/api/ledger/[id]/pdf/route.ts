import { door, fileAnswer } from '@/server/door/route';
import { originOf } from '@/server/floor/origin';
import { paper } from '@/server/papers/papers';
import { entryFor } from '@/server/ledger/queries/entries';

/** The PDF of one entry, for those who may see it; the same answer for everybody else. */
export const GET = door<'signed-in', { id: string }>(
  { who: 'signed-in', heavy: 'pdf' },
  async ({ user, params, request }) => {
    const found = await entryFor(user, params.id);
    return (
      found &&
      fileAnswer(await paper('entry', found.line, found.entry, originOf(request)), {
        type: 'application/pdf',
        name: `${found.line.kind}-${found.entry.seq}.pdf`,
        inline: true,
      })
    );
  },
);
