'use client';
import { useEffect, useId, useRef, useState } from 'react';
import { createPortal } from 'react-dom';

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
