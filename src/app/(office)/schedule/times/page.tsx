import type { Metadata } from 'next';
import { may, personKey } from '@/server/floor/auth/permissions';
import { requireUser } from '@/server/floor/auth/session';
import { localToday } from '@/server/rules/today';
import { schedulePage } from '@/server/schedule/queries/page';
import { AwayForm, AwayList, WindowsForm } from '@/ui/schedule/times';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { endAwayAction, saveAwayAction, saveWindowsAction } from '../../../actions';

export const metadata: Metadata = { title: 'Availability' };

export default async function TimesPage() {
  const user = await requireUser();
  const today = await localToday();
  const data = await schedulePage(user, today, 60);
  const staff = may.keepFleetDown(user);
  const own = personKey(user);
  const people = data.people.filter((p) => may.keepWindows(user, p.key) && (p.instructor || p.key === own));
  const options = [
    ...data.people.filter((p) => may.keepWindows(user, p.key)).map((p) => ({ key: p.key, name: p.name })),
    ...(staff ? data.airframes.map((a) => ({ key: `a:${a.id}`, name: a.registration })) : []),
  ];
  return (
    <>
      <PageStrip name="Schedule" line="availability" user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title="Availability"
            line="When people can be booked each week, who is away, and which aeroplanes are out of service."
          />
          <div className="grid g-1-1" style={{ alignItems: 'start' }}>
            <div className="grid">
              {people.map((p) => (
                <Panel key={p.key} title={p.name}>
                  <WindowsForm
                    person={p.key}
                    name={p.name}
                    today={today}
                    windows={p.windows}
                    stamp={p.stamp}
                    save={saveWindowsAction}
                  />
                </Panel>
              ))}
            </div>
            <div className="grid">
              <AwayList
                zone={data.zone}
                end={endAwayAction}
                rows={data.away.map((a) => ({
                  id: a.id,
                  name: a.name,
                  kind: a.kind,
                  from: a.from,
                  to: a.to,
                  why: a.why,
                  ends:
                    a.kind !== 'exceedance' &&
                    a.kind !== 'grounded' &&
                    (a.who.startsWith('a:') ? staff : may.keepWindows(user, a.who)),
                }))}
              />
              <Panel title={staff ? 'Away or out of service' : 'Away'}>
                <AwayForm options={options} zone={data.zone} today={today} save={saveAwayAction} />
              </Panel>
            </div>
          </div>
        </div>
      </main>
    </>
  );
}
