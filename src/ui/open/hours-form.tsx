'use client';
import FormText from 'react-bootstrap/FormText';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useFieldArray } from 'react-hook-form';
import { Field } from '../shared/field';
import { DateInput } from '../shared/when-input';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

interface HoursRow {
  typeCode: string;
  hours: number;
  pic: number | null;
  lastFlown: string;
}
interface Values {
  rows: HoursRow[];
}

/** What the pilot has flown, by type, with the last day: the habit is weighed from it. */
export function HoursForm({
  pilotId,
  rows,
  types,
  today,
  action,
}: {
  pilotId: string;
  rows: HoursRow[];
  types: { code: string; name: string }[];
  today: string;
  action: (form: unknown) => Promise<ActionResult<{ added: number }>>;
}) {
  const router = useRouter();
  const [said, setSaid] = useState('');
  const f = useActionForm<Values, { added: number }>({
    schema: async () => (await import('@/domain/pilot-forms')).HoursForm,
    defaults: { rows },
    draft: `hours:${pilotId}`,
    also: ['rows'],
    as: (v) => ({ pilotId, rows: v.rows }),
    action: (form) => {
      setSaid('');
      return action(form);
    },
    done: ({ added }, values) => {
      f.form.reset(values);
      setSaid(added === 0 ? 'Nothing changed.' : 'Saved. The ranks follow.');
      router.refresh();
    },
  });
  const { form, register, error } = f;
  const list = useFieldArray({ control: form.control, name: 'rows' });
  const chosen = form.watch('rows').map((r) => r.typeCode);
  const free = types.filter((t) => !chosen.includes(t.code));
  return (
    <form {...f.props} aria-label="Hours by type">
      <Problems problems={f.problems} title="Not saved" />
      {list.fields.map((f, i) => (
        <div key={f.id} className="hours-row">
          <Field label="Type" id={`hours-${i}-type`} error={error(`rows.${i}.typeCode`)}>
            <select {...register(`rows.${i}.typeCode`)}>
              {types
                .filter((t) => t.code === chosen[i] || free.includes(t))
                .map((t) => (
                  <option key={t.code} value={t.code}>
                    {t.name}
                  </option>
                ))}
            </select>
          </Field>
          <Field label="Hours" unit="h" id={`hours-${i}-h`} error={error(`rows.${i}.hours`)}>
            <input type="number" step="any" min={0} {...register(`rows.${i}.hours`, { valueAsNumber: true })} />
          </Field>
          <Field label="As PIC" unit="h" id={`hours-${i}-pic`} error={error(`rows.${i}.pic`)}>
            <input
              type="number"
              step="any"
              min={0}
              {...register(`rows.${i}.pic`, {
                setValueAs: (v: unknown) => (v === '' || v === null || v === undefined ? null : Number(v)),
              })}
            />
          </Field>
          <Field label="Last flown" id={`hours-${i}-last`} error={error(`rows.${i}.lastFlown`)}>
            <DateInput max={today} {...register(`rows.${i}.lastFlown`)} />
          </Field>
        </div>
      ))}
      <div className="d-flex gap-2 mt-2 align-items-center flex-wrap">
        <Button
          variant="outline-primary"
          size="sm"
          disabled={free.length === 0}
          onClick={() => list.append({ typeCode: free[0]?.code ?? '', hours: NaN, pic: null, lastFlown: today })}
        >
          Add a type
        </Button>
        <Button type="submit" variant="primary" size="sm" disabled={f.busy}>
          {f.busy ? 'Saving' : 'Save hours'}
        </Button>
        <span role="status" className="soft small">
          {said}
        </span>
      </div>
      <FormText as="p" className="mb-0">
        0 h leaves that type out of the habits. PIC hours stay empty where they were not recorded apart. Earlier entries
        stay on record.
      </FormText>
    </form>
  );
}
