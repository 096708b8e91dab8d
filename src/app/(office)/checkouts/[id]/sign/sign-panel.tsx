import { dateText } from '@/core/format';
import type { CheckoutRecord } from '@/server/checkout/queries/record';
import type { SigningView } from '@/server/ledger/commands/sign';
import { Panel } from '@/ui/shared/parts';
import { SignForm } from '@/ui/sign/sign-form';
import { signCheckoutAction } from '../../../../actions';

/** The signature itself, or the recommendation where an examiner decides. */
export function SignPanel({
  countedFrom,
  head,
  state,
}: {
  countedFrom: 'signature' | 'last-training' | undefined;
  head: CheckoutRecord['head'];
  state: SigningView;
}) {
  const counted =
    countedFrom === 'last-training' && state.trainedOn
      ? `, counted from the last training on ${dateText(state.trainedOn)}`
      : '';
  return (
    <Panel title={state.recommends.length > 0 ? 'Recommend' : 'Sign'}>
      {state.recommends.length > 0 ? (
        <p className="mb-2">
          This goal ends with an examiner: what you sign is a recommendation
          {state.validThrough ? `, valid until ${dateText(state.validThrough)}${counted}` : ''}.{' '}
          {state.courseUntil
            ? `The test is flown by ${dateText(state.courseUntil)}, counted from the start of the course. `
            : ''}
          The result is entered here later.
        </p>
      ) : null}
      <SignForm
        checkoutId={head.id}
        shown={state.stamp}
        text={state.text}
        blocked={state.problems.length > 0}
        recommends={state.recommends.length > 0}
        water={head.sheet.surface !== 'land'}
        tailwheel={head.sheet.gear.layout === 'tailwheel'}
        action={signCheckoutAction}
      />
    </Panel>
  );
}
