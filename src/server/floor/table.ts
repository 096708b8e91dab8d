import {
  DataTypes,
  type Model,
  type ModelStatic,
  QueryTypes,
  type Transaction,
  Utils,
  type WhereOptions,
} from 'sequelize';
import { z } from 'zod';
import { snake, sqlType } from './columns';
import { database } from './connection';

/**
 * A table: one schema per row, from which come the Sequelize model, the type of a row, and its parsing. Reads give
 * parsed rows, writes take what the program knows; a misspelt column does not compile.
 */
type Columns = Record<string, z.ZodType>;
type Links<S extends Columns> = Record<string, readonly [AnyTable, keyof S & string, string?]>;
// Of any shape: what is asked of it is its own columns and links, which are looked up again by name.
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- variance: a table of one shape is a table
export type AnyTable = Table<any, any, any>;

type RowOf<S extends Columns> = { [K in keyof S]: z.output<S[K]> };
/** What is written: an instant or a day is checked when it is written, so a plain string will do. */
type Said<T> = T extends string & z.core.$brand ? string : T;
type SaidOf<S extends Columns> = { [K in keyof S]: Said<z.output<S[K]>> };
type NullableKeys<S extends Columns> = { [K in keyof S]: null extends z.output<S[K]> ? K : never }[keyof S];
type New<S extends Columns, D extends keyof S> = Partial<SaidOf<S>> & Omit<SaidOf<S>, NullableKeys<S> | D>;

type Asked<T> = Said<T> | null | readonly Said<T>[] | { [operator: symbol]: unknown };
type Where<S extends Columns> = { [K in keyof S]?: Asked<z.output<S[K]>> } & { [operator: symbol]: unknown };

type ColumnsOf<T> = T extends { columns: infer S } ? S : never;
type LinksOf<T> = T extends { links: infer L } ? L : never;
/** Columns of a linked table, or columns with what is linked to it in turn. */
type LinkAsk<T> =
  | readonly (keyof ColumnsOf<T>)[]
  | { pick: readonly (keyof ColumnsOf<T>)[]; where?: object; with?: WithAsk<LinksOf<T>> };
type WithAsk<L> = { readonly [K in keyof L]?: L[K] extends readonly [infer T, ...unknown[]] ? LinkAsk<T> : never };

type Picked<S, P> = S extends Columns
  ? P extends readonly (infer K)[]
    ? { [C in K & keyof S]: z.output<S[C]> }
    : RowOf<S>
  : never;
type LinkRow<T, A> = A extends readonly unknown[]
  ? Picked<ColumnsOf<T>, A>
  : A extends { pick: infer P; with?: infer W }
    ? Picked<ColumnsOf<T>, P> & WithRows<ColumnsOf<T>, LinksOf<T>, W>
    : never;
type WithRows<S, L, W> = W extends object
  ? {
      [K in keyof W & keyof L]: L[K] extends readonly [infer T, infer F, ...unknown[]]
        ? F extends keyof S
          ? S[F] extends z.ZodType
            ? LinkRow<T, W[K]> | (null extends z.output<S[F]> ? null : never)
            : never
          : never
        : never;
    }
  : unknown;

type Sorted<S, L> = keyof S | `-${keyof S & string}` | `${'' | '-'}${keyof L & string}.${string}`;
interface Ask<S extends Columns, L, P, W> {
  where?: Where<S>;
  pick?: P;
  with?: W;
  /** Columns in order; `-` before one turns it round, `link.column` asks a linked table. */
  order?: readonly Sorted<S, L>[];
  limit?: number;
}

type AnyAsk = { pick?: readonly string[]; where?: object; with?: Record<string, unknown> };
const nested = (ask: unknown): AnyAsk => (Array.isArray(ask) ? { pick: ask as string[] } : (ask as AnyAsk));

/** What is used of Sequelize's own generator, which it declares as unknown: conditions, with every value quoted. */
interface Generator {
  whereItemsQuery: (where: object, of: { model: ModelStatic<Model>; prefix: string }) => string;
}
const quoted = (name: string) => `\`${name}\``;

const known = new Map<string, AnyTable>();
/** Every table there is, once its subject is loaded. */
export const allTables = (): AnyTable[] => [...known.values()];

export class Table<S extends Columns, L extends Links<S>, D extends keyof S = never> {
  readonly row: z.ZodObject;
  private readonly picks = new Map<string, z.ZodObject>();

  constructor(
    readonly name: string,
    readonly columns: S,
    readonly links: L,
    readonly key: readonly (keyof S & string)[],
    readonly defaults: readonly D[],
  ) {
    this.row = z.object(columns);
    known.set(name, this);
  }

  /** The Sequelize model of this database; defined once per connection. */
  model(): ModelStatic<Model> {
    const { sequelize } = database();
    if (sequelize.isDefined(this.name)) return sequelize.model(this.name);
    const defaults = new Set<PropertyKey>(this.defaults);
    const made = sequelize.define(
      this.name,
      Object.fromEntries(
        Object.entries(this.columns).map(([name, schema]) => {
          const { type, nullable } = sqlType(schema);
          const primaryKey = this.key.includes(name);
          return [
            name,
            {
              type: DataTypes[type],
              field: snake(name),
              primaryKey,
              allowNull: nullable || primaryKey || defaults.has(name),
            },
          ];
        }),
      ),
      { tableName: this.name, timestamps: false, freezeTableName: true },
    );
    // Sequelize would ask for one more column and call it id.
    if (!('id' in this.columns) && !this.key.includes('id')) made.removeAttribute('id');
    return made;
  }

  private shape(pick: readonly string[] | undefined): z.ZodObject {
    if (!pick) return this.row;
    const name = pick.join();
    const made =
      this.picks.get(name) ?? z.object(Object.fromEntries(pick.map((k) => [k, this.columns[k] as z.ZodType])));
    this.picks.set(name, made);
    return made;
  }

  private conditions(where: object | undefined, alias: string): string {
    if (!where || Reflect.ownKeys(where).length === 0) return '';
    const model = this.model();
    const generator = database().sequelize.getQueryInterface().queryGenerator as Generator;
    return generator.whereItemsQuery(Utils.mapWhereFieldNames(where, model), { model, prefix: alias });
  }

  /**
   * The columns asked for and the joins they need, `link.column` as the name of a column of a link. What `findAll` does
   * for that (copies, hooks, validation) is for models, and costs more than the question.
   */
  private selection(ask: AnyAsk, alias: string, under: string, outer: boolean): { columns: string[]; joins: string[] } {
    const columns = (ask.pick ?? Object.keys(this.columns)).map(
      (c) => `${quoted(alias)}.${quoted(snake(c))} AS ${quoted(under + c)}`,
    );
    const joins: string[] = [];
    for (const [as, more] of Object.entries(ask.with ?? {})) {
      const [other, foreignKey, target = 'id'] = this.links[as] as readonly [AnyTable, string, string?];
      const asked = nested(more);
      // Sequelize's generator quotes a path of two as one name with an arrow.
      const here = `${under}${as}`.replaceAll('.', '->');
      const mayMiss = outer || (sqlType(this.columns[foreignKey] as z.ZodType).nullable && asked.where === undefined);
      const on = other.conditions(asked.where, here);
      const same = `${quoted(alias)}.${quoted(snake(foreignKey))} = ${quoted(here)}.${quoted(snake(target))}`;
      joins.push(
        `${mayMiss ? 'LEFT' : 'INNER'} JOIN ${quoted(other.name)} AS ${quoted(here)}`,
        `ON ${same}${on === '' ? '' : ` AND ${on}`}`,
      );
      const inner = other.selection(asked, here, `${under}${as}.`, mayMiss);
      columns.push(...inner.columns);
      joins.push(...inner.joins);
    }
    return { columns, joins };
  }

  /** A flat row of the database, `link.column` for what is linked, as a parsed row with its links in it. */
  private parsed(raw: Record<string, unknown>, ask: AnyAsk, under = ''): Record<string, unknown> {
    const names = ask.pick ?? Object.keys(this.columns);
    const own = under === '' ? raw : Object.fromEntries(names.map((n) => [n, raw[under + n]]));
    const row: Record<string, unknown> = z.decode(this.shape(ask.pick), own);
    for (const [as, more] of Object.entries(ask.with ?? {})) {
      const [other, foreignKey] = this.links[as] as readonly [AnyTable, string];
      const asked = nested(more);
      const none =
        sqlType(this.columns[foreignKey] as z.ZodType).nullable &&
        (asked.pick ?? []).every((n) => raw[`${under}${as}.${n}`] === null);
      row[as] = none ? null : other.parsed(raw, asked, `${under}${as}.`);
    }
    return row;
  }

  private ordered(order: readonly PropertyKey[]): string {
    const terms = order.map((o) => {
      const said = String(o);
      const turned = said.startsWith('-');
      const path = (turned ? said.slice(1) : said).split('.');
      const of = path.length === 1 ? this.name : path.slice(0, -1).join('->');
      return `${quoted(of)}.${quoted(snake(path.at(-1) ?? ''))} ${turned ? 'DESC' : 'ASC'}`;
    });
    return terms.length === 0 ? '' : `ORDER BY ${terms.join(', ')}`;
  }
  /** Rows, parsed; `t` is needed inside `write()`. */
  async find<
    const P extends readonly (keyof S & string)[] | undefined = undefined,
    const W extends WithAsk<L> | undefined = undefined,
  >(ask: Ask<S, L, P, W> = {}, t?: Transaction): Promise<(Picked<S, P> & WithRows<S, L, W>)[]> {
    const { columns, joins } = this.selection(ask as AnyAsk, this.name, '', false);
    const where = this.conditions(ask.where, this.name);
    const sql = [
      `SELECT ${columns.join(', ')} FROM ${quoted(this.name)}`,
      ...joins,
      where === '' ? '' : `WHERE ${where}`,
      this.ordered(ask.order ?? []),
      ask.limit === undefined ? '' : `LIMIT ${ask.limit}`,
    ];
    const found = await database().sequelize.query<Record<string, unknown>>(sql.join(' '), {
      type: QueryTypes.SELECT,
      transaction: t ?? null,
    });
    // The type follows from the columns asked for; each was parsed by its schema.
    return found.map((raw) => this.parsed(raw, ask as AnyAsk)) as (Picked<S, P> & WithRows<S, L, W>)[];
  }

  /** The first row there is, or null. */
  async first<
    const P extends readonly (keyof S & string)[] | undefined = undefined,
    const W extends WithAsk<L> | undefined = undefined,
  >(ask: Ask<S, L, P, W> = {}, t?: Transaction): Promise<(Picked<S, P> & WithRows<S, L, W>) | null> {
    return (await this.find({ ...ask, limit: 1 }, t))[0] ?? null;
  }

  async exists(where: Where<S>, t?: Transaction): Promise<boolean> {
    return (await this.first({ where, pick: [...this.key] }, t)) !== null;
  }
  count(where: Where<S> = {}, t?: Transaction): Promise<number> {
    return this.model().count({ where: where as WhereOptions, transaction: t ?? null });
  }
  /** The largest number of a column, 0 when there is no row. */
  async highest(column: keyof S & string, where: Where<S>, t?: Transaction): Promise<number> {
    const most: unknown = await this.model().max(column, { where: where as WhereOptions, transaction: t ?? null });
    return typeof most === 'number' ? most : 0;
  }

  private encoded(values: object): Record<string, unknown> {
    const given = Object.entries(values).filter(([, v]) => v !== undefined);
    return Object.fromEntries(
      given.map(([name, value]) => {
        const schema = this.columns[name];
        if (!schema) throw new Error(`${this.name} has no column ${name}`);
        return [name, z.encode(schema, value as never)];
      }),
    );
  }
  async insert(values: New<S, D>, t: Transaction): Promise<void> {
    await this.model().create(this.encoded(values), { transaction: t });
  }
  async insertAll(values: readonly New<S, D>[], t: Transaction): Promise<void> {
    await this.model().bulkCreate(
      values.map((v) => this.encoded(v)),
      { transaction: t },
    );
  }
  /** Inserts, or changes the row of the same key. */
  async put(values: New<S, D>, t: Transaction): Promise<void> {
    await this.model().upsert(this.encoded(values), { transaction: t });
  }
  /** How many rows were changed. */
  async update(values: Partial<SaidOf<S>>, where: Where<S>, t: Transaction): Promise<number> {
    const [changed] = await this.model().update(this.encoded(values), { where: where as WhereOptions, transaction: t });
    return changed;
  }
  /**
   * Makes the rows of a projection what they should be, by their key, and writes only what differs: one row more is one
   * row written.
   */
  async replace(where: Where<S>, wanted: readonly New<S, D>[], t: Transaction): Promise<void> {
    const key = (row: Record<string, unknown>) => this.key.map((k) => row[k]).join();
    const kept = (await this.model().findAll({
      where: where as WhereOptions,
      transaction: t,
      raw: true,
    })) as unknown as Record<string, unknown>[];
    const there = new Map(kept.map((row) => [key(row), row]));
    const should = new Map(wanted.map((row) => this.encoded(row)).map((row) => [key(row), row]));
    const of = (row: Record<string, unknown>) => Object.fromEntries(this.key.map((k) => [k, row[k]])) as WhereOptions;
    for (const [k, row] of there) if (!should.has(k)) await this.model().destroy({ where: of(row), transaction: t });
    const added = [];
    for (const [k, row] of should) {
      const before = there.get(k);
      if (!before) added.push(row);
      else if (Object.entries(row).some(([name, value]) => before[name] !== value))
        await this.model().update(row, { where: of(row), transaction: t });
    }
    if (added.length > 0) await this.model().bulkCreate(added, { transaction: t });
  }
  delete(where: Where<S>, t: Transaction): Promise<number> {
    return this.model().destroy({ where: where as WhereOptions, transaction: t });
  }
}

/** A table, its columns as the program names them. Links name the table a column points to. */
export function table<
  S extends Columns,
  const L extends Links<S> = Record<never, never>,
  const D extends keyof S & string = never,
>(
  name: string,
  columns: S,
  more: { key?: readonly (keyof S & string)[]; links?: L; defaults?: readonly D[] } = {},
): Table<S, L, D> {
  return new Table(name, columns, more.links ?? ({} as L), more.key ?? ['id'], more.defaults ?? []);
}
/** A row of a table, parsed. */
export type Row<T> = T extends { columns: infer S } ? (S extends Columns ? RowOf<S> : never) : never;
/** What is written of a row. */
export type NewRow<T> = T extends Table<infer S, infer _L, infer D> ? New<S, D> : never;
