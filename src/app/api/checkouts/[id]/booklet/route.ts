import { may } from '@/server/floor/auth/permissions';
import { door, fileAnswer } from '@/server/door/route';
import { checkoutRecord } from '@/server/checkout/queries/record';
import { checkoutHead } from '@/server/checkout/queries/head';
import { paper } from '@/server/papers/papers';
import { bookletOf } from '@/server/ledger/papers/record';

/** A checkout as a booklet, for its pilot and the staff. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in', heavy: 'pdf' }, async ({ user, params }) => {
  const head = await checkoutHead(params.id);
  if (!head || !may.exportRecord(user, head)) return null;
  const pdf = await paper('booklet', await bookletOf(user, await checkoutRecord(head)));
  return fileAnswer(pdf, { type: 'application/pdf', name: 'checkout.pdf', inline: true });
});
