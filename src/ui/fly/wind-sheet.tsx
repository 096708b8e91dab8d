'use client';
import { useEffect, useRef, useState } from 'react';
import { direction, hoursText } from '@/core/format';
import { WIND_GOOD_FOR_MIN } from '@/core/wind';
import type { LoggedWind, WindSource } from '@/domain/capture';
import type { ReadyWind, SortiePack } from '@/offline/protocol';
import { Sheet } from './sheet';
import { type SaveEvent, windFigures } from './view';

const SPEEDS = [0, 3, 5, 8, 10, 12, 15, 18, 20, 25] as const;
/** How far a gust stands above the mean, as it is mostly reported. */
const GUSTS = [5, 8, 10, 12, 15] as const;
const FROM: Record<WindSource, string> = {
  brief: 'brief',
  station: 'station',
  tower: 'tower',
  seen: 'seen outside',
};
const fromWords = (w: ReadyWind): string => (w.simulated ? 'simulated station' : FROM[w.source]);
const minutesOld = (at: string): number => Math.floor((Date.now() - Date.parse(at)) / 60_000);
const ageWords = (minutes: number): string =>
  minutes < 1 ? 'now' : `${minutes < 100 ? `${minutes} min` : hoursText(minutes)} old`;

/**
 * Logs the wind, magnetic. One that was observed within ten minutes is confirmed by one tap, with its own time; an older
 * one is entered anew.
 */
export function WindSheet({
  pack,
  runwayDeg,
  wind,
  close,
  saveEvent,
}: {
  pack: SortiePack;
  runwayDeg: number;
  wind: LoggedWind | null;
  close: () => void;
  saveEvent: SaveEvent;
}) {
  const [from, setFrom] = useState(wind?.fromDegMag ?? Math.round(runwayDeg / 10) * 10);
  const [kt, setKt] = useState(wind?.kt ?? 0);
  const [gust, setGust] = useState<number | null>(wind?.gustKt ?? null);
  // Not said unless it is tapped.
  const [source, setSource] = useState<WindSource | null>(null);
  const entered = { fromDegMag: from, kt, gustKt: gust !== null && gust > kt ? gust : null };
  const ready = useReady(pack);
  const keep = (w: LoggedWind) => void saveEvent('wind-logged', crypto.randomUUID(), w).then(close, () => undefined);
  const begin = (w: ReadyWind) => {
    setFrom(w.fromDegMag);
    setKt(w.kt);
    setGust(w.gustKt);
  };
  return (
    <Sheet title="Wind now" close={close}>
      {ready.length > 0 ? (
        <div className="taps t2" role="group" aria-label="Winds observed">
          {ready.map((w) => {
            const old = minutesOld(w.at);
            const fresh = old <= WIND_GOOD_FOR_MIN;
            return (
              <button
                key={`${w.source}${w.at}`}
                type="button"
                className={fresh ? 'tap go' : 'tap'}
                onClick={() =>
                  fresh
                    ? keep({ fromDegMag: w.fromDegMag, kt: w.kt, gustKt: w.gustKt, at: w.at, source: w.source })
                    : begin(w)
                }
              >
                {fresh ? `Use ${windFigures(w)}` : `Begin from ${windFigures(w)}`}
                <small>
                  {fromWords(w)}, {ageWords(old)}
                  {fresh ? '' : ': too old, enter it anew'}
                </small>
              </button>
            );
          })}
        </div>
      ) : null}
      <div className="wind-in">
        <Dial from={from} set={setFrom} runwayDeg={runwayDeg} />
        <div>
          <Row label="Mean, kt" now={kt} text={String(kt)} least={0} most={99} set={setKt} />
          <div className="taps five" role="group" aria-label="Mean, in one tap">
            {SPEEDS.map((s) => (
              <button key={s} type="button" className="tap" aria-pressed={kt === s} onClick={() => setKt(s)}>
                {s}
              </button>
            ))}
          </div>
          <Row
            label="Gust, kt"
            now={gust ?? kt}
            text={gust === null ? 'none' : String(gust)}
            least={kt}
            most={150}
            step={gust === null ? 3 : 1}
            set={(v) => setGust(v <= kt ? null : v)}
          />
          <div className="taps five" role="group" aria-label="Gust, in one tap">
            {GUSTS.map((g) => (
              <button
                key={g}
                type="button"
                className="tap"
                aria-pressed={gust === kt + g}
                onClick={() => setGust(gust === kt + g ? null : kt + g)}
              >
                G{kt + g}
              </button>
            ))}
          </div>
        </div>
      </div>
      <div className="pair">
        <div className="taps t2" role="group" aria-label="Where it is from">
          {(['seen', 'tower'] as const).map((s) => (
            <button
              key={s}
              type="button"
              className="tap"
              aria-pressed={source === s}
              onClick={() => setSource(source === s ? null : s)}
            >
              {FROM[s]}
            </button>
          ))}
        </div>
        <button
          type="button"
          className="tap go"
          onClick={() => keep({ ...entered, at: new Date().toISOString(), ...(source === null ? {} : { source }) })}
        >
          Log this wind
          <small>{windFigures(entered)}, magnetic</small>
        </button>
      </div>
    </Sheet>
  );
}

/** What was taken along, and with a network what is observed now; newest first. */
function useReady(pack: SortiePack): ReadyWind[] {
  const [ready, setReady] = useState<ReadyWind[]>(pack.winds ?? []);
  useEffect(() => {
    const over = new AbortController();
    fetch(`/api/sorties/${pack.sortieId}/winds`, { signal: over.signal })
      .then(async (r) => (r.ok ? ((await r.json()) as { winds: ReadyWind[] }).winds : null))
      .then((now) => now && setReady(now))
      .catch(() => undefined);
    return () => over.abort();
  }, [pack.sortieId]);
  return [...ready].sort((a, b) => b.at.localeCompare(a.at));
}

function Row({
  label,
  now,
  text,
  least,
  most,
  step = 1,
  set,
}: {
  label: string;
  now: number;
  text: string;
  least: number;
  most: number;
  step?: number;
  set: (v: number) => void;
}) {
  return (
    <div>
      <h2>{label}</h2>
      <div className="stepper">
        <button
          type="button"
          className="tap"
          aria-label={`${label} less`}
          onClick={() => set(Math.max(least, now - 1))}
        >
          –
        </button>
        <span className="num">{text}</span>
        <button
          type="button"
          className="tap"
          aria-label={`${label} more`}
          onClick={() => set(Math.min(most, now + step))}
        >
          +
        </button>
      </div>
    </div>
  );
}

const R = 100;
const at = (deg: number, r: number): [number, number] => [
  Math.sin((deg * Math.PI) / 180) * r,
  -Math.cos((deg * Math.PI) / 180) * r,
];
const tens = (deg: number): number => (((Math.round(deg / 10) * 10) % 360) + 360) % 360 || 360;

/** Where the wind comes from, by a tap on the rose, a drag, or the arrow keys; the runway lies in it. */
function Dial({ from, set, runwayDeg }: { from: number; set: (deg: number) => void; runwayDeg: number }) {
  const box = useRef<SVGSVGElement>(null);
  const point = (e: React.PointerEvent) => {
    const r = box.current?.getBoundingClientRect();
    if (!r) return;
    const [x, y] = [e.clientX - (r.left + r.width / 2), e.clientY - (r.top + r.height / 2)];
    if (Math.hypot(x, y) < r.width / 12) return;
    set(tens((Math.atan2(x, -y) * 180) / Math.PI));
  };
  const key = (e: React.KeyboardEvent) => {
    const by = { ArrowRight: 10, ArrowUp: 10, ArrowLeft: -10, ArrowDown: -10 }[e.key];
    if (by === undefined) return;
    e.preventDefault();
    set(tens(from + by));
  };
  const [x, y] = at(from, R - 6);
  const [a, b] = [at(runwayDeg, 46), at(runwayDeg + 180, 46)];
  return (
    <div>
      <h2>From, magnetic</h2>
      <div
        role="slider"
        tabIndex={0}
        className="dial"
        aria-label="From, magnetic"
        aria-valuemin={10}
        aria-valuemax={360}
        aria-valuenow={from}
        aria-valuetext={`${direction(from)} degrees`}
        onKeyDown={key}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          point(e);
        }}
        onPointerMove={(e) => {
          if (e.currentTarget.hasPointerCapture(e.pointerId)) point(e);
        }}
      >
        <svg ref={box} viewBox="-120 -120 240 240" aria-hidden>
          <circle r={R} fill="none" stroke="currentColor" strokeWidth="2" />
          <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke="currentColor" strokeWidth="12" opacity="0.35" />
          {Array.from({ length: 36 }, (_, i) => (i + 1) * 10).map((d) => {
            const [x1, y1] = at(d, R - (d % 30 === 0 ? 12 : 6));
            const [x2, y2] = at(d, R);
            const [tx, ty] = at(d, R - 24);
            return (
              <g key={d}>
                <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="currentColor" strokeWidth="2" />
                {d % 30 === 0 ? (
                  <text x={tx} y={ty} textAnchor="middle" dominantBaseline="central" fontSize="15" fill="currentColor">
                    {d / 10}
                  </text>
                ) : null}
              </g>
            );
          })}
          <line x1={x} y1={y} x2={x * 0.25} y2={y * 0.25} stroke="currentColor" strokeWidth="5" />
          <circle cx={x} cy={y} r="11" fill="currentColor" />
          <text textAnchor="middle" dominantBaseline="central" fontSize="26" fontWeight="700" fill="currentColor">
            {direction(from)}°
          </text>
        </svg>
      </div>
      <div className="stepper">
        <button type="button" className="tap" aria-label="From, magnetic less" onClick={() => set(tens(from - 10))}>
          –
        </button>
        <span className="num">{direction(from)}°</span>
        <button type="button" className="tap" aria-label="From, magnetic more" onClick={() => set(tens(from + 10))}>
          +
        </button>
      </div>
    </div>
  );
}
