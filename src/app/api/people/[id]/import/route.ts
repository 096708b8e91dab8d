import { told } from '@/server/door/sentences';
import { NextResponse } from 'next/server';
import { z } from 'zod';
import { importLogbook, lookAtLogbook } from '@/server/people/commands/persons';
import { door, refusal } from '@/server/door/route';

const Form = z.object({
  text: z.string().min(1),
  fileName: z.string().max(200),
  mapping: z.unknown(),
  requestId: z.uuid().nullable(),
});
const MOST_BYTES = 6_000_000;

/** A logbook as text: looked at under a mapping, or read in where a request is named. */
export const POST = door<'signed-in', { id: string }>(
  {
    who: 'signed-in',
    writes: true,
    mostBytes: () => MOST_BYTES,
    heavy: 'logbook',
    signIn: told('session-ended-file'),
  },
  async ({ user, params, json }) => {
    const body = await json();
    if (body === undefined) return refusal(400, told('import-unreadable'), 'file');
    const parsed = Form.safeParse(body);
    if (!parsed.success) return refusal(400, told('no-flights'), 'file');
    const { text, fileName, mapping, requestId } = parsed.data;
    const answer =
      requestId === null
        ? await lookAtLogbook(user, params.id, text, mapping)
        : await importLogbook(user, params.id, fileName, text, mapping, requestId);
    return NextResponse.json(answer, { status: answer.ok ? 200 : 400 });
  },
);
