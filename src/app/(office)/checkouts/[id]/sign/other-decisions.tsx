import type { CheckoutRecord } from '@/server/checkout/queries/record';
import type { SigningView } from '@/server/ledger/commands/sign';
import { Panel } from '@/ui/shared/parts';
import { MinutesForm } from '@/ui/sign/minutes-form';
import { OverrideForm } from '@/ui/sign/override-form';
import { AsideForm } from '@/ui/sign/sign-form';
import { WaiveForm } from '@/ui/sign/waive-form';
import { askOverrideAction, deskEventAction, signNotYetAction, signPartAction } from '../../../../actions';

const OVERRIDE_RULE = {
  always: 'Each needs the chief instructor’s approval.',
  safety: 'A safety item needs the chief instructor’s approval.',
  never: 'The instructor decides.',
} as const;

/** What else an instructor may say of an item than that it is met. */
export function OtherDecisions({ record, state }: { record: CheckoutRecord; state: SigningView }) {
  const { head, house, items } = record;
  const latest = record.sorties[record.sorties.length - 1];
  const waivable = items.filter((i) => !i.met && i.item.waivable !== null);
  const overridable = state.problems
    .filter((p) => p.overridable)
    .flatMap((p) => items.find((i) => i.item.id === p.itemId)?.item ?? []);
  const timed = items.filter((i) => i.item.evidence.kind === 'hours').map((i) => i.item);
  return (
    <Panel title="Other decisions">
      {overridable.length > 0 ? (
        <details className="mb-2">
          <summary>Override an item</summary>
          <OverrideForm
            key={overridable.map((i) => i.id).join()}
            checkoutId={head.id}
            items={overridable.map((i) => ({ id: i.id, title: i.title }))}
            rule={OVERRIDE_RULE[house.signing.overrideNeedsChief]}
            action={askOverrideAction}
          />
        </details>
      ) : null}
      {waivable.length > 0 && latest ? (
        <details className="mb-2">
          <summary>Waive an item</summary>
          <div className="mt-2">
            <WaiveForm
              key={waivable.map((i) => i.item.id).join()}
              sortieId={latest.id}
              items={waivable.map((i) => ({
                id: i.item.id,
                title: i.item.title,
                rule: i.item.waivable ?? '',
              }))}
              action={deskEventAction}
            />
          </div>
        </details>
      ) : null}
      {timed.length > 0 && latest ? (
        <details className="mb-2">
          <summary>Enter time of an item</summary>
          <MinutesForm
            items={timed.map((i) => ({ id: i.id, title: i.title }))}
            lessons={record.sorties
              .filter((s) => s.sharedWith === null)
              .map((s) => ({ sortieId: s.id, lesson: s.lesson }))}
            action={deskEventAction}
          />
        </details>
      ) : null}
      <details className="mb-2">
        <summary>Sign some items now</summary>
        <AsideForm
          key="part"
          checkoutId={head.id}
          shown={state.stamp}
          kind="part"
          items={items
            .filter((i) => i.state === 'met' && i.part === null)
            .map((i) => ({ id: i.item.id, title: i.item.title }))}
          text={
            `These items of ${head.pilotName} were shown to me in ${head.registration} within the standard; ` +
            'the rest is for another instructor.'
          }
          action={signPartAction}
        />
        <p className="small soft mb-0 mt-1">
          A part sign-off holds {state.partDays} days ({house.signing.source}).
        </p>
      </details>
      <details>
        <summary>Enter further training</summary>
        <AsideForm
          key="not-yet"
          checkoutId={head.id}
          shown={state.stamp}
          kind="not-yet"
          items={items.map((i) => ({ id: i.item.id, title: i.item.title }))}
          text=""
          action={signNotYetAction}
        />
      </details>
    </Panel>
  );
}
