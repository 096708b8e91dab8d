import { Day } from '../shared/zone';
import type { ChangeLine } from '@/domain/changes';

/** What was corrected or undone, with who and when: numbers do not close up behind it. */
export function ChangeList({ changes }: { changes: readonly ChangeLine[] }) {
  return (
    <>
      <p className="mb-2">
        Nothing is deleted: changes made afterwards are listed here, and landings keep their numbers.
      </p>
      <ul className="ps-3 mb-0">
        {changes.map((c) => (
          <li key={c.key} className="mb-1">
            <strong>
              {c.what} {c.change === 'undone' ? 'undone' : 'corrected'}
            </strong>{' '}
            by {c.by}, <Day at={c.at} />: {c.words}.{c.again ? ' Recorded again under the same number.' : ''}
          </li>
        ))}
      </ul>
    </>
  );
}
