import { dateText } from '@/core/format';
import { say } from '@/domain/words';
import { Link } from '../shared/link';
import { Panel } from '../shared/parts';

/** What of this checkout stands in the ledger. */
export function EntriesOfCheckout({
  entries,
}: {
  entries: readonly {
    id: string;
    seq: number;
    kind: string;
    signedOn: string;
    signerName: string;
    voidedBy: unknown;
  }[];
}) {
  return (
    <Panel title="In the ledger">
      <ul className="ps-3 mb-0">
        {entries.map((e) => (
          <li key={e.id}>
            <Link href={`/ledger/${e.id}`}>
              Entry {e.seq}, {say(e.kind)}
            </Link>{' '}
            of {dateText(e.signedOn)}, {e.signerName}
            {e.voidedBy ? <strong> · void</strong> : null}
          </li>
        ))}
      </ul>
    </Panel>
  );
}
