import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { dateText, list, localText } from '@/core/format';
import { VOIDABLE } from '@/domain/ledger';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { currentUser, denyUnless, requireUser } from '@/server/floor/auth/session';
import { limitationText, versionWords } from '@/server/ledger/papers/entry-pdf';
import { markLines } from '@/server/ledger/marks';
import { entryTitle } from '@/server/ledger/titles';
import { countsText, itemWords } from '@/server/ledger/words';
import { ledgerLines } from '@/server/ledger/queries/entries';
import { LaterForm } from '@/ui/sign/later-form';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { correctEntryAction, voidEntryAction } from '../../../actions';

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> {
  const user = await currentUser();
  const line = user ? (await ledgerLines(user, { id: (await params).id }))[0] : undefined;
  return { title: line ? `Entry ${line.seq}` : 'Entry' };
}

export default async function EntryPage({ params }: { params: Promise<{ id: string }> }) {
  const user = await requireUser();
  const line = (await ledgerLines(user, { id: (await params).id }))[0];
  denyUnless(line !== undefined);
  const { body, later } = line;
  const at = localText(line.signedAt, line.timeZone ?? 'UTC');
  const owner = { pilotId: line.pilotId ?? '', signerId: line.signerId };
  const live = VOIDABLE.includes(line.kind) && !line.voidedBy && line.pilotId !== null;
  const acts = live && (may.voidEntry(user, owner) || may.correctEntry(user, owner));
  return (
    <>
      <PageStrip name="Ledger" line={`entry ${line.seq}`} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            long
            title={`${entryTitle(line.kind)} ${line.seq}${line.pilotName ? `: ${line.pilotName}, ${list(line.goals.map(say))}` : ''}`}
            line={`Signed by ${line.signerName}, ${at}${line.registration ? `, on ${line.registration} ${line.type}` : ''}.`}
          >
            {line.checkoutId ? (
              <Link className="btn btn-outline-primary" href={`/checkouts/${line.checkoutId}`}>
                The checkout
              </Link>
            ) : null}
            <a className="btn btn-outline-primary" href={`/api/ledger/${line.id}/json`}>
              JSON
            </a>
            <a className="btn btn-primary" href={`/api/ledger/${line.id}/pdf`} target="_blank" rel="noreferrer">
              PDF
            </a>
          </Title>
          {line.voidedBy ? (
            <p className="trouble" role="status">
              <strong>Void</strong> by <Link href={`/ledger/${line.voidedBy.id}`}>entry {line.voidedBy.seq}</Link> of{' '}
              {dateText(line.voidedBy.on)}, {line.voidedBy.by}: {line.voidedBy.text}
            </p>
          ) : null}
          {line.corrections.map((c) => (
            <p key={c.id} className="caution">
              Corrected by <Link href={`/ledger/${c.id}`}>entry {c.seq}</Link> of {dateText(c.on)}, {c.by}: {c.text}
            </p>
          ))}
          {line.results.map((r) => (
            <p key={r.id} className="note-good">
              <Link href={`/ledger/${r.id}`}>Entry {r.seq}</Link>: the test was{' '}
              {r.result === 'passed' ? 'passed' : 'not passed'} on {dateText(r.testOn)}, examiner {r.examiner}.
            </p>
          ))}
          {markLines(body ?? later).map((mark) => (
            <p key={mark} className="caution">
              {mark}
            </p>
          ))}
          <div className="grid g-3-2" style={{ alignItems: 'start' }}>
            {later ? (
              <Panel title={`About entry ${later.of.seq}`}>
                <p>
                  <Link href={`/ledger/${later.of.id}`}>
                    {entryTitle(later.of.kind)} {later.of.seq}
                  </Link>{' '}
                  <span className="code-face soft">{later.of.hash.slice(0, 16)}</span>
                </p>
                {later.result ? (
                  <p>
                    <strong>{later.result === 'passed' ? 'Passed' : 'Not passed'}</strong> on{' '}
                    {dateText(later.testOn ?? '')}. Examiner: {later.examiner}
                    {later.reference ? `, ${later.reference}` : ''}.
                  </p>
                ) : null}
                {later.text ? <p className="mb-0">{later.text}</p> : null}
              </Panel>
            ) : body ? (
              <Panel title={line.kind === 'not-yet' ? 'Items not met' : 'Items and their evidence'}>
                <table aria-label="Items and their evidence" className="plain">
                  <tbody>
                    {body.items.map((i) => {
                      const w = itemWords(i);
                      return (
                        <tr key={i.id}>
                          <td className="code-face">{i.id}</td>
                          <td>
                            {i.title}
                            <div className="soft" style={{ fontSize: 13 }}>
                              {i.citation}
                            </div>
                          </td>
                          <td>{w.state === 'overridden' ? <strong>{w.text}</strong> : w.text}</td>
                        </tr>
                      );
                    })}
                  </tbody>
                </table>
              </Panel>
            ) : (
              <Panel title="A new key">
                <p className="mb-0">
                  From here on the ledger is signed with another key. This entry is signed with the one before and names
                  the new one.
                </p>
              </Panel>
            )}
            <div className="grid" style={{ alignContent: 'start' }}>
              {body ? (
                <>
                  {body.stops && body.stops.length > 0 ? (
                    <Panel title="Flown past a stop">
                      <ul className="ps-3 mb-0">
                        {body.stops.map((s) => (
                          <li key={s.name + s.words}>
                            <strong>{s.name}:</strong> {s.words}. Why: {s.reason ?? 'not said'}.
                          </li>
                        ))}
                      </ul>
                    </Panel>
                  ) : null}
                  <Panel title="Sign-off text">
                    {body.text
                      ? body.text.split('\n').map((t) => (
                          <p key={t} className="mb-2">
                            {t}
                          </p>
                        ))
                      : null}

                    {body.signature ? (
                      // eslint-disable-next-line @next/next/no-img-element -- drawn on the device and kept in the entry: nothing to fetch or resize
                      <img
                        src={body.signature}
                        alt={`Drawn signature of ${line.signerName}`}
                        style={{ maxWidth: 220, background: '#fff' }}
                      />
                    ) : null}
                    {line.kind === 'sign-off' || line.kind === 'recommendation' ? (
                      <p className="mb-1">
                        <strong>Limitations:</strong> {limitationText(body.limitations)}
                      </p>
                    ) : null}
                    {body.validThrough ? (
                      <p className="mb-1">
                        <strong>Holds to</strong> {dateText(body.validThrough)}
                      </p>
                    ) : null}
                    {body.remark ? (
                      <p className="mb-1">
                        <strong>Remark:</strong> {body.remark}
                      </p>
                    ) : null}
                    {body.rules.citations.map((c) => (
                      <p key={c.goal} className="mb-1">
                        {c.title ?? say(c.goal)}: {c.citation}. {c.written}
                      </p>
                    ))}
                    <p className="mb-0 soft">
                      {body.rules.name}; standard {body.standard.name}; programme{' '}
                      {list(body.programmes.map(versionWords))}; {countsText(body.counts)}.
                    </p>
                  </Panel>
                  {body.landings.length > 0 ? (
                    <Panel title="Landings in evidence">
                      <div className="scroll-x">
                        <table aria-label="Landings in evidence" className="plain">
                          <tbody>
                            {body.landings.map((l) => (
                              <tr key={l.id}>
                                <td className="mono">
                                  lesson {l.lesson}, landing {l.number}
                                </td>
                                <td>{dateText(l.date)}</td>
                                <td>
                                  {say(l.kind)}
                                  {l.intended && l.kind !== 'go-around' ? `, ${say(l.intended)}` : ''}
                                </td>
                                <td>
                                  {say(l.class)}
                                  {l.asserted ? `, based on the clean tap: ${l.asserted.map(say).join(', ')}` : ''}
                                </td>
                              </tr>
                            ))}
                          </tbody>
                        </table>
                      </div>
                    </Panel>
                  ) : null}
                </>
              ) : null}
              <Panel title="Proof">
                <p className="mono mb-1" style={{ fontSize: 13, overflowWrap: 'anywhere' }}>
                  SHA-256 {line.hash}
                </p>
                <p className="mb-0">
                  <Link href={`/verify?e=${line.id}&h=${line.hash}`}>Check this entry</Link>
                </p>
              </Panel>
              {acts ? (
                <Panel title="A further entry">
                  {may.correctEntry(user, owner) ? (
                    <details className="mb-2">
                      <summary>Add a correction</summary>
                      <LaterForm entryId={line.id} kind="correction" action={correctEntryAction} />
                    </details>
                  ) : null}
                  {may.voidEntry(user, owner) ? (
                    <details>
                      <summary>Void this entry</summary>
                      <LaterForm entryId={line.id} kind="void" action={voidEntryAction} />
                      <p className="small soft mt-1 mb-0">
                        What it granted ends, and the checkout is open again. The entry stays in the ledger.
                      </p>
                    </details>
                  ) : null}
                </Panel>
              ) : null}
            </div>
          </div>
        </div>
      </main>
    </>
  );
}
