'use client';
import { Link } from '../shared/link';
import { Fragment, useState } from 'react';
import type { ItemEvidence, ItemRecord } from '@/core/assess';
import { VerdictMark } from '../shared/verdict';

export interface MatrixRow {
  id: string;
  title: string;
  citation: string;
  safety: boolean;
  /** The law's own content: no override. */
  legal: boolean;
  confirm: boolean;
  house: boolean;
  state: ItemEvidence['state'] | 'overridden';
  asks: string;
  have: string;
  missing: string[];
  note: string | null;
  records: (ItemRecord & { words: string })[];
}
const MARK = {
  met: 'within',
  waived: 'within',
  credited: 'within',
  overridden: 'edge',
  nearly: 'edge',
  not: 'not-seen',
} as const;
const WORD = {
  met: 'met',
  waived: 'waived',
  credited: 'credited',
  overridden: 'overridden',
  nearly: 'nearly',
  not: 'not met',
} as const;

/**
 * Criteria against lessons. A cell says how many of its records support the item, of how many; it opens to the records
 * themselves.
 */
export function Matrix({
  rows,
  lessons,
  base,
}: {
  rows: readonly MatrixRow[];
  lessons: readonly number[];
  base: string;
}) {
  const [open, setOpen] = useState<{ id: string; lesson: number } | null>(null);
  const toggle = (id: string, lesson: number) =>
    setOpen((o) => (o?.id === id && o.lesson === lesson ? null : { id, lesson }));
  return (
    <div className="scroll-x">
      <p className="soft small mb-2">
        In a lesson&rsquo;s column, 2/3: two of three records support the item; touch it to read them.{' '}
        {[
          rows.some((r) => r.legal) ? 'Law: required by the regulation, cannot be overridden.' : '',
          rows.some((r) => r.safety) ? 'Safety: cannot be overridden before something of it was seen.' : '',
          rows.some((r) => r.house) ? 'School: asked by school rules.' : '',
          rows.some((r) => r.confirm) ? 'Confirm: check the current text.' : '',
        ]
          .filter(Boolean)
          .join(' ')}
      </p>
      <table className="plain matrix">
        <caption className="visually-hidden">Items of the programme, and in which lesson each was shown</caption>
        <thead>
          <tr>
            <th scope="col">Item</th>
            {lessons.map((n) => (
              <th scope="col" key={n} className="c">
                {n}
                <span className="visually-hidden"> lesson</span>
              </th>
            ))}
            <th scope="col">Status</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <Fragment key={r.id}>
              <tr className={r.state === 'not' || r.state === 'nearly' ? 'openrow' : ''}>
                <th scope="row">
                  <span className="mono">{r.id}</span> {r.title}
                  <span className="tags">
                    {r.legal ? <span className="tag">law</span> : null}
                    {r.safety ? <span className="tag">safety</span> : null}
                    {r.house ? <span className="tag">school</span> : null}
                    {r.confirm ? (
                      <span className="tag v-edge" title="Not confirmed: check the current text">
                        confirm
                      </span>
                    ) : null}
                  </span>
                </th>
                {lessons.map((n) => {
                  const here = r.records.filter((x) => x.lesson === n);
                  const good = here.filter((x) => x.supports).length;
                  if (here.length === 0)
                    return (
                      <td key={n} className="c soft none" aria-label="nothing">
                        ·
                      </td>
                    );
                  const shown = open?.id === r.id && open.lesson === n;
                  return (
                    <td key={n} className="c" data-lesson={n}>
                      <button
                        type="button"
                        className={`cell${good > 0 ? ' has' : ''}`}
                        aria-expanded={shown}
                        aria-label={`${r.id}, lesson ${n}: ${good} of ${here.length} support it`}
                        onClick={() => toggle(r.id, n)}
                      >
                        {good}
                        <small>/{here.length}</small>
                      </button>
                    </td>
                  );
                })}
                <td className="stands">
                  <VerdictMark verdict={MARK[r.state]} label={WORD[r.state]} plain />{' '}
                  <span>
                    {r.state === 'met' ? (
                      r.have
                    ) : (
                      <>
                        <strong>{WORD[r.state]}</strong>
                        {r.note ? `: ${r.note}` : r.missing.length > 0 ? `: ${r.missing.join('; ')}` : ''}
                      </>
                    )}
                  </span>
                </td>
              </tr>
              {open?.id === r.id ? (
                <tr className="opened">
                  <td colSpan={lessons.length + 2}>
                    <p className="mb-1 small">
                      <strong>Asks:</strong> {r.asks}. <span className="soft">{r.citation}</span>
                    </p>
                    <ul className="mb-0">
                      {r.records
                        .filter((x) => x.lesson === open.lesson)
                        .map((x) => (
                          <li key={x.id}>
                            {x.supports ? <strong>counts</strong> : <span className="soft">does not count</span>}:{' '}
                            {x.kind === 'landing' ? (
                              <Link href={`${base}/debrief?lesson=${x.lesson}`}>landing {x.number}</Link>
                            ) : null}{' '}
                            {x.words}
                          </li>
                        ))}
                    </ul>
                  </td>
                </tr>
              ) : null}
            </Fragment>
          ))}
        </tbody>
      </table>
    </div>
  );
}
