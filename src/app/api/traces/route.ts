import { NextResponse } from 'next/server';
import { currentUser, sameOrigin } from '@/server/auth/session';
import { addTrace } from '@/server/commands/traces';
import { MAX_BYTES } from '@/server/traces/files';

/** A recording of one flight, as a form: `sortie`, `file`, and what was said of its columns. */
export async function POST(request: Request) {
  const user = await currentUser();
  if (!user)
    return NextResponse.json(
      {
        problems: [
          {
            path: '',
            message: 'Your session has ended. Sign in in another tab and send again: the file stays chosen here.',
          },
        ],
      },
      { status: 401 },
    );
  if (!(await sameOrigin()))
    return NextResponse.json({ problems: [{ path: '', message: 'There is nothing here for you.' }] }, { status: 404 });
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BYTES)
    return NextResponse.json(
      { problems: [{ path: 'file', message: `The file has more than ${MAX_BYTES / 1e6} MB: cut it to the flight.` }] },
      { status: 413 },
    );
  const form = await request.formData().catch(() => null);
  const file = form?.get('file');
  const sortieId = form?.get('sortie');
  if (!(file instanceof File) || typeof sortieId !== 'string')
    return NextResponse.json({ problems: [{ path: 'file', message: 'Choose a file.' }] }, { status: 400 });
  const said = form?.get('mapping');
  let mapping: unknown = null;
  try {
    mapping = typeof said === 'string' && said !== '' ? JSON.parse(said) : null;
  } catch {
    return NextResponse.json(
      {
        problems: [{ path: 'mapping', message: 'What was said of the columns cannot be read. Choose the file again.' }],
      },
      { status: 400 },
    );
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
}
