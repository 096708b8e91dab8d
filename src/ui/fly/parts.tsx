'use client';
import { useEffect, useId, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { INTERVENTIONS, say } from '@/domain/words';

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

/** Yes, no, or not looked at. */
export function YesNo({
  title,
  now,
  choose,
  yes = 'yes',
  no = 'no',
}: {
  title: string;
  now: boolean | null;
  choose: (v: boolean | null) => void;
  yes?: string;
  no?: string;
}) {
  return (
    <Words
      title={title}
      options={['yes', 'no'] as const}
      now={now === null ? null : now ? 'yes' : 'no'}
      choose={(v) => choose(v === null ? null : v === 'yes')}
      columns={2}
      name={(v) => (v === 'yes' ? yes : no)}
    />
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

/** A panel from below: first control focused, Escape closes, the page behind does not move. */
export function Sheet({ title, close, children }: { title: string; close: () => void; children: React.ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const before = document.activeElement instanceof HTMLElement ? document.activeElement : null;
    if (!box.current?.contains(document.activeElement))
      box.current?.querySelector<HTMLElement>('button, input, textarea')?.focus();
    document.body.style.overflow = 'hidden';
    return () => {
      document.body.style.overflow = '';
      before?.focus();
    };
  }, []);
  const keys = (e: React.KeyboardEvent) => {
    if (e.key === 'Escape') {
      e.stopPropagation();
      return close();
    }
    if (e.key !== 'Tab' || !box.current) return;
    const all = [
      ...box.current.querySelectorAll<HTMLElement>('button:not(:disabled), input, textarea, select, summary'),
    ].filter((x) => x.offsetParent !== null);
    const [first, last] = [all[0], all[all.length - 1]];
    if (e.shiftKey ? document.activeElement === first : document.activeElement === last) {
      e.preventDefault();
      (e.shiftKey ? last : first)?.focus();
    }
  };
  // Not where it is asked from: the strip has its own colours.
  return createPortal(
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- a modal dialog holds Tab and Escape for what is in it
    <div className="sheet" role="dialog" aria-modal="true" aria-label={title} ref={box} onKeyDown={keys}>
      <div className="sheet-head">
        <strong>{title}</strong>
        <button type="button" className="tap" onClick={close}>
          Done
        </button>
      </div>
      {children}
    </div>,
    document.getElementById('main') ?? document.body,
  );
}

/** Typed words: kept a moment after each pause and when the field is left, so that nothing typed is lost. */
export function Typed({
  label,
  value,
  keep,
  max,
  rows = 2,
}: {
  rows?: number;
  label: string;
  value: string;
  keep: (text: string) => void;
  max: number;
}) {
  const [text, setText] = useState(value);
  const later = useRef<ReturnType<typeof setTimeout> | null>(null);
  const write = (next: string, ms: number) => {
    if (later.current) clearTimeout(later.current);
    later.current = setTimeout(() => keep(next), ms);
  };
  const id = useId();
  // The label stands beside the field, not around it: around it, what is typed would become part of its name.
  return (
    <div className="typed">
      <label htmlFor={id}>{label}</label>
      <textarea
        id={id}
        rows={rows}
        maxLength={max}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          write(e.target.value, 400);
        }}
        onBlur={() => write(text, 0)}
      />
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

/** State that a closed page does not lose: mirrored on the device under a name until it is put back to its start. */
export function useKept<T>(name: string, start: T): [T, (next: T | ((before: T) => T)) => void] {
  const key = `jeito-kept-${name}`;
  const [now, setNow] = useState<T>(() => {
    try {
      const text = localStorage.getItem(key);
      return text === null ? start : (JSON.parse(text) as T);
    } catch {
      return start;
    }
  });
  const first = useRef(JSON.stringify(start));
  useEffect(() => {
    try {
      const text = JSON.stringify(now);
      if (text === first.current) localStorage.removeItem(key);
      else localStorage.setItem(key, text);
    } catch {
      // A full device: the page still has it; saving will say so.
    }
  }, [key, now]);
  return [now, setNow];
}
