import type { Metadata } from 'next';
import Link from 'next/link';
import { dateText, instantText, list, plural } from '@/core/format';
import { say } from '@/domain/words';
import { requireUser } from '@/server/auth/session';
import { checkBook } from '@/server/ledger/book';
import { readHead } from '@/server/ledger/keys';
import { limitationText } from '@/server/ledger/pdf';
import { bookLines } from '@/server/queries/book';
import { Empty, Panel, Problems, Title } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Ledger' };

export default async function LedgerPage() {
  const user = await requireUser();
  const [lines, check] = await Promise.all([bookLines(user), checkBook()]);
  const head = readHead();
  return (
    <>
      <PageStrip name="Ledger" line={plural(lines.length, 'entry', 'entries')} user={user.name} />
      <main id="main"><div className="column">
        <Title title="The book of sign-offs" line="Entries are added, never changed. Each one carries the hash of the one before and is signed." />
        <div className="grid">
          {check.problems.length > 0
            ? <Problems title="The book does not check" problems={check.problems.map((p) => ({ message: `Entry ${p.seq}${p.id ? ` (${p.id})` : ''} ${p.what}.` }))} />
            : <p className="note-good mb-0">{check.entries === 0 ? 'The book is empty.' : `Checked just now: all ${check.entries} entries follow from each other and their signatures fit${head ? `, up to the signed head of ${instantText(head.at)}` : ''}.`}</p>}
          {lines.length === 0 ? <Empty title="Nothing signed yet" text="When a checkout is signed its entry stands here, with everything it rests on." /> : (
            <Panel><div className="scroll-x"><table className="plain">
              <thead><tr><th className="r">No.</th><th>Signed</th><th>Pilot</th><th>Goal</th><th>Aeroplane</th><th>By</th><th>Limitations</th><th>Hash</th></tr></thead>
              <tbody>{lines.map((l) => (
                <tr key={l.id}>
                  <td className="r mono">{l.seq}</td><td className="date">{dateText(l.signedAt)}</td><td><Link href={`/ledger/${l.id}`}>{l.body.pilot.name}</Link></td><td>{list(l.body.goals.map(say))}</td><td><span className="mono">{l.body.airframe.registration}</span> {l.body.airframe.type}</td><td>{l.body.signer.name}</td><td>{limitationText(l.body.limitations)}</td><td className="mono" title={l.hash}>{l.hash.slice(0, 8)}</td>
                </tr>
              ))}</tbody>
            </table></div></Panel>
          )}
          <p className="soft mb-0" style={{ fontSize: 14 }}>From the command line: <kbd>npm run verify-ledger</kbd>. A rewrite of everything by whoever holds the key cannot be seen from here; copies of the signed head kept elsewhere would show it.</p>
        </div>
      </div></main>
    </>
  );
}
