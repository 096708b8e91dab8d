import { door, fileAnswer } from '@/server/door/route';
import { signedEntry } from '@/server/ledger/papers/entry-pdf';
import { entryFor } from '@/server/ledger/queries/entries';

/** One entry as signed, with the head and the public key, for those who may see it. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in' }, async ({ user, params }) => {
  const found = await entryFor(user, params.id);
  return (
    found &&
    fileAnswer(JSON.stringify(signedEntry(found.entry), null, 2), {
      type: 'application/json',
      name: `entry-${found.entry.seq}.json`,
    })
  );
});
