import { NextResponse } from 'next/server';
import { may } from '@/server/auth/permissions';
import { sameOrigin } from '@/server/auth/session';
import { saveTypeSheet } from '@/server/commands/hangar';
import { typeVersions } from '@/server/queries/hangar';
import { caller, nothingHere } from '../../answer';

type Params = { params: Promise<{ code: string }> };

export async function GET(request: Request, { params }: Params) {
  const { code } = await params;
  const newest = (await caller(request)) ? (await typeVersions(code))[0] : undefined;
  if (!newest) return nothingHere();
  const { version, author, reason, createdAt, sheet } = newest;
  return NextResponse.json(
    { code, version, author, reason, createdAt, sheet },
    { headers: { 'content-disposition': `inline; filename="${code}.json"` } },
  );
}

/** Imports a sheet as a new version: the body carries the version it was made from and a reason. */
export async function PUT(request: Request, { params }: Params) {
  const user = await caller(request);
  if (!user || !may.changeHouse(user) || (!request.headers.get('authorization') && !(await sameOrigin())))
    return nothingHere();
  const body = (await request.json().catch(() => null)) as {
    baseVersion?: unknown;
    reason?: unknown;
    sheet?: unknown;
  } | null;
  if (!body) return NextResponse.json({ message: 'Send JSON: {"baseVersion", "reason", "sheet"}.' }, { status: 400 });
  const saved = await saveTypeSheet(user, {
    code: (await params).code,
    baseVersion: body.baseVersion,
    reason: body.reason,
    sheet: body.sheet,
  });
  return saved.ok
    ? NextResponse.json({ version: saved.version, unchanged: saved.unchanged })
    : NextResponse.json({ message: 'Not saved: see problems.', problems: saved.problems }, { status: 400 });
}
