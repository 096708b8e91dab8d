'use client';
import Button from 'react-bootstrap/Button';
import type { SightSheet } from '@/core/sightpicture';
import { Field } from '../shared/field';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';
import type { MeasureFacts } from './measure-form';

/** This pilot's own eye in this seat: kept with who measured it, and used in every picture of theirs. */
export function EyeForm({
  sheet,
  measure,
  pilotName,
  eyeHeightM,
  said,
  action,
}: {
  sheet: SightSheet;
  measure: MeasureFacts;
  pilotName: string;
  eyeHeightM: number | null;
  said: string | null;
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/pilot-forms')).EyeForm,
    defaults: {
      pilotId: measure.pilotId ?? '',
      typeCode: sheet.code,
      seat: 'pilot' as const,
      eyeHeightM: eyeHeightM ?? sheet.geometry.eyeHeightM?.value ?? NaN,
      how: '',
    },
    draft: `eye:${measure.pilotId ?? ''}:${sheet.code}`,
    action,
  });
  return (
    <Panel title={`${pilotName}’s own eye`}>
      <form {...f.props} aria-label="Eye height">
        <Problems problems={f.problems} title="Not saved" />
        <p className="small mb-2">
          {said
            ? `Measured: ${said}.`
            : `Not measured: the picture uses the eye height of the sheet, ${sheet.geometry.eyeHeightM ? `${sheet.geometry.eyeHeightM.value} m` : 'which is missing too'}.`}{' '}
          Three wheels down, strapped in, on the cushion that will be flown with: tape from the outer corner of the eye
          to the ground.
        </p>
        <div className="brief-form">
          <Field label="Seat" id="eye-seat">
            <select {...f.register('seat')}>
              <option value="pilot">pilot’s</option>
              <option value="instructor">instructor’s</option>
            </select>
          </Field>
          <Field label="Eye above ground" unit="m" id="eye-height" error={f.error('eyeHeightM')}>
            <input type="number" step="0.01" {...f.register('eyeHeightM', { valueAsNumber: true })} />
          </Field>
          <Field label="How" id="eye-how" error={f.error('how')}>
            <input placeholder="tape, 5 cm cushion" {...f.register('how')} />
          </Field>
          <div style={{ alignSelf: 'end' }}>
            <Button type="submit" variant="outline-primary" disabled={f.busy}>
              {f.busy ? 'Saving' : 'Save this eye height'}
            </Button>
          </div>
        </div>
      </form>
    </Panel>
  );
}
