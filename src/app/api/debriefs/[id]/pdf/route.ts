import { NextResponse } from 'next/server';
import { may } from '@/server/auth/permissions';
import { currentUser } from '@/server/auth/session';
import type { DebriefSnapshot } from '@/server/commands/debrief';
import { debriefPdf } from '@/server/debrief-pdf';
import { debriefById } from '@/server/queries/debrief';

/** The PDF of one debrief, for those who may see it; the same answer for everybody else. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const debrief = user && (await debriefById((await params).id));
  if (!user || !debrief || !may.viewCheckout(user, debrief))
    return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const pdf = await debriefPdf({ ...debrief, snapshot: debrief.snapshot as DebriefSnapshot });
  return new NextResponse(Buffer.from(pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="debrief-${debrief.id.slice(0, 8)}.pdf"`,
      'cache-control': 'private, no-store',
    },
  });
}
