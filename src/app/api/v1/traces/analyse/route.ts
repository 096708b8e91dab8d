import { NextResponse } from 'next/server';
import { MappingForm } from '@/server/traces/commands/traces';
import { BadBody } from '@/server/door/body';
import { door } from '@/server/door/route';
import { plainBytes, MAX_BYTES, textOf } from '@/server/traces/files';
import { runTrace } from '@/server/traces/thread';
import { TraceContext } from '@/domain/trace';

const wrong = (message: string, problems?: { path: string; message: string }[], status = 400) =>
  NextResponse.json({ message, ...(problems ? { problems } : {}) }, { status });

/**
 * A file and a context in, an analysis out: nothing is kept. As a form with `file`, `context` and, if columns are not
 * told by their header, `mapping`; or as JSON with `text`, `context`, `mapping`.
 */
export const POST = door(
  { who: 'caller', scope: 'traces', mostBytes: () => MAX_BYTES, heavy: 'analysis' },
  async (call) => {
    let sent: { text: string; context: unknown; mapping: unknown };
    try {
      sent = call.request.headers.get('content-type')?.startsWith('application/json')
        ? await fromJson(call.bytes)
        : await fromForm(call.form);
    } catch (error) {
      if (error instanceof BadBody) throw error;
      return wrong(
        error instanceof SyntaxError
          ? 'The context or the mapping is not JSON.'
          : error instanceof Error
            ? error.message
            : 'The request cannot be read.',
      );
    }
    const context = TraceContext.safeParse(sent.context);
    if (!context.success)
      return wrong(
        'The context does not fit trace-context/1.',
        context.error.issues.map((i) => ({ path: i.path.join('.'), message: i.message })),
      );
    const mapping =
      sent.mapping === null ? { success: true as const, data: null } : MappingForm.safeParse(sent.mapping);
    if (!mapping.success) return wrong('The mapping does not fit: {"header": {"channel": "...", "unit": null}}.');
    const done = await runTrace({ text: sent.text, mapping: mapping.data, context: context.data });
    return done.ok ? NextResponse.json(done.analysis) : wrong(`${done.code}: ${done.message}`, undefined, 422);
  },
);

async function fromJson(bytes: () => Promise<Buffer>) {
  const body = JSON.parse((await bytes()).toString('utf8')) as { text?: unknown; context?: unknown; mapping?: unknown };
  if (typeof body?.text !== 'string')
    throw new Error('Send {"text": "...", "context": {...}}, or a form with file and context.');
  return { text: body.text, context: body.context, mapping: body.mapping ?? null };
}

async function fromForm(form: () => Promise<FormData>) {
  const sent = await form();
  const file = sent.get('file');
  if (!(file instanceof File)) throw new Error('Send a form with file and context.');
  const json = async (name: string): Promise<unknown> => {
    const v = sent.get(name);
    const text = v instanceof File ? await v.text() : v;
    return text ? JSON.parse(text) : null;
  };
  return {
    context: await json('context'),
    mapping: await json('mapping'),
    text: textOf(await plainBytes(Buffer.from(await file.arrayBuffer()))),
  };
}
