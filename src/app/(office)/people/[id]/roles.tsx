import type { PersonPage } from '@/server/people/queries/page';
import { list } from '@/core/format';
import { say } from '@/domain/words';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { CertificateForm } from '@/ui/people/certificate-form';
import { RolesForm } from '@/ui/people/forms';
import { NewFirstPassword } from '@/ui/people/password-form';
import { Panel } from '@/ui/shared/parts';
import { newFirstPasswordAction, saveCertificateAction, saveRolesAction } from '../../../actions';

/** Roles, what an instructor may sign, and their certificate. */
export function InstructorAndRoles({
  p,
  account,
  user,
}: {
  p: PersonPage;
  account: NonNullable<PersonPage['user']>;
  user: CurrentUser;
}) {
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
      {may.keepPeople(user) && account.id !== user.id ? (
        <div className="mt-2">
          <NewFirstPassword userId={account.id} name={p.name} give={newFirstPasswordAction} />
        </div>
      ) : null}
    </Panel>
  );
}
