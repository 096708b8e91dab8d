import type { RecentShare } from '@/core/assess';
import { fixed } from '@/core/format';
import { Link } from '../shared/link';
import { Panel } from '../shared/parts';

/** How steady it is, and which items are still open. */
export function TowardsSignature({
  base,
  open,
  recent,
}: {
  base: string;
  open: readonly { item: { id: string } }[];
  recent: RecentShare;
}) {
  return (
    <Panel title="Progress to sign-off">
      {recent.window === 0 ? (
        <p className="mb-0">No judged landing yet.</p>
      ) : (
        <>
          <p className="mb-1">
            <strong>
              {recent.own} of the last {recent.window} unassisted
            </strong>
            , {recent.onTarget} of them in standard
            {recent.notJudged > 0 ? `; ${recent.notJudged} not judged beside them` : ''}.
          </p>
          <details className="soft mb-2" style={{ fontSize: 14 }}>
            <summary>Details</summary>
            Lower bound of that share {fixed((recent.stats.wilsonLower90 ?? 0) * 100)} in 100 (Wilson, one-sided 90 %):
            a summary of what was flown, not a prediction.
          </details>
        </>
      )}
      <p className="mb-0">
        {open.length === 0 ? (
          'All items have evidence.'
        ) : (
          <>
            Open: {open.map((i) => i.item.id).join(', ')}. <Link href={`${base}/sign`}>What is missing</Link>
          </>
        )}
      </p>
    </Panel>
  );
}
