'use client';
import FormCheck from 'react-bootstrap/FormCheck';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import FormCheckLabel from 'react-bootstrap/FormCheckLabel';
import Feedback from 'react-bootstrap/Feedback';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { Field } from '../shared/field';
import { useActionForm } from '../shared/action-form';
import { type ActionResult, typedOrNull } from '../shared/forms';
import { Problems } from '../shared/parts';
import { Signature } from './signature';
import { newId } from '../shared/new-id';

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

/** The words of the entry, its limitations, the password once more, and the signature. */
export function SignForm({
  checkoutId,
  shown,
  text,
  blocked,
  recommends,
  water,
  tailwheel,
  action,
}: {
  checkoutId: string;
  shown: string;
  text: string;
  blocked: boolean;
  recommends: boolean;
  water: boolean;
  tailwheel: boolean;
  action: Send;
}) {
  const router = useRouter();
  const [drawn, setDrawn] = useState<string | null>(null);
  const defaults: Values = {
    password: '',
    text,
    remark: '',
    alone: false,
    noPassengers: false,
    crosswind: '',
    attitude: 'any',
    surface: 'any',
    hours: '',
  };
  const f = useActionForm({
    schema: async () => (await import('@/domain/sign-forms')).SignForm,
    defaults,
    draft: `sign:${checkoutId}`,
    as: ({ alone, noPassengers, crosswind, attitude, surface, hours, ...v }) => ({
      ...v,
      checkoutId,
      shown,
      signature: drawn,
      limitations: {
        alone,
        noPassengers,
        crosswindKt: typedOrNull(crosswind),
        attitude,
        surface,
        untilHours: typedOrNull(hours),
      },
    }),
    fieldOf: { 'limitations.crosswindKt': 'crosswind', 'limitations.untilHours': 'hours' },
    action,
    done: ({ entryId }) => {
      router.push(`/ledger/${entryId}`);
      router.refresh();
    },
    refused: () => router.refresh(),
  });
  const { form } = f;
  const { dirtyFields } = form.formState;
  // What the pack words follows the record, until somebody has changed the words.
  useEffect(() => {
    if (!dirtyFields.text) form.resetField('text', { defaultValue: text });
  }, [text, dirtyFields.text, form]);
  const word = recommends ? 'Sign the recommendation' : 'Sign this checkout';
  return (
    <form {...f.props} className="d-grid gap-2">
      <Problems problems={f.problems} title="Not signed" />
      <Field
        label="Sign-off text"
        id="text"
        error={f.error('text')}
        hint="From the template of the rule pack. Edit where needed."
      >
        <textarea rows={7} {...f.register('text')} />
      </Field>
      <fieldset className="d-grid gap-2">
        <legend className="form-label mb-0">Limitations, if any</legend>
        <div className="d-flex gap-3 flex-wrap">
          <FormCheck>
            <FormCheckInput type="checkbox" id="alone" {...f.register('alone')} />
            <FormCheckLabel htmlFor="alone">solo (sole occupant)</FormCheckLabel>
          </FormCheck>
          <FormCheck>
            <FormCheckInput type="checkbox" id="noPassengers" {...f.register('noPassengers')} />
            <FormCheckLabel htmlFor="noPassengers">no passengers</FormCheckLabel>
          </FormCheck>
        </div>
        <div className="d-grid gap-2" style={{ gridTemplateColumns: '1fr 1fr' }}>
          <Field label="Crosswind up to" unit="kt" id="crosswind" error={f.error('crosswind')}>
            <input inputMode="numeric" {...f.register('crosswind')} />
          </Field>
          <Field label="Until flown on type" unit="h" id="hours" error={f.error('hours')}>
            <input inputMode="decimal" {...f.register('hours')} />
          </Field>
          {tailwheel ? (
            <Field label="Landings" id="attitude">
              <select {...f.register('attitude')}>
                <option value="any">any</option>
                <option value="three-point">three-point only</option>
                <option value="mains-first">wheel only</option>
              </select>
            </Field>
          ) : null}
          <Field label="Surface" id="surface">
            <select {...f.register('surface')}>
              <option value="any">any</option>
              <option value="asphalt">asphalt</option>
              <option value="grass">grass</option>
              {water ? <option value="water">water</option> : null}
            </select>
          </Field>
        </div>
      </fieldset>
      <Field label="Remark" id="remark" error={f.error('remark')}>
        <textarea rows={2} {...f.register('remark')} />
      </Field>
      <Signature change={setDrawn} />
      <Field
        label="Your password"
        id="password"
        error={f.error('password')}
        hint="Signing asks for your password again."
      >
        <input type="password" autoComplete="current-password" {...f.register('password')} />
      </Field>
      <Button type="submit" variant="primary" disabled={blocked || f.busy}>
        {f.busy ? 'Signing' : blocked ? 'Not ready: see what is missing' : word}
      </Button>
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
  const f = useActionForm({
    schema: async () => {
      const forms = await import('@/domain/sign-forms');
      return kind === 'part' ? forms.PartForm : forms.NotYetForm;
    },
    defaults: { requestId: '', checkoutId, password: '', text, items: [] as string[] },
    fresh: () => ({ requestId: newId() }),
    as: (v) => ({ ...v, shown, ...(kind === 'part' ? { remark: '' } : {}) }),
    action,
    done: ({ entryId }) => {
      router.push(`/ledger/${entryId}`);
      router.refresh();
    },
    // What it showed may no longer be so.
    refused: () => router.refresh(),
  });
  const p = kind === 'part' ? 'part' : 'further';
  return (
    <form {...f.props} className="d-grid gap-2 mt-2">
      <Problems problems={f.problems} title="Not signed" />
      <fieldset>
        <legend className="form-label">
          {kind === 'part' ? 'Items' : 'To be flown or shown again before anybody signs'}
        </legend>
        {items.map((i) => (
          <FormCheck key={i.id}>
            <FormCheckInput type="checkbox" id={`${p}-${i.id}`} value={i.id} {...f.register('items')} />
            <FormCheckLabel htmlFor={`${p}-${i.id}`}>
              <span className="code-face">{i.id}</span> {i.title}
            </FormCheckLabel>
          </FormCheck>
        ))}
        {f.error('items') ? (
          <Feedback type="invalid" role="alert">
            {f.error('items')?.message}
          </Feedback>
        ) : null}
      </fieldset>
      <Field
        label={kind === 'part' ? 'What is signed' : 'What is to be trained, and why'}
        id={`${p}-text`}
        error={f.error('text')}
      >
        <textarea rows={3} {...f.register('text')} />
      </Field>
      <Field
        label={kind === 'part' ? 'Password for these items' : 'Password for this entry'}
        id={`${p}-password`}
        error={f.error('password')}
      >
        <input type="password" autoComplete="current-password" {...f.register('password')} />
      </Field>
      <Button type="submit" variant="outline-primary" disabled={f.busy}>
        {kind === 'part' ? 'Sign these items' : 'Enter further training'}
      </Button>
    </form>
  );
}
