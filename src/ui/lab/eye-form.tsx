'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { SightSheet } from '@/core/sightpicture';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems, useDraft } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';
import type { MeasureFacts } from './measure-form';

interface Values {
  seat: 'pilot' | 'instructor';
  eyeHeightM: number;
  how: string;
}

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
  const router = useRouter();
  const form = useForm<Values>({
    defaultValues: { seat: 'pilot', eyeHeightM: eyeHeightM ?? sheet.geometry.eyeHeightM?.value ?? NaN, how: '' },
  });
  const draft = useDraft(form, `eye:${measure.pilotId ?? ''}:${sheet.code}`);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (values) => {
    const answer = await runAction(() => action({ ...values, pilotId: measure.pilotId, typeCode: sheet.code }));
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    setRest([]);
    draft.clear();
    router.refresh();
  });
  return (
    <Panel title={`${pilotName}’s own eye`}>
      <form onSubmit={(e) => void send(e)} noValidate aria-label="Eye height">
        <Problems problems={rest} title="Not kept" />
        <p className="small mb-2">
          {said
            ? `Measured: ${said}.`
            : `Not measured: the picture uses the eye height of the sheet, ${sheet.geometry.eyeHeightM ? `${sheet.geometry.eyeHeightM.value} m` : 'which is missing too'}.`}{' '}
          Three wheels down, strapped in, on the cushion that will be flown with: tape from the outer corner of the eye
          to the ground.
        </p>
        <div className="brief-form">
          <Field label="Seat" id="eye-seat">
            <select {...form.register('seat')}>
              <option value="pilot">pilot’s</option>
              <option value="instructor">instructor’s</option>
            </select>
          </Field>
          <Field label="Eye above ground" unit="m" id="eye-height" error={errors.eyeHeightM}>
            <input type="number" step="0.01" {...form.register('eyeHeightM', { valueAsNumber: true })} />
          </Field>
          <Field label="How" id="eye-how" error={errors.how}>
            <input placeholder="tape, 5 cm cushion" {...form.register('how')} />
          </Field>
          <div style={{ alignSelf: 'end' }}>
            <button type="submit" className="btn btn-outline-primary" disabled={isSubmitting}>
              {isSubmitting ? 'Keeping' : 'Keep this eye'}
            </button>
          </div>
        </div>
      </form>
    </Panel>
  );
}
