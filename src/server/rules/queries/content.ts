import { sheetDifferences, type SheetDifference } from '@/core/sheet';
import { CONTENT, type ContentKind } from '../content';
import { rows } from '../../floor/connection';

export interface ContentLine {
  kind: ContentKind;
  key: string;
  name: string;
  version: number;
  origin: string;
  author: string;
  createdAt: string;
  versions: number;
  proposed: string | null;
}
const nameOf = (kind: string, key: string, body: Record<string, unknown>): string =>
  typeof body.name === 'string' ? body.name : kind === key ? kind : key;

/** Everything versioned, the version in force of each, and whether the product proposes another. */
export async function contentList(): Promise<ContentLine[]> {
  const found = await rows<{
    id: string;
    kind: ContentKind;
    key: string;
    version: number;
    origin: string;
    author: string;
    created_at: string;
    body: string;
    versions: number;
    proposed: string | null;
  }>(
    `SELECT c.id, c.kind, c.key, c.version, c.origin, c.author, c.created_at, c.body, (SELECT COUNT(*) FROM content_versions x WHERE x.kind = c.kind AND x.key = c.key) AS versions,
       (SELECT x.id FROM content_versions x WHERE x.kind = c.kind AND x.key = c.key AND x.origin = 'proposed' AND x.version > c.version ORDER BY x.version DESC LIMIT 1) AS proposed
     FROM content_versions c WHERE c.origin <> 'proposed' AND c.version = (SELECT MAX(version) FROM content_versions x WHERE x.kind = c.kind AND x.key = c.key AND x.origin <> 'proposed') ORDER BY c.kind, c.key`,
  );
  return found.map((c) => ({
    kind: c.kind,
    key: c.key,
    name: nameOf(c.kind, c.key, JSON.parse(c.body) as Record<string, unknown>),
    version: c.version,
    origin: c.origin,
    author: c.author,
    createdAt: c.created_at,
    versions: c.versions,
    proposed: c.proposed,
  }));
}

export interface ContentVersion {
  id: string;
  version: number;
  origin: string;
  author: string;
  reason: string;
  createdAt: string;
  body: unknown;
  /** Against the version in force before it. */
  differences: SheetDifference[];
}
/** Every version of one piece, newest first, each with what it changed. */
export async function contentVersions(kind: string, key: string): Promise<ContentVersion[]> {
  if (!Object.hasOwn(CONTENT, kind)) return [];
  const schema = CONTENT[kind as ContentKind];
  const found = await rows<{
    id: string;
    version: number;
    origin: string;
    author: string;
    reason: string;
    created_at: string;
    body: string;
  }>('SELECT * FROM content_versions WHERE kind = :kind AND key = :key ORDER BY version', { kind, key });
  const parsed = found.map((v) => ({ ...v, body: schema.parse(JSON.parse(v.body)) as unknown }));
  return parsed
    .map((v, i): ContentVersion => {
      const before = parsed
        .slice(0, i)
        .filter((x) => x.origin !== 'proposed')
        .at(-1);
      return {
        id: v.id,
        version: v.version,
        origin: v.origin,
        author: v.author,
        reason: v.reason,
        createdAt: v.created_at,
        body: v.body,
        differences: before ? sheetDifferences(before.body, v.body, 'kt') : [],
      };
    })
    .reverse();
}
