import type { Metadata } from 'next';
import { addDays, givenUp } from '@/core/recency';
import { dateText, downTo, localText, plural, upTo } from '@/core/format';
import { WEEK_DAYS, type WeekInstructor, weekOf } from '@/server/board/queries/week';
import { weekText } from '@/server/board/week-words';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { localToday } from '@/server/rules/today';
import { lapseWords, verdictOf } from '@/ui/people/lapse';
import { Link } from '@/ui/shared/link';
import { Outranked, Panel } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';
import { TableHead } from '@/ui/shared/table-head';
import { Title } from '@/ui/shared/title';
import { Verdict } from '@/ui/shared/verdict';

export const metadata: Metadata = { title: 'The week' };

const DATE = /^\d{4}-\d{2}-\d{2}$/;

/** A chief's week: everything that was set aside or exceeded in one list, and what each instructor may teach. */
export default async function WeekPage({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const user = await requireUser();
  denyUnless(may.compareInstructors(user));
  const today = await localToday();
  const { to: asked } = await searchParams;
  const to = asked && DATE.test(asked) && !Number.isNaN(Date.parse(asked)) && asked < today ? asked : today;
  const week = await weekOf(user, to);
  const at = (when: string) => (when.length > 10 ? localText(when, week.zone) : dateText(when));
  return (
    <>
      <PageStrip name="Board" line="the week" user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            long
            title={`${dateText(week.from)} to ${dateText(week.to)}`}
            line={
              week.lines.length === 0
                ? 'Nothing was overridden, refused, flown past a stop or exceeded.'
                : `${plural(week.lines.length, 'entry', 'entries')}: overrides, refusals, stops and exceedances.`
            }
          >
            <Link className="btn btn-outline-primary" href={`/board/week?to=${addDays(to, -WEEK_DAYS)}`}>
              Week before
            </Link>
            {to < today ? (
              <Link className="btn btn-outline-primary" href={`/board/week?to=${addDays(to, WEEK_DAYS)}`}>
                Week after
              </Link>
            ) : null}
          </Title>
          <div className="grid">
            <Panel title="Overrides, refusals, stops and exceedances">
              {week.lines.length === 0 ? (
                <p className="soft mb-0">None in these seven days.</p>
              ) : (
                <div className="scroll-x">
                  <table aria-label="Overrides, refusals, stops and exceedances" className="plain">
                    <TableHead columns={['When', 'What', 'Pilot', 'Aeroplane', 'By']} />
                    <tbody>
                      {week.lines.map((l, i) => (
                        <tr key={`${l.at} ${i}`}>
                          <td className="soft small">{at(l.at)}</td>
                          <td>
                            <Link href={l.href}>{weekText(l.said)}</Link>
                          </td>
                          <td>{l.pilotName}</td>
                          <td className="code-face">{l.registration}</td>
                          <td>{l.by}</td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </div>
              )}
            </Panel>
            <Panel title="Instructors: duty, papers and hours in type">
              <div className="scroll-x">
                <table aria-label="Instructors: duty, papers and hours in type" className="plain">
                  <TableHead
                    columns={[
                      'Instructor',
                      'Flight training in 24 h',
                      'Medical, review and recency to teach',
                      'Hours in type',
                    ]}
                  />
                  <tbody>
                    {week.instructors.map((i) => (
                      <tr key={i.userId}>
                        <td>{i.pilotId ? <Link href={`/people/${i.pilotId}`}>{i.name}</Link> : i.name}</td>
                        <td>
                          <Duty minutes={i.trainingMin} limit={week.limit} />
                        </td>
                        <td>
                          <Papers of={i} />
                        </td>
                        <td>
                          {i.pilotId === null ? (
                            <span className="soft">no pilot record</span>
                          ) : i.asked === 0 ? (
                            <span className="soft">the law asks none in a type this instructor is rated for</span>
                          ) : i.short.length === 0 ? (
                            <Verdict verdict="within">enough in {plural(i.asked, 'type')} the law asks them in</Verdict>
                          ) : (
                            i.short.map((s) => (
                              <div key={s.typeName}>
                                <Verdict verdict="outside">
                                  {s.typeName}: {downTo(s.have, 1)} of {s.needed} h{s.inCommand ? ' in command' : ''}
                                </Verdict>{' '}
                                <span className="soft small">{s.citation}</span>
                              </div>
                            ))
                          )}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
              <p className="soft small mb-0 mt-2">
                Training: the fullest 24 hours of these seven days and the seven that follow, as booked.
                {week.limit ? ` At most ${week.limit.hours} h (${week.limit.citation}).` : ''}
              </p>
            </Panel>
            <Outranked />
          </div>
        </div>
      </main>
    </>
  );
}

function Duty({ minutes, limit }: { minutes: number; limit: { hours: number } | null }) {
  const said = `${upTo(minutes / 60, 1)} h`;
  if (!limit) return <span className="mono">{said}</span>;
  const most = limit.hours * 60;
  return (
    <Verdict verdict={minutes > most ? 'outside' : 'within'}>
      {said} of {limit.hours} h
    </Verdict>
  );
}

/** What is dated or counted of an instructor and does not hold, or soon will not; else the first to end. */
function Papers({ of }: { of: WeekInstructor }) {
  if (of.pilotId === null) return <span className="soft">no pilot record</span>;
  const lapses = of.lapses.filter((l) => !givenUp(l));
  const shown = lapses.filter((l) => l.kind === 'dated' || l.kind === 'certificate' || l.status !== 'current');
  if (shown.length === 0) return <span className="soft">nothing dated is on record</span>;
  return shown.map((l) => (
    <div key={l.key}>
      <Verdict verdict={verdictOf(l)}>
        {l.what}: {lapseWords(l)}
      </Verdict>
    </div>
  ));
}
