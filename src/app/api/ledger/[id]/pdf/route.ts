import { NextResponse } from 'next/server';
import { may } from '@/server/auth/permissions';
import { currentUser } from '@/server/auth/session';
import { ledgerEntry } from '@/server/ledger/book';
import { signOffPdf } from '@/server/ledger/pdf';
import { row } from '@/server/db/connection';

/** The PDF of one entry, for those who may see it; the same answer for everybody else. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const entry = user && (await ledgerEntry((await params).id));
  const checkout = entry && (await row<{ pilot_id: string }>('SELECT pilot_id FROM checkouts WHERE id = :id', { id: entry.checkoutId }));
  if (!user || !entry || !checkout || !may.viewLedgerEntry(user, { pilotId: checkout.pilot_id })) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const pdf = await signOffPdf(entry);
  return new NextResponse(Buffer.from(pdf), { headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="sign-off-${entry.seq}.pdf"`, 'cache-control': 'private, no-store' } });
}
