import type { Metadata } from 'next';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { ImportPeople } from '@/ui/people/import-people';
import { PageStrip } from '@/ui/shared/strip';
import { Title } from '@/ui/shared/title';
import { addPeopleAction } from '../../../actions';

export const metadata: Metadata = { title: 'People from a file' };

export default async function ImportPeoplePage() {
  const user = await requireUser();
  denyUnless(may.keepPeople(user));
  return (
    <>
      <PageStrip name="People" line="from a file" user={user.name} />
      <main id="main">
        <div className="column">
          <Title title="People from a file" line="All of them, or nobody: what does not fit is said by its line." />
          <ImportPeople add={addPeopleAction} />
        </div>
      </main>
    </>
  );
}
