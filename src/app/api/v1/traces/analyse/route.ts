import { NextResponse } from 'next/server';
import { MappingForm } from '@/server/commands/traces';
import { plainBytes, MAX_BYTES, textOf } from '@/server/traces/files';
import { runTrace } from '@/server/traces/thread';
import { TraceContext } from '@/domain/trace';
import { caller, nothingHere } from '../../answer';

const wrong = (message: string, problems?: { path: string; message: string }[], status = 400) =>
  NextResponse.json({ message, ...(problems ? { problems } : {}) }, { status });

/**
 * A file and a context in, an analysis out: nothing is kept. As a form with `file`, `context` and, if columns are not
 * told by their header, `mapping`; or as JSON with `text`, `context`, `mapping`.
 */
export async function POST(request: Request) {
  if (!(await caller(request))) return nothingHere();
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BYTES)
    return wrong(`The file has more than ${MAX_BYTES / 1e6} MB: cut it to the flight.`, undefined, 413);
  let text: string;
  let said: { context: unknown; mapping: unknown };
  try {
    if (request.headers.get('content-type')?.startsWith('application/json')) {
      const body = (await request.json()) as { text?: unknown; context?: unknown; mapping?: unknown };
      if (typeof body.text !== 'string')
        return wrong('Send {"text": "...", "context": {...}}, or a form with file and context.');
      text = body.text;
      said = { context: body.context, mapping: body.mapping ?? null };
    } else {
      const form = await request.formData();
      const file = form.get('file');
      const json = (name: string): unknown => {
        const v = form.get(name);
        return typeof v === 'string' && v !== '' ? JSON.parse(v) : null;
      };
      if (!(file instanceof File)) return wrong('Send a form with file and context.');
      said = {
        context:
          form.get('context') instanceof File
            ? JSON.parse(await (form.get('context') as File).text())
            : json('context'),
        mapping: json('mapping'),
      };
      text = textOf(await plainBytes(Buffer.from(await file.arrayBuffer())));
    }
  } catch (error) {
    return wrong(
      error instanceof SyntaxError
        ? 'The context or the mapping is not JSON.'
        : error instanceof Error
          ? error.message
          : 'The request cannot be read.',
    );
  }
  const context = TraceContext.safeParse(said.context);
  if (!context.success)
    return wrong(
      'The context does not fit trace-context/1.',
      context.error.issues.map((i) => ({ path: i.path.join('.'), message: i.message })),
    );
  const mapping = said.mapping === null ? { success: true as const, data: null } : MappingForm.safeParse(said.mapping);
  if (!mapping.success) return wrong('The mapping does not fit: {"header": {"channel": "...", "unit": null}}.');
  const done = await runTrace({ text, mapping: mapping.data, context: context.data });
  return done.ok ? NextResponse.json(done.analysis) : wrong(`${done.code}: ${done.message}`, undefined, 422);
}
