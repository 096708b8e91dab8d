import type { Transaction } from 'sequelize';
import { type FlownCount, countFlown } from '@/core/assess';
import { rows } from '../../floor/connection';

interface Row {
  of: string | null;
  kind: string;
  shown: number;
  n: number;
}
/**
 * What was flown, counted by the one function that counts, for each value of a column of the landings.
 * @param of the column, or `''` for one count of all
 * @param where a condition over the landings `l`
 */
export async function flownBy(
  of: 'l.checkout_id' | "''",
  where: string,
  values: Record<string, unknown> = {},
  t?: Transaction,
): Promise<Map<string, FlownCount>> {
  const found = await rows<Row>(
    `SELECT ${of} AS "of", l.kind, l.shown, COUNT(*) AS n FROM landings l WHERE ${where} GROUP BY 1, 2, 3`,
    values,
    t,
  );
  const keys = [...new Set(found.map((f) => f.of ?? ''))];
  return new Map(
    keys.map((key) => [
      key,
      countFlown(
        found
          .filter((f) => (f.of ?? '') === key)
          .map((f) => ({ kind: f.kind, demonstration: f.shown === 1, times: f.n })),
      ),
    ]),
  );
}
