import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { linkOwner } from '@/server/account/commands/links';
import { newestContent } from '@/server/rules/content';
import { ChoosePassword } from '@/ui/account/choose-password';
import { spendLinkAction } from '../../actions';

export const metadata: Metadata = { title: 'Choose a password', referrer: 'no-referrer' };
export const dynamic = 'force-dynamic';

/** By a one-time link. Used, replaced, over or wrong, it answers as if it never was. */
export default async function WelcomePage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const owner = await linkOwner(token);
  if (!owner) notFound();
  const school = (await newestContent('house', 'house'))?.body.school ?? '';
  return (
    <main id="main" className="sign-in">
      <div>
        <h1>jeito</h1>
        <p>
          {owner.name}, choose the password of your account{school ? ` at ${school}` : ''}. You sign in with{' '}
          <strong>{owner.email}</strong>.
        </p>
        <ChoosePassword email={owner.email} action={spendLinkAction.bind(null, token)} />
      </div>
    </main>
  );
}
