import { may } from '@/server/floor/auth/permissions';
import { door, fileAnswer } from '@/server/door/route';
import { contentVersions } from '@/server/rules/queries/content';

/** One piece of content as a file: exported, changed elsewhere, and brought back in its editor. */
export const GET = door<'signed-in', { kind: string; key: string }>(
  { who: 'signed-in' },
  async ({ user, params: { kind, key }, query }) => {
    const versions = may.seeEverybody(user) ? await contentVersions(kind, key) : [];
    const wanted = Number(query.get('version'));
    const found = versions.find((v) => (wanted > 0 ? v.version === wanted : v.origin !== 'proposed'));
    return found
      ? fileAnswer(
          JSON.stringify({ schema: 'content/1', kind, key, version: found.version, body: found.body }, null, 2),
          { type: 'application/json', name: `${key}-v${found.version}.json` },
        )
      : null;
  },
);
