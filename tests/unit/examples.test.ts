/**
 * The examples in the documentation of core are run: what stands behind `//` is what comes out, to the digits written.
 * An example that names something made elsewhere (a sheet, a standard) is read by people only.
 */
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

interface Example {
  of: string;
  call: string;
  result: string;
}
const DOCUMENTED = /\/\*\*((?:(?!\*\/)[\s\S])*)\*\/\nexport (?:async )?(?:function|const) (\w+)/g;

function examplesIn(file: string): Example[] {
  return [...readFileSync(file, 'utf8').matchAll(DOCUMENTED)].flatMap(([, doc = '', of = '']) =>
    doc
      .split('@example')
      .slice(1)
      .flatMap((block) => {
        const lines = block
          .split(/\n\s*\* ?@/)[0]
          ?.split('\n')
          .map((l) => l.replace(/^\s*\* ?/, '').trim());
        const text = (lines ?? []).join(' ').replaceAll(' // ', '\n// ').trim();
        const [call = '', ...result] = text.split('\n// ');
        return result.length === 0 ? [] : [{ of, call: call.trim(), result: result.join(' ').trim() }];
      }),
  );
}

/** What was written, each number as near as its five digits say. */
function near(written: unknown): unknown {
  if (typeof written === 'number') return expect.closeTo(written, 4 - Math.ceil(Math.log10(Math.abs(written) + 1e-9)));
  if (Array.isArray(written)) return written.map(near);
  if (typeof written !== 'object' || written === null) return written;
  return Object.fromEntries(Object.entries(written).map(([k, v]) => [k, near(v)]));
}

const rooms = readdirSync('src/core').filter((r) => existsSync(`src/core/${r}/index.ts`));
const scope: Record<string, unknown> = Object.assign(
  {},
  ...(await Promise.all(rooms.map((r) => import(`../../src/core/${r}/index.ts`) as Promise<object>))),
) as Record<string, unknown>;
/** @returns the value of an expression; undefined when it names what is not here, or is no expression */
function valueOf(expression: string, names: Record<string, unknown>): { value: unknown } | undefined {
  try {
    return {
      value: new Function(...Object.keys(names), `return (${expression});`)(...Object.values(names)) as unknown,
    };
  } catch (error) {
    if (error instanceof ReferenceError || error instanceof SyntaxError) return undefined;
    throw error;
  }
}

describe('examples of core', () => {
  const files = rooms.flatMap((r) =>
    (readdirSync(`src/core/${r}`, { recursive: true }) as string[])
      .filter((f) => f.endsWith('.ts'))
      .map((f) => `src/core/${r}/${f}`),
  );
  const run = files.flatMap((file) =>
    examplesIn(file).flatMap((e) => {
      const written = e.result.startsWith('throws') ? undefined : valueOf(e.result, {});
      const found = written && e.of in scope ? valueOf(e.call, scope) : undefined;
      return written && found ? [{ call: e.call, found: found.value, written: written.value }] : [];
    }),
  );
  it('are many', () => expect(run.length).toBeGreaterThan(120));
  it.each(run)('$call', ({ found, written }) => expect(found).toEqual(near(written)));
});
