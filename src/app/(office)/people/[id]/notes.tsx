import { Day } from '@/ui/shared/zone';
import type { PersonPage } from '@/server/people/queries/page';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { Act, NoteForm } from '@/ui/people/forms';
import { Panel } from '@/ui/shared/parts';
import { withdrawNoteAction, writeNoteAction } from '../../../actions';

const SEEN = { pilot: 'instructors and pilot', staff: 'instructors', chief: 'the chief' } as const;

/** Notes, each seen by whom its author chose. */
export function Notes({ own, p, user }: { own: { pilotId: string }; p: PersonPage; user: CurrentUser }) {
  return (
    <Panel title="Notes">
      {p.notes.length === 0 ? (
        <p className="soft">No notes.</p>
      ) : (
        <ul className="plain-list">
          {p.notes.map((n) => (
            <li key={n.id}>
              {n.text}
              <div className="small soft">
                {n.author}, <Day at={n.writtenAt} />; seen by {SEEN[n.visible]}{' '}
                {n.authorId === user.id || may.keepPeople(user) ? (
                  <Act id={n.id} words="withdraw" name="this note" act={withdrawNoteAction} />
                ) : null}
              </div>
            </li>
          ))}
        </ul>
      )}
      {may.writeNote(user, own) && !p.erased ? (
        <div className="mt-2">
          <NoteForm pilotId={p.pilotId} chief={user.roles.includes('chief')} save={writeNoteAction} />
        </div>
      ) : null}
    </Panel>
  );
}
