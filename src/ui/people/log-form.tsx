'use client';
import Button from 'react-bootstrap/Button';
import { useActionForm } from '../shared/action-form';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems, useDraft } from '../shared/forms';
import { Problems } from '../shared/parts';

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
  const form = useForm<Values>({ defaultValues: empty });
  const draft = useDraft(form, `log:${pilotId}`);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const [said, setSaid] = useState('');
  const { errors, isSubmitting } = form.formState;
  const water = types.find((t) => t.code === form.watch('typeCode'))?.water ?? false;
  const send = form.handleSubmit(async (v) => {
    const requestId = v.requestId || crypto.randomUUID();
    form.setValue('requestId', requestId);
    const answer = await runAction(() =>
      action({
        requestId,
        pilotId,
        flownOn: v.flownOn,
        typeCode: v.typeCode,
        takeoffs: whole(v.takeoffs),
        landings: whole(v.landings),
        fullStops: whole(v.fullStops),
        night: v.night,
        surface: water ? v.surface : 'land',
        offNight: v.offNight,
        offSurface: water ? v.offSurface : 'land',
        hours: Number(v.hours.replace(',', '.') || '0'),
        remark: v.remark,
      }),
    );
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    setRest([]);
    form.reset(empty);
    draft.clear();
    setSaid('Logged.');
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2">
      <Problems problems={rest} title="Not logged" />
      <div className="d-grid gap-2" style={{ gridTemplateColumns: 'repeat(auto-fit, minmax(130px, 1fr))' }}>
        <Field label="Flown on" id="flownOn" error={errors.flownOn}>
          <input type="date" max={today} {...form.register('flownOn')} />
        </Field>
        <Field label="Type" id="typeCode" error={errors.typeCode}>
          <select {...form.register('typeCode')}>
            <option value="">Choose</option>
            {types.map((t) => (
              <option key={t.code} value={t.code}>
                {t.name}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Take-offs" id="takeoffs" error={errors.takeoffs}>
          <input inputMode="numeric" {...form.register('takeoffs')} />
        </Field>
        <Field label="Landings" id="landings" error={errors.landings}>
          <input inputMode="numeric" {...form.register('landings')} />
        </Field>
        <Field label="of them full stops" id="fullStops" error={errors.fullStops}>
          <input inputMode="numeric" {...form.register('fullStops')} />
        </Field>
        <Field label="Hours" unit="h" id="hours" error={errors.hours}>
          <input inputMode="decimal" {...form.register('hours')} />
        </Field>
        {water ? (
          <>
            <Field label="Took off from" id="offSurface" error={errors.offSurface}>
              <select {...form.register('offSurface')}>
                <option value="land">land</option>
                <option value="water">water</option>
              </select>
            </Field>
            <Field label="Landed on" id="surface" error={errors.surface}>
              <select {...form.register('surface')}>
                <option value="land">land</option>
                <option value="water">water</option>
              </select>
            </Field>
          </>
        ) : null}
      </div>
      <div className="d-flex gap-4 flex-wrap">
        <div className="form-check">
          <input type="checkbox" className="form-check-input" id="offNight" {...form.register('offNight')} />
          <label className="form-check-label" htmlFor="offNight">
            took off by night
          </label>
        </div>
        <div className="form-check">
          <input type="checkbox" className="form-check-input" id="night" {...form.register('night')} />
          <label className="form-check-label" htmlFor="night">
            landed by night
          </label>
        </div>
      </div>
      <Field label="Remark" id="log-remark" error={errors.remark}>
        <input {...form.register('remark')} />
      </Field>
      <div className="d-flex gap-2 align-items-center">
        <Button type="submit" variant="primary" disabled={isSubmitting}>
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
