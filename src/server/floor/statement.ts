import { QueryTypes, type Transaction } from 'sequelize';
import { z } from 'zod';
import { snake } from './columns';
import { database } from './connection';

/**
 * A named statement: SQL that counts, sums or looks over several tables at once, with the names of what it is given and
 * the schema of a row. `flown_on` in the database is `flownOn` in the row. All of them stand in `statements/`, where a
 * test prepares each against the migrated schema and holds its columns to its row.
 */
type Given = string | number | boolean | null | readonly (string | number)[];

const known: Statement<string, z.ZodRawShape>[] = [];
export const allStatements = (): readonly Statement<string, z.ZodRawShape>[] => known;

export class Statement<P extends string, S extends z.ZodRawShape> {
  readonly row: z.ZodObject<S>;
  private readonly names: (readonly [name: string, column: string])[];

  constructor(
    readonly name: string,
    readonly params: readonly P[],
    readonly sql: string,
    shape: S,
  ) {
    this.row = z.object(shape);
    this.names = Object.keys(shape).map((n) => [n, snake(n)] as const);
    known.push(this as unknown as Statement<string, z.ZodRawShape>);
  }

  /** Rows, parsed; `t` is needed inside `write()`. */
  async all(
    ...[given, t]: [P] extends [never] ? [Record<string, never>?, Transaction?] : [Record<P, Given>, Transaction?]
  ): Promise<z.output<z.ZodObject<S>>[]> {
    const found = await database().sequelize.query<Record<string, unknown>>(this.sql, {
      type: QueryTypes.SELECT,
      replacements: given ?? {},
      transaction: t ?? null,
    });
    return found.map((raw) => {
      const named: Record<string, unknown> = {};
      for (const [name, column] of this.names) named[name] = raw[column];
      return z.decode(this.row, named as z.input<z.ZodObject<S>>);
    });
  }
  /** The first row there is, or null. */
  async one(
    ...given: [P] extends [never] ? [Record<string, never>?, Transaction?] : [Record<P, Given>, Transaction?]
  ): Promise<z.output<z.ZodObject<S>> | null> {
    return (await this.all(...given))[0] ?? null;
  }
}
export const statement = <const P extends string, S extends z.ZodRawShape>(
  name: string,
  of: { params: readonly P[]; sql: string; row: S },
): Statement<P, S> => new Statement(name, of.params, of.sql, of.row);
/** A row of a statement, parsed. */
export type RowOf<T> = T extends Statement<string, infer S> ? z.output<z.ZodObject<S>> : never;
