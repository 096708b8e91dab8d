import { z } from 'zod';
import { CHANGE_KIND_LIST } from '@/domain/scopes';
import { text, whole } from '../columns';
import { statement } from '../statement';

export const changeBook = statement('interface.changeBook', {
  params: [],
  sql: 'SELECT id FROM change_book',
  row: { id: text },
});
/** The newest version given, of whatever kind. */
export const newestChange = statement('interface.newestChange', {
  params: [],
  sql: 'SELECT MAX(version) AS n FROM changes',
  row: { n: whole.nullable() },
});
/** What is nobody's own (sheets, rules) is everybody's; the rest is told to its pilot, or to who sees everybody. */
export const changesSince = statement('interface.changesSince', {
  params: ['since', 'kinds', 'own', 'most'],
  sql: `SELECT version, kind, thing FROM changes
    WHERE version > :since AND kind IN (:kinds)
      AND (:own IS NULL OR pilot_id = :own OR kind IN ('type', 'airframe', 'rules'))
    ORDER BY version LIMIT :most`,
  row: { version: whole, kind: z.enum(CHANGE_KIND_LIST), thing: text },
});
/** Of each kind the newest thing this reader sees. */
export const newestOfKinds = statement('interface.newestOfKinds', {
  params: ['own'],
  sql: `SELECT kind, thing, MAX(version) AS version FROM changes
    WHERE :own IS NULL OR pilot_id = :own OR kind IN ('type', 'airframe', 'rules') GROUP BY kind`,
  row: { version: whole, kind: z.enum(CHANGE_KIND_LIST), thing: text },
});
