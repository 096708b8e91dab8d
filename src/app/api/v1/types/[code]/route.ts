import { told } from '@/server/door/sentences';
import { NextResponse } from 'next/server';
import { may } from '@/server/floor/auth/permissions';
import { saveTypeSheet } from '@/server/hangar/commands/hangar';
import { door, refusal } from '@/server/door/route';
import { typeVersions } from '@/server/hangar/queries/hangar';

type Code = { code: string };

export const GET = door<'caller', Code>({ who: 'caller', scope: 'hangar' }, async ({ params: { code } }) => {
  const newest = (await typeVersions(code))[0];
  if (!newest) return null;
  const { version, author, reason, createdAt, sheet } = newest;
  const answer = NextResponse.json({ code, version, author, reason, createdAt, sheet });
  answer.headers.set('content-disposition', `inline; filename="${code.replace(/[^\w.-]/g, '_')}.json"`);
  return answer;
});

/** Imports a sheet as a new version: the body carries the version it was made from and a reason. */
export const PUT = door<'caller', Code>(
  { who: 'caller', scope: 'hangar-write', writes: true },
  async ({ user, params: { code }, json }) => {
    if (!may.changeHouse(user)) return null;
    const body = await json();
    if (typeof body !== 'object' || body === null) return refusal(400, told('not-a-sheet'));
    const { baseVersion, reason, sheet } = body as { baseVersion?: unknown; reason?: unknown; sheet?: unknown };
    const saved = await saveTypeSheet(user, { code, baseVersion, reason, sheet });
    return saved.ok
      ? NextResponse.json({ version: saved.version, unchanged: saved.unchanged })
      : NextResponse.json({ message: 'Not saved: see problems.', problems: saved.problems }, { status: 400 });
  },
);
