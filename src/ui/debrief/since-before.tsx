import type { LessonSummary } from '@/core/assess';
import type { Changed } from '@/core/assess';
import { Panel } from '../shared/parts';

/** What moved by more than a fifth since the lessons before. */
export function SinceBefore({
  changed,
  summaries,
  summary,
}: {
  changed: Changed[];
  summaries: LessonSummary[];
  summary: LessonSummary;
}) {
  return (
    <Panel title="Since earlier lessons">
      {changed.length === 0 ? (
        <p className="mb-0">
          {summaries[0]?.lesson === summary.lesson
            ? 'The first lesson: nothing to compare.'
            : 'Nothing changed by more than a fifth.'}
        </p>
      ) : (
        <ul className="changed">
          {changed.slice(0, 6).map((c) => (
            <li key={c.what}>
              <span className={c.direction === 'better' ? 'v-within' : 'v-outside'}>{c.direction}</span>
              <span>
                {c.what}
                <br />
                <span className="mono small">
                  {c.now} <span className="soft">was {c.before}</span>
                </span>
              </span>
            </li>
          ))}
        </ul>
      )}
    </Panel>
  );
}
