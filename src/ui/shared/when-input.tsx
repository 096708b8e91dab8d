'use client';
import { CalendarDays } from 'lucide-react';
import { type Ref, useEffect, useImperativeHandle, useRef, useState } from 'react';
import { dateText } from '@/core/format';
import { addDays } from '@/core/recency';
import Feedback from 'react-bootstrap/Feedback';
import { minutesText, readClock, typedDate } from '@/core/schedule';

interface When {
  target: { name: string; value: string; type: string };
  type: string;
}
interface Props {
  ref?: Ref<unknown>;
  id?: string;
  /** In a filter, which is sent as it stands, a hidden field of this name carries the ISO date. */
  name?: string;
  value?: string;
  defaultValue?: string;
  onChange?: (e: When) => unknown;
  onBlur?: (e: When) => unknown;
  min?: string | number | undefined;
  max?: string | number | undefined;
  /** Of a time: what an arrow key moves it by, in minutes. */
  stepMin?: number;
  size?: 'sm';
  className?: string;
  style?: React.CSSProperties;
  'aria-label'?: string;
  'aria-invalid'?: boolean;
  'aria-describedby'?: string | undefined;
}
interface Kind {
  /** The value typed, or what was typed when it is none: whoever checks it says so. */
  read: (text: string) => string;
  show: (value: string) => string;
  step: (value: string, by: number) => string;
  hint: string;
}
const NO_DATE = 'Enter the date as 24 Nov 2026.';
const ISO = /^\d{4}-\d{2}-\d{2}$/;
const DATE: Kind = {
  read: (t) => typedDate(t) ?? t.trim(),
  show: (v) => (ISO.test(v) && typedDate(v) ? dateText(v) : v),
  step: (v, by) => (ISO.test(v) && typedDate(v) ? addDays(v, by) : v),
  hint: 'd mmm yyyy',
};
const clock = (t: string): string => {
  const at = readClock(t);
  return at === null ? t.trim() : minutesText(at);
};
const timeKind = (stepMin: number): Kind => ({
  read: clock,
  show: clock,
  step: (v, by) => {
    const at = readClock(v);
    return at === null ? v : minutesText(Math.min(1439, Math.max(0, at + by * stepMin)));
  },
  hint: 'hh:mm',
});

function useWhen({ ref, name = '', value, defaultValue = '', onChange, onBlur }: Props, kind: Kind) {
  const box = useRef<HTMLInputElement>(null);
  const [sent, setSent] = useState(value ?? defaultValue);
  const now = () => kind.read(box.current?.value ?? '');
  // A form library holds on to an element: to it this is one whose value is the date, however it is shown.
  const [handle] = useState(() => ({
    name,
    type: 'text',
    get value() {
      return kind.read(box.current?.value ?? '');
    },
    set value(v: string | null) {
      if (box.current) box.current.value = kind.show(v ?? '');
      setSent(v ?? '');
    },
    focus: () => box.current?.focus(),
    select: () => box.current?.select(),
  }));
  useImperativeHandle(ref, () => handle, [handle]);
  useEffect(() => {
    if (value !== undefined && box.current && kind.read(box.current.value) !== value)
      box.current.value = kind.show(value);
  }, [value, kind]);
  const event = (type: string): When => ({ target: { name, value: now(), type: 'text' }, type });
  const changed = () => {
    setSent(now());
    onChange?.(event('change'));
  };
  return {
    box,
    sent,
    set: (v: string) => {
      if (box.current) box.current.value = kind.show(v);
      changed();
    },
    typed: {
      defaultValue: kind.show(value ?? defaultValue),
      onChange: changed,
      onBlur: () => {
        if (box.current) box.current.value = kind.show(now());
        onBlur?.(event('blur'));
      },
      onKeyDown: (e: React.KeyboardEvent) => {
        const by = e.key === 'ArrowUp' ? 1 : e.key === 'ArrowDown' ? -1 : 0;
        const next = by === 0 ? now() : kind.step(now(), by);
        if (next === now()) return;
        e.preventDefault();
        if (box.current) box.current.value = kind.show(next);
        changed();
      },
    },
  };
}
const classOf = ({ className = '', size, 'aria-invalid': bad }: Props): string =>
  [...new Set(['form-control', ...className.split(' '), size ? 'form-control-sm' : '', bad ? 'is-invalid' : ''])]
    .filter(Boolean)
    .join(' ');
const saidOf = (p: Props) => ({
  id: p.id,
  'aria-label': p['aria-label'],
  'aria-invalid': p['aria-invalid'],
  'aria-describedby': p['aria-describedby'],
});

/**
 * A date, shown as `24 Nov 2026` whatever the browser's language. Typed in any usual form or picked from a calendar; its
 * value is the ISO date. Arrow keys move it by a day.
 */
export function DateInput(p: Props) {
  const { box, sent, set, typed } = useWhen(p, DATE);
  const picker = useRef<HTMLInputElement>(null);
  const [left, setLeft] = useState(true);
  // In a form without a checker of its own the field says itself that it holds no date, and the form waits.
  const none = !p.onChange && sent !== '' && !ISO.test(sent);
  useEffect(() => box.current?.setCustomValidity(none ? NO_DATE : ''), [box, none]);
  const wrong = none && left;
  const noteId = `${p.id ?? p.name ?? 'date'}-none`;
  return (
    <span className="when" style={p.style}>
      <input
        ref={box}
        type="text"
        autoComplete="off"
        placeholder={DATE.hint}
        className={classOf({ ...p, ...(wrong ? { 'aria-invalid': true } : {}) })}
        {...saidOf(p)}
        {...(wrong ? { 'aria-invalid': true, 'aria-describedby': noteId } : {})}
        {...typed}
        onFocus={() => setLeft(false)}
        onBlur={() => {
          setLeft(true);
          typed.onBlur();
        }}
      />
      {wrong ? (
        <Feedback type="invalid" id={noteId} role="alert">
          {NO_DATE}
        </Feedback>
      ) : null}
      <button
        type="button"
        tabIndex={-1}
        aria-label="Pick from a calendar"
        onClick={() => picker.current?.showPicker()}
      >
        <CalendarDays size={16} aria-hidden />
      </button>
      <input
        ref={picker}
        type="date"
        tabIndex={-1}
        aria-hidden
        className="when-picker"
        min={p.min}
        max={p.max}
        value={ISO.test(sent) ? sent : ''}
        onChange={(e) => set(e.target.value)}
      />
      {p.onChange ? null : <input type="hidden" name={p.name} value={sent} />}
    </span>
  );
}

/** A time of day of 24 hours, `14:25`, whatever the browser's language. Arrow keys move it by a step. */
export function TimeInput(p: Props) {
  const [kind] = useState(() => timeKind(p.stepMin ?? 15));
  const { box, typed } = useWhen(p, kind);
  return (
    <input
      ref={box}
      type="text"
      inputMode="numeric"
      autoComplete="off"
      placeholder={kind.hint}
      className={classOf(p)}
      style={p.style}
      {...saidOf(p)}
      {...typed}
    />
  );
}
