import { NextResponse } from 'next/server';
import type { z } from 'zod';
import type { Scope } from '@/domain/scopes';
import { door } from '../door/route';
import type { CurrentUser } from '../floor/auth/permissions';
import { zodProblems } from '../floor/result';

/** What was asked behind the question mark, or why it does not fit. */
export function asked<Q extends z.ZodType>(
  query: URLSearchParams,
  schema: Q,
): { ok: true; value: z.output<Q> } | { ok: false; refusal: NextResponse } {
  const parsed = schema.safeParse(Object.fromEntries(query));
  if (parsed.success) return { ok: true, value: parsed.data };
  const { problems } = zodProblems(parsed.error);
  const message = problems.map((p) => (p.path === '' ? p.message : `${p.path}: ${p.message}`)).join(' ');
  return { ok: false, refusal: NextResponse.json({ message, problems }, { status: 400 }) };
}

/** A list, by its scope and what may be asked of it. */
export const reads = <Q extends z.ZodType>(
  scope: Scope,
  schema: Q,
  read: (user: CurrentUser, query: z.output<Q>) => Promise<object>,
) =>
  door({ who: 'caller', scope }, async ({ user, query }) => {
    const q = asked(query, schema);
    return q.ok ? NextResponse.json(await read(user, q.value)) : q.refusal;
  });

/** One thing by its id. */
export const readsOne = (scope: Scope, read: (user: CurrentUser, id: string) => Promise<object | null>) =>
  door<'caller', { id: string }>({ who: 'caller', scope }, async ({ user, params }) => {
    const found = await read(user, params.id);
    return found && NextResponse.json(found);
  });
