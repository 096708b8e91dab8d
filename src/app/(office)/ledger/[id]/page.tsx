import type { Metadata } from 'next';
import Link from 'next/link';
import { dateText, instantText, list } from '@/core/format';
import { say } from '@/domain/words';
import { denyUnless, requireUser } from '@/server/auth/session';
import { limitationText } from '@/server/ledger/pdf';
import { bookLines } from '@/server/queries/book';
import { Panel, Title } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Sign-off' };

export default async function EntryPage({ params }: { params: Promise<{ id: string }> }) {
  const user = await requireUser();
  const line = (await bookLines(user, (await params).id))[0];
  denyUnless(line !== undefined);
  const { body } = line;
  return (
    <>
      <PageStrip name="Ledger" line={`entry ${line.seq}`} user={user.name} />
      <main id="main"><div className="column">
        <Title title={`Sign-off ${line.seq}: ${body.pilot.name}, ${list(body.goals.map(say))}`} line={`Signed by ${body.signer.name}, ${instantText(line.signedAt)}, on ${body.airframe.registration} ${body.airframe.type}.`}>
          <Link className="btn btn-outline-primary" href={`/checkouts/${line.checkoutId}`}>The checkout</Link>
          <a className="btn btn-primary" href={`/api/ledger/${line.id}/pdf`} target="_blank" rel="noreferrer">PDF</a>
        </Title>
        <div className="grid g-3-2">
          <Panel title="Items and what they rest on">
            <table className="plain"><tbody>{body.items.map((i) => <tr key={i.id}><td className="mono">{i.id}</td><td>{i.title}<div className="soft" style={{ fontSize: 13 }}>{i.citation}</div></td><td>{i.waived ? `waived: ${i.waived}` : i.have}</td></tr>)}</tbody></table>
          </Panel>
          <div className="grid" style={{ alignContent: 'start' }}>
            <Panel title="Terms">
              <p className="mb-1"><strong>Limitations:</strong> {limitationText(body.limitations)}</p>
              {body.remark ? <p className="mb-1"><strong>Remark:</strong> {body.remark}</p> : null}
              {body.rules.citations.map((c) => <p key={c.goal} className="mb-1">{say(c.goal)}: {c.citation}. {c.written}</p>)}
              <p className="mb-0 soft">{body.standard.name} standard; {body.counts.landings} landings over {body.counts.lessons} lessons.</p>
            </Panel>
            <Panel title="Landings in evidence">
              <div className="scroll-x"><table className="plain"><tbody>{body.landings.map((l) => <tr key={l.id}><td className="mono">{l.lesson}.{l.number}</td><td>{dateText(l.date)}</td><td>{say(l.kind)}{l.intended && l.kind !== 'go-around' ? `, ${say(l.intended)}` : ''}</td><td>{say(l.class)}</td></tr>)}</tbody></table></div>
            </Panel>
            <Panel title="Proof"><p className="mono mb-0" style={{ fontSize: 13, overflowWrap: 'anywhere' }}>SHA-256 {line.hash}</p></Panel>
          </div>
        </div>
      </div></main>
    </>
  );
}
