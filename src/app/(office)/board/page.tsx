import { fitWords } from '@/core/schedule';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { ageText, dateText, list, plural } from '@/core/format';
import { BOOKING_NAME } from '@/domain/schedule';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { requireUser } from '@/server/floor/auth/session';
import { nowIso } from '@/server/floor/clock';
import { boardData } from '@/server/board/queries/board';
import { FIT_VERDICT } from '@/server/schedule/queries/readiness';
import { BoardRow } from '@/ui/board/board-row';
import { OneTapBooking } from '@/ui/board/one-tap';
import { LapseMark } from '@/ui/people/lapse';
import { Empty, Panel, Title } from '@/ui/shared/parts';
import { Groundings } from '@/ui/stops/groundings';
import { Limits } from '@/ui/traces/limits';
import { Verdict, VerdictMark } from '@/ui/shared/verdict';
import { PageStrip } from '@/ui/shared/strip';
import { bookAction, endGroundingAction, proposeSlotsAction, releaseExceedanceAction } from '../../actions';

export const metadata: Metadata = { title: 'Board' };

export default async function BoardPage() {
  const user = await requireUser();
  const b = await boardData(user);
  const staff = may.seeEverybody(user);
  const nothing = b.cards.length === 0 && b.line.length === 0;
  return (
    <>
      <PageStrip name="Board" line={dateText(nowIso())} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title={staff ? 'What waits for you' : 'Your checkouts'}
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
          <div className="grid">
            {b.next ? (
              <section className="panel next" aria-label="Next booking">
                <div>
                  <span className="soft small">
                    {b.next.minutesTo <= 0
                      ? 'now'
                      : b.next.minutesTo < 24 * 60
                        ? `next, in ${ageText(b.next.minutesTo)}`
                        : 'next'}
                  </span>
                  <h2>
                    {b.next.booking.checkoutId ? (
                      <Link href={`/checkouts/${b.next.booking.checkoutId}`}>
                        {b.next.booking.instructorId === user.id
                          ? b.next.booking.pilotName
                          : `With ${b.next.booking.instructorName ?? ''}`}
                      </Link>
                    ) : (
                      (b.next.booking.pilotName ?? BOOKING_NAME[b.next.booking.kind])
                    )}
                  </h2>
                  <p className="mb-1">
                    <b>{b.next.when}</b>, <span className="mono">{b.next.booking.registration}</span>
                    {b.next.booking.goals.length > 0
                      ? `, ${list(b.next.booking.goals.map(say))}`
                      : `, ${BOOKING_NAME[b.next.booking.kind]}`}
                  </p>
                  {b.next.booking.split && b.next.booking.airframeId ? (
                    <p className="small soft mb-0">
                      {[
                        b.next.booking.split.brief ? `brief ${b.next.booking.split.brief}` : '',
                        `prepare ${b.next.booking.split.prepare}`,
                        `fly ${b.next.booking.split.flight}`,
                        b.next.booking.split.debrief ? `debrief ${b.next.booking.split.debrief}` : '',
                      ]
                        .filter(Boolean)
                        .join(', ')}{' '}
                      min
                    </p>
                  ) : null}
                </div>
                <ul className="ready">
                  {b.next.ready.map((r) => (
                    <li key={r.key}>
                      <Link href={r.href}>
                        <Verdict verdict={r.verdict}>
                          <b>{r.title}</b>: {r.words}
                        </Verdict>
                      </Link>
                    </li>
                  ))}
                </ul>
              </section>
            ) : null}
            {b.waits.length > 0 ? (
              <Panel title="Waits for your word">
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
                <Panel
                  title={may.compareInstructors(user) ? 'Today and tomorrow, everybody today' : 'Today and tomorrow'}
                >
                  {b.line.length === 0 ? (
                    <p className="soft mb-0">
                      Nothing is booked. <Link href="/schedule">Book</Link>
                    </p>
                  ) : (
                    <ul className="day-line">
                      {b.line.map((x) => (
                        <li key={x.booking.id} className={x.past ? 'past' : undefined}>
                          <span className="small">
                            {x.when.slice(0, -15)}
                            <br />
                            <span className="mono" style={{ whiteSpace: 'nowrap' }}>
                              {x.when.slice(-14).replace(' to ', '–')}
                            </span>
                          </span>
                          <span>
                            {x.booking.pilotName ?? x.booking.note}
                            <br />
                            <span className="soft small">
                              <span className="mono">{x.booking.registration}</span>
                              {x.booking.instructorName && x.booking.instructorId !== user.id
                                ? `, ${x.booking.instructorName.split(' ')[0] ?? ''}`
                                : ''}
                              {x.booking.kind === 'lesson' ? '' : `, ${BOOKING_NAME[x.booking.kind]}`}
                              {x.hit.length > 0 ? <b className="v-outside">, must move: {list(x.hit)}</b> : ''}
                            </span>
                          </span>
                          {x.fit ? (
                            <VerdictMark
                              verdict={FIT_VERDICT[x.fit.word as keyof typeof FIT_VERDICT] ?? 'not-seen'}
                              label={`wind, ${fitWords(x.fit.said)}`}
                            />
                          ) : null}
                        </li>
                      ))}
                    </ul>
                  )}
                </Panel>
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
                    : `${b.grounded.length} groundings are open`
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
                    ? 'A limit was passed and is not released'
                    : `${b.limits.length} limits were passed and are not released`
                }
              >
                <Limits limits={b.limits} release={releaseExceedanceAction} withTrace />
              </Panel>
            ) : null}
            {b.lapses.length > 0 ? (
              <Panel title={staff ? 'Ends in 30 days, or ended this week' : 'What ends for you'}>
                <div className="scroll-x">
                  <table className="plain">
                    <thead>
                      <tr>
                        <th>Who</th>
                        <th>What</th>
                        <th>To</th>
                        <th>Keeps or restores it</th>
                        <th>Book</th>
                      </tr>
                    </thead>
                    <tbody>
                      {b.lapses.map((l) => (
                        <tr key={l.pilotId + l.lapse.key}>
                          <td>
                            <Link href={`/people/${l.pilotId}`}>{l.name}</Link>
                          </td>
                          <td>{l.lapse.what}</td>
                          <td>
                            <LapseMark lapse={l.lapse} />
                          </td>
                          <td className="small">
                            {l.lapse.restore ?? (l.lapse.kind === 'dated' ? '' : 'one flight in the type')}
                          </td>
                          <td>
                            {l.books ? (
                              <OneTapBooking
                                name={l.name}
                                pilotId={l.pilotId}
                                kind={l.books.kind}
                                airframeId={l.books.airframeId}
                                registration={l.books.registration}
                                through={l.lapse.through ?? b.today}
                                today={b.today}
                                zone={b.zone}
                                book={bookAction}
                                propose={proposeSlotsAction}
                              />
                            ) : (
                              <span className="soft small">not by flying</span>
                            )}
                          </td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </div>
                {b.lapsesMore > 0 ? (
                  <p className="mb-0 mt-2">
                    <Link href="/people?show=soon">and {plural(b.lapsesMore, 'more', 'more')}</Link>
                  </p>
                ) : null}
              </Panel>
            ) : null}
            {b.stalled.length > 0 || b.instructors.length > 0 ? (
              <div
                className={b.stalled.length > 0 && b.instructors.length > 0 ? 'grid g-1-1' : 'grid'}
                style={{ alignItems: 'start' }}
              >
                {b.stalled.length > 0 ? (
                  <Panel title="Stalled">
                    <table className="plain">
                      <thead>
                        <tr>
                          <th>Pilot</th>
                          <th>Aeroplane</th>
                          <th className="r">Since the last lesson</th>
                          <th>Booked</th>
                        </tr>
                      </thead>
                      <tbody>
                        {b.stalled.map((s) => (
                          <tr key={s.id}>
                            <td>
                              <Link href={`/checkouts/${s.id}`}>{s.pilotName}</Link>
                              {may.compareInstructors(user) ? <div className="soft small">{s.instructor}</div> : null}
                            </td>
                            <td className="mono">{s.registration}</td>
                            <td className="r mono">{s.days} days</td>
                            <td>
                              {s.booked ? (
                                'yes'
                              ) : (
                                <Link href={`/schedule?checkout=${s.id}`}>
                                  book<span className="visually-hidden"> {s.pilotName}</span>
                                </Link>
                              )}
                            </td>
                          </tr>
                        ))}
                      </tbody>
                    </table>
                  </Panel>
                ) : null}
                {b.instructors.length > 0 ? (
                  <Panel title="Across the instructors">
                    <div className="scroll-x">
                      <table className="plain">
                        <thead>
                          <tr>
                            <th>Instructor</th>
                            <th className="r">Today</th>
                            <th className="r">Open</th>
                            <th className="r">Stalled</th>
                            <th>Out of recency to teach</th>
                          </tr>
                        </thead>
                        <tbody>
                          {b.instructors.map((i) => (
                            <tr key={i.userId}>
                              <td>
                                {i.pilotId ? <Link href={`/people/${i.pilotId}`}>{i.name}</Link> : i.name}
                                <div className="soft small">
                                  {i.lastLesson ? `last lesson ${dateText(i.lastLesson)}` : 'no lesson yet'}
                                </div>
                              </td>
                              <td className="r mono">{i.today}</td>
                              <td className="r mono">{i.open}</td>
                              <td className="r mono">{i.stalled}</td>
                              <td>
                                {i.outOf.length > 0 ? (
                                  <Verdict verdict="outside">{list(i.outOf)}</Verdict>
                                ) : (
                                  <Verdict verdict="within">in none</Verdict>
                                )}
                              </td>
                            </tr>
                          ))}
                        </tbody>
                      </table>
                    </div>
                  </Panel>
                ) : null}
              </div>
            ) : null}
          </div>
        </div>
      </main>
    </>
  );
}
