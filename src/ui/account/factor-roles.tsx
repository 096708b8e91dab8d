'use client';
import FormCheck from 'react-bootstrap/FormCheck';
import { useState } from 'react';
import { ROLES, type Role } from '@/domain/words';
import type { ActionResult } from '../shared/forms';
import { Refusal } from '../shared/refusal';
import { useTap } from '../shared/use-tap';

/** Which roles nobody has without a second factor. */
export function FactorRoles({
  roles,
  save,
}: {
  roles: readonly Role[];
  save: (form: unknown) => Promise<ActionResult>;
}) {
  const [now, setNow] = useState<readonly Role[]>(roles);
  const { tap, refusal } = useTap();
  const put = (next: Role[]) => {
    setNow(next);
    void tap(() => save({ roles: next }), { queued: true, refused: () => setNow(roles) });
  };
  return (
    <fieldset>
      <legend className="form-label">A second factor is required of</legend>
      {ROLES.map((r) => (
        <FormCheck
          key={r}
          id={`factor-${r}`}
          label={r}
          checked={now.includes(r)}
          onChange={(e) => put(e.target.checked ? [...now, r] : now.filter((x) => x !== r))}
        />
      ))}
      <p className="soft small mb-0">
        Who has such a role and none yet sets it up at the next page; you, too. A lost one is taken away on the page of
        its owner.
      </p>
      <Refusal said={refusal} />
    </fieldset>
  );
}
