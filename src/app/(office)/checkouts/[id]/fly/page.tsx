import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { dateText, plural } from '@/core/format';
import { TakeSortie } from '@/ui/fly/take-sortie';
import { Empty, Outranked, Panel, Title } from '@/ui/shared/parts';
import { openLimits } from '@/server/queries/traces';
import { AirframeFlag } from '@/ui/traces/flag';
import { FlightStrip } from '@/ui/shared/strip';
import { sharersOf } from '@/server/queries/lists';
import { shareFlightAction } from '../../../../actions';
import { checkoutPage } from '../../../../checkout-page';

export const metadata: Metadata = { title: 'Fly' };

export default async function FlyStagePage({ params }: { params: Promise<{ id: string }> }) {
  const { record, strip, runs, user } = await checkoutPage(params);
  const { head, sorties, landings } = record;
  const latest = sorties[sorties.length - 1];
  const open = record.items.filter((i) => !i.met);
  return (
    <>
      <FlightStrip facts={strip} at="fly" />
      <main id="main">
        <div className="column">
          <Title
            title={latest ? `Fly lesson ${latest.lesson}` : 'Fly'}
            line={
              latest?.brief
                ? `${dateText(latest.flownOn)}, runway ${latest.brief.choices.runwayEnd}. ${latest.brief.acknowledgedAt ? 'The pilot has acknowledged the brief.' : 'The pilot has not acknowledged the brief yet.'}`
                : undefined
            }
          />
          <AirframeFlag registration={head.registration} limits={await openLimits()} />
          {!latest?.brief ? (
            <Empty
              title="Nothing to fly yet"
              text="A lesson is briefed first: the wind, the speeds, the limits. Then it can be taken along."
              {...(runs ? { href: `/checkouts/${head.id}/brief`, action: 'Brief the lesson' } : {})}
            />
          ) : (
            <div className="grid g-1-1">
              <Panel title="Take it along">
                {runs && head.status === 'open' && latest.instructorId === user.id ? (
                  <TakeSortie
                    sortieId={latest.id}
                    share={{
                      pilots: await sharersOf(user, head),
                      secondId: latest.secondPilotId,
                      save: shareFlightAction,
                    }}
                  />
                ) : runs && head.status === 'open' ? (
                  <p className="mb-0">
                    Another instructor briefed this lesson. Save the brief again in your name, then take it along.
                  </p>
                ) : (
                  <p className="mb-0">The instructor records the flight.</p>
                )}
                <p className="mt-3 mb-0">
                  {landings.some((l) => l.sortieId === latest.id) ? (
                    <>
                      {plural(landings.filter((l) => l.sortieId === latest.id).length, 'landing')} of this lesson at the
                      field. <Link href={`/checkouts/${head.id}/debrief`}>Debrief</Link>
                    </>
                  ) : (
                    'Nothing recorded of this lesson yet.'
                  )}
                </p>
              </Panel>
              <Panel title="What would count today">
                {open.length === 0 ? (
                  <p>Every item has its evidence.</p>
                ) : (
                  <ul className="mb-0 ps-3">
                    {open.map((i) => (
                      <li key={i.item.id}>
                        <strong>
                          <span className="mono">{i.item.id}</span> {i.item.title}:
                        </strong>{' '}
                        {i.missing.join('; ')}
                      </li>
                    ))}
                  </ul>
                )}
              </Panel>
              <div style={{ gridColumn: '1 / -1' }}>
                <Outranked extra="Eyes are out from base turn until stopped or climbing away: nothing asks for a tap before." />
              </div>
            </div>
          )}
        </div>
      </main>
    </>
  );
}
