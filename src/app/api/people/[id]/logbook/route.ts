import { may } from '@/server/floor/auth/permissions';
import { door, fileAnswer } from '@/server/door/route';
import { logbookCsv } from '@/server/ledger/papers/record';
import { Pilots } from '@/server/account/tables';

/** Logbook rows of a pilot as CSV, for themselves and the staff. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in' }, async ({ user, params: { id } }) =>
  may.exportRecord(user, { pilotId: id }) && (await Pilots.first({ where: { id }, pick: ['id'] }))
    ? fileAnswer(await logbookCsv(id), { type: 'text/csv; charset=utf-8', name: 'logbook.csv' })
    : null,
);
