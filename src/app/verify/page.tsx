import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { verifyCode } from '@/server/ledger/queries/verify';
import { VerifyForm } from '@/ui/sign/verify-form';
import { Panel } from '@/ui/shared/parts';

export const metadata: Metadata = { title: 'Verify' };
export const dynamic = 'force-dynamic';

/** For anybody with a paper or a file in hand; no account is asked. */
export default async function VerifyPage({ searchParams }: { searchParams: Promise<{ e?: string; h?: string }> }) {
  const { e, h } = await searchParams;
  const first = e && h ? await verifyCode(e, h) : null;
  return (
    <main id="main" className="verify">
      <div style={{ width: 'min(760px, 100%)', margin: '0 auto', padding: '28px 16px' }}>
        <p className="mb-1">
          <Link href="/ledger" style={{ fontWeight: 700, fontSize: '1.2rem', textDecoration: 'none' }}>
            jeito
          </Link>
        </p>
        <h1>Verify a sign-off</h1>
        <p className="lead-line mb-3">
          Point a camera at the code on the sheet, or give the file. You need no account.
        </p>
        <VerifyForm first={first} code={e ?? ''} hash={h ?? ''} />
        <Panel title="Without this server">
          <p>
            Keep the <a href="/api/ledger/key">public key of the ledger</a> where you trust it. With it, and no network,
            the PDF or its JSON is checked by
          </p>
          <pre className="code-face mb-2">npm run verify-ledger -- FILE --key jeito-ledger.pub.pem</pre>
          <p className="mb-0 soft">
            That says whether the file was changed, not whether the entry was voided later: only the ledger knows that.
            A rewrite of everything by whoever holds the private key shows only against copies kept elsewhere.
          </p>
        </Panel>
      </div>
    </main>
  );
}
