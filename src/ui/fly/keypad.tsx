'use client';
import { useEffect, useState } from 'react';
import { Sheet } from './sheet';

export { hold } from './hold';

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const;

/** A number typed on large keys; the usual ones beside them. */
export default function Keypad({
  title,
  unit,
  now,
  usual,
  least,
  most,
  digits,
  keep,
  close,
}: {
  title: string;
  unit: string;
  now: number | null;
  usual: readonly number[];
  least: number;
  most: number;
  digits: number;
  keep: (v: number | null) => void;
  close: () => void;
}) {
  const [typed, setTyped] = useState('');
  const value = typed === '' ? null : Number(typed);
  const bad =
    value === null || Number.isNaN(value)
      ? null
      : value < least
        ? `${least} ${unit} or more.`
        : value > most
          ? `${most} ${unit} or less.`
          : null;
  const put = (v: number | null) => {
    keep(v);
    close();
  };
  const press = (k: string) => setTyped((t) => (t.length < 6 && !(k === '.' && t.includes('.')) ? t + k : t));
  // Digits of a keyboard act as the keys do, wherever in the sheet the focus is.
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if (/^[0-9]$/.test(e.key) || (e.key === '.' && digits > 0)) press(e.key);
      else if (e.key === 'Backspace') setTyped((t) => t.slice(0, -1));
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  }, [digits]);
  return (
    <Sheet title={title} close={close}>
      <div className="keypad" role="group" aria-label={`${title}, typed`}>
        <output className="num" aria-live="polite">
          {typed === '' ? (now === null ? 'not seen' : now) : typed} {typed === '' && now === null ? '' : unit}
        </output>
        {bad ? (
          <p role="alert" className="mb-0">
            {bad}
          </p>
        ) : null}
        <div className="taps t3">
          {KEYS.map((k) => (
            <button key={k} type="button" className="tap" onClick={() => press(k)}>
              {k}
            </button>
          ))}
          {digits > 0 ? (
            <button type="button" className="tap" aria-label="decimal point" onClick={() => press('.')}>
              .
            </button>
          ) : (
            <button type="button" className="tap" onClick={() => put(null)}>
              not seen
            </button>
          )}
          <button type="button" className="tap" onClick={() => press('0')}>
            0
          </button>
          <button type="button" className="tap" onClick={() => setTyped((t) => t.slice(0, -1))}>
            delete
          </button>
        </div>
      </div>
      {usual.length > 0 ? (
        <div className="taps five" role="group" aria-label="Usual values">
          {usual.map((u) => (
            <button key={u} type="button" className="tap" aria-pressed={now === u} onClick={() => put(u)}>
              {digits ? u.toFixed(digits) : u}
            </button>
          ))}
        </div>
      ) : null}
      <div className={`taps ${digits > 0 ? 't2' : ''}`}>
        {digits > 0 ? (
          <button type="button" className="tap" onClick={() => put(null)}>
            not seen
          </button>
        ) : null}
        <button
          type="button"
          className="tap go"
          disabled={value === null || Number.isNaN(value) || bad !== null}
          onClick={() => put(value)}
        >
          Set
        </button>
      </div>
    </Sheet>
  );
}
