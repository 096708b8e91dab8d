'use client';
import { type RecentShare, shareWords } from '@/core/assess';
import { fixed } from '@/core/format';

/** How steady it is over the last landings; what so few can say of it is behind *Details*. */
export function RecentStats({ recent }: { recent: RecentShare }) {
  return (
    <>
      <dl className="progress-stats mb-2" style={{ gridTemplateColumns: '1fr 1fr' }}>
        <div>
          <dt>unassisted, of the last {recent.window}</dt>
          <dd className="mono">{shareWords(recent.own, recent.window)}</dd>
        </div>
        <div>
          <dt>unassisted and in standard</dt>
          <dd className="mono">{shareWords(recent.onTarget, recent.window)}</dd>
        </div>
      </dl>
      <details className="mb-2">
        <summary className="small">Details</summary>
        <dl className="progress-stats mb-0" style={{ gridTemplateColumns: '1fr 1fr' }}>
          <div>
            <dt>lower bound of unassisted (Wilson, one-sided 90 %)</dt>
            <dd className="mono">
              {recent.stats.wilsonLower90 === null ? '\u2013' : `${fixed(100 * recent.stats.wilsonLower90)} in 100`}
            </dd>
          </div>
          <div>
            <dt>posterior of unassisted, 80 in 100 range</dt>
            <dd className="mono">
              {recent.window === 0
                ? '\u2013'
                : `${fixed(100 * recent.stats.posteriorQ10)} to ${fixed(100 * recent.stats.posteriorQ90)} in 100`}
            </dd>
          </div>
        </dl>
      </details>
    </>
  );
}
