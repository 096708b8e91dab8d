import { Link } from '@/ui/shared/link';
import { say } from '@/domain/words';
import { Verdict } from '../shared/verdict';

export interface ItemSeen {
  id: string;
  name: string;
  lesson: number;
  verdict: 'within' | 'edge' | 'outside' | 'not-seen';
  whose: string;
}

/** Ground and airwork over all lessons: each time an item was seen, in order, the newest last. */
export function ItemsByLesson({ seen, base }: { seen: readonly ItemSeen[]; base: string }) {
  const lessons = [...new Set(seen.map((s) => s.lesson))].sort((a, b) => a - b);
  const names = [...new Set(seen.map((s) => s.name))];
  return (
    <div className="scroll-x">
      <table aria-label="Airwork by lesson" className="plain">
        <thead>
          <tr>
            <th scope="col">Item</th>
            {lessons.map((n) => (
              <th key={n} scope="col">
                <Link href={`${base}/debrief?lesson=${n}#airwork`}>lesson {n}</Link>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {names.map((name) => (
            <tr key={name}>
              <th scope="row" style={{ verticalAlign: 'top', color: 'var(--ink)' }}>
                {name}
              </th>
              {lessons.map((n) => (
                <td key={n}>
                  {seen
                    .filter((s) => s.name === name && s.lesson === n)
                    .map((s) => (
                      <div key={s.id} className="small">
                        <Verdict verdict={s.verdict} /> <span className="soft">{say(s.whose)}</span>
                      </div>
                    ))}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
