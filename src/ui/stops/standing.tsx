import { dateText, list } from '@/core/format';
import { Verdict } from '../shared/verdict';

export interface InstructorStanding {
  name: string;
  lacks: string[];
  unknown: string[];
  holdsTo: string | null;
}

/** The instructor of this flight: current and authorised for this aeroplane and goal, or not, or not known. */
export function Standing({ of }: { of: InstructorStanding }) {
  return (
    <p className="mb-2" data-testid="instructor-standing">
      {of.lacks.length > 0 ? (
        <Verdict verdict="outside">
          {of.name}: {list(of.lacks)}
        </Verdict>
      ) : of.unknown.length > 0 ? (
        <Verdict verdict="not-seen">
          {of.name}: not known, {list(of.unknown)}
        </Verdict>
      ) : (
        <Verdict verdict="within">
          {of.name} is current and authorised for this aeroplane and goal
          {of.holdsTo ? `, recency to ${dateText(of.holdsTo)}` : ''}
        </Verdict>
      )}
    </p>
  );
}
