'use client';
import { useEffect } from 'react';
import type { FieldValues, Path, UseFormReturn } from 'react-hook-form';

export interface ActionProblem {
  path: string;
  message: string;
}
export type ActionResult<T = object> =
  | ({ ok: true } & T)
  | {
      ok: false;
      problems: ActionProblem[];
      /** Somebody else changed it meanwhile: what stands now. Sent with the next try, it says that this was seen. */
      base?: string | null;
      /** Of a booking: the nearest time everybody is free. */
      nearest?: { from: string; to: string } | null;
    };

/** Puts problems beside their fields; returns those that belong to none. */
export function showProblems<F extends FieldValues>(
  form: UseFormReturn<F>,
  problems: readonly ActionProblem[],
): ActionProblem[] {
  const rest: ActionProblem[] = [];
  // A field may have several: all of them are said, or mending one would only bring up the next.
  const of = new Map<string, string[]>();
  for (const p of problems) {
    if (p.path && form.getFieldState(p.path as Path<F>) !== undefined && p.path in flat(form.getValues()))
      of.set(p.path, [...(of.get(p.path) ?? []), p.message]);
    else rest.push(p);
  }
  [...of].forEach(([path, messages], i) =>
    form.setError(path as Path<F>, { message: [...new Set(messages)].join(' ') }, { shouldFocus: i === 0 }),
  );
  return rest;
}

function flat(values: object, prefix = ''): Record<string, true> {
  return Object.entries(values).reduce<Record<string, true>>((all, [k, v]) => {
    all[prefix + k] = true;
    return typeof v === 'object' && v !== null && !Array.isArray(v)
      ? { ...all, ...flat(v as object, `${prefix}${k}.`) }
      : all;
  }, {});
}

/** Keeps what is typed in this tab until the form is done, so that a reload or a failed send loses nothing. */
export function useDraft<F extends FieldValues>(
  form: UseFormReturn<F>,
  key: string,
  skip: readonly string[] = [],
): { clear: () => void } {
  const name = `jeito-draft:${key}`;
  useEffect(() => {
    const kept = sessionStorage.getItem(name);
    if (kept) form.reset({ ...form.getValues(), ...(JSON.parse(kept) as F) }, { keepDefaultValues: true });
    const subscription = form.watch((values) => {
      sessionStorage.setItem(
        name,
        JSON.stringify(Object.fromEntries(Object.entries(values).filter(([k]) => !skip.includes(k)))),
      );
    });
    return () => subscription.unsubscribe();
    // The form object and the key are stable for the life of the page.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [name]);
  return { clear: () => sessionStorage.removeItem(name) };
}

/** A number as typed, comma or point; an empty field is none, which a schema refuses with its own words. */
export const typedNumber = (text: string): number => (text.trim() === '' ? NaN : Number(text.replace(',', '.')));
/** A number as typed where the field may stay empty. */
export const typedOrNull = (text: string): number | null => (text.trim() === '' ? null : typedNumber(text));

/** Runs an action; a lost network or an older page becomes a message, and what was typed stays. */
export async function runAction<T>(action: () => Promise<ActionResult<T>>): Promise<ActionResult<T>> {
  try {
    return await action();
  } catch (error) {
    const old = error instanceof Error && /server action/i.test(error.message);
    return {
      ok: false,
      problems: [
        {
          path: '',
          message: old
            ? 'Jeito was updated meanwhile. Reload the page: what you typed is kept.'
            : 'The server could not be reached. Check the network and send again: what you typed is kept.',
        },
      ],
    };
  }
}
