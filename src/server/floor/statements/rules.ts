import { real, text } from '../columns';
import { statement } from '../statement';
import { ContentVersions } from '../../rules/tables';

export const saveContent = statement('rules.saveContent', {
  params: ['kind', 'key'],
  sql: `SELECT MAX(version) AS version FROM content_versions WHERE kind = :kind AND key = :key`,
  row: { version: real },
});

export const contentList = statement('rules.contentList', {
  params: [],
  sql: `SELECT c.id, c.kind, c.key, c.version, c.origin, c.author, c.created_at, c.body, (SELECT COUNT(*) FROM content_versions x WHERE x.kind = c.kind AND x.key = c.key) AS versions,
       (SELECT x.id FROM content_versions x WHERE x.kind = c.kind AND x.key = c.key AND x.origin = 'proposed' AND x.version > c.version ORDER BY x.version DESC LIMIT 1) AS proposed
     FROM content_versions c WHERE c.origin <> 'proposed' AND c.version = (SELECT MAX(version) FROM content_versions x WHERE x.kind = c.kind AND x.key = c.key AND x.origin <> 'proposed') ORDER BY c.kind, c.key`,
  row: {
    id: ContentVersions.columns.id,
    kind: ContentVersions.columns.kind,
    key: ContentVersions.columns.key,
    version: ContentVersions.columns.version,
    origin: ContentVersions.columns.origin,
    author: ContentVersions.columns.author,
    createdAt: ContentVersions.columns.createdAt,
    body: ContentVersions.columns.body,
    versions: real,
    proposed: text.nullable(),
  },
});

/** The aerodrome entered first, in its newest version. */
export const homeAerodrome = statement('rules.homeAerodrome', {
  params: [],
  sql: `SELECT id FROM content_versions WHERE kind = 'aerodrome' AND origin <> 'proposed' AND key = (SELECT key FROM content_versions WHERE kind = 'aerodrome' ORDER BY created_at, rowid LIMIT 1) ORDER BY version DESC LIMIT 1`,
  row: { id: text },
});

/** Every aerodrome, each in its newest version. */
export const aerodromes = statement('rules.aerodromes', {
  params: [],
  sql: `SELECT id FROM content_versions c WHERE kind = 'aerodrome' AND origin <> 'proposed' AND version = (SELECT MAX(version) FROM content_versions WHERE kind = 'aerodrome' AND key = c.key AND origin <> 'proposed')`,
  row: { id: text },
});
