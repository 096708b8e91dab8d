import type { ItemEvidence } from '@/core/assess';
import { dateText, list } from '@/core/format';
import { Link } from '../shared/link';

/**
 * Further training that still stands: what is to be flown again before anybody signs. Nothing where there is none.
 * @param base of the checkout, for the way to the sign page; null = this is it
 */
export function RefusedNote({ items, base }: { items: readonly ItemEvidence[]; base: string | null }) {
  const open = items.filter((i) => i.refused);
  const entries = [...new Map(open.flatMap((i) => (i.refused ? [[i.refused.entryId, i.refused]] : []))).values()];
  if (open.length === 0) return null;
  return (
    <div className="trouble mb-3" role="note">
      {entries.map((e) => (
        <p key={e.entryId} className="mb-1">
          <strong>Further training</strong> was entered by {e.by} on {dateText(e.on)} (
          <Link href={`/ledger/${e.entryId}`}>the entry</Link>):{' '}
          {list(open.filter((i) => i.refused?.entryId === e.entryId).map((i) => `${i.item.id} ${i.item.title}`))}.
        </p>
      ))}
      <p className="mb-0">
        Each is flown or shown again, in standard, before anybody signs; none can be overridden.{' '}
        {base === null ? null : <Link href={`${base}/sign`}>What is missing</Link>}
      </p>
    </div>
  );
}
