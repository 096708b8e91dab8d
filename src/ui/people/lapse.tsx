import { type Lapse, givenUp } from '@/core/recency';
import { dateText } from '@/core/format';
import type { CriterionVerdict } from '@/domain/assess-words';
import { Verdict, VerdictShape } from '../shared/verdict';

export const LAPSE_VERDICT: Record<Lapse['status'] | 'unknown' | 'due', CriterionVerdict> = {
  unknown: 'not-seen',
  due: 'edge',
  current: 'within',
  expiring: 'edge',
  expired: 'outside',
  never: 'not-seen',
  missing: 'not-seen',
};
/**
 * What is recent and not endorsed is not as good as what is both. A check of the school that is due breaks no law, and a
 * type given up is no alarm.
 */
export function verdictOf(l: Lapse): CriterionVerdict {
  if (l.notHeld === true && (l.status === 'current' || l.status === 'expiring')) return 'not-seen';
  if (givenUp(l)) return 'not-seen';
  return l.kind === 'interval' && l.status === 'expired' ? 'edge' : LAPSE_VERDICT[l.status];
}
/** The state of one thing in words with its day. */
export function lapseWords(l: Lapse): string {
  if (l.status === 'never') return 'nothing to count from';
  if (l.status === 'missing') return 'no date entered';
  if (l.through === null) return '';
  const held =
    l.notHeld === true ? (l.kind === 'passengers' || l.kind === 'night' ? 'recent, not endorsed; ' : '') : '';
  if (givenUp(l)) return `not flown since, ended ${dateText(l.through)}`;
  return l.status === 'expired'
    ? `${l.kind === 'interval' ? 'due since' : 'ended'} ${dateText(l.through)}`
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
