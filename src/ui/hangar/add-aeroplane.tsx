'use client';
import Button from 'react-bootstrap/Button';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import { type ActionResult, typedOrNull } from '../shared/forms';
import { Problems } from '../shared/parts';

/** A registration of a type, weighed or not; what else differs is entered on its own page. */
export function AddAeroplane({ code, add }: { code: string; add: (form: unknown) => Promise<ActionResult> }) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/draft-forms')).AddAeroplaneForm,
    defaults: { registration: '', emptyKg: '', emptyArmM: '', weighing: '' },
    as: (v) => ({ ...v, code, emptyKg: typedOrNull(v.emptyKg), emptyArmM: typedOrNull(v.emptyArmM) }),
    draft: `aeroplane:${code}`,
    action: add,
  });
  return (
    <form {...f.props} className="d-grid gap-2" aria-label="Add an aeroplane">
      <Problems problems={f.problems} title="Not added" />
      <div className="two">
        <Field label="Registration" id="air-registration" error={f.error('registration')}>
          <input autoCapitalize="characters" {...f.register('registration')} />
        </Field>
        <Field label="Empty mass" unit="kg" id="air-mass" error={f.error('emptyKg')} hint="empty: as the type">
          <input inputMode="decimal" {...f.register('emptyKg')} />
        </Field>
        <Field label="Empty arm" unit="m" id="air-arm" error={f.error('emptyArmM')} hint="empty: as the type">
          <input inputMode="decimal" {...f.register('emptyArmM')} />
        </Field>
        <Field label="Weighing report" id="air-weighing" error={f.error('weighing')}>
          <input {...f.register('weighing')} />
        </Field>
      </div>
      <div>
        <Button type="submit" variant="outline-primary" size="sm" disabled={f.busy}>
          Add aeroplane
        </Button>
      </div>
    </form>
  );
}
