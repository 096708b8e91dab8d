import { TableHead } from '@/ui/shared/table-head';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { dateText } from '@/core/format';
import { may } from '@/server/floor/auth/permissions';
import { requireUser } from '@/server/floor/auth/session';
import { limitsPassed, traceList } from '@/server/traces/queries/traces';
import { Empty, Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { Limits } from '@/ui/traces/limits';
import { releaseExceedanceAction } from '../../actions';

export const metadata: Metadata = { title: 'Recordings' };

export default async function TracesPage() {
  const user = await requireUser();
  const all = await traceList(user);
  const open = may.seeEverybody(user) ? await limitsPassed(user, 'open') : [];
  return (
    <>
      <PageStrip name="Recordings" line="what was measured" user={user.name} />
      <main id="main">
        <div className="column">
          <Title title="Recordings" line="Tracks of panels and tablets, each with what was found in it.">
            {may.openCheckouts(user) ? (
              <Link className="btn btn-primary" href="/traces/new">
                Add a recording
              </Link>
            ) : null}
          </Title>
          <div className="grid">
            {open.length > 0 ? (
              <Panel
                title={
                  open.length === 1 ? 'One exceedance is not released' : `${open.length} exceedances are not released`
                }
              >
                <Limits limits={open} release={releaseExceedanceAction} withTrace />
              </Panel>
            ) : null}
            {all.length === 0 ? (
              <Empty
                title="No recording yet"
                text="A recording of a flight shows every landing with its place, speed, sink and load, and joins with what was tapped."
                {...(may.openCheckouts(user) ? { href: '/traces/new', action: 'Add a recording' } : {})}
              />
            ) : (
              <Panel>
                <div className="scroll-x">
                  <table aria-label="Recordings" className="plain">
                    <TableHead
                      columns={[
                        'Flight',
                        'Pilot',
                        'Aeroplane',
                        'Recording',
                        { right: 'Events' },
                        { right: 'Airwork' },
                        { right: 'Exceedances' },
                        'Added by',
                      ]}
                    />
                    <tbody>
                      {all.map((t) => (
                        <tr key={t.id}>
                          <td>
                            <Link href={`/traces/${t.id}`}>
                              {dateText(t.flownOn)}, lesson {t.lesson}
                            </Link>
                          </td>
                          <td>{t.pilotName}</td>
                          <td className="code-face">{t.registration}</td>
                          <td>
                            {t.name} <span className="soft small">{(t.bytes / 1e6).toFixed(1)} MB</span>
                          </td>
                          <td className="r mono">{t.events}</td>
                          <td className="r mono">{t.airwork}</td>
                          <td className="r mono">{t.limits}</td>
                          <td>{t.uploader}</td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </div>
              </Panel>
            )}
          </div>
        </div>
      </main>
    </>
  );
}
