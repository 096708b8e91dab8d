import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { briefCard } from '@/server/checkout/queries/card';
import { KneeboardCard } from '@/ui/brief/card';

export const metadata: Metadata = { title: 'Kneeboard card' };
export const dynamic = 'force-dynamic';

export default async function KneeboardPage({ params }: { params: Promise<{ brief: string }> }) {
  const user = await requireUser();
  const found = await briefCard(user, (await params).brief);
  denyUnless(found !== null);
  return (
    <main id="main" className="cardpage">
      <p className="actions">
        <Link href={`/checkouts/${found.checkoutId}/brief`}>Back to the brief</Link>{' '}
        <a className="btn btn-primary" href={`/api/briefs/${found.id}/card`}>
          PDF
        </a>
      </p>
      <KneeboardCard card={found.card} />
    </main>
  );
}
