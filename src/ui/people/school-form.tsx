'use client';
import Button from 'react-bootstrap/Button';
import FormCheck from 'react-bootstrap/FormCheck';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { PACKS, PACK_NAME, type PackId } from '@/domain/words';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import { TimeInput } from '../shared/when-input';
import { type ActionResult, typedNumber } from '../shared/forms';
import { Problems } from '../shared/parts';

interface School {
  name: string;
  homePack: PackId;
  openFrom: string;
  openTo: string;
  stepMin: number;
  nightFlying: boolean;
  stalledDays: number;
  reportUrl: string;
  forecastUrl: string;
}
/**
 * The rule pack that the office’s pages and words follow, and the hours of the schedule. A change is a new version of
 * the school's rules.
 */
export function SchoolForm({
  school,
  save,
}: {
  school: School;
  save: (form: unknown) => Promise<ActionResult<{ version: number; unchanged: boolean }>>;
}) {
  const router = useRouter();
  const [said, setSaid] = useState('');
  const f = useActionForm({
    schema: async () => (await import('@/domain/settings-forms')).SchoolForm,
    defaults: { ...school, stepMin: String(school.stepMin), stalledDays: String(school.stalledDays), reason: '' },
    as: (v) => ({ ...v, stepMin: typedNumber(v.stepMin), stalledDays: typedNumber(v.stalledDays) }),
    fieldOf: {
      'sheet.schedule.stepMin': 'stepMin',
      'sheet.schedule.openFromMin': 'openFrom',
      'sheet.schedule.openToMin': 'openTo',
      'sheet.schedule.stalledDays': 'stalledDays',
      'sheet.weather.reportUrl': 'reportUrl',
      'sheet.weather.forecastUrl': 'forecastUrl',
      'schedule.stepMin': 'stepMin',
      'schedule.openFromMin': 'openFrom',
      'schedule.openToMin': 'openTo',
    },
    action: (form) => {
      setSaid('');
      return save(form);
    },
    done: (a, values) => {
      f.form.reset({ ...values, reason: '' });
      setSaid(a.unchanged ? 'Nothing changed.' : `Saved as version ${a.version} of the school's rules.`);
      router.refresh();
    },
  });
  return (
    <form {...f.props} className="d-grid gap-2" aria-label="School">
      <Problems problems={f.problems} title="Not saved" />
      <Field label="Name of the school" id="h-name" error={f.error('name')} hint="stands on the sign-in page">
        <input {...f.register('name')} />
      </Field>
      <div className="two">
        <Field
          label="Home rule pack"
          id="h-pack"
          error={f.error('homePack')}
          hint="recency of everybody, night, words such as circuit or traffic pattern"
        >
          <select {...f.register('homePack')}>
            {PACKS.map((p) => (
              <option key={p} value={p}>
                {PACK_NAME[p]}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Time grid of the schedule" unit="min" id="h-step" error={f.error('stepMin')}>
          <input inputMode="numeric" {...f.register('stepMin')} />
        </Field>
        <Field label="Bookings from, local" id="h-from" error={f.error('openFrom')}>
          <TimeInput {...f.register('openFrom')} />
        </Field>
        <Field label="to" id="h-to" error={f.error('openTo')}>
          <TimeInput {...f.register('openTo')} />
        </Field>
        <Field label="A checkout is stalled after" unit="days" id="h-stalled" error={f.error('stalledDays')}>
          <input inputMode="numeric" {...f.register('stalledDays')} />
        </Field>
        <FormCheck
          id="h-night"
          className="align-self-end"
          label="Night flying permitted"
          {...f.register('nightFlying')}
        />
      </div>
      <Field
        label="Address of the METAR"
        id="h-report"
        error={f.error('reportUrl')}
        hint="http or https, answering with the report as text; empty: reports are typed or pasted"
      >
        <input inputMode="url" placeholder="https://" {...f.register('reportUrl')} />
      </Field>
      <Field label="Address of the TAF" id="h-forecast" error={f.error('forecastUrl')}>
        <input inputMode="url" placeholder="https://" {...f.register('forecastUrl')} />
      </Field>
      <Field label="Reason" id="h-reason" error={f.error('reason')}>
        <input {...f.register('reason')} />
      </Field>
      <div className="d-flex gap-2 align-items-center">
        <Button type="submit" variant="primary" disabled={f.busy}>
          Save
        </Button>
        <span role="status" className="soft">
          {said}
        </span>
      </div>
    </form>
  );
}
