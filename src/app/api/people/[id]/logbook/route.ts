import { may } from '@/server/floor/auth/permissions';
import { row } from '@/server/floor/connection';
import { door, fileAnswer } from '@/server/door/route';
import { logbookCsv } from '@/server/ledger/papers/record';

/** Logbook rows of a pilot as CSV, for themselves and the staff. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in' }, async ({ user, params: { id } }) =>
  may.exportRecord(user, { pilotId: id }) && (await row('SELECT id FROM pilots WHERE id = :id', { id }))
    ? fileAnswer(await logbookCsv(id), { type: 'text/csv; charset=utf-8', name: 'logbook.csv' })
    : null,
);
