'use client';
import { Pause, Play } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { ktPerUnit } from '@/core/speeds';
import { type Series, type StripOnPlane, approachLine, lowerBound, unpackSeries } from '@/core/trace';
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import { Loading } from '../shared/parts';
import type { ApproachGate, NamedLine } from './approach-chart';
import { type Held, held } from './held';
import { TracePlan } from './plan';
import type { SeriesView } from './series-chart';
import {
  type Dial,
  FOUND_NAME,
  clock,
  dialOff,
  dialText,
  elapsed,
  itemText,
  measuresText,
  momentOf,
  sureWord,
} from './words';

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
type Chosen = { of: 'event'; k: number } | { of: 'item'; k: number } | { of: 'limit'; k: number } | null;
const RATES = [1, 10, 60] as const;

/**
 * Replay of one recording: the field from above, what was found, curves over time, the approach, the load at the touch;
 * two arrivals beside each other.
 */
export function Replay({ start, traceId, startUtc, analysis, context, strips, tolerance, numbers, unit }: ReplayProps) {
  const [series, setSeries] = useState<Series | null>(null);
  const [failed, setFailed] = useState('');
  const firstArrival = analysis.events.findIndex((e) => e.touchdown);
  const [chosen, setChosen] = useState<Chosen>(
    start?.chosen != null
      ? { of: 'event', k: start.chosen }
      : firstArrival >= 0
        ? { of: 'event', k: firstArrival }
        : null,
  );
  const [beside, setBeside] = useState<number | null>(start?.beside ?? null);
  const [near, setNear] = useState(false);
  // Followed frame by frame by the drawings alone: the page around them is not rendered for them.
  const [shown] = useState(() => held<[number, number]>([0, 1]));
  const [cursor] = useState(() => held<number | null>(null));
  const [playing, setPlaying] = useState<number | null>(null);
  const holder = useRef<HTMLDivElement>(null);
  const view = useRef<SeriesView | null>(null);

  useEffect(() => {
    let gone = false;
    void fetch(`/api/traces/${traceId}/series`)
      .then(async (r) => {
        if (!r.ok)
          throw new Error(
            r.status === 404
              ? 'The track is nowhere near this field: there is nothing to draw. The limits passed are below.'
              : 'The track cannot be loaded.',
          );
        const s = inDial(unpackSeries(await r.arrayBuffer()), unit);
        if (!gone) {
          shown.set([0, s.tS[s.tS.length - 1] ?? 1]);
          setSeries(s);
        }
      })
      .catch((e: unknown) => {
        if (!gone)
          setFailed(
            e instanceof TypeError
              ? 'The track cannot be loaded without the network. Reload when it is back.'
              : e instanceof Error
                ? e.message
                : 'The track cannot be loaded.',
          );
      });
    return () => {
      gone = true;
    };
  }, [traceId, unit, shown]);

  const label = useCallback(
    (s: number) =>
      startUtc === null ? elapsed(s) : new Date(Date.parse(startUtc) + s * 1000).toISOString().slice(11, 19),
    [startUtc],
  );
  useEffect(() => {
    const element = holder.current;
    if (!element || !series) return;
    let gone = false;
    const draw = () => {
      void import('./series-chart')
        .then(({ drawSeries }) => {
          if (gone) return;
          view.current?.dispose();
          view.current = drawSeries(
            element,
            series,
            analysis.events.filter((e) => e.kind !== 'takeoff').map((e) => ({ fromS: e.startS, toS: e.endS })),
            label,
            unit,
            { onWindow: (a, b) => shown.set([a, b]), onCursor: cursor.set },
          );
          view.current.cursor(cursor.get());
        })
        .catch(() => setFailed('The curves cannot be loaded; what was measured is in the list.'));
    };
    draw();
    const themes = new MutationObserver(draw);
    themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] });
    const follow = cursor.subscribe(() => view.current?.cursor(cursor.get()));
    return () => {
      gone = true;
      follow();
      themes.disconnect();
      view.current?.dispose();
      view.current = null;
    };
  }, [series, analysis.events, label, unit, shown, cursor]);

  // Plays by the screen's own frames: the cursor moves, the plan and the curves follow.
  useEffect(() => {
    if (playing === null || !series) return;
    const end = series.tS[series.tS.length - 1] ?? 0;
    let last = performance.now();
    let at = cursor.get() ?? shown.get()[0];
    let frame = requestAnimationFrame(function step(t) {
      at += ((t - last) / 1000) * playing;
      last = t;
      if (at >= end) {
        setPlaying(null);
        return;
      }
      cursor.set(at);
      frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, series, cursor, shown]);

  const show = (s: number, fromS: number, toS: number) => {
    cursor.set(s);
    view.current?.window(Math.max(0, fromS), toS);
  };
  const end = series ? (series.tS[series.tS.length - 1] ?? 1) : 1;
  const pickEvent = (k: number) => {
    const e = analysis.events[k];
    if (e) {
      setChosen({ of: 'event', k });
      show(momentOf(e), momentOf(e) - 60, Math.max(e.endS, momentOf(e)) + 20);
    }
  };
  const pickItem = (k: number) => {
    const a = analysis.airwork[k];
    if (a) {
      setChosen({ of: 'item', k });
      setNear(false);
      show(a.startS, a.startS - 15, a.endS + 15);
    }
  };
  const pickLimit = (k: number) => {
    const x = analysis.exceedances[k];
    if (x) {
      setChosen({ of: 'limit', k });
      setNear(false);
      show(x.startS, x.startS - 20, x.startS + x.durationS + 20);
    }
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
  const rows = useMemo(
    () =>
      [
        ...analysis.events.map((e, k) => ({
          at: e.startS,
          key: `e${k}`,
          of: 'event' as const,
          k,
          name: FOUND_NAME[e.kind],
          runway: e.runway,
          sure: e.confidence,
          moment: momentOf(e),
        })),
        ...analysis.airwork.map((a, k) => ({
          at: a.startS,
          key: `a${k}`,
          of: 'item' as const,
          k,
          name: FOUND_NAME[a.kind],
          runway: a.direction,
          sure: a.confidence,
          moment: a.startS,
        })),
        ...analysis.exceedances.map((x, k) => ({
          at: x.startS,
          key: `x${k}`,
          of: 'limit' as const,
          k,
          name: 'Limit passed',
          runway: x.channel,
          sure: null,
          moment: x.startS,
        })),
      ].sort((a, b) => a.at - b.at),
    [analysis],
  );
  const summary = `${analysis.events.filter((e) => e.kind !== 'takeoff').length} arrivals, ${analysis.airwork.length} items of airwork, ${analysis.exceedances.length} ${analysis.exceedances.length === 1 ? 'limit' : 'limits'} passed.`;
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
            <div className="btn-group btn-group-sm" role="group" aria-label="How near">
              <button
                type="button"
                className={`btn ${near ? 'btn-outline-primary' : 'btn-primary'}`}
                aria-pressed={!near}
                onClick={() => setNear(false)}
              >
                This stretch
              </button>
              <button
                type="button"
                className={`btn ${near ? 'btn-primary' : 'btn-outline-primary'}`}
                aria-pressed={near}
                onClick={() => setNear(true)}
              >
                Runway
              </button>
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
        <section className="panel" aria-label="Found">
          <h2>Found, in order of time</h2>
          <ol className="found">
            {rows.map((r) => {
              const on = chosen !== null && chosen.of === r.of && chosen.k === r.k;
              return (
                <li key={r.key} className={on ? 'on' : ''}>
                  <button
                    type="button"
                    aria-pressed={on}
                    onClick={() =>
                      r.of === 'event' ? pickEvent(r.k) : r.of === 'item' ? pickItem(r.k) : pickLimit(r.k)
                    }
                  >
                    <span className="mono">{elapsed(r.moment)}</span>
                    <span>
                      {r.of === 'event' && numbers[r.k] ? <b>{numbers[r.k]} </b> : null}
                      {r.name} <span className="soft">{r.runway ?? ''}</span>
                    </span>
                    {r.sure === null ? (
                      <span className="soft small">entry</span>
                    ) : (
                      <span className="soft small" title={`confidence ${r.sure.toFixed(2)}`}>
                        {sureWord(r.sure)}
                      </span>
                    )}
                  </button>
                  {r.of === 'event' && analysis.events[r.k]?.touchdown ? (
                    <label className="beside">
                      <input
                        type="checkbox"
                        className="form-check-input"
                        checked={beside === r.k}
                        disabled={on}
                        onChange={(e) => setBeside(e.target.checked ? r.k : null)}
                        aria-label={`Lay ${r.name} at ${elapsed(r.moment)} beside the chosen one`}
                      />
                    </label>
                  ) : (
                    <span />
                  )}
                </li>
              );
            })}
          </ol>
          <p className="soft small mb-0 mt-2">Tick a second arrival to lay it beside the chosen one.</p>
        </section>
      </div>
      <section className="panel mt-3" aria-label="Curves over time">
        <div className="replay-bar">
          <h2 className="mb-0">Over time{startUtc ? ', UTC' : ''}</h2>
          <Reading cursor={cursor} series={series} startUtc={startUtc} unit={unit} />
          <div className="d-flex gap-1">
            {RATES.map((x) => (
              <button
                key={x}
                type="button"
                className={`btn btn-sm ${playing === x ? 'btn-primary' : 'btn-outline-primary'}`}
                aria-pressed={playing === x}
                disabled={!series}
                onClick={() => setPlaying(playing === x ? null : x)}
                aria-label={playing === x ? 'Stop' : `Play at ${x} times`}
              >
                {playing === x ? <Pause size={14} aria-hidden /> : <Play size={14} aria-hidden />} {x}
                {'\u00d7'}
              </button>
            ))}
            <button
              type="button"
              className="btn btn-sm btn-outline-primary"
              disabled={!series}
              onClick={() => view.current?.window(0, end)}
            >
              Whole flight
            </button>
          </div>
        </div>
        <div ref={holder} className="curves" role="img" aria-label={`Curves over time. ${summary}`} />
        <p className="soft small mb-0">
          Wheel or pinch to zoom, drag to move, drag across the strip below to choose a stretch. Washed stretches are
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
      {item ? (
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
      ) : null}
      {limit ? (
        <section className="panel mt-3" aria-label="Chosen limit">
          <h2>Limit passed: {limit.channel}</h2>
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
            is the limit, for <span className="mono">{limit.durationS.toFixed(1)} s</span>, from{' '}
            {clock(startUtc, limit.startS)}.
          </p>
        </section>
      ) : null}
      <details className="mt-3">
        <summary>Everything found, as a table</summary>
        <div className="scroll-x">
          <table className="plain">
            <thead>
              <tr>
                <th>At</th>
                <th>What</th>
                <th>Where</th>
                <th>Measured</th>
                <th className="r">Confidence</th>
              </tr>
            </thead>
            <tbody>
              {analysis.events.map((e, k) => (
                <tr key={`e${k}`}>
                  <td className="mono">{clock(startUtc, momentOf(e))}</td>
                  <td>{FOUND_NAME[e.kind]}</td>
                  <td className="mono">{e.runway}</td>
                  <td>
                    {measuresText(e, unit)
                      .map(([n, v]) => `${n.toLowerCase()} ${v}`)
                      .join('; ')}
                  </td>
                  <td className="r mono">{e.confidence.toFixed(2)}</td>
                </tr>
              ))}
              {analysis.airwork.map((a, k) => (
                <tr key={`a${k}`}>
                  <td className="mono">{clock(startUtc, a.startS)}</td>
                  <td>{FOUND_NAME[a.kind]}</td>
                  <td>{a.direction ?? ''}</td>
                  <td>
                    {itemText(a, unit)
                      .map(([n, v]) => `${n.toLowerCase()} ${v}`)
                      .join('; ')}
                  </td>
                  <td className="r mono">{a.confidence.toFixed(2)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </>
  );
}

/** What the curves read at the cursor. */
function Reading({
  cursor,
  series,
  startUtc,
  unit,
}: {
  cursor: Held<number | null>;
  series: Series | null;
  startUtc: string | null;
  unit: Dial;
}) {
  const s = useSyncExternalStore(cursor.subscribe, cursor.get, () => null);
  if (s === null || !series) return <span className="mono small">point at a curve</span>;
  const at = Math.min(series.tS.length - 1, lowerBound(series.tS, s));
  const read = (name: 'height' | 'ias' | 'gs' | 'bank' | 'nz', digits: number, of: string) => {
    const v = series.columns[name]?.[at];
    return v === undefined || Number.isNaN(v)
      ? null
      : `${(Math.round(v * 10 ** digits) / 10 ** digits + 0).toFixed(digits)} ${of}`;
  };
  return (
    <span className="mono small">
      {[
        clock(startUtc, s),
        read('height', 0, 'ft'),
        read('ias', 0, unit),
        read('gs', 0, `${unit} over ground`),
        read('bank', 0, '\u00b0'),
        read('nz', 2, 'g'),
      ]
        .filter(Boolean)
        .join(' \u00b7 ')}
    </span>
  );
}

interface ArrivalProps {
  event: TraceAnalysis['events'][number];
  beside: TraceAnalysis['events'][number] | null;
  series: Series | null;
  context: TraceContext;
  tolerance: ReplayProps['tolerance'];
  startUtc: string | null;
  unit: Dial;
  name: (e: TraceAnalysis['events'][number]) => string;
}
function Arrival({ event, beside, series, context, tolerance, startUtc, unit, name }: ArrivalProps) {
  const profile = useRef<HTMLDivElement>(null);
  const load = useRef<HTMLDivElement>(null);
  const [failed, setFailed] = useState(false);
  const speedName = series?.columns.ias ? 'indicated' : 'over the ground';
  const hasLoad = Boolean(series?.columns.nz) && event.touchdown !== undefined;
  const spoken = name(event);
  const other = beside ? name(beside) : '';
  useEffect(() => {
    if (!series || !profile.current) return;
    const lines = [event, ...(beside ? [beside] : [])].map((e, i): NamedLine => ({
      name: i === 0 ? spoken : other,
      ...approachLine(series, context, e),
    }));
    const end = context.aerodrome.runways
      .flatMap((r) => r.ends.map((x) => ({ x, lengthM: r.lengthM })))
      .find(({ x }) => x.ident === event.runway);
    const gates = (event.gates ?? []).map((g, k): ApproachGate => ({
      name: g.name,
      x: -(context.gates[k]?.distanceM ?? 0),
      heightFt: context.gates[k]?.heightFt ?? g.heightFt,
      target: g.targetKt === null ? null : g.targetKt / ktPerUnit(unit),
    }));
    const drops: (() => void)[] = [];
    let gone = false;
    const draw = () => {
      void import('./approach-chart')
        .then(({ drawApproach }) => {
          if (gone) return;
          for (const d of drops.splice(0)) d();
          const options = {
            lines,
            gates,
            tolerance: tolerance && { low: tolerance.low / ktPerUnit(unit), high: tolerance.high / ktPerUnit(unit) },
            aimPointM: context.aimPointM,
            lengthM: end?.lengthM ?? 600,
            speedName: `${speedName}, ${unit}`,
          };
          if (profile.current) drops.push(drawApproach(profile.current, { ...options, what: 'profile' }));
          if (load.current) drops.push(drawApproach(load.current, { ...options, what: 'load' }));
        })
        .catch(() => setFailed(true));
    };
    draw();
    const themes = new MutationObserver(draw);
    themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] });
    return () => {
      gone = true;
      themes.disconnect();
      for (const d of drops) d();
    };
  }, [event, beside, series, context, tolerance, speedName, spoken, other, unit]);
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
        {event.gates && event.gates.length > 0 ? (
          <div className="scroll-x">
            <table className="plain">
              <thead>
                <tr>
                  <th>Gate</th>
                  <th>At</th>
                  <th className="r">Height</th>
                  <th className="r">Indicated</th>
                  <th className="r">Target</th>
                  <th className="r">Off</th>
                  <th className="r">Over the ground</th>
                </tr>
              </thead>
              <tbody>
                {event.gates.map((g) => (
                  <tr key={g.name}>
                    <td>{g.name}</td>
                    <td className="mono">{clock(startUtc, g.tS)}</td>
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
        ) : null}
        <p className="soft small mb-0 mt-1">
          Measured from this file, confidence {event.confidence.toFixed(2)} ({sureWord(event.confidence)}). What it
          cannot support is left out, never guessed.
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

/** Speeds in the unit of the dial. */
function inDial(s: Series, unit: Dial): Series {
  const { ias, gs } = s.columns;
  const per = 1 / ktPerUnit(unit);
  return per === 1
    ? s
    : {
        ...s,
        columns: {
          ...s.columns,
          ...(ias ? { ias: ias.map((v) => v * per) } : {}),
          ...(gs ? { gs: gs.map((v) => v * per) } : {}),
        },
      };
}
