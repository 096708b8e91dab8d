'use client';
import FormCheck from 'react-bootstrap/FormCheck';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import FormCheckLabel from 'react-bootstrap/FormCheckLabel';
import Button from 'react-bootstrap/Button';
import { useActionForm } from '../shared/action-form';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Field } from '../shared/field';
import { DateInput } from '../shared/when-input';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';
import { newId } from '../shared/new-id';

interface Values {
  requestId: string;
  flownOn: string;
  typeCode: string;
  takeoffs: string;
  landings: string;
  fullStops: string;
  night: boolean;
  surface: 'land' | 'water';
  offNight: boolean;
  offSurface: 'land' | 'water';
  hours: string;
  remark: string;
}
const whole = (text: string) => (text.trim() === '' ? 0 : Number(text));

/** A flight that was not recorded here. */
export function LogFlightForm({
  pilotId,
  today,
  types,
  action,
}: {
  pilotId: string;
  today: string;
  types: readonly { code: string; name: string; water: boolean }[];
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const router = useRouter();
  const empty: Values = {
    requestId: '',
    flownOn: today,
    typeCode: '',
    takeoffs: '',
    landings: '',
    fullStops: '',
    night: false,
    surface: 'land',
    offNight: false,
    offSurface: 'land',
    hours: '',
    remark: '',
  };
  const [said, setSaid] = useState('');
  const isWater = (code: string) => types.find((t) => t.code === code)?.water ?? false;
  const f = useActionForm({
    schema: async () => (await import('@/domain/log-form')).LogForm,
    defaults: empty,
    fresh: () => ({ requestId: newId() }),
    draft: `log:${pilotId}`,
    as: (v) => ({
      ...v,
      pilotId,
      takeoffs: whole(v.takeoffs),
      landings: whole(v.landings),
      fullStops: whole(v.fullStops),
      surface: isWater(v.typeCode) ? v.surface : 'land',
      offSurface: isWater(v.typeCode) ? v.offSurface : 'land',
      hours: Number(v.hours.replace(',', '.') || '0'),
    }),
    action: (v) => {
      setSaid('');
      return action(v);
    },
    done: () => {
      f.form.reset({ ...empty, requestId: newId() });
      setSaid('Logged.');
      router.refresh();
    },
  });
  const { form } = f;
  const water = isWater(form.watch('typeCode'));
  return (
    <form {...f.props} className="d-grid gap-2">
      <Problems problems={f.problems} title="Not logged" />
      <div className="d-grid gap-2" style={{ gridTemplateColumns: 'repeat(auto-fit, minmax(160px, 1fr))' }}>
        <Field label="Flown on" id="flownOn" error={f.error('flownOn')}>
          <DateInput max={today} {...f.register('flownOn')} />
        </Field>
        <Field label="Type" id="typeCode" error={f.error('typeCode')}>
          <select {...f.register('typeCode')}>
            <option value="">Choose</option>
            {types.map((t) => (
              <option key={t.code} value={t.code}>
                {t.name}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Take-offs" id="takeoffs" error={f.error('takeoffs')}>
          <input inputMode="numeric" {...f.register('takeoffs')} />
        </Field>
        <Field label="Landings" id="landings" error={f.error('landings')}>
          <input inputMode="numeric" {...f.register('landings')} />
        </Field>
        <Field label="of them full stops" id="fullStops" error={f.error('fullStops')}>
          <input inputMode="numeric" {...f.register('fullStops')} />
        </Field>
        <Field label="Hours" unit="h" id="hours" error={f.error('hours')}>
          <input inputMode="decimal" {...f.register('hours')} />
        </Field>
        {water ? (
          <>
            <Field label="Took off from" id="offSurface" error={f.error('offSurface')}>
              <select {...f.register('offSurface')}>
                <option value="land">land</option>
                <option value="water">water</option>
              </select>
            </Field>
            <Field label="Landed on" id="surface" error={f.error('surface')}>
              <select {...f.register('surface')}>
                <option value="land">land</option>
                <option value="water">water</option>
              </select>
            </Field>
          </>
        ) : null}
      </div>
      <div className="d-flex gap-4 flex-wrap">
        <FormCheck>
          <FormCheckInput type="checkbox" id="offNight" {...f.register('offNight')} />
          <FormCheckLabel htmlFor="offNight">took off by night</FormCheckLabel>
        </FormCheck>
        <FormCheck>
          <FormCheckInput type="checkbox" id="night" {...f.register('night')} />
          <FormCheckLabel htmlFor="night">landed by night</FormCheckLabel>
        </FormCheck>
      </div>
      <Field label="Remark" id="log-remark" error={f.error('remark')}>
        <input {...f.register('remark')} />
      </Field>
      <div className="d-flex gap-2 align-items-center">
        <Button type="submit" variant="primary" disabled={f.busy}>
          Log this flight
        </Button>
        <span role="status" className="soft">
          {said}
        </span>
      </div>
    </form>
  );
}

/** Strikes one logged flight, with the reason. */
export function StrikeButton({
  logId,
  name,
  action,
}: {
  logId: string;
  name: string;
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const [open, setOpen] = useState(false);
  const f = useActionForm({
    schema: async () => (await import('@/domain/forms')).StrikeForm,
    defaults: { logId, reason: '' },
    action,
  });
  if (!open)
    return (
      <Button variant="link" size="sm" className="p-0" onClick={() => setOpen(true)}>
        strike out<span className="visually-hidden"> {name}</span>
      </Button>
    );
  return (
    <form className="d-grid gap-1" aria-label={`Strike out ${name}`} {...f.props}>
      <Field label="Why it is struck out" id={`strike-${logId}`} error={f.error('reason')}>
        <input className="form-control-sm" {...f.register('reason')} />
      </Field>
      <Button type="submit" variant="outline-danger" size="sm" style={{ justifySelf: 'start' }} disabled={f.busy}>
        Strike out
      </Button>
      <Problems problems={f.problems} title="Not struck out" />
    </form>
  );
}
