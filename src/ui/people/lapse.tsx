import type { Lapse } from '@/core/recency';
import { dateText } from '@/core/format';
import type { CriterionVerdict } from '@/domain/assess-words';
import { Verdict, VerdictShape } from '../shared/verdict';

export const LAPSE_VERDICT: Record<Lapse['status'] | 'unknown', CriterionVerdict> = {
  unknown: 'not-seen',
  current: 'within',
  expiring: 'edge',
  expired: 'outside',
  never: 'not-seen',
  missing: 'not-seen',
};
/** What is recent and not endorsed is not as good as what is both. */
const verdictOf = (l: Lapse): CriterionVerdict =>
  l.notHeld === true && (l.status === 'current' || l.status === 'expiring') ? 'not-seen' : LAPSE_VERDICT[l.status];
/** The state of one thing in words with its day. */
export function lapseWords(l: Lapse): string {
  if (l.status === 'never') return 'nothing to count from';
  if (l.status === 'missing') return 'no date entered';
  if (l.through === null) return '';
  const held =
    l.notHeld === true ? (l.kind === 'passengers' || l.kind === 'night' ? 'recent, not endorsed; ' : '') : '';
  return l.status === 'expired'
    ? `ended ${dateText(l.through)}`
    : `${held}to ${dateText(l.through)}, ${l.daysLeft === 0 ? 'the last day' : `${l.daysLeft ?? 0} days`}`;
}
export const LapseMark = ({ lapse }: { lapse: Lapse }) => (
  <Verdict verdict={verdictOf(lapse)}>{lapseWords(lapse)}</Verdict>
);

/** What holds and what does not, what ends first in front; each with what restores it and its source. */
export function LapseList({ lapses }: { lapses: readonly Lapse[] }) {
  if (lapses.length === 0) return <p className="mb-0 soft">Nothing is recorded that holds for a time.</p>;
  return (
    <div role="list">
      {lapses.map((l) => (
        <div className="lapse" role="listitem" key={l.key}>
          <VerdictShape verdict={verdictOf(l)} />
          <div>
            <b>{l.what}</b>
            <br />
            <span>{lapseWords(l)}</span>
          </div>
          <div>
            {l.status === 'current' ? (
              <span className="soft">nothing to do</span>
            ) : l.restore ? (
              `${l.status === 'expiring' ? 'Keeps it: ' : 'Restores it: '}${l.restore}`
            ) : (
              ''
            )}
          </div>
          <div className="small soft">{l.citation}</div>
        </div>
      ))}
    </div>
  );
}
