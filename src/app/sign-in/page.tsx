import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { signedInUser } from '@/server/floor/auth/session';
import { pageOfOurs } from '@/server/floor/auth/page-header';
import { newestContent } from '@/server/rules/content';
import { demoAccounts } from '@/server/running/demo';
import { SignInForm } from '@/ui/open/sign-in-form';
import { signInAction } from '../actions';

export const metadata: Metadata = { title: 'Sign in' };
export const dynamic = 'force-dynamic';

export default async function SignInPage({
  searchParams,
}: {
  searchParams: Promise<{ back?: string | string[]; ended?: string | string[] }>;
}) {
  const asked = await searchParams;
  const back = pageOfOurs(typeof asked.back === 'string' ? asked.back : undefined) ?? '/board';
  if (await signedInUser()) redirect(back);
  const school = (await newestContent('house', 'house'))?.body.school ?? '';
  return (
    <main id="main" className="sign-in">
      <div>
        <h1>jeito</h1>
        {school ? <p className="mb-0 fw-bold">{school}</p> : null}
        <p className="soft">Checkouts of licensed pilots: brief, fly, debrief and sign, with the evidence beside it.</p>
        {asked.ended !== undefined ? (
          <p className="caution" role="status">
            Your session has ended. Sign in to go on where you were; what you typed is still in this tab.
          </p>
        ) : null}
        <SignInForm action={signInAction} back={back} demo={demoAccounts()} />
      </div>
    </main>
  );
}
