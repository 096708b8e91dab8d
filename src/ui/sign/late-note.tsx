'use client';
import { list, localText } from '@/core/format';
import type { LateArrival } from '@/domain/ledger';
import { Link } from '../shared/link';
import { useZone } from '../shared/zone';

/** What came in after the signature: in sight, and no part of the entry until a later one names it. */
export function LateNote({ late, entry }: { late: readonly LateArrival[]; entry: string | null }) {
  const zone = useZone();
  if (late.length === 0) return null;
  return (
    <div className="caution mb-2" role="note">
      <p className="mb-1">
        <strong>Received after the signature:</strong>{' '}
        {list(
          late.map(
            (l) =>
              `${l.landing === null ? `item ${l.item ?? ''}` : `landing ${l.landing}`} of lesson ${l.lesson}, ` +
              `recorded ${localText(l.recordedAt, zone)}, received ${localText(l.receivedAt, zone)}`,
          ),
        )}
        .
      </p>
      <p className="mb-0">
        It is kept and is not part of the entry.{' '}
        {entry ? <Link href={`/ledger/${entry}`}>A correction entered there</Link> : 'A correction'} signs it.
      </p>
    </div>
  );
}
