'use client';
import { TableHead } from '../shared/table-head';
import type { Series } from '@/core/trace';
import type { FoundEvent, TraceContext } from '@/domain/trace';
import { useApproachDrawings } from './approach-drawings';
import { type Dial, dialOff, dialText, measuresText, sureWord } from './words';
import { useClock } from './use-clock';

interface ArrivalProps {
  event: FoundEvent;
  beside: FoundEvent | null;
  series: Series | null;
  context: TraceContext;
  tolerance: { low: number; high: number } | null;
  startUtc: string | null;
  unit: Dial;
  name: (e: FoundEvent) => string;
}
/** One arrival with what was measured of it, and another beside it. */
export function Arrival({ event, beside, series, context, tolerance, startUtc, unit, name }: ArrivalProps) {
  const hasLoad = Boolean(series?.columns.nz) && event.touchdown !== undefined;
  const spoken = name(event);
  const other = beside ? name(beside) : '';
  const { profile, load, failed } = useApproachDrawings({
    event,
    beside,
    series,
    context,
    tolerance,
    unit,
    spoken,
    other,
  });
  const told = measuresText(event, unit);
  const theirs = new Map(beside ? measuresText(beside, unit) : []);
  return (
    <>
      <section className="panel mt-3" aria-label="Chosen arrival">
        <h2>
          {spoken}
          {beside ? `, beside ${other}` : ''}
        </h2>
        <dl className="measures">
          {told.map(([n, v]) => (
            <div key={n}>
              <dt>{n}</dt>
              <dd className="mono">
                {v}
                {beside ? <span className="soft"> / {theirs.get(n) ?? 'not in the file'}</span> : null}
              </dd>
            </div>
          ))}
        </dl>
        <GatesFlown gates={event.gates ?? []} startUtc={startUtc} unit={unit} />
        <p className="soft small mb-0 mt-1">
          Measured from this file, confidence {event.confidence.toFixed(2)} ({sureWord(event.confidence)}). What it
          cannot support is left out, never guessed. {'\u00b1'} is one standard deviation: two in three lie within it.
        </p>
      </section>
      {failed ? (
        <p className="caution mt-3">The drawings cannot be loaded; the table above has the same numbers.</p>
      ) : (
        <div className={`grid mt-3 ${hasLoad ? 'g-2-1' : ''}`}>
          <section className="panel" aria-label="The approach">
            <h2>The approach, height and speed{tolerance ? ', with the band the standard allows' : ''}</h2>
            <div
              ref={profile}
              style={{ height: 340 }}
              role="img"
              aria-label={`Height and speed over the distance to the threshold for ${spoken}. The gates above hold the same numbers.`}
            />
          </section>
          {hasLoad ? (
            <section className="panel" aria-label="Load at the touch">
              <h2>Load about the touch</h2>
              <div
                ref={load}
                style={{ height: 340 }}
                role="img"
                aria-label={`Load about the touch, greatest ${event.touchdown?.peakG?.toFixed(2) ?? 'not measured'} g.`}
              />
            </section>
          ) : null}
        </div>
      )}
    </>
  );
}

/** The gates as flown: what was indicated, beside the target. */
function GatesFlown({
  gates,
  startUtc,
  unit,
}: {
  gates: NonNullable<FoundEvent['gates']>;
  startUtc: string | null;
  unit: Dial;
}) {
  const clock = useClock(startUtc);
  if (gates.length === 0) return null;
  return (
    <div className="scroll-x">
      <table aria-label="Gates of the approach" className="plain">
        <TableHead
          columns={[
            'Gate',
            'At',
            { right: 'Height' },
            { right: 'Indicated' },
            { right: 'Target' },
            { right: 'Off' },
            { right: 'Over the ground' },
          ]}
        />
        <tbody>
          {gates.map((g) => (
            <tr key={g.name}>
              <td>{g.name}</td>
              <td className="mono">{clock(g.tS)}</td>
              <td className="r mono">{g.heightFt === null ? '\u2013' : `${g.heightFt.toFixed(0)} ft`}</td>
              <td className="r mono">{g.iasKt === null ? 'not in the file' : dialText(g.iasKt, unit)}</td>
              <td className="r mono">{g.targetKt === null ? '\u2013' : dialText(g.targetKt, unit)}</td>
              <td className="r mono">{g.deviationKt === null ? '\u2013' : dialOff(g.deviationKt, unit)}</td>
              <td className="r mono">{g.gsKt === null ? '\u2013' : dialText(g.gsKt, unit)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
