'use client';
import Button from 'react-bootstrap/Button';
import type { SheetDifference } from '@/core/sheet';
import { DifferenceList } from '../hangar/findings';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

/** Moves a checkout to newer sheets, on purpose: the differences are read first and a reason is given. */
export function MoveForm({
  checkoutId,
  typeVersion,
  airframeVersion,
  differences,
  action,
}: {
  checkoutId: string;
  typeVersion: number | null;
  airframeVersion: number | null;
  differences: SheetDifference[];
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/forms')).NewerSheetsForm,
    defaults: { checkoutId, typeVersion, airframeVersion, reason: '' },
    action,
    draft: `move-${checkoutId}`,
  });
  const versions = [
    ...(typeVersion ? [`sheet version ${typeVersion}`] : []),
    ...(airframeVersion ? [`airframe version ${airframeVersion}`] : []),
  ];
  return (
    <>
      <p className="mb-1">This checkout keeps its version until you update it. What would change:</p>
      <DifferenceList differences={differences} />
      <Problems problems={f.problems} title="Not updated" />
      <form className="d-flex gap-2 mt-2" style={{ alignItems: 'start' }} {...f.props}>
        <div style={{ flex: 1 }}>
          <Field label="Reason" id="move-reason" error={f.error('reason')}>
            <input {...f.register('reason')} />
          </Field>
        </div>
        <Button type="submit" variant="outline-primary" style={{ marginTop: 24 }} disabled={f.busy}>
          {f.busy ? 'Updating' : `Update to ${versions.join(', ')}`}
        </Button>
      </form>
    </>
  );
}
