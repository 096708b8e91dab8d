'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems, useDraft } from '../shared/forms';
import { Problems } from '../shared/parts';
import { Signature } from './signature';

type Send = (form: unknown) => Promise<ActionResult<{ entryId: string; already: boolean }>>;
interface Values {
  password: string;
  text: string;
  remark: string;
  alone: boolean;
  noPassengers: boolean;
  crosswind: string;
  attitude: 'any' | 'three-point' | 'mains-first';
  surface: 'any' | 'asphalt' | 'grass' | 'water';
  hours: string;
}
const number = (text: string) => (text.trim() === '' ? null : Number(text.replace(',', '.')));

/** The words of the entry, its limitations, the password once more, and the signature. */
export function SignForm({
  checkoutId,
  shown,
  text,
  blocked,
  recommends,
  water,
  action,
}: {
  checkoutId: string;
  shown: string;
  text: string;
  blocked: boolean;
  recommends: boolean;
  water: boolean;
  action: Send;
}) {
  const router = useRouter();
  const form = useForm<Values>({
    defaultValues: {
      password: '',
      text,
      remark: '',
      alone: false,
      noPassengers: false,
      crosswind: '',
      attitude: 'any',
      surface: 'any',
      hours: '',
    },
  });
  const draft = useDraft(form, `sign:${checkoutId}`, ['password', 'text']);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const [drawn, setDrawn] = useState<string | null>(null);
  const { errors, isSubmitting, dirtyFields } = form.formState;
  // What the pack words follows the record, until somebody has changed the words.
  useEffect(() => {
    if (!dirtyFields.text) form.resetField('text', { defaultValue: text });
  }, [text, dirtyFields.text, form]);
  const send = form.handleSubmit(async (v) => {
    const answer = await runAction(() =>
      action({
        checkoutId,
        shown,
        password: v.password,
        text: v.text,
        remark: v.remark,
        signature: drawn,
        limitations: {
          alone: v.alone,
          noPassengers: v.noPassengers,
          crosswindKt: number(v.crosswind),
          attitude: v.attitude,
          surface: v.surface,
          untilHours: number(v.hours),
        },
      }),
    );
    if (!answer.ok) {
      const path = (p: string) =>
        p === 'limitations.crosswindKt' ? 'crosswind' : p === 'limitations.untilHours' ? 'hours' : p;
      setRest(
        showProblems(
          form,
          answer.problems.map((p) => ({ ...p, path: path(p.path) })),
        ),
      );
      return router.refresh();
    }
    draft.clear();
    router.push(`/ledger/${answer.entryId}`);
    router.refresh();
  });
  const word = recommends ? 'Sign the recommendation' : 'Sign this checkout';
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2">
      <Problems problems={rest} title="Not signed" />
      <Field
        label="What is written"
        id="text"
        error={errors.text}
        hint="From the pack’s template; change it where it must be changed."
      >
        <textarea rows={7} {...form.register('text')} />
      </Field>
      <fieldset className="d-grid gap-2">
        <legend className="form-label mb-0">Limitations, if any</legend>
        <div className="d-flex gap-3 flex-wrap">
          <div className="form-check">
            <input type="checkbox" className="form-check-input" id="alone" {...form.register('alone')} />
            <label className="form-check-label" htmlFor="alone">
              alone on board
            </label>
          </div>
          <div className="form-check">
            <input type="checkbox" className="form-check-input" id="noPassengers" {...form.register('noPassengers')} />
            <label className="form-check-label" htmlFor="noPassengers">
              no passengers
            </label>
          </div>
        </div>
        <div className="d-grid gap-2" style={{ gridTemplateColumns: '1fr 1fr' }}>
          <Field label="Crosswind up to" unit="kt" id="crosswind" error={errors.crosswind}>
            <input inputMode="numeric" {...form.register('crosswind')} />
          </Field>
          <Field label="Until flown on type" unit="h" id="hours" error={errors.hours}>
            <input inputMode="decimal" {...form.register('hours')} />
          </Field>
          <Field label="Landings" id="attitude">
            <select {...form.register('attitude')}>
              <option value="any">any</option>
              <option value="three-point">three-point only</option>
              <option value="mains-first">wheel only</option>
            </select>
          </Field>
          <Field label="Surface" id="surface">
            <select {...form.register('surface')}>
              <option value="any">any</option>
              <option value="asphalt">asphalt</option>
              <option value="grass">grass</option>
              {water ? <option value="water">water</option> : null}
            </select>
          </Field>
        </div>
      </fieldset>
      <Field label="Remark" id="remark" error={errors.remark}>
        <textarea rows={2} {...form.register('remark')} />
      </Field>
      <Signature change={setDrawn} />
      <Field label="Your password" id="password" error={errors.password} hint="Signing is yours alone: it asks again.">
        <input type="password" autoComplete="current-password" {...form.register('password')} />
      </Field>
      <button type="submit" className="btn btn-primary" disabled={blocked || isSubmitting}>
        {isSubmitting ? 'Signing' : blocked ? 'Not yet: see what is missing' : word}
      </button>
    </form>
  );
}

/** Some items signed before the rest, or further training said: the checkout stays open. */
export function AsideForm({
  checkoutId,
  shown,
  kind,
  items,
  text,
  action,
}: {
  checkoutId: string;
  shown: string;
  kind: 'part' | 'not-yet';
  items: readonly { id: string; title: string }[];
  text: string;
  action: Send;
}) {
  const router = useRouter();
  const form = useForm<{ requestId: string; password: string; text: string; items: string[] }>({
    defaultValues: { requestId: '', password: '', text, items: [] },
  });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (v) => {
    const requestId = v.requestId || crypto.randomUUID();
    form.setValue('requestId', requestId);
    const answer = await runAction(() =>
      action({
        requestId,
        checkoutId,
        shown,
        password: v.password,
        text: v.text,
        items: v.items,
        ...(kind === 'part' ? { remark: '' } : {}),
      }),
    );
    if (!answer.ok) {
      setRest(showProblems(form, answer.problems));
      return router.refresh();
    }
    router.push(`/ledger/${answer.entryId}`);
    router.refresh();
  });
  const p = kind === 'part' ? 'part' : 'further';
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2 mt-2">
      <Problems problems={rest} title="Not signed" />
      <fieldset>
        <legend className="form-label">
          {kind === 'part' ? 'Items' : 'To be flown or shown again before anybody signs'}
        </legend>
        {items.map((i) => (
          <div className="form-check" key={i.id}>
            <input
              type="checkbox"
              className="form-check-input"
              id={`${p}-${i.id}`}
              value={i.id}
              {...form.register('items')}
            />
            <label className="form-check-label" htmlFor={`${p}-${i.id}`}>
              <span className="mono">{i.id}</span> {i.title}
            </label>
          </div>
        ))}
        {errors.items ? (
          <div className="invalid-feedback" role="alert">
            {errors.items.message}
          </div>
        ) : null}
      </fieldset>
      <Field
        label={kind === 'part' ? 'What is signed' : 'What is to be trained, and why'}
        id={`${p}-text`}
        error={errors.text}
      >
        <textarea rows={3} {...form.register('text')} />
      </Field>
      <Field
        label={kind === 'part' ? 'Password for these items' : 'Password for this entry'}
        id={`${p}-password`}
        error={errors.password}
      >
        <input type="password" autoComplete="current-password" {...form.register('password')} />
      </Field>
      <button type="submit" className="btn btn-outline-primary" disabled={isSubmitting}>
        {kind === 'part' ? 'Sign these items' : 'Enter further training'}
      </button>
    </form>
  );
}
