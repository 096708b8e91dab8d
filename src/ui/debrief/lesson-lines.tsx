import { dateText } from '@/core/format';
import { CUT_SHORT_WORDS, type CutShort } from '@/domain/words';
import { Link } from '../shared/link';

interface Of {
  head: { id: string; registration: string };
  sorties: readonly {
    id: string;
    lesson: number;
    flownOn: string;
    instructorId: string;
    registration: string | null;
  }[];
  landings: readonly { lesson: number }[];
  cutShort: ReadonlyMap<number, CutShort>;
}

/** Which lesson was flown when, and who taught it. */
export function LessonLines({
  record,
  names,
  flown,
  booked,
}: {
  record: Of;
  names: ReadonlyMap<string, string>;
  /** Lessons of which something was flown; the others are only briefed. */
  flown: ReadonlySet<number>;
  /** The booking each was flown in, by lesson, in words with its address. */
  booked: ReadonlyMap<number, { words: string; href: string }>;
}) {
  return (
    <table className="plain" aria-label="Lessons">
      <thead>
        <tr>
          <th scope="col">lesson</th>
          <th scope="col">day</th>
          <th scope="col">taught by</th>
          <th scope="col">landings</th>
        </tr>
      </thead>
      <tbody>
        {record.sorties.map((s) => {
          const landings = record.landings.filter((l) => l.lesson === s.lesson).length;
          const short = record.cutShort.get(s.lesson);
          return (
            <tr key={s.id}>
              <th scope="row" className="align-top">
                <Link href={`/checkouts/${record.head.id}/debrief?lesson=${s.lesson}`}>{s.lesson}</Link>
              </th>
              <td>
                {dateText(s.flownOn)}
                {booked.get(s.lesson) ? (
                  <div className="small">
                    <Link href={booked.get(s.lesson)?.href ?? ''}>booked {booked.get(s.lesson)?.words}</Link>
                  </div>
                ) : null}
              </td>
              <td>
                {names.get(s.instructorId) ?? 'not on record'}
                {s.registration && s.registration !== record.head.registration ? (
                  <span className="soft"> · in {s.registration}</span>
                ) : null}
                {short ? <span className="soft"> · cut short: {CUT_SHORT_WORDS[short]}</span> : null}
              </td>
              <td>{flown.has(s.lesson) ? landings : 'not flown yet'}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
