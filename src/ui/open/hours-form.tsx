'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useFieldArray, useForm } from 'react-hook-form';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems, useDraft } from '../shared/forms';
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
  const form = useForm<Values>({ defaultValues: { rows } });
  const draft = useDraft(form, `hours:${pilotId}`);
  const list = useFieldArray({ control: form.control, name: 'rows' });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const [said, setSaid] = useState('');
  const { errors, isSubmitting } = form.formState;
  const chosen = form.watch('rows').map((r) => r.typeCode);
  const send = form.handleSubmit(async (values) => {
    setSaid('');
    const answer = await runAction(() => action({ pilotId, rows: values.rows }));
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    setRest([]);
    draft.clear();
    form.reset(values);
    setSaid(answer.added === 0 ? 'Nothing changed.' : 'Kept. The ranks follow.');
    router.refresh();
  });
  const free = types.filter((t) => !chosen.includes(t.code));
  return (
    <form onSubmit={(e) => void send(e)} noValidate aria-label="Hours by type">
      <Problems problems={rest} title="Not kept" />
      {list.fields.map((f, i) => (
        <div key={f.id} className="hours-row">
          <Field label="Type" id={`hours-${i}-type`} error={errors.rows?.[i]?.typeCode}>
            <select {...form.register(`rows.${i}.typeCode`)}>
              {types
                .filter((t) => t.code === chosen[i] || free.includes(t))
                .map((t) => (
                  <option key={t.code} value={t.code}>
                    {t.name}
                  </option>
                ))}
            </select>
          </Field>
          <Field label="Hours" unit="h" id={`hours-${i}-h`} error={errors.rows?.[i]?.hours}>
            <input type="number" step="any" min={0} {...form.register(`rows.${i}.hours`, { valueAsNumber: true })} />
          </Field>
          <Field label="As PIC" unit="h" id={`hours-${i}-pic`} error={errors.rows?.[i]?.pic}>
            <input
              type="number"
              step="any"
              min={0}
              {...form.register(`rows.${i}.pic`, {
                setValueAs: (v: unknown) => (v === '' || v === null || v === undefined ? null : Number(v)),
              })}
            />
          </Field>
          <Field label="Last flown" id={`hours-${i}-last`} error={errors.rows?.[i]?.lastFlown}>
            <input type="date" max={today} {...form.register(`rows.${i}.lastFlown`)} />
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
        <Button type="submit" variant="primary" size="sm" disabled={isSubmitting}>
          {isSubmitting ? 'Keeping' : 'Keep the hours'}
        </Button>
        <span role="status" className="soft small">
          {said}
        </span>
      </div>
      <p className="form-text mb-0">
        0 h: leave that type out of the habit. As PIC: empty where nobody told them apart. Earlier entries are kept.
      </p>
    </form>
  );
}
