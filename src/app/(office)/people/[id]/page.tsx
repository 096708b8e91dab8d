import Button from 'react-bootstrap/Button';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { firstLapse, standingOf } from '@/core/recency';
import { dateText, fixed, list } from '@/core/format';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { whatStays } from '@/server/people/commands/persons';
import { personPage } from '@/server/people/queries/page';
import { CertificateForm } from '@/ui/people/certificate-form';
import { Act, DateForm, EraseForm, HeldForm, NoteForm, RolesForm } from '@/ui/people/forms';
import { LadderDrawing } from '@/ui/people/ladder-drawing';
import { HoursForm } from '@/ui/open/hours-form';
import { LAPSE_VERDICT, LapseList, lapseWords } from '@/ui/people/lapse';
import { LogFlightForm } from '@/ui/people/log-form';
import { NewFirstPassword } from '@/ui/people/password-form';
import { WhatIf } from '@/ui/people/what-if';
import { Panel, Title } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';
import { Verdict } from '@/ui/shared/verdict';
import {
  addHeldAction,
  endHeldAction,
  erasePersonAction,
  logFlightAction,
  newFirstPasswordAction,
  saveCertificateAction,
  saveDateAction,
  savePilotCertificateAction,
  saveRolesAction,
  takeBackImportAction,
  whatIfAction,
  withdrawNoteAction,
  writeNoteAction,
  saveHoursAction,
} from '../../../actions';

export const metadata: Metadata = { title: 'Person' };
const DATE = /^\d{4}-\d{2}-\d{2}$/;
const SEEN = { pilot: 'instructors and pilot', staff: 'instructors', chief: 'the chief' } as const;

export default async function PersonPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ on?: string }>;
}) {
  const user = await requireUser();
  const { id } = await params;
  const { on } = await searchParams;
  const p = await personPage(user, id, on && DATE.test(on) && !Number.isNaN(Date.parse(on)) ? on : null);
  denyUnless(p !== null);
  const own = { pilotId: p.pilotId };
  const keeps = may.keepPeople(user) && may.keepDates(user, own);
  const first = firstLapse(p.lapses);
  const standing = standingOf(p.lapses);
  /** A twin variant with the name of its type as the hangar writes it. */
  const heldName = (kind: string): string => {
    const type = p.types.find((t) => kind.endsWith(`:${t.code}`));
    return type ? `${say(kind.split(':')[0] ?? kind)} ${type.name}` : say(kind);
  };
  const stays = may.erasePerson(user, own) && !p.erased ? await whatStays(p.pilotId) : [];
  return (
    <>
      <PageStrip name="People" line={p.name} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title={p.name}
            line={
              p.erased
                ? `Erased on ${dateText(p.erased.at)}: ${p.erased.reason}. Stays: ${p.erased.kept}.`
                : `${p.certificate || 'no licence entered'}, ${p.hours} h, ${p.massKg} kg${p.email && may.seeEverybody(user) ? `, ${p.email}` : ''}`
            }
          >
            {may.importLogbook(user, own) && !p.erased ? (
              <Link className="btn btn-outline-primary" href={`/people/${p.pilotId}/import`}>
                Read a logbook in
              </Link>
            ) : null}
            {may.exportRecord(user, own) ? (
              <>
                <a className="btn btn-outline-primary" href={`/api/people/${p.pilotId}/logbook`}>
                  Logbook, CSV
                </a>
                <a className="btn btn-outline-primary" href={`/api/people/${p.pilotId}/record`}>
                  Everything, JSON
                </a>
              </>
            ) : null}
          </Title>
          <div className="grid g-2-1" style={{ alignItems: 'start' }}>
            <div className="grid">
              <Panel title={p.onDate === p.today ? 'What holds, and to when' : `What holds on ${dateText(p.onDate)}`}>
                <form className="filters mb-2" method="get" action={`/people/${p.pilotId}`}>
                  <div>
                    <label className="form-label" htmlFor="on">
                      On the day
                    </label>
                    <input
                      id="on"
                      name="on"
                      type="date"
                      className="form-control form-control-sm"
                      defaultValue={p.onDate}
                    />
                  </div>
                  <Button type="submit" variant="outline-primary" size="sm">
                    Show
                  </Button>
                  <p className="mb-0 ms-auto">
                    <Verdict verdict={LAPSE_VERDICT[standing]}>
                      {standing === 'unknown' ? 'review, medical or rating not on record' : standing}
                      {first ? `; first to end: ${first.what}, ${lapseWords(first)}` : ''}
                    </Verdict>
                  </p>
                </form>
                <LapseList lapses={p.lapses} />
                <p className="caution small mb-0 mt-2">
                  {p.pack.name}. {p.pack.caution} Only what the pilot flew alone on the controls counts; night is told
                  by the sun.
                </p>
              </Panel>
              {p.erased ? null : (
                <Panel title="What if">
                  <WhatIf key={p.onDate} pilotId={p.pilotId} onDate={p.onDate} types={p.types} ask={whatIfAction} />
                </Panel>
              )}
              {p.ladders.length > 0 ? (
                <Panel title="Own wind, as it grew">
                  {p.ladders.map((l) => (
                    <LadderDrawing
                      key={l.group}
                      group={l.group}
                      stepKt={l.stepKt}
                      provenKt={l.now.provenKt}
                      ladderKt={l.now.ladderKt}
                      points={l.points}
                      landings={l.landings}
                    />
                  ))}
                </Panel>
              ) : null}
              <Panel title="Flown">
                <div className="grid g-1-1">
                  <div>
                    <h3 className="group">Hours by type</h3>
                    {p.hoursByType.length === 0 ? (
                      <p className="soft">None entered.</p>
                    ) : (
                      <table className="plain">
                        <thead>
                          <tr>
                            <th>Type</th>
                            <th className="r">Hours</th>
                            <th className="r">As PIC</th>
                            <th>Last</th>
                          </tr>
                        </thead>
                        <tbody>
                          {p.hoursByType.map((h) => (
                            <tr key={h.typeCode}>
                              <td>{h.typeName}</td>
                              <td
                                className="r mono"
                                title={
                                  h.since > 0
                                    ? `${fixed(h.since, 1)} h of them logged or read in since the office’s entry`
                                    : `entered by ${h.enteredBy}`
                                }
                              >
                                {fixed(h.hours, 1)} h
                              </td>
                              <td className="r mono">{h.pic === null ? 'not known' : `${fixed(h.pic, 1)} h`}</td>
                              <td>{h.lastFlown ? dateText(h.lastFlown) : ''}</td>
                            </tr>
                          ))}
                        </tbody>
                      </table>
                    )}
                  </div>
                  <div>
                    <h3 className="group">Landings by type</h3>
                    {p.landings.length === 0 ? (
                      <p className="soft">None recorded.</p>
                    ) : (
                      <table className="plain">
                        <thead>
                          <tr>
                            <th>Type</th>
                            <th className="r">Landings</th>
                            <th className="r">Full stops</th>
                            <th className="r">Water</th>
                          </tr>
                        </thead>
                        <tbody>
                          {p.landings.map((l) => (
                            <tr key={l.code + l.name}>
                              <td>{l.name}</td>
                              <td className="r mono">{l.landings}</td>
                              <td className="r mono">{l.fullStops}</td>
                              <td className="r mono">{l.water}</td>
                            </tr>
                          ))}
                        </tbody>
                      </table>
                    )}
                  </div>
                </div>
                {p.imports.length > 0 ? (
                  <>
                    <h3 className="group">Logbooks read in</h3>
                    <ul className="plain-list small">
                      {p.imports.map((i) => (
                        <li key={i.id}>
                          {dateText(i.at)}, {i.fileName}: {i.added} flights, {i.doubled} known before, {i.refused}{' '}
                          refused; by {i.by}.{' '}
                          {i.takenBackAt ? (
                            `Taken back ${dateText(i.takenBackAt)}.`
                          ) : may.importLogbook(user, own) ? (
                            <Act id={i.id} words="take it back" name={i.fileName} act={takeBackImportAction} />
                          ) : null}
                        </li>
                      ))}
                    </ul>
                  </>
                ) : null}
                {may.keepPilotRecord(user, own) && !p.erased ? (
                  <details className="mt-2">
                    <summary>Enter hours by type, and of them as PIC</summary>
                    <div className="mt-2">
                      <HoursForm
                        pilotId={p.pilotId}
                        rows={p.hoursByType.map((h) => ({
                          typeCode: h.typeCode,
                          hours: h.hours,
                          pic: h.pic,
                          lastFlown: h.lastFlown.slice(0, 10),
                        }))}
                        types={p.types}
                        today={p.today}
                        action={saveHoursAction}
                      />
                    </div>
                  </details>
                ) : null}
                {may.logFlying(user, own) && !p.erased ? (
                  <details className="mt-2">
                    <summary>Log a flight that was not recorded here</summary>
                    <div className="mt-2">
                      <LogFlightForm pilotId={p.pilotId} today={p.today} types={p.types} action={logFlightAction} />
                    </div>
                  </details>
                ) : null}
              </Panel>
            </div>
            <div className="grid">
              <Panel title="Goals">
                {p.goals.length === 0 ? (
                  <p className="soft mb-0">No checkout yet.</p>
                ) : (
                  <ul className="plain-list">
                    {p.goals.map((g) => (
                      <li key={g.checkoutId}>
                        <Link href={`/checkouts/${g.checkoutId}`}>{list(g.goals.map(say))}</Link>{' '}
                        <span className="mono">{g.registration}</span>
                        <div className="small soft">
                          {g.status === 'signed' ? (
                            <>
                              signed {g.signedOn ? dateText(g.signedOn) : ''}
                              {g.ledgerId ? (
                                <>
                                  , <Link href={`/ledger/${g.ledgerId}`}>the entry</Link>
                                </>
                              ) : null}
                            </>
                          ) : g.status === 'recommended' ? (
                            'with the examiner'
                          ) : (
                            `open since ${dateText(g.openedOn)}, ${g.instructor}`
                          )}
                        </div>
                      </li>
                    ))}
                  </ul>
                )}
              </Panel>
              <Panel title="Licence and what is held">
                {may.keepPilotRecord(user, own) && !p.erased ? (
                  <div className="mb-2">
                    <CertificateForm
                      of={{ pilotId: p.pilotId }}
                      name={p.name}
                      certificate={p.certificate}
                      until={null}
                      action={savePilotCertificateAction}
                    />
                  </div>
                ) : null}
                <ul className="plain-list small">
                  {p.held.map((h) => (
                    <li key={h.id} className={h.endedAt ? 'soft' : undefined}>
                      <b>{heldName(h.kind)}</b>
                      {h.gainedOn ? ` since ${dateText(h.gainedOn)}` : ''},{' '}
                      {h.endedAt ? `ended ${dateText(h.endedAt)}` : h.note}{' '}
                      {h.ledgerId ? (
                        <Link href={`/ledger/${h.ledgerId}`}>entry</Link>
                      ) : keeps && !h.endedAt ? (
                        <Act id={h.id} words="end it" name={say(h.kind)} act={endHeldAction} />
                      ) : null}
                    </li>
                  ))}
                </ul>
                {keeps && !p.erased ? (
                  <div className="mt-2">
                    <HeldForm
                      pilotId={p.pilotId}
                      today={p.today}
                      twins={p.types.filter((t) => t.twin)}
                      save={addHeldAction}
                    />
                  </div>
                ) : null}
              </Panel>
              <Panel title="Dates">
                {p.dates.length === 0 ? (
                  <p className="soft">No medical, review or rating date is entered.</p>
                ) : (
                  <ul className="plain-list small">
                    {p.dates.map((d) => (
                      <li key={d.id}>
                        <b>{d.title}</b>
                        {d.doneOn ? ` done ${dateText(d.doneOn)}` : ''}
                        {d.until ? ` good to ${dateText(d.until)}` : ''}
                        {d.note ? `, ${d.note}` : ''} <span className="soft">({d.enteredBy})</span>
                      </li>
                    ))}
                  </ul>
                )}
                {may.keepDates(user, own) && !p.erased ? (
                  <div className="mt-2">
                    <DateForm
                      pilotId={p.pilotId}
                      rules={p.datedRules.filter((r) => r.of === null || p.held.some((h) => h.kind === r.of))}
                      save={saveDateAction}
                    />
                  </div>
                ) : null}
              </Panel>
              {p.user && (p.user.roles.includes('instructor') || may.keepPeople(user)) ? (
                <Panel title="Instructor and roles">
                  {p.user.roles.includes('instructor') ? (
                    <p className="small">
                      Signs {p.user.authorised.length > 0 ? list(p.user.authorised.map(say)) : 'nothing yet'}. Crosswind
                      limit of their own when teaching:{' '}
                      {p.user.ownCrosswindKt === null ? 'none kept' : `${p.user.ownCrosswindKt} kt`}.
                    </p>
                  ) : null}
                  {may.keepCertificates(user) && p.user.roles.includes('instructor') ? (
                    <div className="mb-2">
                      <CertificateForm
                        of={{ userId: p.user.id }}
                        name={p.name}
                        certificate={p.user.certificate}
                        until={p.user.certificateUntil}
                        action={saveCertificateAction}
                      />
                    </div>
                  ) : null}
                  {may.keepPeople(user) ? (
                    <RolesForm
                      userId={p.user.id}
                      roles={p.user.roles}
                      authorised={p.user.authorised}
                      ownCrosswindKt={p.user.ownCrosswindKt}
                      save={saveRolesAction}
                    />
                  ) : null}
                  {may.keepPeople(user) && p.user.id !== user.id ? (
                    <div className="mt-2">
                      <NewFirstPassword userId={p.user.id} name={p.name} give={newFirstPasswordAction} />
                    </div>
                  ) : null}
                </Panel>
              ) : null}
              {may.writeNote(user, own) || p.notes.length > 0 ? (
                <Panel title="Notes">
                  {p.notes.length === 0 ? (
                    <p className="soft">No notes.</p>
                  ) : (
                    <ul className="plain-list">
                      {p.notes.map((n) => (
                        <li key={n.id}>
                          {n.text}
                          <div className="small soft">
                            {n.author}, {dateText(n.writtenAt)}; seen by {SEEN[n.visible]}{' '}
                            {n.authorId === user.id || may.keepPeople(user) ? (
                              <Act id={n.id} words="withdraw" name="this note" act={withdrawNoteAction} />
                            ) : null}
                          </div>
                        </li>
                      ))}
                    </ul>
                  )}
                  {may.writeNote(user, own) && !p.erased ? (
                    <div className="mt-2">
                      <NoteForm pilotId={p.pilotId} chief={user.roles.includes('chief')} save={writeNoteAction} />
                    </div>
                  ) : null}
                </Panel>
              ) : null}
              {stays.length > 0 ? (
                <Panel title="Privacy">
                  <EraseForm pilotId={p.pilotId} name={p.name} stays={stays} save={erasePersonAction} />
                </Panel>
              ) : null}
            </div>
          </div>
        </div>
      </main>
    </>
  );
}
