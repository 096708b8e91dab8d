import { may } from '@/server/floor/auth/permissions';
import { requireUser } from '@/server/floor/auth/session';
import { unseenCount } from '@/server/account/commands/notices';
import { Arrive } from '@/ui/shared/arrive';
import { Keys } from '@/ui/shared/keys';
import { nowIso } from '@/server/floor/clock';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { homeZone } from '@/server/rules/content';
import { staleDemoDays } from '@/server/running/demo';
import { HintHere } from '@/ui/help/hint-here';
import { HINTS } from '@/ui/help/hint-cookie';
import { OutboxNote } from '@/ui/shared/outbox-note';
import { Rail } from '@/ui/shared/rail';
import { Zone } from '@/ui/shared/zone';
import { signOutAction } from '../actions';

export const dynamic = 'force-dynamic';

export default async function OfficeLayout({ children }: { children: React.ReactNode }) {
  const user = await requireUser();
  const zone = await homeZone();
  if (zone === null) redirect('/set-up');
  const demoDays = staleDemoDays(nowIso());
  return (
    <div className="shell">
      <a href="#main" className="skip">
        Skip to the content
      </a>
      <Rail
        staff={may.seeEverybody(user)}
        record={user.pilotId === null ? null : `/people/${user.pilotId}`}
        notices={await unseenCount(user)}
        signOut={signOutAction}
      />
      {demoDays !== null ? (
        <p className="demo-note">
          This demo was filled in {demoDays} days ago and its dates have moved on. For a fresh start stop it and run{' '}
          <kbd>npm run demo -- --fresh</kbd>.
        </p>
      ) : null}
      <HintHere kept={(await cookies()).get(HINTS)?.value} staff={may.seeEverybody(user)} />
      <Zone value={zone}>{children}</Zone>
      <OutboxNote account={{ id: user.id, name: user.name }} />
      <Keys staff={may.seeEverybody(user)} />
      <Arrive />
    </div>
  );
}
