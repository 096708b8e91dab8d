'use client';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import type { Chosen, FoundOf, FoundRow } from './found-rows';
import { elapsed, sureWord } from './words';

/** What was found, in order of time; one chosen, a second arrival laid beside it. */
export function FoundList({
  rows,
  chosen,
  beside,
  numbers,
  pick,
  lay,
}: {
  rows: readonly FoundRow[];
  chosen: Chosen;
  /** The arrival laid beside the selected one. */ beside: number | null;
  numbers: Readonly<Record<number, number>>;
  pick: (of: FoundOf, k: number) => void;
  lay: (k: number | null) => void;
}) {
  return (
    <section className="panel" aria-label="Found">
      <h2>Found, in order of time</h2>
      <ol className="found">
        {rows.map((r) => {
          const on = chosen !== null && chosen.of === r.of && chosen.k === r.k;
          return (
            <li key={r.key} className={on ? 'on' : ''}>
              <button type="button" aria-pressed={on} onClick={() => pick(r.of, r.k)}>
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
              {r.arrival ? (
                <label className="beside">
                  <FormCheckInput
                    type="checkbox"
                    checked={beside === r.k}
                    disabled={on}
                    onChange={(e) => lay(e.target.checked ? r.k : null)}
                    aria-label={`Show ${r.name} at ${elapsed(r.moment)} beside the selected one`}
                  />
                </label>
              ) : (
                <span />
              )}
            </li>
          );
        })}
      </ol>
      <p className="soft small mb-0 mt-2">Tick a second arrival to compare it.</p>
    </section>
  );
}
