'use client';
import { INTERVENTIONS, say } from '@/domain/words';
import { useEffect, useState } from 'react';

/** One row of words; the chosen one again takes it back to *not seen*. */
export function Words<T extends string>({
  title,
  options,
  now,
  choose,
  columns,
  name = say,
  off = false,
}: {
  title: string;
  options: readonly T[];
  now: T | null;
  choose: (v: T | null) => void;
  columns: number;
  name?: (v: T) => string;
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
          </button>
        ))}
      </div>
    </div>
  );
}

/**
 * A number by two big buttons; it starts at what is expected but counts only once touched, and the middle takes it
 * back.
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
}) {
  const move = (by: number) => {
    if (now === null) return set(start);
    const next = Math.round((now + by) * 100) / 100;
    set(wrap ? ((next % wrap) + wrap) % wrap || wrap : Math.max(least, Math.min(most, next)));
  };
  return (
    <div>
      <h2>
        {title}
        {note ? <> {note}</> : null}
      </h2>
      <div className="stepper">
        <button type="button" className="tap" aria-label={`${name} less`} onClick={() => move(-step)}>
          –
        </button>
        <button
          type="button"
          className="tap num"
          aria-label={now === null ? `${name} not seen` : `${name} ${now} ${unit}, take back`}
          onClick={() => set(now === null ? start : null)}
        >
          {now === null ? (
            <small>not seen</small>
          ) : (
            <>
              {digits ? now.toFixed(digits) : now}
              <small>{unit}</small>
            </>
          )}
        </button>
        <button type="button" className="tap" aria-label={`${name} more`} onClick={() => move(step)}>
          +
        </button>
      </div>
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
