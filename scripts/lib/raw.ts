import { QueryTypes, type Transaction } from 'sequelize';
import { database } from '@/server/floor/connection';

/** Rows of a raw SELECT, for scripts and tests that look at the database beside the product. `t` inside `write()`. */
export async function rows<T extends object>(
  sql: string,
  replacements: Record<string, unknown> = {},
  t?: Transaction,
): Promise<T[]> {
  return database().sequelize.query<T>(sql, { type: QueryTypes.SELECT, replacements, transaction: t ?? null });
}
export async function row<T extends object>(
  sql: string,
  replacements: Record<string, unknown> = {},
  t?: Transaction,
): Promise<T | null> {
  return (await rows<T>(sql, replacements, t))[0] ?? null;
}
