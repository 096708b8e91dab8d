import type { Metadata } from 'next';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { PersonForm } from '@/ui/people/forms';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { addPersonAction } from '../../../actions';

export const metadata: Metadata = { title: 'New person' };

export default async function NewPersonPage() {
  const user = await requireUser();
  denyUnless(may.keepPeople(user));
  return (
    <>
      <PageStrip name="People" line="a new one" user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title="New person"
            line="A pilot’s record, with an account if an e-mail address is given. Ratings, dates and hours are entered on the next page."
          />
          <div className="grid g-3-2">
            <Panel>
              <PersonForm save={addPersonAction} />
            </Panel>
            <Panel title="Roles">
              <p>
                A <b>pilot</b> sees their own checkouts and record, acknowledges briefs and books for themselves.
              </p>
              <p>
                An <b>instructor</b> sees all pilots, runs checkouts and signs the goals ticked.
              </p>
              <p className="mb-0">
                The <b>chief</b> manages people, type sheets, programmes and school rules, and releases exceedances.
                Nobody acts as instructor on their own checkout.
              </p>
            </Panel>
          </div>
        </div>
      </main>
    </>
  );
}
