import { instant, text, whole } from '../floor/columns';
import { table } from '../floor/table';

export const ContentVersions = table('content_versions', {
  id: text,
  kind: text,
  key: text,
  version: whole,
  hash: text,
  origin: text,
  body: text,
  author: text,
  reason: text,
  createdAt: instant,
});
