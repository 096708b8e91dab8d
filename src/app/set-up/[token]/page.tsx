import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { setUpOpen } from '@/server/running/commands/set-up';
import { FirstChief } from '@/ui/set-up/first-chief';
import { firstChiefAction } from '../../actions';

export const metadata: Metadata = { title: 'Set up: the chief instructor' };
export const dynamic = 'force-dynamic';

/** The first account of a school, by the link its server printed. Used or wrong, it answers as if it never was. */
export default async function FirstChiefPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  if (!(await setUpOpen(token))) notFound();
  return (
    <main id="main" className="sign-in set-up">
      <div>
        <h1>jeito</h1>
        <p className="soft">
          Set-up of your school. You are the first: you will be its chief instructor and let the others in. What you
          enter stays in the folder on this computer.
        </p>
        <FirstChief action={firstChiefAction.bind(null, token)} />
      </div>
    </main>
  );
}
