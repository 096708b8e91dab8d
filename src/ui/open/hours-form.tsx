'use client';
import FormText from 'react-bootstrap/FormText';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useFieldArray } from 'react-hook-form';
import { proposedKind } from '@/core/differences';
import { dateText, fixed } from '@/core/format';
import { KIND_KEYS, KINDS, kindCode } from '@/domain/kinds';
import type { PilotHours, WrittenHours } from '@/core/differences';
import { Field } from '../shared/field';
import { DateInput } from '../shared/when-input';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

const tenth = (h: number): number => Math.round(h * 10) / 10;
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
  flown,
  written,
  types,
  today,
  action,
}: {
  pilotId: string;
  flown: readonly PilotHours[];
  /** What logbooks have of types that are not in the hangar. */
  written: readonly WrittenHours[];
  types: { code: string; name: string }[];
  today: string;
  action: (form: unknown) => Promise<ActionResult<{ added: number }>>;
}) {
  const rows = flown.flatMap((h): HoursRow[] =>
    h.office && h.office.hours > 0
      ? [{ typeCode: h.typeCode, ...h.office, lastFlown: h.office.lastFlown.slice(0, 10) }]
      : [],
  );
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
  const freeKinds = KIND_KEYS.filter((k) => !chosen.includes(kindCode(k)));
  const add = (typeCode: string) => list.append({ typeCode, hours: NaN, pic: null, lastFlown: today });
  /** Hours of the logbook go to their kind: to the row that stands, or to a new one. */
  const enter = (w: WrittenHours) => {
    const typeCode = kindCode(proposedKind(w));
    const at = chosen.indexOf(typeCode);
    const stands = form.getValues('rows')[at];
    if (!stands) list.append({ typeCode, hours: tenth(w.hours), pic: null, lastFlown: w.lastFlown });
    else
      list.update(at, {
        ...stands,
        hours: tenth((stands.hours || 0) + w.hours),
        lastFlown: stands.lastFlown > w.lastFlown ? stands.lastFlown : w.lastFlown,
      });
  };
  return (
    <form {...f.props} aria-label="Hours by type">
      <Problems problems={f.problems} title="Not saved" />
      {list.fields.map((f, i) => (
        <div key={f.id} className="hours-row">
          <Field label="Type" id={`hours-${i}-type`} error={error(`rows.${i}.typeCode`)}>
            <select {...register(`rows.${i}.typeCode`)}>
              <optgroup label="Types of the hangar">
                {types
                  .filter((t) => t.code === chosen[i] || free.includes(t))
                  .map((t) => (
                    <option key={t.code} value={t.code}>
                      {t.name}
                    </option>
                  ))}
              </optgroup>
              <optgroup label="Other types, by kind">
                {KIND_KEYS.filter((k) => kindCode(k) === chosen[i] || freeKinds.includes(k)).map((k) => (
                  <option key={k} value={kindCode(k)}>
                    {KINDS[k].name}: {KINDS[k].hint}
                  </option>
                ))}
              </optgroup>
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
      {written.length > 0 ? (
        <div className="small mt-2">
          In the logbook, of types that are not in the hangar:
          <ul className="plain-list mb-0">
            {written.map((w) => (
              <li key={w.name}>
                {w.name}, {fixed(w.hours, 1)} h, last {dateText(w.lastFlown)}{' '}
                <Button variant="link" size="sm" className="p-0" onClick={() => enter(w)}>
                  add {w.name} to {KINDS[proposedKind(w)].name}
                </Button>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <div className="d-flex gap-2 mt-2 align-items-center flex-wrap">
        <Button
          variant="outline-primary"
          size="sm"
          disabled={free.length === 0}
          onClick={() => add(free[0]?.code ?? '')}
        >
          Add a type
        </Button>
        <Button
          variant="outline-primary"
          size="sm"
          disabled={freeKinds.length === 0}
          onClick={() => add(kindCode(freeKinds[0] ?? 'light-nosewheel'))}
        >
          Add other types, by kind
        </Button>
        <Button type="submit" variant="primary" size="sm" disabled={f.busy}>
          {f.busy ? 'Saving' : 'Save hours'}
        </Button>
        <span role="status" className="soft small">
          {said}
        </span>
      </div>
      <FormText as="p" className="mb-0">
        0 h leaves that type out of the habits. Lessons recorded here after the day last flown are added by themselves.
        PIC hours stay empty where they were not recorded apart. Earlier entries stay on record.
      </FormText>
    </form>
  );
}
