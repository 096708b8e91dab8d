import { sheetDifferences, type SheetDifference } from '@/core/sheet';
import { CONTENT, type ContentKind } from '../content';
import * as ask from '../../floor/statements/rules';
import { ContentVersions } from '../tables';

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
  const found = await ask.contentList.all();
  return found.map((c) => ({
    kind: c.kind as ContentKind,
    key: c.key,
    name: nameOf(c.kind, c.key, JSON.parse(c.body) as Record<string, unknown>),
    version: c.version,
    origin: c.origin,
    author: c.author,
    createdAt: c.createdAt,
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
  const found = await ContentVersions.find({ where: { kind, key }, order: ['version'] });
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
        createdAt: v.createdAt,
        body: v.body,
        differences: before ? sheetDifferences(before.body, v.body, 'kt') : [],
      };
    })
    .reverse();
}
