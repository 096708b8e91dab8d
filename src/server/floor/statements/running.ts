import { real } from '../columns';
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
