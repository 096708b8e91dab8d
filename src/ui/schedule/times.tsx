'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useFieldArray } from 'react-hook-form';
import {
  WEEKDAYS,
  dayText,
  localClock,
  clockText,
  localInstant,
  minutesText,
  readClock,
  typedDate,
} from '@/core/schedule';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import { DateInput, TimeInput } from '../shared/when-input';
import type { ActionResult } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';
import { Refusal } from '../shared/refusal';
import { useTap } from '../shared/use-tap';
import { newId } from '../shared/new-id';

interface WeekValues {
  base: string;
  validFrom: string;
  windows: { weekday: string; fromMin: string; toMin: string }[];
}
/** The weekly windows of one person: a row a window, days without one are closed. */
export function WindowsForm({
  person,
  name,
  today,
  windows,
  stamp,
  save,
}: {
  person: string;
  name: string;
  today: string;
  windows: readonly { weekday: number; fromMin: number; toMin: number }[];
  /** What the weekly times were when this page was made. */
  stamp: string;
  save: (form: unknown) => Promise<ActionResult>;
}) {
  const router = useRouter();
  const [said, setSaid] = useState('');
  const f = useActionForm<WeekValues>({
    schema: async () => (await import('@/domain/schedule')).WindowsForm,
    defaults: {
      base: stamp,
      validFrom: today,
      windows: [...windows]
        .sort((a, b) => a.weekday - b.weekday || a.fromMin - b.fromMin)
        .map((w) => ({
          weekday: String(w.weekday),
          fromMin: minutesText(w.fromMin),
          toMin: minutesText(w.toMin),
        })),
    },
    as: (v) => ({
      person,
      base: v.base,
      validFrom: v.validFrom,
      windows: v.windows.map((w) => ({
        weekday: Number(w.weekday),
        fromMin: readClock(w.fromMin),
        toMin: readClock(w.toMin),
      })),
    }),
    action: (form) => {
      setSaid('');
      return save(form);
    },
    done: () => {
      setSaid('Saved.');
      router.refresh();
    },
  });
  const { form } = f;
  useEffect(() => form.setValue('base', stamp), [stamp, form]);
  const rows = useFieldArray({ control: form.control, name: 'windows' });
  return (
    <form {...f.props} className="d-grid gap-2" aria-label={`Weekly times of ${name}`}>
      <Problems problems={f.problems} title="Not saved" />
      {rows.fields.length === 0 ? (
        <p className="soft mb-0">No weekly times: {name} can be booked at any hour.</p>
      ) : null}
      {rows.fields.map((row, i) => (
        <div key={row.id} className="week-row">
          <Field label={`Day ${i + 1}`} hideLabel id={`day-${person}-${i}`}>
            <select {...f.register(`windows.${i}.weekday`)}>
              {WEEKDAYS.map((d, n) => (
                <option key={d} value={n + 1}>
                  {d}
                </option>
              ))}
            </select>
          </Field>
          <Field
            label={`From, row ${i + 1}`}
            hideLabel
            id={`from-${person}-${i}`}
            error={f.error(`windows.${i}.fromMin`)}
          >
            <TimeInput {...f.register(`windows.${i}.fromMin`)} />
          </Field>
          <Field label={`To, row ${i + 1}`} hideLabel id={`to-${person}-${i}`} error={f.error(`windows.${i}.toMin`)}>
            <TimeInput {...f.register(`windows.${i}.toMin`)} />
          </Field>
          <Button variant="link" size="sm" onClick={() => rows.remove(i)}>
            Remove<span className="visually-hidden"> row {i + 1}</span>
          </Button>
        </div>
      ))}
      <div className="d-flex gap-2 align-items-end flex-wrap">
        <Button
          variant="outline-primary"
          size="sm"
          onClick={() => rows.append({ weekday: '1', fromMin: '09:00', toMin: '17:00' })}
        >
          Add a time
        </Button>
        <Field label="From" id={`from-${person}`} error={f.error('validFrom')}>
          <DateInput {...f.register('validFrom')} />
        </Field>
        <Button type="submit" variant="primary" size="sm" disabled={f.busy}>
          Save times
        </Button>
        <span role="status" className="soft">
          {said}
        </span>
      </div>
    </form>
  );
}

/** Somebody away, or an aeroplane out of service. */
export function AwayForm({
  options,
  zone,
  today,
  save,
}: {
  options: readonly { key: string; name: string }[];
  zone: string;
  today: string;
  save: (form: unknown) => Promise<ActionResult<{ hit: string[] }>>;
}) {
  const router = useRouter();
  const [hit, setHit] = useState<string[] | null>(null);
  const empty = { requestId: '', who: '', fromDay: today, fromAt: '08:00', toDay: '', toAt: '18:00', why: '' };
  const instant = (day: string, at: string) => {
    const minutes = readClock(at);
    return typedDate(day) !== null && minutes !== null ? localInstant(day, minutes, zone) : '';
  };
  const f = useActionForm({
    schema: async () => (await import('@/domain/schedule')).AwayForm,
    defaults: empty,
    fresh: () => ({ requestId: newId() }),
    draft: 'away',
    also: ['who'],
    as: (v) => ({
      requestId: v.requestId,
      who: v.who,
      fromAt: instant(v.fromDay, v.fromAt),
      toAt: v.toDay === '' ? null : instant(v.toDay, v.toAt),
      why: v.why,
    }),
    fieldOf: { fromAt: 'fromDay', toAt: 'toDay' },
    action: save,
    refused: () => setHit(null),
    done: (answer) => {
      setHit(answer.hit);
      f.form.reset({ ...empty, requestId: newId() });
      router.refresh();
    },
  });
  return (
    <form {...f.props} className="d-grid gap-2" aria-label="Time away">
      <Problems problems={f.problems} title="Not saved" />
      <Field label="Who or what" id="away-who" error={f.error('who')}>
        <select {...f.register('who')}>
          <option value="">Choose</option>
          {options.map((o) => (
            <option key={o.key} value={o.key}>
              {o.name}
            </option>
          ))}
        </select>
      </Field>
      <div className="two">
        <Field label="From" id="away-from" error={f.error('fromDay')}>
          <DateInput {...f.register('fromDay')} />
        </Field>
        <Field label="at, local" id="away-from-at">
          <TimeInput {...f.register('fromAt')} />
        </Field>
        <Field label="To" id="away-to" error={f.error('toDay')} hint="empty, for an aeroplane: until further notice">
          <DateInput {...f.register('toDay')} />
        </Field>
        <Field label="at, local" id="away-to-at">
          <TimeInput {...f.register('toAt')} />
        </Field>
      </div>
      <Field label="Why" id="away-why" error={f.error('why')}>
        <input {...f.register('why')} />
      </Field>
      <div>
        <Button type="submit" variant="primary" disabled={f.busy}>
          Save time away
        </Button>
      </div>
      <div role="status">
        {hit === null ? null : hit.length === 0 ? (
          <p className="note-good mb-0">Saved. No booking is affected.</p>
        ) : (
          <div className="trouble">
            <strong>Saved. These bookings must be moved or cancelled</strong>
            <ul>
              {hit.map((h) => (
                <li key={h}>{h}</li>
              ))}
            </ul>
          </div>
        )}
      </div>
    </form>
  );
}

export function AwayList({
  rows,
  zone,
  end,
}: {
  rows: readonly {
    id: string;
    name: string;
    kind: string;
    from: string;
    to: string | null;
    why: string;
    ends: boolean;
  }[];
  zone: string;
  end: (form: unknown) => Promise<ActionResult>;
}) {
  const { tap, busy, refusal } = useTap();
  const when = (iso: string) => `${dayText(localClock(iso, zone).date)} ${clockText(iso, zone)}`;
  return (
    <Panel title="Away and out of service, now and ahead">
      <Refusal said={refusal} />
      {rows.length === 0 ? (
        <p className="soft mb-0">Nobody is away and every aeroplane is in service.</p>
      ) : (
        <ul className="plain-list">
          {rows.map((r) => (
            <li key={r.id}>
              <b>{r.name}</b> {r.kind === 'away' ? 'away' : 'out of service'},{' '}
              {r.to === null ? `since ${when(r.from)}, until further notice` : `${when(r.from)} to ${when(r.to)}`}:{' '}
              {r.why}{' '}
              {r.ends ? (
                <Button
                  variant="link"
                  size="sm"
                  className="p-0"
                  disabled={busy}
                  onClick={() => void tap(() => end({ id: r.id, why: '' }))}
                >
                  {r.kind === 'away' ? 'Undo absence' : 'Back in service'}
                  <span className="visually-hidden">: {r.name}</span>
                </Button>
              ) : r.kind === 'exceedance' || r.kind === 'grounded' ? (
                <span className="soft">until its release is entered</span>
              ) : null}
            </li>
          ))}
        </ul>
      )}
    </Panel>
  );
}
