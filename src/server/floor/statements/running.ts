import { real, text } from '../columns';
import { statement } from '../statement';
import { Traces } from '../../traces/tables';

export const restore = statement('running.restore', {
  params: [],
  sql: `SELECT DISTINCT hash FROM traces`,
  row: { hash: Traces.columns.hash },
});

export const ledgerThere = statement('running.ledgerThere', {
  params: [],
  sql: `SELECT COUNT(*) AS n FROM ledger`,
  row: { n: real },
});

export const newestMigration = statement('running.newestMigration', {
  params: [],
  sql: `SELECT name FROM migrations ORDER BY name DESC LIMIT 1`,
  row: { name: text },
});
