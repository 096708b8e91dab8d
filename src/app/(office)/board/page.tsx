import { runningState } from '@/server/running/keep';
import { stateWords } from '@/server/running/state-words';
import { setUpSteps } from '@/server/running/queries/set-up';
import { dayHere } from '@/server/rules/today';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { may } from '@/server/floor/auth/permissions';
import { currentUser, requireUser } from '@/server/floor/auth/session';
import { nowIso } from '@/server/floor/clock';
import { boardData } from '@/server/board/queries/board';
import { BoardRow } from '@/ui/board/board-row';
import { Empty, Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { Groundings } from '@/ui/stops/groundings';
import { Limits } from '@/ui/traces/limits';
import { PageStrip } from '@/ui/shared/strip';
import { endGroundingAction, releaseExceedanceAction } from '../../actions';
import { NextBooking } from './next-booking';
import { PilotHome } from './pilot-home';
import { pilotLessons } from '@/server/board/queries/pilot-home';
import { DayLine } from './day-line';
import { LapsesPanel } from './lapses';
import { StalledPanel } from './stalled';
import { InstructorsPanel } from './instructors';

export async function generateMetadata(): Promise<Metadata> {
  const user = await currentUser();
  return { title: user && !may.seeEverybody(user) && user.pilotId !== null ? 'Home' : 'Board' };
}

export default async function BoardPage() {
  const day = await dayHere();
  const user = await requireUser();
  const b = await boardData(user);
  const staff = may.seeEverybody(user);
  if (!staff && user.pilotId !== null)
    return (
      <>
        <PageStrip name="Home" line={day(nowIso())} user={user.name} />
        <main id="main">
          <div className="column">
            <PilotHome b={b} lessons={await pilotLessons(user.pilotId)} user={user} />
          </div>
        </main>
      </>
    );
  const { warnings } = runningState(nowIso(), b.zone);
  const nothing = b.cards.length === 0 && b.line.length === 0;
  return (
    <>
      <PageStrip name="Board" line={day(nowIso())} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title={staff ? 'Your to-do' : 'Your checkouts'}
            line={`${b.cards.length + b.more === 1 ? '1 checkout' : `${b.cards.length + b.more} checkouts`} open`}
          >
            {may.openCheckouts(user) ? (
              <Link href="/checkouts/new" className="btn btn-primary">
                New checkout
              </Link>
            ) : null}
            <Link href="/schedule" className="btn btn-outline-primary">
              Schedule
            </Link>
          </Title>
          {may.changeHouse(user) && (await setUpSteps()).some((s) => s.key === 'type' && !s.done) ? (
            <p className="caution">
              The school is not set up yet. <Link href="/set-up">Go on with the next step</Link>
            </p>
          ) : null}
          {may.changeHouse(user) && warnings.length > 0 ? (
            <div className="trouble mb-3" role="note">
              <strong>Keep Jeito running</strong>
              <ul>
                {warnings.map((w) => (
                  <li key={w.code}>{stateWords(w)}</li>
                ))}
              </ul>
              <Link href="/settings#running">Disk and backups</Link>
            </div>
          ) : null}
          <div className="grid">
            {b.next ? <NextBooking next={b.next} user={user} /> : null}
            {b.waits.length > 0 ? (
              <Panel title="Needs your acknowledgement">
                <ul className="plain-list">
                  {b.waits.map((w) => (
                    <li key={w.text}>
                      <Link href={w.href}>{w.text}</Link>
                    </li>
                  ))}
                </ul>
              </Panel>
            ) : null}
            {nothing ? (
              <Empty
                title="Nothing is open"
                text={
                  staff
                    ? 'Open a checkout for a pilot and an aeroplane; it will stand here with its next action.'
                    : 'When an instructor opens a checkout for you it stands here.'
                }
                {...(may.openCheckouts(user) ? { href: '/checkouts/new', action: 'New checkout' } : {})}
              />
            ) : null}
            <div className="grid g-2-1" style={{ alignItems: 'start' }}>
              {b.cards.length > 0 ? (
                <div className="panel">
                  {b.cards.map((card) => (
                    <BoardRow key={card.summary.id} {...card} />
                  ))}
                  {b.more > 0 ? (
                    <p className="mb-0 mt-2">
                      <Link href="/checkouts">and {b.more} more</Link>
                    </p>
                  ) : null}
                </div>
              ) : (
                <div />
              )}
              <div className="grid">
                <DayLine b={b} user={user} />
                {b.stats.length > 0 ? (
                  <Panel title="The school">
                    <dl className="stats">
                      {b.stats.map((s) => (
                        <div key={s.name}>
                          <dt>{s.name}</dt>
                          <dd>{s.value}</dd>
                        </div>
                      ))}
                    </dl>
                  </Panel>
                ) : null}
              </div>
            </div>
            {b.grounded.length > 0 ? (
              <Panel
                id="grounded"
                title={
                  b.grounded.length === 1
                    ? 'An aeroplane is out of service'
                    : `${b.grounded.length} aeroplanes are out of service`
                }
              >
                <Groundings lines={b.grounded} end={endGroundingAction} mayEnd={may.endGrounding(user)} />
              </Panel>
            ) : null}
            {b.limits.length > 0 ? (
              <Panel
                id="limits"
                title={
                  b.limits.length === 1
                    ? 'A limit exceeded, not yet released'
                    : `${b.limits.length} limits exceeded, not yet released`
                }
              >
                <Limits limits={b.limits} release={releaseExceedanceAction} withTrace />
              </Panel>
            ) : null}
            {b.lapses.length > 0 ? <LapsesPanel b={b} staff={staff} /> : null}
            {b.stalled.length > 0 || b.instructors.length > 0 ? (
              <div
                className={b.stalled.length > 0 && b.instructors.length > 0 ? 'grid g-1-1' : 'grid'}
                style={{ alignItems: 'start' }}
              >
                {b.stalled.length > 0 ? <StalledPanel b={b} user={user} /> : null}
                {b.instructors.length > 0 ? <InstructorsPanel b={b} /> : null}
              </div>
            ) : null}
          </div>
        </div>
      </main>
    </>
  );
}
