import { z } from 'zod';

/**
 * What a column holds, as it lies in the database and as the program knows it: each is a Zod schema or codec, read by
 * decoding and written by encoding. The same pieces make the rows of tables and of named statements.
 */
export const text = z.string();
export const whole = z.int();
export const real = z.number();

/** SQLite has no truth: 0 and 1. */
export const flag = z.codec(z.union([z.literal(0), z.literal(1)]), z.boolean(), {
  decode: (n) => n === 1,
  encode: (b) => (b ? 1 : 0),
});

/**
 * A UTC instant and a calendar day. What was kept is given back as it is, so that a row of an earlier release never
 * stops a page; what is written must be one.
 */
const written = (said: string, good: boolean, what: string): string => {
  if (!good) throw new Error(`not ${what}: ${said.slice(0, 40)}`);
  return said;
};
export const instant = z.codec(z.string(), z.string().brand<'instant'>(), {
  decode: (kept) => kept,
  encode: (said) => written(said, /^\d{4}-\d\d-\d\dT/.test(said) && !Number.isNaN(Date.parse(said)), 'an instant'),
});
export const day = z.codec(z.string(), z.string().brand<'day'>(), {
  decode: (kept) => kept,
  encode: (said) => written(said, /^\d{4}-\d\d-\d\d$/.test(said), 'a day'),
});

/** JSON as text, parsed by its schema on the way in and out. */
export const json = <T extends z.ZodType>(schema: T) =>
  z.codec(z.string(), schema, {
    // What the schema takes is checked by the schema itself, right after this.
    decode: (kept) => JSON.parse(kept) as z.input<T>,
    encode: (said) => JSON.stringify(said),
  });

/**
 * JSON of a shape that core computes and that has no schema of its own, or that grew over releases: it is an object (or
 * a list), and of the shape its version had. Whoever reads it fills in what is newer.
 */
export const computed = <T extends object>() =>
  json(z.custom<T>((value) => typeof value === 'object' && value !== null, 'an object or a list'));

/** What a codec or schema says of its column in the database. */
export function sqlType(schema: z.ZodType): { type: 'TEXT' | 'INTEGER' | 'REAL'; nullable: boolean } {
  if (schema instanceof z.ZodNullable) return { ...sqlType(schema.unwrap() as z.ZodType), nullable: true };
  const stored = schema instanceof z.ZodCodec ? (schema.def.in as z.ZodType) : schema;
  if (stored instanceof z.ZodUnion) return { type: 'INTEGER', nullable: false };
  if (stored instanceof z.ZodNumber) return { type: stored.format === 'safeint' ? 'INTEGER' : 'REAL', nullable: false };
  return { type: 'TEXT', nullable: false };
}

/** `checkoutId` in the program is `checkout_id` in the database. */
export const snake = (name: string): string => name.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);
