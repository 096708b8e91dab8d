import type { PersonPage } from '@/server/people/queries/page';
import { dateText } from '@/core/format';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { DateForm } from '@/ui/people/forms';
import { Panel } from '@/ui/shared/parts';
import { saveDateAction } from '../../../actions';

/** What is dated: medical, review, ratings. */
export function Dates({ own, p, user }: { own: { pilotId: string }; p: PersonPage; user: CurrentUser }) {
  return (
    <Panel title="Dates">
      {p.dates.length === 0 ? (
        <p className="soft">No medical, review or rating date is entered.</p>
      ) : (
        <ul className="plain-list small">
          {p.dates.map((d) => (
            <li key={d.id}>
              <b>{d.title}</b>
              {d.doneOn ? ` done ${dateText(d.doneOn)}` : ''}
              {d.until ? ` valid to ${dateText(d.until)}` : ''}
              {d.note ? `, ${d.note}` : ''} <span className="soft">({d.enteredBy})</span>
            </li>
          ))}
        </ul>
      )}
      {may.keepDates(user, own) && !p.erased ? (
        <div className="mt-2">
          <DateForm
            pilotId={p.pilotId}
            rules={p.datedRules.filter((r) => r.of === null || p.held.some((h) => h.kind === r.of))}
            save={saveDateAction}
          />
        </div>
      ) : null}
    </Panel>
  );
}
