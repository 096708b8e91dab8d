import { may } from '@/server/auth/permissions';
import { requireUser } from '@/server/auth/session';
import { Keys } from '@/ui/shared/keys';
import { OutboxNote } from '@/ui/shared/outbox-note';
import { Rail } from '@/ui/shared/rail';
import { signOutAction } from '../actions';

export const dynamic = 'force-dynamic';

export default async function OfficeLayout({ children }: { children: React.ReactNode }) {
  const user = await requireUser();
  return (
    <div className="shell">
      <a href="#main" className="skip">Skip to the content</a>
      <Rail staff={may.seeEverybody(user)} signOut={signOutAction} />
      {children}
      <OutboxNote />
      <Keys />
    </div>
  );
}
