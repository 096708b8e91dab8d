import { Link } from '@/ui/shared/link';
import { fixed, list, plural } from '@/core/format';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { nowIso } from '@/server/floor/clock';
import { hangar } from '@/server/hangar/queries/hangar';
import { differencesOf, writtenOf } from '@/server/people/queries/pilot';
import { LabLinks } from '@/ui/lab/lab-links';
import { DifferenceGroups, FirstThree } from '@/ui/open/differences';
import { FlownTable } from '@/ui/open/flown-table';
import { HoursForm } from '@/ui/open/hours-form';
import { Empty, Outranked, Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { FlightStrip } from '@/ui/shared/strip';
import { checkoutPage, titled } from '../../../../checkout-page';
import { saveHoursAction } from '../../../../actions';

export const generateMetadata = titled('Habits');

export default async function DifferencesPage({ params }: { params: Promise<{ id: string }> }) {
  const { user, record, strip } = await checkoutPage(params);
  const { head } = record;
  const now = nowIso();
  const { flown, entered, rows } = await differencesOf(head, now);
  const types = (await hangar()).map((t) => ({ code: t.code, name: t.sheet.name }));
  const keeps = may.keepPilotRecord(user, head);
  const drops = rows.filter((r) => r.action === 'drop');
  const adds = rows.filter((r) => r.action === 'add');
  const from = list(
    flown.slice(0, 3).map((f) => `${f.typeName} ${f.about ? 'about ' : ''}${fixed(f.hours, f.hours < 10 ? 1 : 0)} h`),
  );
  return (
    <>
      <FlightStrip facts={strip} at="brief" />
      <main id="main">
        <div className="column">
          <Title
            title={flown.length === 0 ? 'Habits' : `${plural(drops.length, 'habit')} to drop, ${adds.length} to add`}
            line={
              flown.length === 0
                ? `No hours by type entered yet for ${head.pilotName}.`
                : `From ${from} to ${head.registration}, ${head.typeName}; goal ${list(head.goals.map(say))}.`
            }
          >
            <Link className="btn btn-primary" href={`/checkouts/${head.id}/brief`}>
              Use in brief
            </Link>
          </Title>
          <div className="grid">
            {flown.length === 0 ? (
              <Empty
                title="No hours by type"
                text={
                  keeps
                    ? 'Enter types and hours below. The habits to drop are then listed here, worst first.'
                    : 'Your instructor enters the types and hours you have flown. The habits to drop are then listed here.'
                }
              />
            ) : (
              <FirstThree rows={rows} />
            )}
            <div className="grid g-2-1">
              <Panel title="In the order of the flight">
                {rows.length === 0 ? (
                  <p className="soft mb-0">Nothing to compare yet.</p>
                ) : (
                  <DifferenceGroups rows={rows} many={flown.length > 1} />
                )}
              </Panel>
              <div className="grid" style={{ alignContent: 'start' }}>
                <Panel title={`What ${head.pilotName.split(' ')[0] ?? 'the pilot'} has flown`}>
                  {entered.length > 0 ? <FlownTable rows={entered} /> : null}
                  {keeps ? (
                    <HoursForm
                      pilotId={head.pilotId}
                      flown={entered}
                      written={await writtenOf(head.pilotId)}
                      types={types}
                      today={now.slice(0, 10)}
                      action={saveHoursAction}
                    />
                  ) : null}
                </Panel>
                <Panel title="Picture and pace">
                  <LabLinks checkoutId={head.id} but="habits" />
                </Panel>
                <Panel title="How the rank is computed">
                  <p className="mb-1 small">
                    Severity (0 to 10, school data) × share of the habit × how much of this goal is flown in that phase.
                    Habit: hours on type, as entered and as recorded here, fading with 180 days; a flight here without
                    block times counts the school’s time of a circuit a landing. An old action that is wrong here ranks
                    first.
                  </p>
                  <Outranked />
                </Panel>
              </div>
            </div>
          </div>
        </div>
      </main>
    </>
  );
}
