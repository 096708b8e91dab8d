import type { HabitCue } from '@/core/differences';
import { say } from '@/domain/words';
import { ActionMark } from '../open/action-mark';

/** What this pilot's hands will do by themselves, ranked; the numbers one tap away. */
export function HabitList({ habits }: { habits: readonly HabitCue[] }) {
  if (habits.length === 0)
    return (
      <p className="soft mb-0">
        Nothing is known of what this pilot has flown by type: enter the hours on the habits page, and the habits to
        drop stand here.
      </p>
    );
  return (
    <ol className="habits mb-0">
      {habits.map((h) => (
        <li key={h.key}>
          <ActionMark action={h.action} opposite={h.opposite} />
          <div>
            <strong>{h.name}</strong>{' '}
            {h.name.endsWith(say(h.phase)) ? null : <span className="soft small">{say(h.phase)}</span>}
            <div>{h.cue}</div>
            <details className="small">
              <summary>
                {h.from} before, {h.to} here
              </summary>
              <span className="soft">{h.numbers}.</span>
            </details>
          </div>
        </li>
      ))}
    </ol>
  );
}
