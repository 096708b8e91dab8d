'use client';
import { useSyncExternalStore } from 'react';
import { type Series, lowerBound } from '@/core/trace';
import type { Observable } from './observable';
import { type Dial } from './words';
import { useClock } from './use-clock';

/** What the curves read at the cursor. */
export function Reading({
  cursor,
  series,
  startUtc,
  unit,
}: {
  cursor: Observable<number | null>;
  series: Series | null;
  startUtc: string | null;
  unit: Dial;
}) {
  const clock = useClock(startUtc);
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
        clock(s),
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
