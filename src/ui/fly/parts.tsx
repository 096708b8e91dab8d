'use client';
import { INTERVENTIONS, say } from '@/domain/words';
import { Suspense, lazy, useEffect, useState } from 'react';

/** One row of words; the chosen one again takes it back to *not seen*. */
export function Words<T extends string>({
  title,
  options,
  now,
  choose,
  columns,
  name = say,
  hint,
  off = false,
}: {
  title: string;
  options: readonly T[];
  now: T | null;
  choose: (v: T | null) => void;
  columns: number;
  name?: (v: T) => string;
  /** A line under a word. */
  hint?: (v: T) => string | null;
  off?: boolean;
}) {
  return (
    <div>
      <h2>{title}</h2>
      <div className={`taps t${columns}`} role="group" aria-label={title}>
        {options.map((o) => (
          <button
            key={o}
            type="button"
            className="tap"
            aria-pressed={now === o}
            disabled={off}
            onClick={() => choose(now === o ? null : o)}
          >
            {name(o)}
            {hint?.(o) ? <small>{hint(o)}</small> : null}
          </button>
        ))}
      </div>
    </div>
  );
}

const pad = () => import('./keypad');
const Keypad = lazy(pad);

/**
 * A number by two big buttons, which run while they are held; it starts at what is expected but counts only once
 * touched. The middle opens the keys to type it, with the usual values and *not seen*.
 */
export function Stepper({
  title,
  name = title,
  now,
  set,
  start,
  step,
  unit,
  least = -Infinity,
  most = Infinity,
  note,
  digits = 0,
  wrap,
  usual,
}: {
  title: string;
  /** For a screen reader, when the title says more. */
  name?: string;
  now: number | null;
  set: (v: number | null) => void;
  start: number;
  step: number;
  unit: string;
  least?: number;
  most?: number;
  note?: React.ReactNode;
  digits?: number;
  wrap?: number;
  /** Values a tap away on the keys; absent = those about the start. */
  usual?: readonly number[];
}) {
  const [running, setRunning] = useState<number | null>(null);
  const [typing, setTyping] = useState(false);
  const shown = running ?? now;
  const moved = (from: number, by: number) => {
    const next = Math.round((from + by) * 100) / 100;
    return wrap ? ((next % wrap) + wrap) % wrap || wrap : Math.max(least, Math.min(most, next));
  };
  const button = (by: number, word: string, sign: string) => (
    <button
      type="button"
      className="tap"
      aria-label={`${name} ${word}`}
      onClick={() => set(now === null ? start : moved(now, by))}
      onPointerDown={({ currentTarget }) => {
        const pressed = new AbortController();
        for (const over of ['pointerup', 'pointercancel'])
          window.addEventListener(over, () => pressed.abort(), { once: true, signal: pressed.signal });
        void pad().then((m) =>
          m.hold(pressed.signal, currentTarget, now ?? start, (v, n) => moved(v, by * n), setRunning, set),
        );
      }}
    >
      {sign}
    </button>
  );
  return (
    <div>
      <h2>
        {title}
        {note ? <> {note}</> : null}
      </h2>
      <div className="stepper">
        {button(-step, 'less', '–')}
        <button
          type="button"
          className="tap num"
          aria-label={now === null ? `${name} not seen` : `${name} ${now} ${unit}, change`}
          onClick={() => setTyping(true)}
        >
          {shown === null ? (
            <small>not seen</small>
          ) : (
            <>
              {digits ? shown.toFixed(digits) : shown}
              <small>{unit}</small>
            </>
          )}
        </button>
        {button(step, 'more', '+')}
      </div>
      {typing ? (
        <Suspense fallback={null}>
          <Keypad
            title={name}
            unit={unit}
            now={now}
            usual={usual ?? [...new Set([-2, -1, 0, 1, 2].map((n) => moved(start, n * step)))]}
            least={least}
            most={wrap ?? most}
            digits={digits}
            keep={(v) => set(v === null ? null : moved(v, 0))}
            close={() => setTyping(false)}
          />
        </Suspense>
      ) : null}
    </div>
  );
}

/** Whose it was. Each button saves when `save` says so. */
export function Whose({
  title,
  now,
  choose,
  off = false,
}: {
  title: string;
  now: number | null;
  choose: (level: number) => void;
  off?: boolean;
}) {
  return (
    <div>
      <h2>{title}</h2>
      <div className="taps t4" role="group" aria-label={title}>
        {INTERVENTIONS.map((i) => (
          <button
            key={i.level}
            type="button"
            className="tap"
            disabled={off}
            aria-pressed={now === i.level}
            onClick={() => choose(i.level)}
          >
            {i.word}
            <small>{i.hint}</small>
          </button>
        ))}
      </div>
    </div>
  );
}

/** The time, each second or at the pace given. */
export function useTime(everyMs = 1000): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
  return now;
}
