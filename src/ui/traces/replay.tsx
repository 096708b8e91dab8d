'use client';
import Button from 'react-bootstrap/Button';
import { Pause, Play } from 'lucide-react';
import { useMemo, useState } from 'react';
import { plural } from '@/core/format';
import { type StripOnPlane } from '@/core/trace';
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import { Loading } from '../shared/parts';
import { observable } from './observable';
import { Arrival } from './arrival';
import { FoundList } from './found-list';
import { type Chosen, type FoundOf, chosenFirst, foundRows, stretchOf } from './found-rows';
import { Reading } from './reading';
import { useZone } from '../shared/zone';
import { zoneText } from '@/core/format';
import { useCurves, usePlaying } from './curves';
import { useSeries } from './series';
import { TracePlan } from './plan';
import { type Dial, FOUND_NAME, elapsed, momentOf } from './words';
import { ChosenItem, ChosenLimit } from './chosen';
import { FoundTable } from './found-table';

export interface ReplayProps {
  /** Events to begin with, by index. */
  start?: { chosen: number | null; beside: number | null };
  traceId: string;
  startUtc: string | null;
  analysis: TraceAnalysis;
  context: TraceContext;
  strips: StripOnPlane[];
  /** What the standard allows about the speed at the threshold, knots. */
  tolerance: { low: number; high: number } | null;
  /** Landing number each found event was paired with. */
  numbers: Record<number, number>;
  /** Of the aeroplane's dial. */
  unit: Dial;
}
const RATES = [1, 10, 60] as const;

/**
 * Replay of one recording: the field from above, what was found, curves over time, the approach, the load at the touch;
 * two arrivals beside each other.
 */
export function Replay({ start, traceId, startUtc, analysis, context, strips, tolerance, numbers, unit }: ReplayProps) {
  const zone = useZone();
  const [chosen, setChosen] = useState<Chosen>(() => chosenFirst(analysis, start?.chosen ?? null));
  const [beside, setBeside] = useState<number | null>(start?.beside ?? null);
  const [near, setNear] = useState(false);
  // Followed frame by frame by the drawings alone: the page around them is not rendered for them.
  const [shown] = useState(() => observable<[number, number]>([0, 1]));
  const [cursor] = useState(() => observable<number | null>(null));
  const { series, failed, fail } = useSeries(traceId, unit, shown);
  const { holder, view } = useCurves({ series, analysis, startUtc, unit, shown, cursor, fail });
  const [playing, setPlaying] = usePlaying(series, cursor, shown);

  const show = (s: number, fromS: number, toS: number) => {
    cursor.set(s);
    view.current?.window(Math.max(0, fromS), toS);
  };
  const end = series ? (series.tS[series.tS.length - 1] ?? 1) : 1;
  const pick = (of: FoundOf, k: number) => {
    const stretch = stretchOf(analysis, of, k);
    if (!stretch) return;
    setChosen({ of, k });
    if (of !== 'event') setNear(false);
    show(stretch.atS, stretch.fromS, stretch.toS);
  };
  const event = chosen?.of === 'event' ? (analysis.events[chosen.k] ?? null) : null;
  const item = chosen?.of === 'item' ? (analysis.airwork[chosen.k] ?? null) : null;
  const limit = chosen?.of === 'limit' ? (analysis.exceedances[chosen.k] ?? null) : null;
  const marks = useMemo(
    () =>
      analysis.events.map((e, k) => ({
        s: momentOf(e),
        label: `${FOUND_NAME[e.kind]}${numbers[k] ? ` ${numbers[k]}` : ''}`,
        chosen: event === e,
      })),
    [analysis.events, event, numbers],
  );
  const rows = useMemo(() => foundRows(analysis), [analysis]);
  const arrivals = analysis.events.filter((e) => e.kind !== 'takeoff').length;
  const exceeded = `${plural(analysis.exceedances.length, 'limit')} exceeded`;
  const summary = `${arrivals} arrivals, ${analysis.airwork.length} items of airwork, ${exceeded}.`;
  return (
    <>
      <p className="mb-2">
        {summary} Read at {analysis.source.rateHz} rows a second{analysis.source.warnings.length > 0 ? '; ' : '.'}
        {analysis.source.warnings.map((w) => w.message).join(' ')}
      </p>
      {failed ? (
        <p className="trouble" role="alert">
          {failed}
        </p>
      ) : null}
      <div className="replay">
        <section className="panel" aria-label="From above">
          <div className="replay-bar">
            <h2 className="mb-0">From above</h2>
            <div className="btn-group btn-group-sm" role="group" aria-label="Zoom">
              <Button
                variant={near ? 'outline-primary' : 'primary'}
                aria-pressed={!near}
                onClick={() => setNear(false)}
              >
                Selected stretch
              </Button>
              <Button variant={near ? 'primary' : 'outline-primary'} aria-pressed={near} onClick={() => setNear(true)}>
                Runway
              </Button>
            </div>
          </div>
          {series ? (
            <TracePlan
              series={series}
              strips={strips}
              marks={marks}
              window={shown}
              cursor={cursor}
              near={near ? (event?.runway ?? strips[0]?.ends[0]?.ident ?? '') : null}
              heightPx={300}
              onPick={cursor.set}
            />
          ) : failed ? null : (
            <div style={{ height: 300 }}>
              <Loading what="the track" />
            </div>
          )}
        </section>
        <FoundList rows={rows} chosen={chosen} beside={beside} numbers={numbers} pick={pick} lay={setBeside} />
      </div>
      <section className="panel mt-3" aria-label="Curves over time">
        <div className="replay-bar">
          <h2 className="mb-0">Over time{startUtc ? `, ${zoneText(startUtc, zone)}` : ''}</h2>
          <Reading cursor={cursor} series={series} startUtc={startUtc} unit={unit} />
          <div className="d-flex gap-1 flex-wrap">
            {RATES.map((x) => (
              <Button
                key={x}
                variant={playing === x ? 'primary' : 'outline-primary'}
                size="sm"
                aria-pressed={playing === x}
                disabled={!series}
                onClick={() => setPlaying(playing === x ? null : x)}
                aria-label={playing === x ? 'Stop' : `Play at ${x} times`}
              >
                {playing === x ? <Pause size={14} aria-hidden /> : <Play size={14} aria-hidden />} {x}
                {'\u00d7'}
              </Button>
            ))}
            <Button variant="outline-primary" size="sm" disabled={!series} onClick={() => view.current?.window(0, end)}>
              Whole flight
            </Button>
          </div>
        </div>
        <div ref={holder} className="curves" role="img" aria-label={`Curves over time. ${summary}`} />
        <p className="soft small mb-0">
          Wheel or pinch to zoom, drag to move, drag across the strip below to choose a stretch. Shaded stretches are
          arrivals. Every peak is drawn however far out you zoom.
        </p>
      </section>
      {event ? (
        <Arrival
          event={event}
          beside={
            beside === null || (chosen?.of === 'event' && beside === chosen.k)
              ? null
              : (analysis.events[beside] ?? null)
          }
          series={series}
          context={context}
          tolerance={tolerance}
          startUtc={startUtc}
          unit={unit}
          name={(e) => {
            const k = analysis.events.indexOf(e);
            return `${FOUND_NAME[e.kind]}${numbers[k] ? ` ${numbers[k]}` : ''}, ${elapsed(momentOf(e))}`;
          }}
        />
      ) : null}
      {item ? <ChosenItem item={item} unit={unit} /> : null}
      {limit ? <ChosenLimit limit={limit} startUtc={startUtc} unit={unit} /> : null}
      <FoundTable analysis={analysis} startUtc={startUtc} unit={unit} />
    </>
  );
}
