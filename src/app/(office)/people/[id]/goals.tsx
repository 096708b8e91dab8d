import type { PersonPage } from '@/server/people/queries/page';
import { dateText, list } from '@/core/format';
import { say } from '@/domain/words';
import { Link } from '@/ui/shared/link';
import { Panel } from '@/ui/shared/parts';

/** The checkouts of a person. */
export function Goals({ p }: { p: PersonPage }) {
  return (
    <Panel title="Goals">
      {p.goals.length === 0 ? (
        <p className="soft mb-0">No checkout yet.</p>
      ) : (
        <ul className="plain-list">
          {p.goals.map((g) => (
            <li key={g.checkoutId}>
              <Link href={`/checkouts/${g.checkoutId}`}>{list(g.goals.map(say))}</Link>{' '}
              <span className="code-face">{g.registration}</span>
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
  );
}
