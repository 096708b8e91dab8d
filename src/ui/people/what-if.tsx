'use client';
import { TableHead } from '../shared/table-head';
import Button from 'react-bootstrap/Button';
import FormCheck from 'react-bootstrap/FormCheck';
import { useEffect, useState } from 'react';
import { useFieldArray } from 'react-hook-form';
import type { Lapse } from '@/core/recency';
import { Field } from '../shared/field';
import { DateInput } from '../shared/when-input';
import { useActionForm } from '../shared/action-form';
import { type ActionResult, typedNumber } from '../shared/forms';
import { Problems } from '../shared/parts';
import { LapseMark } from './lapse';

interface Row {
  flownOn: string;
  typeCode: string;
  landings: string;
  fullStops: string;
  night: boolean;
  surface: 'land' | 'water';
}
interface Values {
  onDate: string;
  planned: Row[];
}
interface Answer {
  before: Lapse[];
  after: Lapse[];
}
/** What a pilot would have after flying what is planned: the same rules over what is recorded and what would be. */
export function WhatIf({
  pilotId,
  onDate,
  types,
  ask,
}: {
  pilotId: string;
  onDate: string;
  types: readonly { code: string; name: string; water: boolean }[];
  ask: (form: unknown) => Promise<ActionResult<{ before: Lapse[]; after: Lapse[] }>>;
}) {
  const blank = (): Row => ({
    flownOn: onDate,
    typeCode: types[0]?.code ?? '',
    landings: '3',
    fullStops: '3',
    night: false,
    surface: 'land',
  });
  const [answer, setAnswer] = useState<Answer | null>(null);
  const f = useActionForm<Values, Answer>({
    schema: async () => (await import('@/domain/log-form')).WhatIfForm,
    defaults: { onDate, planned: [blank()] },
    as: (v) => ({
      pilotId,
      onDate: v.onDate,
      planned: v.planned.map((r) => ({
        ...r,
        landings: typedNumber(r.landings),
        fullStops: typedNumber(r.fullStops),
      })),
    }),
    action: ask,
    refused: () => setAnswer(null),
    done: setAnswer,
  });
  const { form, register } = f;
  const rows = useFieldArray({ control: form.control, name: 'planned' });
  const chosen = form.watch('planned').map((r) => r.typeCode);
  // An answer is of what was asked: it goes when a field changes.
  useEffect(() => {
    const subscription = form.watch((_, { name }) => (name ? setAnswer(null) : undefined));
    return () => subscription.unsubscribe();
  }, [form]);
  const changed = answer
    ? answer.after.filter((a) => {
        const b = answer.before.find((x) => x.key === a.key);
        return !b || b.status !== a.status || b.through !== a.through;
      })
    : [];
  return (
    <form {...f.props} className="d-grid gap-2" aria-label="What if">
      <Problems problems={f.problems} title="Not worked out" />
      {rows.fields.map((row, i) => (
        <div key={row.id} className="planned-row">
          <Field label="Flown on" id={`wi-day-${i}`} error={f.error(`planned.${i}.flownOn`)}>
            <DateInput {...register(`planned.${i}.flownOn`)} />
          </Field>
          <Field label="Type" id={`wi-type-${i}`} error={f.error(`planned.${i}.typeCode`)}>
            <select
              {...register(`planned.${i}.typeCode`, { onChange: () => form.setValue(`planned.${i}.surface`, 'land') })}
            >
              {types.map((t) => (
                <option key={t.code} value={t.code}>
                  {t.name}
                </option>
              ))}
            </select>
          </Field>
          <Field label="Landings" id={`wi-n-${i}`} error={f.error(`planned.${i}.landings`)}>
            <input inputMode="numeric" {...register(`planned.${i}.landings`)} />
          </Field>
          <Field label="of them full stops" id={`wi-f-${i}`} error={f.error(`planned.${i}.fullStops`)}>
            <input inputMode="numeric" {...register(`planned.${i}.fullStops`)} />
          </Field>
          {types.find((t) => t.code === chosen[i])?.water ? (
            <Field label="On" id={`wi-s-${i}`}>
              <select {...register(`planned.${i}.surface`)}>
                <option value="land">land</option>
                <option value="water">water</option>
              </select>
            </Field>
          ) : null}
          <div className="align-self-end">
            <FormCheck inline id={`wi-night-${i}`} label="by night" {...register(`planned.${i}.night`)} />
            {rows.fields.length > 1 ? (
              <Button variant="link" size="sm" className="p-0" onClick={() => rows.remove(i)}>
                Remove<span className="visually-hidden"> flight {i + 1}</span>
              </Button>
            ) : null}
          </div>
        </div>
      ))}
      <div className="d-flex gap-2 align-items-end flex-wrap">
        <Button
          variant="outline-primary"
          size="sm"
          onClick={() => rows.append({ ...blank(), flownOn: form.getValues('planned').at(-1)?.flownOn ?? onDate })}
        >
          Another flight
        </Button>
        <Field label="Status on" id="wi-on" error={f.error('onDate')}>
          <DateInput {...register('onDate')} />
        </Field>
        <Button type="submit" variant="primary" size="sm" disabled={f.busy}>
          Compute
        </Button>
      </div>
      <div role="status">
        {answer === null ? null : changed.length === 0 ? (
          <p className="mb-0">No change on that day.</p>
        ) : (
          <table aria-label="Without and with these flights" className="plain">
            <TableHead columns={['What', 'Without', 'With these flights']} />
            <tbody>
              {changed.map((a) => {
                const b = answer.before.find((x) => x.key === a.key);
                return (
                  <tr key={a.key}>
                    <td>{a.what}</td>
                    <td>{b ? <LapseMark lapse={b} /> : 'not required'}</td>
                    <td>
                      <LapseMark lapse={a} />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
      </div>
    </form>
  );
}
