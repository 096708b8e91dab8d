import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { lacksFactor } from '@/server/floor/auth/second-factor';
import { signedInUser } from '@/server/floor/auth/session';
import { SecondFactor } from '@/ui/account/second-factor';
import { beginSecondFactorAction, confirmSecondFactorAction, signOutAction } from '../actions';

export const metadata: Metadata = { title: 'Second factor' };
export const dynamic = 'force-dynamic';

/** Before anything else, for who has a role that requires a second factor and none yet. */
export default async function SecondFactorPage() {
  const user = await signedInUser();
  if (!user) redirect('/sign-in');
  if (!(await lacksFactor(user))) redirect('/board');
  return (
    <main id="main" className="sign-in">
      <div>
        <h1>jeito</h1>
        <div className="panel">
          <h2>Second factor</h2>
          <SecondFactor
            on={false}
            required
            begin={beginSecondFactorAction}
            confirm={confirmSecondFactorAction}
            end={null}
          />
        </div>
        <form action={signOutAction}>
          <button type="submit" className="btn btn-link p-0 mt-2">
            Sign out
          </button>
        </form>
      </div>
    </main>
  );
}
