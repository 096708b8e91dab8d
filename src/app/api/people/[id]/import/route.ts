import { NextResponse } from 'next/server';
import { z } from 'zod';
import { currentUser, sameOrigin } from '@/server/auth/session';
import { importLogbook, lookAtLogbook } from '@/server/commands/persons';

const Form = z.object({
  text: z.string().min(1),
  fileName: z.string().max(200),
  mapping: z.unknown(),
  requestId: z.uuid().nullable(),
});
const MOST_BYTES = 6_000_000;
const refuse = (path: string, message: string, status: number) =>
  NextResponse.json({ ok: false, problems: [{ path, message }] }, { status });

/** A logbook as text: looked at under a mapping, or read in where a request is named. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  if (!user)
    return refuse(
      '',
      'Your session has ended. Sign in in another tab and send again: the file stays chosen here.',
      401,
    );
  if (!(await sameOrigin())) return refuse('', 'There is nothing here for you.', 404);
  const stated = Number(request.headers.get('content-length') ?? 0);
  if (stated > MOST_BYTES) return refuse('file', 'The file is larger than 4 MB. Split it by years.', 413);
  const bytes = Buffer.from(await request.arrayBuffer());
  if (stated > 0 && bytes.length !== stated) return refuse('file', 'The file came in cut short. Send it again.', 400);
  let body: unknown;
  try {
    body = JSON.parse(bytes.toString('utf8'));
  } catch {
    return refuse('file', 'What came in cannot be read. Choose the file again.', 400);
  }
  const parsed = Form.safeParse(body);
  if (!parsed.success) return refuse('file', 'Choose a file with flights in it.', 400);
  const { text, fileName, mapping, requestId } = parsed.data;
  const { id } = await params;
  const answer =
    requestId === null
      ? await lookAtLogbook(user, id, text, mapping)
      : await importLogbook(user, id, fileName, text, mapping, requestId);
  return NextResponse.json(answer, { status: answer.ok ? 200 : 400 });
}
