import { NextResponse } from 'next/server';
import { may } from '@/server/auth/permissions';
import { currentUser } from '@/server/auth/session';
import { row } from '@/server/db/connection';
import { logbookCsv } from '@/server/record';

/** Logbook rows of a pilot as CSV, for themselves and the staff. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const { id } = await params;
  const pilot =
    user && may.exportRecord(user, { pilotId: id }) ? await row('SELECT id FROM pilots WHERE id = :id', { id }) : null;
  if (!pilot) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  return new NextResponse(await logbookCsv(id), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="logbook.csv"',
      'cache-control': 'private, no-store',
    },
  });
}
