import type { Metadata } from 'next';
import { dateText } from '@/core/format';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { contextOfSortie } from '@/server/traces/commands/traces';
import { flightsToRecord } from '@/server/traces/queries/traces';
import { Outranked } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { ImportTrace } from '@/ui/traces/import';

export const metadata: Metadata = { title: 'Add a recording' };

export default async function NewTracePage({ searchParams }: { searchParams: Promise<{ sortie?: string }> }) {
  const user = await requireUser();
  denyUnless(may.openCheckouts(user));
  const flights = await flightsToRecord(user);
  const wanted = (await searchParams).sortie ?? '';
  const where = wanted === '' ? null : await contextOfSortie(user, wanted);
  denyUnless(wanted === '' || where !== null);
  return (
    <>
      <PageStrip name="Recordings" line="add one" user={user.name} />
      <main id="main">
        <div className="column">
          <Title title="Add a recording" line="Read on this device first, then stored unchanged with the flight." />
          <ImportTrace
            key={wanted}
            flights={flights.map((f) => ({
              id: f.id,
              name: `${f.pilotName}, ${f.registration}, lesson ${f.lesson}, ${dateText(f.flownOn)}`,
            }))}
            sortieId={wanted}
            context={where?.context ?? null}
            elsewhere={where?.elsewhere ?? []}
          />
          <div className="mt-3">
            <Outranked extra="A recorder shows what its sensors saw, not what the aeroplane can take." />
          </div>
        </div>
      </main>
    </>
  );
}
