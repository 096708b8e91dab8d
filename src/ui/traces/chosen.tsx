'use client';
import type { TraceAnalysis } from '@/domain/trace';
import { type Dial, dialText, elapsed, FOUND_NAME, itemText } from './words';
import { useClock } from './use-clock';

/** An item of airwork with what was measured of it. */
export function ChosenItem({ item, unit }: { item: TraceAnalysis['airwork'][number]; unit: Dial }) {
  return (
    <section className="panel mt-3" aria-label="Chosen item">
      <h2>
        {FOUND_NAME[item.kind]}
        {item.direction ? ` to the ${item.direction}` : ''}, {elapsed(item.startS)} to {elapsed(item.endS)}
      </h2>
      <dl className="measures">
        {itemText(item, unit).map(([n, v]) => (
          <div key={n}>
            <dt>{n}</dt>
            <dd className="mono">{v}</dd>
          </div>
        ))}
      </dl>
      <p className="soft small mb-0">
        Deviations are from the value at the item{'\u2019'}s start. Confidence {item.confidence.toFixed(2)}.
      </p>
    </section>
  );
}

/** A limit that was passed, by how much and for how long. */
export function ChosenLimit({
  limit,
  startUtc,
  unit,
}: {
  limit: TraceAnalysis['exceedances'][number];
  startUtc: string | null;
  unit: Dial;
}) {
  const clock = useClock(startUtc);
  return (
    <section className="panel mt-3" aria-label="Chosen limit">
      <h2>Limit exceeded: {limit.channel}</h2>
      <p className="mb-0">
        <span className="mono">
          {limit.unit === 'kt'
            ? dialText(limit.peak, unit)
            : `${limit.peak.toFixed(limit.unit === 'g' ? 2 : 0)} ${limit.unit}`}
        </span>{' '}
        where{' '}
        <span className="mono">
          {limit.unit === 'kt' ? dialText(limit.limit, unit) : `${limit.limit} ${limit.unit}`}
        </span>{' '}
        is the limit, for <span className="mono">{limit.durationS.toFixed(1)} s</span>, from {clock(limit.startS)}.
      </p>
    </section>
  );
}
