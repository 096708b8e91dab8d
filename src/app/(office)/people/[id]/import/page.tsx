import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { personPage } from '@/server/people/queries/page';
import { LogbookImport } from '@/ui/people/logbook-import';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Import a logbook' };

export default async function ImportPage({ params }: { params: Promise<{ id: string }> }) {
  const user = await requireUser();
  const { id } = await params;
  denyUnless(may.importLogbook(user, { pilotId: id }));
  const p = await personPage(user, id, null);
  denyUnless(p !== null && p.erased === null);
  return (
    <>
      <PageStrip name="People" line={`${p.name}, logbook`} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title="Import a logbook"
            line={
              <>
                A CSV file of flights. Its hours count in hours by type and habits, its landings in the recent
                experience of <Link href={`/people/${p.pilotId}`}>{p.name}</Link>. Nothing is saved until you import.
              </>
            }
          />
          <LogbookImport pilotId={p.pilotId} name={p.name} types={p.types} />
        </div>
      </main>
    </>
  );
}
