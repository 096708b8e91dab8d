import { Day } from '@/ui/shared/zone';
import type { CheckoutRecord } from '@/server/checkout/queries/record';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import type { Override } from '@/server/ledger/commands/sign';
import { Panel } from '@/ui/shared/parts';
import { OverrideAnswer } from '@/ui/sign/override-form';
import { answerOverrideAction } from '../../../../actions';

/** Overrides asked for, and where they are answered. */
export function OverridesPanel({
  head,
  open,
  overrides,
  user,
}: {
  head: CheckoutRecord['head'];
  open: boolean;
  overrides: readonly Override[];
  user: CurrentUser;
}) {
  return (
    <Panel title="Overrides">
      <ul className="ps-3 mb-0">
        {overrides.map((o) => (
          <li key={o.id} className="mb-2">
            <span className="mono">{o.itemId}</span> {o.reason}{' '}
            <span className="soft">
              {o.askedBy}, <Day at={o.askedAt} />.{' '}
              {o.approved
                ? o.answeredBy && o.answeredBy !== o.askedBy
                  ? `Approved by ${o.answeredBy}.`
                  : 'In force.'
                : 'Waiting for the chief instructor.'}
            </span>
            {open && o.answer === null ? (
              <OverrideAnswer
                overrideId={o.id}
                mayAnswer={o.needsChief && may.answerOverride(user, head)}
                mayWithdraw={o.askedById === user.id}
                action={answerOverrideAction}
              />
            ) : null}
          </li>
        ))}
      </ul>
    </Panel>
  );
}
