import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { currentUser } from '@/server/floor/auth/session';
import { SignInForm } from '@/ui/open/sign-in-form';
import { signInAction } from '../actions';

export const metadata: Metadata = { title: 'Sign in' };
export const dynamic = 'force-dynamic';

export default async function SignInPage() {
  if (await currentUser()) redirect('/board');
  return (
    <main id="main" style={{ minHeight: '100vh', display: 'grid', placeItems: 'center', padding: 16 }}>
      <div style={{ width: 'min(400px, 100%)' }}>
        <h1 style={{ fontSize: '2rem' }}>jeito</h1>
        <p className="soft">Checkouts of licensed pilots: brief, fly, debrief and sign, with the evidence beside it.</p>
        <SignInForm action={signInAction} />
      </div>
    </main>
  );
}
