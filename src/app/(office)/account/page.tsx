import { Day } from '@/ui/shared/zone';
import { TableHead } from '@/ui/shared/table-head';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { dateText, list } from '@/core/format';
import { recencyIn } from '@/core/recency';
import { factorRoles, hasFactor } from '@/server/floor/auth/second-factor';
import { requireUser, sessionId } from '@/server/floor/auth/session';
import { sessionsOf } from '@/server/account/commands/session';
import { SecondFactor } from '@/ui/account/second-factor';
import { SessionList } from '@/ui/account/sessions';
import { tokensOf } from '@/server/account/commands/tokens';
import { newestContent } from '@/server/rules/content';
import { localToday } from '@/server/rules/today';
import { hangar } from '@/server/hangar/queries/hangar';
import { flyingOf, intervalOf, recencyFor } from '@/server/people/queries/recency';
import { LogFlightForm, StrikeButton } from '@/ui/people/log-form';
import { PasswordForm } from '@/ui/people/password-form';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { ThemePicker } from '@/ui/shared/theme';
import { Tokens } from '@/ui/shared/tokens';
import { Verdict } from '@/ui/shared/verdict';
import {
  beginSecondFactorAction,
  changePasswordAction,
  confirmSecondFactorAction,
  createTokenAction,
  endMySessionAction,
  endOtherSessionsAction,
  endSecondFactorAction,
  endTokenAction,
  logFlightAction,
  strikeFlightAction,
} from '../../actions';
import * as ask from '@/server/floor/statements/app';

export const metadata: Metadata = { title: 'Account' };

export default async function AccountPage() {
  const user = await requireUser();
  const { pilotId } = user;
  const types = await hangar();
  const teaches = user.roles.includes('instructor');
  const today = await localToday();
  const house = (await newestContent('house', 'house'))?.body ?? null;
  const flying = pilotId ? await flyingOf(pilotId) : [];
  const given = await ask.passwordGiver.one({ id: user.id });
  const asked = await factorRoles();
  const factorAsked = user.roles.some((r) => asked.includes(r));
  const flown = new Set(flying.map((e) => e.typeCode));
  const mine =
    pilotId && house
      ? await Promise.all(
          types
            .filter((t) => flown.has(t.code))
            .map(async (t) => ({
              name: t.sheet.name,
              code: t.code,
              teach: teaches ? recencyIn(house.signing.teach, flying, recencyFor(t.sheet), today) : null,
              interval: await intervalOf(pilotId, t.sheet, house, today),
            })),
        )
      : [];
  const log = pilotId ? await ask.loggedOf.all({ pilotId }) : [];
  return (
    <>
      <PageStrip name="Account" line={user.email} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title={user.name}
            line={`${list(user.roles)}, ${user.email}${user.certificate ? `. ${user.certificate}${user.certificateUntil ? `, to ${dateText(user.certificateUntil)}` : ''}` : ''}`}
          >
            {pilotId ? (
              <>
                <Link className="btn btn-primary" href={`/people/${pilotId}`}>
                  My page
                </Link>
                <a className="btn btn-outline-primary" href={`/api/people/${pilotId}/logbook`}>
                  Logbook, CSV
                </a>
                <a className="btn btn-outline-primary" href={`/api/people/${pilotId}/record`}>
                  Everything about me, JSON
                </a>
              </>
            ) : null}
          </Title>
          <div className="grid g-3-2">
            <div className="grid" style={{ alignContent: 'start' }}>
              {pilotId ? (
                <>
                  <Panel title={teaches ? 'Recency to teach, school rules' : 'Your types'}>
                    {mine.length === 0 ? (
                      <p className="mb-0">Nothing is logged yet.</p>
                    ) : (
                      <div className="scroll-x">
                        <table aria-label="Your types" className="plain">
                          <thead>
                            <tr>
                              <th scope="col">Type</th>
                              {teaches ? <th scope="col">Three landings</th> : null}
                              <th scope="col">School recurrent check</th>
                            </tr>
                          </thead>
                          <tbody>
                            {mine.map((m) => (
                              <tr key={m.code}>
                                <td>{m.name}</td>
                                {m.teach ? (
                                  <td>
                                    <Verdict
                                      verdict={
                                        m.teach.overall === 'current'
                                          ? 'within'
                                          : m.teach.overall === 'expiring'
                                            ? 'edge'
                                            : 'outside'
                                      }
                                    >
                                      {m.teach.overall === 'expired'
                                        ? `out of recency: ${list([...new Set(m.teach.rules.flatMap((r) => r.restore ?? []))])}`
                                        : `recent to ${dateText(m.teach.rules.reduce((d, r) => (r.validThrough !== null && (d === '' || r.validThrough < d) ? r.validThrough : d), ''))}`}
                                    </Verdict>
                                  </td>
                                ) : null}
                                <td>
                                  {m.interval?.validThrough
                                    ? `${m.interval.status === 'expired' ? 'check due since' : 'to'} ${dateText(m.interval.validThrough)}`
                                    : ''}
                                </td>
                              </tr>
                            ))}
                          </tbody>
                        </table>
                      </div>
                    )}
                    <p className="soft small mb-0 mt-2">
                      {house?.signing.source}. What the aeroplane requires of you, your certificate and what the law
                      asks are checked on the sign page of each checkout.
                    </p>
                  </Panel>
                  <Panel title="Log your own flight">
                    <LogFlightForm
                      pilotId={pilotId}
                      today={today}
                      types={types.map((t) => ({
                        code: t.code,
                        name: t.sheet.name,
                        water: t.sheet.surface !== 'land',
                      }))}
                      action={logFlightAction}
                    />
                    {log.length > 0 ? (
                      <div className="scroll-x mt-3">
                        <table aria-label="Your own flights" className="plain">
                          <TableHead
                            columns={[
                              'Day',
                              'Type',
                              { right: 'Landings' },
                              { right: 'Full stops' },
                              { right: 'Hours' },
                              'Remark',
                              'Correct',
                            ]}
                          />
                          <tbody>
                            {log.map((f) => (
                              <tr key={f.id} className={f.struck ? 'voided' : undefined}>
                                <td className="date">{dateText(f.flownOn)}</td>
                                <td>
                                  {f.name}
                                  {f.surface === 'water' ? ', water' : ''}
                                  {f.night ? ', night' : ''}
                                </td>
                                <td className="r mono">{f.landings}</td>
                                <td className="r mono">{f.fullStops}</td>
                                <td className="r mono">{f.hours} h</td>
                                <td>{f.struck ? `struck out: ${f.struck}` : f.remark}</td>
                                <td>
                                  {f.struck ? null : (
                                    <StrikeButton
                                      logId={f.id}
                                      name={`${f.name}, ${dateText(f.flownOn)}`}
                                      action={strikeFlightAction}
                                    />
                                  )}
                                </td>
                              </tr>
                            ))}
                          </tbody>
                        </table>
                      </div>
                    ) : null}
                  </Panel>
                </>
              ) : null}
              <Panel title="Personal tokens" id="tokens">
                <p>
                  Another program reads Jeito with a token: what you may see, and of that what you give it.{' '}
                  <Link href="/account/interface">Interface for programs</Link>
                </p>
                <Tokens tokens={await tokensOf(user)} create={createTokenAction} end={endTokenAction} />
              </Panel>
            </div>
            <div className="grid" style={{ alignContent: 'start' }}>
              <Panel title="Password">
                {given ? (
                  <p className="caution">
                    {given.name} gave this account its password on <Day at={given.at ?? ''} />. Choose your own; this
                    one cannot sign anything.
                  </p>
                ) : null}
                <PasswordForm save={changePasswordAction} />
              </Panel>
              <Panel title="Second factor">
                <SecondFactor
                  on={await hasFactor(user.id)}
                  required={factorAsked}
                  begin={beginSecondFactorAction}
                  confirm={confirmSecondFactorAction}
                  end={endSecondFactorAction}
                />
              </Panel>
              <Panel title="Signed in">
                <SessionList
                  lines={await sessionsOf(user)}
                  here={await sessionId()}
                  end={endMySessionAction}
                  endOthers={endOtherSessionsAction}
                />
              </Panel>
              <Panel title="Theme">
                <ThemePicker />
              </Panel>
            </div>
          </div>
        </div>
      </main>
    </>
  );
}
