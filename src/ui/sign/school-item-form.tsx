'use client';
import Button from 'react-bootstrap/Button';
import FormCheck from 'react-bootstrap/FormCheck';
import FormText from 'react-bootstrap/FormText';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { UseFormRegister } from 'react-hook-form';
import { plural } from '@/core/format';
import { HELP, ITEM_ATTITUDES } from '@/domain/assess-words';
import { LAB_PAGES, LAB_TITLES, type LabPage } from '@/domain/lab-pages';
import { say } from '@/domain/words';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import { type ActionResult, typedNumber, typedOrNull } from '../shared/forms';
import { Problems } from '../shared/parts';

interface Values {
  title: string;
  text: string;
  where: 'ground' | 'flight';
  how: 'seen' | 'landings' | 'pages';
  pages: LabPage[];
  times: string;
  help: (typeof HELP)[number];
  days: string;
  attitude: (typeof ITEM_ATTITUDES)[number];
  fullStop: boolean;
  crosswindKt: string;
  withinDays: string;
  first: string[];
  safety: boolean;
  perAirframe: boolean;
  lesson: string;
  waivable: string;
  citation: string;
  reason: string;
  checkouts: string[];
}

/** An item the school asks on top of the law, and the open checkouts in which it is asked at once. */
export function SchoolItemForm({
  programme,
  open,
  action,
}: {
  programme: { key: string; version: number; items: readonly { id: string; title: string }[] };
  open: readonly { id: string; pilot: string; registration: string; instructor: string }[];
  action: (form: unknown) => Promise<ActionResult<{ version: number; itemId: string; asked: number }>>;
}) {
  const router = useRouter();
  const [said, setSaid] = useState('');
  const defaults: Values = {
    title: '',
    text: '',
    where: 'flight',
    how: 'seen',
    pages: [],
    times: '1',
    help: 'unassisted',
    days: '1',
    attitude: 'any',
    fullStop: false,
    crosswindKt: '',
    withinDays: '',
    first: [],
    safety: false,
    perAirframe: false,
    lesson: '',
    waivable: '',
    citation: 'School programme',
    reason: '',
    checkouts: [],
  };
  const f = useActionForm<Values, { version: number; itemId: string; asked: number }>({
    schema: async () => (await import('@/domain/item-form')).SchoolItemForm,
    defaults,
    draft: `item-${programme.key}`,
    also: ['where', 'how', 'pages', 'help', 'attitude', 'fullStop', 'first', 'safety', 'perAirframe', 'checkouts'],
    as: (v) => ({
      ...v,
      key: programme.key,
      baseVersion: programme.version,
      times: v.how === 'pages' ? 1 : typedNumber(v.times),
      pages: v.how === 'pages' ? v.pages : [],
      days: v.how === 'seen' ? typedNumber(v.days) : 1,
      crosswindKt: v.how === 'landings' ? typedOrNull(v.crosswindKt) : null,
      withinDays: typedOrNull(v.withinDays),
      lesson: typedOrNull(v.lesson),
    }),
    action: (form) => {
      setSaid('');
      return action(form);
    },
    done: ({ version, itemId, asked }) => {
      f.form.reset(defaults);
      setSaid(
        `${itemId} added: version ${version}. ${asked === 0 ? 'Checkouts already open keep theirs; their instructors are offered it.' : `Asked in ${plural(asked, 'open checkout')}.`}`,
      );
      router.refresh();
    },
  });
  const { register, error, form } = f;
  const [how, where] = form.watch(['how', 'where']);
  return (
    <form {...f.props} aria-label="Add a school item" className="d-grid gap-3 mt-2">
      <Problems problems={f.problems} title="Not added" />
      <div className="grid g-1-1">
        <Field label="Item" id="item-title" error={error('title')}>
          <input maxLength={60} {...register('title')} />
        </Field>
        <Field label="Where" id="item-where" error={error('where')}>
          <select {...register('where')}>
            <option value="flight">in flight</option>
            <option value="ground">on the ground</option>
          </select>
        </Field>
      </div>
      <Field label="What is shown" id="item-text" error={error('text')}>
        <textarea rows={2} maxLength={300} {...register('text')} />
      </Field>
      <div className="grid g-1-1">
        <Field label="How it counts" id="item-how" error={error('how')}>
          <select {...register('how')}>
            <option value="seen">seen by the instructor, within the standard</option>
            {where === 'flight' ? (
              <option value="landings">landings that count</option>
            ) : (
              <option value="pages">pages of the lab, brief acknowledged</option>
            )}
          </select>
        </Field>
        {how === 'pages' ? (
          <LabPages register={register} error={error('pages')} />
        ) : (
          <>
            <Field label="Times" id="item-times" error={error('times')}>
              <input inputMode="numeric" {...register('times')} />
            </Field>
            <Field label="Still counts when" id="item-help" error={error('help')}>
              <select {...register('help')}>
                {HELP.filter((h) => how === 'seen' || h !== 'assisted').map((h) => (
                  <option key={h} value={h}>
                    {h === 'unassisted' ? 'unassisted only' : `${h} at most`}
                  </option>
                ))}
              </select>
            </Field>
          </>
        )}
        {how === 'pages' ? null : how === 'seen' ? (
          <Field label="On at least" unit="days" id="item-days" error={error('days')}>
            <input inputMode="numeric" {...register('days')} />
          </Field>
        ) : (
          <>
            <Field label="Attitude" id="item-attitude" error={error('attitude')}>
              <select {...register('attitude')}>
                {ITEM_ATTITUDES.map((a) => (
                  <option key={a} value={a}>
                    {a === 'any' ? 'any' : say(a)}
                  </option>
                ))}
              </select>
            </Field>
            <Field
              label="Crosswind at least"
              unit="kt"
              id="item-crosswind"
              error={error('crosswindKt')}
              hint="Empty: any wind."
            >
              <input inputMode="numeric" {...register('crosswindKt')} />
            </Field>
          </>
        )}
        <Field
          label="Not older than"
          unit="days"
          id="item-recent"
          error={error('withinDays')}
          hint="Empty: it does not lapse."
        >
          <input inputMode="numeric" {...register('withinDays')} />
        </Field>
        <Field
          label="Taken up in lesson"
          id="item-lesson"
          error={error('lesson')}
          hint="Empty: when what comes first is met."
        >
          <input inputMode="numeric" {...register('lesson')} />
        </Field>
      </div>
      <div>
        {how === 'landings' ? (
          <FormCheck id="item-full-stop" label="Full stops only" {...register('fullStop')} />
        ) : null}
        <FormCheck
          id="item-safety"
          label="Safety item: no override before something of it was seen"
          {...register('safety')}
        />
        <FormCheck
          id="item-airframe"
          label="Belongs to the airframe: asked again in another registration"
          {...register('perAirframe')}
        />
      </div>
      <details>
        <summary>What comes first, and when it may be waived</summary>
        <fieldset className="mt-2">
          <legend className="form-label">First</legend>
          {programme.items.map((i) => (
            <FormCheck
              key={i.id}
              id={`item-first-${i.id}`}
              value={i.id}
              label={`${i.id} ${i.title}`}
              {...register('first')}
            />
          ))}
        </fieldset>
        <Field
          label="May be waived when"
          id="item-waivable"
          error={error('waivable')}
          hint="Empty: it is never waived."
        >
          <input maxLength={200} {...register('waivable')} />
        </Field>
      </details>
      <div className="grid g-1-1">
        <Field label="Source" id="item-citation" error={error('citation')}>
          <input maxLength={120} {...register('citation')} />
        </Field>
        <Field label="Reason for the new version" id="item-reason" error={error('reason')}>
          <input maxLength={300} {...register('reason')} />
        </Field>
      </div>
      {open.length > 0 ? (
        <fieldset>
          <legend className="form-label">Ask it in these open checkouts too</legend>
          {open.map((c) => (
            <FormCheck
              key={c.id}
              id={`item-in-${c.id}`}
              value={c.id}
              label={`${c.pilot}, ${c.registration}, with ${c.instructor}`}
              {...register('checkouts')}
            />
          ))}
          <FormText as="p" className="mb-0">
            The others keep the version they were opened under; their instructors are offered this one.
          </FormText>
        </fieldset>
      ) : null}
      <div className="d-flex gap-2 align-items-center flex-wrap">
        <Button type="submit" variant="primary" disabled={f.busy}>
          {f.busy ? 'Adding' : 'Add item'}
        </Button>
        <span role="status" className="soft small">
          {said}
        </span>
      </div>
    </form>
  );
}

/** Which pages of the lab an acknowledged brief must carry. */
function LabPages({
  register,
  error,
}: {
  register: UseFormRegister<Values>;
  error?: { message?: string | undefined } | undefined;
}) {
  return (
    <fieldset aria-describedby={error ? 'item-pages-error' : undefined}>
      <legend className="form-label">Pages, all of them</legend>
      {LAB_PAGES.map((p) => (
        <FormCheck key={p} id={`item-page-${p}`} value={p} label={LAB_TITLES[p]} {...register('pages')} />
      ))}
      {error?.message ? (
        <p id="item-pages-error" className="trouble small mb-0" role="alert">
          {error.message}
        </p>
      ) : null}
    </fieldset>
  );
}
