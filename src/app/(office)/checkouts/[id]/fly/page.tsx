import { Link } from '@/ui/shared/link';
import { asFlown, countFlown, flownWords, missingLine } from '@/core/assess';
import { dateText } from '@/core/format';
import { briefedHere, flownLessons } from '@/server/checkout/queries/stage';
import { TakeGrounded, TakeSortie } from '@/ui/fly/take-sortie';
import { OverrideLimit } from '@/ui/stops/stop-list';
import { Standing } from '@/ui/stops/standing';
import { Empty, Outranked, Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { may } from '@/server/floor/auth/permissions';
import { instructorLacks } from '@/server/fly/queries/stops';
import { groundings } from '@/server/hangar/queries/groundings';
import { GroundedNote } from '@/ui/stops/grounded-note';
import { FlightStrip } from '@/ui/shared/strip';
import { sharersOf } from '@/server/checkout/queries/lists';
import { deskEventAction, shareFlightAction } from '../../../../actions';
import { checkoutPage, titled } from '../../../../checkout-page';

export const generateMetadata = titled('Fly');
const LIMIT_OF: Partial<Record<string, string>> = {
  limitation: 'limitation of the flight manual',
  airframe: 'limit of this airframe',
  house: 'limit of the school',
  instructor: 'instructor’s own limit',
};

export default async function FlyStagePage({ params }: { params: Promise<{ id: string }> }) {
  const { record, strip, runs, user } = await checkoutPage(params);
  const { head, sorties, landings } = record;
  const latest = sorties[sorties.length - 1];
  const open = record.items.filter((i) => !i.met);
  const open_ = await groundings({ openOnly: true });
  const grounded = open_.some((g) => g.registration === head.registration);
  const crosswind = latest?.brief?.snapshot.crosswind;
  const outside = crosswind?.meanVerdict === 'outside' || crosswind?.gustVerdict === 'outside';
  const aside = record.overridden.find((o) => o.lesson === latest?.lesson);
  return (
    <>
      <FlightStrip facts={strip} at="fly" />
      <main id="main">
        <div className="column">
          <Title
            title={latest ? `Fly lesson ${latest.lesson}` : 'Fly'}
            line={
              latest?.brief
                ? `${dateText(latest.flownOn)}, ${latest.aerodrome ? `at ${latest.aerodrome}, ` : ''}runway ${latest.brief.choices.runwayEnd}. ${latest.brief.acknowledgedAt ? 'The pilot has acknowledged the brief.' : 'The pilot has not acknowledged the brief yet.'}`
                : undefined
            }
          />
          <GroundedNote registration={head.registration} groundings={open_} pack={head.pack} />
          {latest?.brief && head.status === 'open' ? (
            <Standing of={await instructorLacks(latest.instructorId, head, latest.flownOn)} />
          ) : null}
          {latest?.brief && outside ? (
            <div className="mb-3">
              <Panel title="Briefed wind exceeds a limit">
                <p className="mb-2">
                  The {LIMIT_OF[crosswind.governingKind ?? ''] ?? 'limit'} of {crosswind.governingKt ?? 0} kt
                  {crosswind.governingKind === 'instructor' ? '' : ` (${crosswind.governingSource ?? ''})`} is exceeded.
                  A landing in it is recorded as flown past a stop.
                </p>
                {aside ? (
                  <p className="mb-0">
                    <strong>Set aside for this flight by the chief:</strong> {aside.reason}.
                  </p>
                ) : crosswind.governingKind !== 'house' ? (
                  <p className="mb-0">This limit cannot be set aside.</p>
                ) : may.overrideSchoolLimit(user, head) ? (
                  <OverrideLimit sortieId={latest.id} send={deskEventAction} />
                ) : (
                  <p className="mb-0">The chief instructor may set it aside for one flight, with a reason.</p>
                )}
              </Panel>
            </div>
          ) : null}
          {latest?.brief && !flownLessons(record).has(latest.lesson) && !briefedHere(latest, head) ? (
            <Empty
              title={`Briefed for ${latest.registration ?? 'another aeroplane'}`}
              text={`It is flown in ${head.registration} now, which has its own sheet. Brief the lesson again, then prepare the device.`}
              {...(runs ? { href: `/checkouts/${head.id}/brief`, action: 'Brief the lesson again' } : {})}
            />
          ) : !latest?.brief ? (
            <Empty
              title="Nothing to fly yet"
              text="A lesson is briefed first: the wind, the speeds, the limits. Then a device can be prepared."
              {...(runs ? { href: `/checkouts/${head.id}/brief`, action: 'Brief the lesson' } : {})}
            />
          ) : (
            <div className="grid g-1-1">
              <Panel title="Prepare this device">
                {grounded && runs && head.status === 'open' && latest.instructorId === user.id ? (
                  <TakeGrounded sortieId={latest.id} />
                ) : runs && head.status === 'open' && latest.instructorId === user.id ? (
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
                    Another instructor briefed this lesson. Save the brief again in your name, then prepare your device.
                  </p>
                ) : (
                  <p className="mb-0">The instructor records the flight.</p>
                )}
                <p className="mt-3 mb-0">
                  {flownLessons(record).has(latest.lesson) ? (
                    <>
                      Sent, this lesson:{' '}
                      {flownWords(countFlown(landings.filter((l) => l.sortieId === latest.id).map(asFlown)))}.{' '}
                      <Link href={`/checkouts/${head.id}/debrief`}>Debrief</Link>
                    </>
                  ) : (
                    'Nothing recorded of this lesson yet.'
                  )}
                </p>
              </Panel>
              <Panel title="Items open today">
                {open.length === 0 ? (
                  <p>All items have evidence.</p>
                ) : (
                  <ul className="mb-0 ps-3">
                    {open.map((i) => (
                      <li key={i.item.id}>
                        <strong>
                          <span className="mono">{i.item.id}</span> {i.item.title}:
                        </strong>{' '}
                        {missingLine(i.missing)}
                      </li>
                    ))}
                  </ul>
                )}
              </Panel>
              <div style={{ gridColumn: '1 / -1' }}>
                <Outranked extra="Eyes out from base turn until stopped or climbing away: nothing asks for a tap before." />
              </div>
            </div>
          )}
        </div>
      </main>
    </>
  );
}
