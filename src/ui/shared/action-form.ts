'use client';
import { useRouter } from 'next/navigation';
import { type FormEvent, useRef, useState } from 'react';
import {
  type DefaultValues,
  type FieldValues,
  type Path,
  type Resolver,
  type UseFormRegister,
  useForm,
} from 'react-hook-form';
import type { z } from 'zod';
import { type ActionProblem, type ActionResult, runAction, showProblems, useDraft } from './forms';

interface Options<V extends FieldValues, A extends object> {
  /**
   * Brings the command's own schema: what the server would refuse is said before it is sent, in the same words. It comes
   * with the first sending, so that a page that is only read does not carry a schema library.
   */
  schema: () => Promise<z.ZodType<unknown, V>>;
  /** The whole form of the command, with the ids that nobody types. */
  defaults: DefaultValues<V>;
  /** Ids that are new for every request, so that one sent twice is one and the next is another. */
  fresh?: () => Partial<V>;
  action: (form: unknown) => Promise<ActionResult<A>>;
  /** Under which name typed text survives a reload and a lost network; absent = it lives as long as the page. */
  draft?: string;
  /** After it was done; absent = the page is read again and the typed text cleared. */
  done?: (answer: { ok: true } & A) => void;
}

/** Checks by the schema once it is here; where it cannot be brought the server's answer is as good. */
const checkedBy =
  <V extends FieldValues>(schema: () => Promise<z.ZodType<unknown, V>>): Resolver<V> =>
  async (values, context, options) => {
    const found = await Promise.all([import('@hookform/resolvers/zod'), schema()]).catch(() => null);
    if (!found) return { values, errors: {} };
    const [{ zodResolver }, read] = found;
    // It hands on what was typed: the server reads the form by the same schema itself.
    return zodResolver(read as z.ZodType<V, V>, undefined, { raw: true })(values, context, options);
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
    resolver: checkedBy(o.schema),
  });
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const fields = useRef(new Set<string>());
  // Ids and versions are the page's own: only what was typed comes back.
  const draft = useDraft(form, o.draft ?? '', [], () => new Set([...fields.current].map((f) => f.split('.')[0] ?? f)));
  const register: UseFormRegister<V> = (name, options) => {
    fields.current.add(name);
    return form.register(name, options);
  };
  const { errors, isSubmitting } = form.formState;
  /** @param given what a button adds to what was typed: an answer, a verdict */
  const send = async (given: Partial<V> = {}): Promise<void> => {
    for (const [name, value] of Object.entries(given)) form.setValue(name as Path<V>, value as V[Path<V>]);
    await form.handleSubmit(
      async (values) => {
        const answer = await runAction(() => o.action(values));
        if (!answer.ok) {
          if (answer.base !== undefined && 'base' in values)
            form.setValue('base' as Path<V>, answer.base as V[Path<V>]);
          setProblems(showProblems(form, answer.problems));
          return;
        }
        setProblems([]);
        draft.clear();
        if (o.done) return o.done(answer);
        form.reset({ ...o.defaults, ...o.fresh?.() } as V);
        router.refresh();
      },
      (wrong) =>
        // What is wrong with something nobody typed belongs to the whole form.
        setProblems(
          Object.entries(wrong)
            .filter(([name]) => !fields.current.has(name))
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
