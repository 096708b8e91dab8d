'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems, useDraft } from '../shared/forms';
import { Problems } from '../shared/parts';

interface Values { password: string; remark: string; alone: boolean; noPassengers: boolean; crosswind: string; attitude: 'any' | 'three-point' | 'mains-first'; surface: 'any' | 'asphalt' | 'grass'; hours: string }

/** Limitations of the sign-off, the password once more, and the signature. */
export function SignForm({ checkoutId, blocked, action }: { checkoutId: string; blocked: boolean; action: (form: unknown) => Promise<ActionResult<{ entryId: string; already: boolean }>> }) {
  const router = useRouter();
  const form = useForm<Values>({ defaultValues: { password: '', remark: '', alone: false, noPassengers: false, crosswind: '', attitude: 'any', surface: 'any', hours: '' } });
  const draft = useDraft(form, `sign:${checkoutId}`, ['password']);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const number = (text: string) => (text.trim() === '' ? null : Number(text.replace(',', '.')));
  const send = form.handleSubmit(async (v) => {
    const answer = await runAction(() => action({ checkoutId, password: v.password, remark: v.remark, limitations: { alone: v.alone, noPassengers: v.noPassengers, crosswindKt: number(v.crosswind), attitude: v.attitude, surface: v.surface, untilHours: number(v.hours) } }));
    if (!answer.ok) {
      const path = (p: string) => (p === 'limitations.crosswindKt' ? 'crosswind' : p === 'limitations.untilHours' ? 'hours' : p);
      return setRest(showProblems(form, answer.problems.map((p) => ({ ...p, path: path(p.path) }))));
    }
    draft.clear();
    router.push(`/ledger/${answer.entryId}`);
    router.refresh();
  });
  return (
    <form onSubmit={send} noValidate className="d-grid gap-2">
      <Problems problems={rest} title="Not signed" />
      <fieldset className="d-grid gap-2">
        <legend className="form-label mb-0">Limitations, if any</legend>
        <div className="form-check"><input type="checkbox" className="form-check-input" id="alone" {...form.register('alone')} /><label className="form-check-label" htmlFor="alone">alone on board</label></div>
        <div className="form-check"><input type="checkbox" className="form-check-input" id="noPassengers" {...form.register('noPassengers')} /><label className="form-check-label" htmlFor="noPassengers">no passengers</label></div>
        <div className="d-grid gap-2" style={{ gridTemplateColumns: '1fr 1fr' }}>
          <Field label="Crosswind up to" unit="kt" id="crosswind" error={errors.crosswind}><input inputMode="numeric" {...form.register('crosswind')} /></Field>
          <Field label="Until flown on type" unit="h" id="hours" error={errors.hours}><input inputMode="decimal" {...form.register('hours')} /></Field>
          <Field label="Landings" id="attitude"><select {...form.register('attitude')}><option value="any">any</option><option value="three-point">three-point only</option><option value="mains-first">wheel only</option></select></Field>
          <Field label="Surface" id="surface"><select {...form.register('surface')}><option value="any">any</option><option value="asphalt">asphalt</option><option value="grass">grass</option></select></Field>
        </div>
      </fieldset>
      <Field label="Remark" id="remark" error={errors.remark}><textarea rows={2} {...form.register('remark')} /></Field>
      <Field label="Your password" id="password" error={errors.password} hint="Signing is yours alone: it asks again."><input type="password" autoComplete="current-password" {...form.register('password')} /></Field>
      <button type="submit" className="btn btn-primary" disabled={blocked || isSubmitting}>{isSubmitting ? 'Signing' : blocked ? 'Not yet: see what is missing' : 'Sign this checkout'}</button>
    </form>
  );
}
