import { readdirSync } from 'node:fs';
import { z } from 'zod';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { snake, sqlType } from '@/server/floor/columns';
import { database } from '@/server/floor/connection';
import { allStatements } from '@/server/floor/statement';
import { allTables } from '@/server/floor/table';
import { freshFolder, shell } from './folder';

let close: () => Promise<void>;
beforeAll(async () => {
  ({ close } = await freshFolder());
  for (const room of readdirSync('src/server', { withFileTypes: true }))
    if (room.isDirectory() && readdirSync(`src/server/${room.name}`).includes('tables.ts'))
      await import(`../../src/server/${room.name}/tables.ts`);
  for (const file of readdirSync('src/server/floor/statements'))
    await import(`../../src/server/floor/statements/${file.replace('.ts', '')}.ts`);
});
afterAll(() => close());

interface Column {
  name: string;
  type: string;
  notnull: number;
  pk: number;
  dflt_value: string | null;
}
const columnsOf = async (name: string) =>
  (await shell(`PRAGMA table_info("${name}")`)).rows as unknown as readonly Column[];

describe('tables', () => {
  it('are every table of the migrated schema, and no other', async () => {
    const there = (await shell("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'"))
      .rows;
    // What migrations, the counts of writes and the triggers keep for themselves is not asked for by name.
    const own = ['migrations', 'table_versions', 'changes', 'change_book'];
    expect(
      allTables()
        .map((t) => t.name)
        .sort(),
    ).toEqual(
      there
        .map((r) => String(r.name))
        .filter((n) => !own.includes(n))
        .sort(),
    );
  });

  it('have the columns, kinds, keys and defaults of the migrated schema', async () => {
    for (const table of allTables()) {
      const there = await columnsOf(table.name);
      const told = Object.entries(table.columns as Record<string, z.ZodType>).map(([name, schema]) => ({
        name: snake(name),
        ...sqlType(schema),
      }));
      const kept = there.map((c) => ({ name: c.name, type: c.type, nullable: c.notnull === 0 && c.pk === 0 }));
      const byName = (a: { name: string }, b: { name: string }) => (a.name < b.name ? -1 : 1);
      expect(told.sort(byName), table.name).toEqual(kept.sort(byName));
      const keys = there.filter((c) => c.pk > 0).sort((a, b) => a.pk - b.pk);
      expect(table.key.map(snake), `${table.name} key`).toEqual(keys.map((c) => c.name));
      expect([...table.defaults].map(snake).sort(), `${table.name} defaults`).toEqual(
        there
          .filter((c) => c.dflt_value !== null)
          .map((c) => c.name)
          .sort(),
      );
    }
  });

  it('are models whose columns and links the database knows', async () => {
    for (const table of allTables()) {
      const model = table.model();
      expect(
        Object.values(model.getAttributes()).map((a) => a.field),
        table.name,
      ).toEqual(Object.keys(table.columns).map(snake));
      for (const [as, [other, column, target]] of Object.entries(
        table.links as Record<string, [{ name: string }, string, string?]>,
      )) {
        const to = (await columnsOf(other.name)).map((c) => c.name);
        expect(to, `${table.name}.${as}`).toContain(snake(target ?? 'id'));
        expect(Object.keys(table.columns), `${table.name}.${as}`).toContain(column);
      }
    }
  });

  it('say every foreign key of the schema as a link, but those to the same table', async () => {
    for (const table of allTables()) {
      const keys = (await shell(`PRAGMA foreign_key_list("${table.name}")`)).rows as unknown as readonly {
        table: string;
        from: string;
      }[];
      const links = Object.values(table.links as Record<string, [{ name: string }, string, string?]>);
      for (const key of keys.filter((k) => k.table !== table.name))
        expect(
          links.some(([other, column]) => other.name === key.table && snake(column) === key.from),
          `${table.name}.${key.from} -> ${key.table}`,
        ).toBe(true);
    }
  });
});

describe('named statements', () => {
  it('stand once each, by their own name', () => {
    const names = allStatements().map((s) => s.name);
    expect(new Set(names).size).toBe(names.length);
    expect(names.length).toBeGreaterThan(100);
  });

  it('prepare against the migrated schema, take what they name, and give the columns of their row', async () => {
    for (const s of allStatements()) expect(await wrongWith(s), s.name).toBeNull();
  });

  it('are found out: a misspelt column, one that is not given, one nobody asks for', async () => {
    const of = (sql: string, params: string[] = [], row: z.ZodRawShape = { flownOn: z.string() }) =>
      wrongWith({ sql, params, row: z.object(row) });
    expect(await of('SELECT flown_onn AS flown_on FROM landings')).toContain('flown_onn');
    expect(await of('SELECT flown_on FROM landings', [], { flowOn: z.string() })).toContain('flow_on');
    expect(await of('SELECT flown_on FROM landings WHERE id = :id')).toContain('is given');
    expect(await of('SELECT flown_on FROM landings WHERE id = :id', ['id'])).toBeNull();
  });
});

/** What a statement and the schema do not agree about; null = nothing. */
async function wrongWith(s: { sql: string; params: readonly string[]; row: z.ZodObject }): Promise<string | null> {
  const bare = s.sql.replace(/'(?:[^']|'')*'/g, "''");
  const asked = new Set([...bare.matchAll(/:([a-zA-Z]\w*)/g)].map((m) => m[1] ?? ''));
  if ([...asked].sort().join() !== [...s.params].sort().join())
    return `it asks for ${[...asked].join()} and is given ${s.params.join()}`;
  // A view of it knows its columns without a row; one number stands for whatever it is given.
  const filled = s.sql.replace(/:([a-zA-Z]\w*)/g, (all, name: string) => (asked.has(name) ? '1' : all));
  try {
    await database().sequelize.query(`EXPLAIN ${filled}`);
    await shell(`CREATE VIEW zz AS ${filled}`);
  } catch (error) {
    return String(error);
  }
  const columns = (await columnsOf('zz')).map((c) => c.name);
  await shell('DROP VIEW zz');
  const missing = Object.keys(s.row.shape).filter((name) => !columns.includes(snake(name)));
  if (missing.length > 0) return `it does not give ${missing.map(snake).join()}`;
  return new Set(columns).size === columns.length ? null : `it names a column twice: ${columns.join()}`;
}
