import { Day } from '@/ui/shared/zone';
import type { PersonPage } from '@/server/people/queries/page';
import { dateText } from '@/core/format';
import { say } from '@/domain/words';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { CertificateForm } from '@/ui/people/certificate-form';
import { Act, HeldForm } from '@/ui/people/forms';
import { Link } from '@/ui/shared/link';
import { Panel } from '@/ui/shared/parts';
import { addHeldAction, endHeldAction, savePilotCertificateAction } from '../../../actions';

/** Licence and ratings, and where they come from. */
export function Held({
  heldName,
  keeps,
  own,
  p,
  user,
}: {
  heldName: (kind: string) => string;
  keeps: boolean;
  own: { pilotId: string };
  p: PersonPage;
  user: CurrentUser;
}) {
  return (
    <Panel title="Licence, ratings and endorsements">
      {may.keepPilotRecord(user, own) && !p.erased ? (
        <div className="mb-2">
          <CertificateForm
            of={{ pilotId: p.pilotId }}
            name={p.name}
            certificate={p.certificate}
            until={null}
            action={savePilotCertificateAction}
          />
        </div>
      ) : null}
      <ul className="plain-list small">
        {p.held.map((h) => (
          <li key={h.id} className={h.endedAt ? 'soft' : undefined}>
            <b>{heldName(h.kind)}</b>
            {h.gainedOn ? ` since ${dateText(h.gainedOn)}` : ''},{' '}
            {h.endedAt ? (
              <>
                ended <Day at={h.endedAt} />
              </>
            ) : (
              h.note
            )}{' '}
            {h.ledgerId ? (
              <Link href={`/ledger/${h.ledgerId}`}>entry</Link>
            ) : keeps && !h.endedAt ? (
              <Act id={h.id} words="end" name={say(h.kind)} act={endHeldAction} />
            ) : null}
          </li>
        ))}
      </ul>
      {keeps && !p.erased ? (
        <div className="mt-2">
          <HeldForm pilotId={p.pilotId} today={p.today} twins={p.types.filter((t) => t.twin)} save={addHeldAction} />
        </div>
      ) : null}
    </Panel>
  );
}
