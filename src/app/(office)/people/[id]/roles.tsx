import type { PersonPage } from '@/server/people/queries/page';
import { list } from '@/core/format';
import { say } from '@/domain/words';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { CertificateForm } from '@/ui/people/certificate-form';
import { Act, RolesForm } from '@/ui/people/forms';
import { NewFirstPassword } from '@/ui/people/password-form';
import { Panel } from '@/ui/shared/parts';
import { MakeLink } from '@/ui/account/link-shown';
import { neverSignedIn } from '@/server/account/commands/links';
import { hasFactor } from '@/server/floor/auth/second-factor';
import {
  makeLinkAction,
  newFirstPasswordAction,
  saveCertificateAction,
  saveRolesAction,
  takeSecondFactorAction,
} from '../../../actions';

/** Roles, what an instructor may sign, and their certificate. */
export async function InstructorAndRoles({
  p,
  account,
  user,
}: {
  p: PersonPage;
  account: NonNullable<PersonPage['user']>;
  user: CurrentUser;
}) {
  const keeps = may.keepPeople(user) && account.id !== user.id;
  const fresh = keeps && (await neverSignedIn(account.id));
  const factor = keeps && (await hasFactor(account.id));
  return (
    <Panel title="Instructor and roles">
      {account.roles.includes('instructor') ? (
        <p className="small">
          Signs {account.authorised.length > 0 ? list(account.authorised.map(say)) : 'nothing yet'}. Crosswind limit of
          their own when teaching: {account.ownCrosswindKt === null ? 'none set' : `${account.ownCrosswindKt} kt`}.
        </p>
      ) : null}
      {may.keepCertificates(user) && account.roles.includes('instructor') ? (
        <div className="mb-2">
          <CertificateForm
            of={{ userId: account.id }}
            name={p.name}
            certificate={account.certificate}
            until={account.certificateUntil}
            action={saveCertificateAction}
          />
        </div>
      ) : null}
      {may.keepPeople(user) ? (
        <RolesForm
          userId={account.id}
          roles={account.roles}
          authorised={account.authorised}
          ownCrosswindKt={account.ownCrosswindKt}
          save={saveRolesAction}
        />
      ) : null}
      {keeps ? (
        <div className="mt-2">
          <MakeLink userId={account.id} name={p.name} fresh={fresh} make={makeLinkAction} />
          <NewFirstPassword userId={account.id} name={p.name} give={newFirstPasswordAction} />
          {factor ? (
            <Act
              id={account.id}
              words="Take the second factor away"
              name={`of ${p.name}`}
              act={takeSecondFactorAction}
            />
          ) : null}
        </div>
      ) : null}
    </Panel>
  );
}
