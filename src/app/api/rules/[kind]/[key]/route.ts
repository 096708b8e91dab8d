import { NextResponse } from 'next/server';
import { may } from '@/server/auth/permissions';
import { currentUser } from '@/server/auth/session';
import { contentVersions } from '@/server/queries/content';

/** One piece of content as a file: exported, changed elsewhere, and brought back in its editor. */
export async function GET(request: Request, { params }: { params: Promise<{ kind: string; key: string }> }) {
  const user = await currentUser();
  const { kind, key } = await params;
  const versions = user && may.seeEverybody(user) ? await contentVersions(kind, key) : [];
  const wanted = Number(new URL(request.url).searchParams.get('version'));
  const found = versions.find((v) => (wanted > 0 ? v.version === wanted : v.origin !== 'proposed'));
  if (!found) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  return new NextResponse(
    JSON.stringify({ schema: 'content/1', kind, key, version: found.version, body: found.body }, null, 2),
    {
      headers: {
        'content-type': 'application/json',
        'content-disposition': `attachment; filename="${key}-v${found.version}.json"`,
        'cache-control': 'private, no-store',
      },
    },
  );
}
