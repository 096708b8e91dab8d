'use client';
import { useRouter } from 'next/navigation';
import { type FormEvent, useEffect, useState } from 'react';
import {
  type DefaultValues,
  type FieldValues,
  type Path,
  type Resolver,
  type UseFormRegister,
  type UseFormReturn,
  get,
  set,
  useForm,
} from 'react-hook-form';
import type { z } from 'zod';
import { type ActionProblem, type ActionResult, runAction, showProblems } from './forms';

interface Base<V extends FieldValues, A extends object> {
  /** The whole form, with the ids that nobody types. */
  defaults: DefaultValues<V>;
  /** Ids that are new for every request, so that one sent twice is one and the next is another. */
  fresh?: () => Partial<V>;
  action: (form: unknown) => Promise<ActionResult<A>>;
  /** Under which name typed text survives a reload and a lost network; absent = it lives as long as the page. */
  draft?: string;
  /** After it was done; absent = the page is read again and the typed text cleared. */
  done?: (answer: { ok: true } & A, values: V) => void;
  /** After the server has refused it: where the page may have moved on meanwhile. */
  refused?: (answer: Extract<ActionResult<A>, { ok: false }>) => void;
  /** Values kept with the draft though they are chosen or are rows: they are restored before anything typed. */
  also?: readonly Path<V>[];
}
/** The fields are those of the command. */
interface Straight<V> {
  /**
   * Brings the command's own schema: what the server would refuse is said before it is sent, in the same words. It comes
   * with the first sending, so that a page that is only read does not carry a schema library.
   */
  schema: () => Promise<z.ZodType<unknown, V>>;
  as?: undefined;
  fieldOf?: undefined;
}
/** The fields are typed text, and the command's form is made of it. */
interface Made<V> {
  schema: () => Promise<z.ZodType>;
  as: (values: V) => unknown;
  /** The field on the page of a path of the command's form, where it has another name. */
  fieldOf?: Readonly<Record<string, string>>;
}
type Options<V extends FieldValues, A extends object> = Base<V, A> & (Straight<V> | Made<V>);

/** Keeps what is typed in this tab, by field, until it was sent; no name = it lives as long as the page. */
function useTyped<V extends FieldValues>(
  form: UseFormReturn<V>,
  name: string | undefined,
  typed: ReadonlyMap<string, boolean>,
  also: readonly Path<V>[],
): { clear: () => void } {
  const key = `jeito-typed:${name ?? ''}`;
  useEffect(() => {
    if (name === undefined) return;
    const kept = JSON.parse(sessionStorage.getItem(key) ?? '{}') as Record<string, V[Path<V>]>;
    for (const field of also) if (field in kept) form.setValue(field, kept[field] as V[typeof field]);
    for (const [field, value] of Object.entries(kept)) if (typed.get(field)) form.setValue(field as Path<V>, value);
    const subscription = form.watch(() => {
      const fields = [...also, ...[...typed].flatMap(([field, is]) => (is ? [field as Path<V>] : []))];
      sessionStorage.setItem(key, JSON.stringify(Object.fromEntries(fields.map((f) => [f, form.getValues(f)]))));
    });
    return () => subscription.unsubscribe();
    // The form, its fields and the key are stable for the life of the page.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return { clear: () => sessionStorage.removeItem(key) };
}

/** Checks by the schema once it is here; where it cannot be brought the server's answer is as good. */
const checkedBy =
  <V extends FieldValues, A extends object>({ schema, as, fieldOf }: Options<V, A>): Resolver<V> =>
  async (values, context, options) => {
    const found = await Promise.all([import('@hookform/resolvers/zod'), schema()]).catch(() => null);
    if (!found) return { values, errors: {} };
    const [{ zodResolver }, read] = found;
    // It hands on what was typed: the server reads the form by the same schema itself.
    if (!as) return zodResolver(read as z.ZodType<V, V>, undefined, { raw: true })(values, context, options);
    const { error } = read.safeParse(as(values));
    const errors = {};
    for (const issue of error?.issues ?? []) {
      const path = issue.path.join('.');
      const field = fieldOf?.[path] ?? path;
      if (get(errors, field) === undefined) set(errors, field, { type: issue.code, message: issue.message });
    }
    return error ? { values: {}, errors } : { values, errors: {} };
  };

/**
 * The one way a form is sent: checked by the schema of its command, sent once however often it is tapped, its problems
 * put beside their fields, and nothing typed lost by any refusal.
 */
export function useActionForm<V extends FieldValues, A extends object = object>(o: Options<V, A>) {
  const router = useRouter();
  const [defaults] = useState(() => ({ ...o.defaults, ...o.fresh?.() }) as DefaultValues<V>);
  const form = useForm<V>({
    defaultValues: defaults,
    resolver: checkedBy(o),
  });
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  /** The fields on the page; is each typed, or chosen of a list? */
  const [fields] = useState(() => new Map<string, boolean>());
  const register: UseFormRegister<V> = (name, options) => {
    const field = form.register(name, options);
    return {
      ...field,
      ref: (element: unknown) => {
        // A password is kept nowhere; what is chosen of a list may be gone from it when the page comes back; what was typed is still right.
        const secret = element instanceof HTMLInputElement && element.type === 'password';
        fields.set(name, !secret && !(element instanceof HTMLSelectElement));
        field.ref(element);
      },
    };
  };
  const draft = useTyped(form, o.draft, fields, o.also ?? []);
  const { errors, isSubmitting } = form.formState;
  /** @param given what a button adds to what was typed: an answer, a verdict */
  const send = async (given: Partial<V> = {}): Promise<void> => {
    for (const [name, value] of Object.entries(given)) form.setValue(name as Path<V>, value as V[Path<V>]);
    await form.handleSubmit(
      async (values) => {
        const answer = await runAction(() => o.action(o.as ? o.as(values) : values));
        if (!answer.ok) {
          if (answer.base !== undefined && 'base' in values)
            form.setValue('base' as Path<V>, answer.base as V[Path<V>]);
          const problems = answer.problems.map((p) => ({ ...p, path: o.fieldOf?.[p.path] ?? p.path }));
          setProblems(showProblems(form, problems));
          o.refused?.(answer);
          return;
        }
        setProblems([]);
        if (o.done) o.done(answer, values);
        else {
          form.reset({ ...o.defaults, ...o.fresh?.() } as V);
          router.refresh();
        }
        draft.clear();
      },
      (wrong) =>
        // What is wrong with something nobody typed belongs to the whole form.
        setProblems(
          Object.entries(wrong)
            .filter(([name]) => ![...fields.keys()].some((f) => f === name || f.startsWith(`${name}.`)))
            .map(([path, e]) => ({
              path,
              message: typeof e?.message === 'string' ? e.message : 'This cannot be sent as it is.',
            })),
        ),
    )();
  };
  const error = (name: Path<V>): { message?: string } | undefined => {
    const found = name
      .split('.')
      .reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], errors);
    return found as { message?: string } | undefined;
  };
  return {
    form,
    register,
    error,
    problems,
    /** Before something else is asked of the same fields: what was wrong with the last sending is no longer said. */
    forget: () => {
      form.clearErrors();
      setProblems([]);
    },
    busy: isSubmitting,
    send,
    props: {
      noValidate: true,
      onSubmit: (e: FormEvent) => {
        e.preventDefault();
        void send();
      },
    },
  };
}
