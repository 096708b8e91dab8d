import type { Metadata } from 'next';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { PlaceForm } from '@/ui/set-up/place';
import { PageStrip } from '@/ui/shared/strip';
import { Title } from '@/ui/shared/title';
import { addAerodromeAction } from '../../../actions';

export const metadata: Metadata = { title: 'Another aerodrome' };

export default async function AnotherAerodromePage() {
  const user = await requireUser();
  denyUnless(may.changeHouse(user));
  return (
    <>
      <PageStrip name="Settings" line="another aerodrome" user={user.name} />
      <main id="main">
        <div className="column set-up">
          <Title
            title="Another aerodrome"
            line="Where lessons are flown beside home: brief, circuit, night and recordings of such a lesson use it."
          />
          <PlaceForm save={addAerodromeAction} pack={null} zones={Intl.supportedValuesOf('timeZone')} />
        </div>
      </main>
    </>
  );
}
