import { dayHere } from '@/server/rules/today';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { plural } from '@/core/format';
import { minutesText, readClock } from '@/core/schedule';
import { SchoolForm as SchoolRulesForm } from '@/domain/settings-forms';
import { packWords } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { zodProblems } from '@/server/floor/result';
import { requireUser } from '@/server/floor/auth/session';
import { aerodromes, newestContent } from '@/server/rules/content';
import { contentList } from '@/server/rules/queries/content';
import { SchoolForm } from '@/ui/people/school-form';
import { CalendarFeed } from '@/ui/shared/calendar-feed';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { InstallNote } from '@/ui/shared/install-note';
import { PageStrip } from '@/ui/shared/strip';
import { ThemePicker } from '@/ui/shared/theme';
import { endFeedAction, openFeedAction, saveContentAction, saveFactorRolesAction } from '../../actions';
import { factorRoles } from '@/server/floor/auth/second-factor';
import { PlacePanel } from './place-panel';
import { RunningPanel } from './running-panel';
import { FactorRoles } from '@/ui/account/factor-roles';
import { CalendarFeeds } from '@/server/schedule/tables';

export const metadata: Metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const day = await dayHere();
  const user = await requireUser();
  const [house, places, content] = [await newestContent('house', 'house'), await aerodromes(), await contentList()];
  const feed = await CalendarFeeds.first({
    where: { userId: user.id, endedAt: null },
    pick: ['createdAt', 'alarmMin', 'expiresAt', 'lastUsedAt'],
  });
  const staff = may.seeEverybody(user);
  const chief = may.changeHouse(user);
  const version = content.find((c) => c.kind === 'house')?.version ?? 0;
  const words = packWords(house?.body.homePack ?? 'us');
  async function saveSchool(given: unknown) {
    'use server';
    const parsed = SchoolRulesForm.safeParse(given);
    if (!parsed.success) return zodProblems(parsed.error);
    const form = parsed.data;
    const now = await newestContent('house', 'house');
    if (!now) return { ok: false as const, problems: [{ path: '', message: 'No rules of the school are set up.' }] };
    return saveContentAction({
      kind: 'house',
      key: 'house',
      baseVersion: version,
      reason: form.reason,
      body: {
        ...now.body,
        school: form.name,
        homePack: form.homePack,
        weather: { reportUrl: form.reportUrl.trim(), forecastUrl: form.forecastUrl.trim() },
        schedule: {
          ...now.body.schedule,
          openFromMin: readClock(form.openFrom) ?? -1,
          openToMin: readClock(form.openTo) ?? -1,
          stepMin: form.stepMin,
          nightFlying: form.nightFlying,
          stalledDays: form.stalledDays,
        },
      },
    });
  }
  return (
    <>
      <PageStrip name="Settings" line={staff ? 'school and own' : 'own'} user={user.name} />
      <main id="main">
        <div className="column">
          <Title title="Settings" line={staff ? 'Settings of the school, and your own.' : 'Your own settings.'}>
            <Link className="btn btn-outline-primary" href="/account">
              Your flying
            </Link>
          </Title>
          <div className="grid g-1-1" style={{ alignItems: 'start' }}>
            <div className="grid">
              {staff && house ? (
                <Panel title="School">
                  {chief ? (
                    <SchoolForm
                      school={{
                        name: house.body.school,
                        homePack: house.body.homePack,
                        ...house.body.weather,
                        openFrom: minutesText(house.body.schedule.openFromMin),
                        openTo: minutesText(house.body.schedule.openToMin),
                        stepMin: house.body.schedule.stepMin,
                        nightFlying: house.body.schedule.nightFlying,
                        stalledDays: house.body.schedule.stalledDays,
                      }}
                      save={saveSchool}
                    />
                  ) : (
                    <p>
                      Bookings {minutesText(house.body.schedule.openFromMin)} to{' '}
                      {minutesText(house.body.schedule.openToMin)}, home pack {house.body.homePack.toUpperCase()}; the
                      chief changes it.
                    </p>
                  )}
                  <p className="small soft mb-0 mt-2">
                    Screens say <b>{words.circuit}</b>, <b>{words.gear}</b>; a checkout follows its own pack. Speeds
                    always stand in the unit painted on that aeroplane’s dial. Limits, intervals, recency to teach and
                    signing: <Link href="/rules/house/house">school rules, version {version}</Link>. All rules:{' '}
                    <Link href="/rules">{plural(content.length, 'piece')}</Link>.
                  </p>
                </Panel>
              ) : null}
              <Panel id="calendar" title="Calendar">
                <CalendarFeed
                  since={feed ? day(feed.createdAt) : null}
                  until={feed?.expiresAt ? day(feed.expiresAt) : null}
                  used={feed?.lastUsedAt ? day(feed.lastUsedAt) : null}
                  alarmMin={feed?.alarmMin ?? 60}
                  open={openFeedAction}
                  end={endFeedAction}
                />
              </Panel>
              {chief ? (
                <Panel title="Sign-in">
                  <FactorRoles roles={await factorRoles()} save={saveFactorRolesAction} />
                </Panel>
              ) : null}
              {chief ? <RunningPanel timeZone={places[0]?.timeZone ?? 'UTC'} /> : null}
              <Panel id="install" title="On this device">
                <InstallNote />
              </Panel>
              <Panel title="Theme, keys and hints">
                <ThemePicker />
                <p className="small soft mb-0 mt-2">
                  Single keys are listed behind the question mark at the top. Keys and first-visit hints are turned on
                  and off there. <Link href="/help">Guide</Link>, <Link href="/help/glossary">Glossary</Link>
                </p>
              </Panel>
            </div>
            <div className="grid">
              <div id="aerodromes" className="grid">
                {places.map((a) => (
                  <PlacePanel key={a.ident} aerodrome={a} home={a === places[0]} edits={chief} />
                ))}
                {chief ? (
                  <Link className="btn btn-sm btn-outline-primary justify-self-start" href="/settings/aerodrome">
                    Another aerodrome
                  </Link>
                ) : null}
              </div>
              <Panel title="Other programs">
                <p className="mb-0">
                  Another program reads Jeito with a token of somebody who may see it.{' '}
                  <Link href="/account#tokens">Personal tokens</Link>,{' '}
                  <Link href="/account/interface">Interface for programs</Link>
                </p>
              </Panel>
            </div>
          </div>
        </div>
      </main>
    </>
  );
}
