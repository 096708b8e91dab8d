import { told } from '@/server/door/sentences';
import { NextResponse } from 'next/server';
import { addTrace } from '@/server/traces/commands/traces';
import { door, refusal } from '@/server/door/route';
import { MAX_BYTES } from '@/server/traces/files';

/** A recording of one flight, as a form: `sortie`, `file`, and what was said of its columns. */
export const POST = door(
  {
    who: 'signed-in',
    writes: true,
    mostBytes: () => MAX_BYTES,
    heavy: 'analysis',
    signIn: told('session-ended-file'),
  },
  async ({ user, form }) => {
    const sent = await form();
    const file = sent.get('file');
    const sortieId = sent.get('sortie');
    if (!(file instanceof File) || typeof sortieId !== 'string') return refusal(400, told('choose-file'), 'file');
    const said = sent.get('mapping');
    let mapping: unknown = null;
    try {
      mapping = typeof said === 'string' && said !== '' ? JSON.parse(said) : null;
    } catch {
      return refusal(400, told('columns-unreadable'), 'mapping');
    }
    const answer = await addTrace(user, {
      sortieId,
      name: file.name,
      bytes: Buffer.from(await file.arrayBuffer()),
      mapping,
    });
    return NextResponse.json(answer, {
      status: answer.ok ? 200 : answer.problems.some((p) => p.path === 'sortieId') ? 404 : 400,
    });
  },
);
