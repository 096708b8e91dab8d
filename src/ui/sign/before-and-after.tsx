import { dateText, list } from '@/core/format';
import type { RecencyResult } from '@/core/recency';
import type { RecencyRule } from '@/domain/recency';

/** What the goal asks to have been shown before. */
export function Prerequisites({ asked }: { asked: readonly { text: string; met: boolean | null }[] }) {
  if (asked.length === 0) return null;
  return (
    <p className="mb-1">
      {asked
        .map(
          (p) =>
            `${p.text}: ${p.met === true ? 'shown' : p.met === false ? 'not reached' : 'to be shown in the logbook'}`,
        )
        .join('. ')}
      .
    </p>
  );
}

/** May passengers be carried in this aeroplane today? */
export function PassengersToday({ passengers }: { passengers: RecencyResult & { asked: readonly RecencyRule[] } }) {
  const until = passengers.rules.flatMap((r) => r.validThrough ?? []).sort()[0];
  return (
    <p className="mb-1">
      Passengers in this aeroplane today:{' '}
      {passengers.rules.length === 0
        ? 'the pack sets no count.'
        : passengers.overall === 'expired'
          ? `not by recent experience; ${list(passengers.rules.flatMap((r) => r.restore ?? []))} restore it.`
          : `recent to ${dateText(until ?? '')}.`}{' '}
      <span className="soft">{list([...new Set(passengers.asked.map((r) => r.citation))])}</span>
    </p>
  );
}
