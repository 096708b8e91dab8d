import { door, fileAnswer } from '@/server/door/route';
import { recordJson } from '@/server/ledger/papers/record';

/** Everything kept about a pilot, for themselves and the staff. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in' }, async ({ user, params }) => {
  const record = await recordJson(user, params.id);
  return record && fileAnswer(JSON.stringify(record, null, 1), { type: 'application/json', name: 'record.json' });
});
