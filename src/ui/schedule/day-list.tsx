import Button from 'react-bootstrap/Button';
import { fitWords, minutesText } from '@/core/schedule';
import { BOOKING_NAME } from '@/domain/schedule';
import { say } from '@/domain/words';
import { VerdictMark } from '../shared/verdict';
import { FIT } from './fit';
import type { GridBlock, GridColumn } from './grid';

/** The columns of the schedule under each other, as a phone shows them: what is booked, in order of time. */
export function DayList({
  columns,
  blocks,
  selected,
  choose,
  book,
}: {
  columns: readonly GridColumn[];
  blocks: readonly GridBlock[];
  selected: string | null;
  choose: (id: string) => void;
  book: (column: string) => void;
}) {
  return (
    <div className="day-list">
      {columns.map((c) => {
        const own = blocks.filter((b) => b.column === c.key).sort((a, b) => a.fromMin - b.fromMin);
        const shut = c.shut.filter((s) => s.why !== '');
        return (
          <section key={c.key} aria-label={c.name}>
            <h2>
              {c.name}
              {c.today ? <span className="tag">today</span> : null}
              <span className="soft">{c.line}</span>
            </h2>
            {own.length === 0 ? <p className="soft small mb-1">Nothing booked.</p> : null}
            {shut.map((s) => (
              <p key={`${s.fromMin}${s.why}`} className="soft small mb-1">
                {minutesText(s.fromMin)}–{minutesText(s.toMin)} {s.why}
              </p>
            ))}
            <ul>
              {own.map((b) => (
                <li key={b.id}>
                  <button
                    type="button"
                    className={`k-${b.kind}${b.hit.length > 0 ? ' hit' : ''}`}
                    aria-pressed={selected === b.id}
                    disabled={b.masked}
                    onClick={() => choose(b.id)}
                  >
                    <span className="mono">
                      {minutesText(b.fromMin)}
                      <br />
                      {minutesText(b.toMin)}
                    </span>
                    <span>
                      <b>{b.masked ? 'taken' : (b.pilotName ?? BOOKING_NAME[b.kind])}</b>
                      <br />
                      {b.registration ? <span className="code-face">{b.registration}</span> : null}
                      {b.instructorName ? ` with ${b.instructorName}` : ''}
                      {b.aerodrome ? (
                        <>
                          , at <span className="code-face">{b.aerodrome}</span>
                        </>
                      ) : null}
                      {b.masked ? null : b.hit.length > 0 ? (
                        <span className="d-block v-outside">Must be moved: {b.hit.join('; ')}</span>
                      ) : b.fit ? (
                        <span className="d-block small">
                          <VerdictMark verdict={FIT[b.fit.word] ?? 'not-seen'} label="wind" /> wind {say(b.fit.word)}:{' '}
                          {fitWords(b.fit.said)}
                        </span>
                      ) : null}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
            <Button variant="outline-primary" size="sm" onClick={() => book(c.key)}>
              Book<span className="visually-hidden">: {c.name}</span>
            </Button>
          </section>
        );
      })}
    </div>
  );
}
