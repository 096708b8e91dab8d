import { existsSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { recompute } from '../../scripts/checks/recompute';
import { shown } from '../../scripts/checks/shown';
import { reachTable } from '../../scripts/checks/reach';
import { table, twins } from '../../scripts/checks/table';
import { worked } from '../../scripts/checks/cases';

/** Words and whole numbers must be the same; the rest to a hundred-thousandth, a stepped sum to a hundredth. */
const differs = (name: string, a: unknown, b: unknown): boolean =>
  typeof a === 'number' && typeof b === 'number'
    ? Math.abs(a - b) > (name.includes('drift-down') ? 0.02 : 1e-4 * Math.max(1, Math.abs(b)))
    : a !== b;

describe('every number of the brief, worked out a second time', () => {
  const all = worked();
  it('uses nothing of the application’s own computation', () => {
    const imports = [
      ...readFileSync('scripts/checks/recompute.ts', 'utf8').matchAll(/^import (type )?.*from '(.*)'/gm),
    ];
    expect(imports.length).toBeGreaterThan(0);
    for (const [, type, from] of imports) expect([type, from?.includes('/core/')]).toEqual(['type ', false]);
  });
  it.each(all.map((c) => [c.name, c.day, c] as const))('%s, %s day', (_name, _day, c) => {
    const mine = recompute(c);
    const theirs = shown(c.brief, c.choices.runwayEnd);
    const off = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])].filter((n) =>
      differs(n, mine[n], theirs[n]),
    );
    expect(Object.fromEntries(off.map((n) => [n, [mine[n], theirs[n]]]))).toEqual({});
    expect(Object.keys(mine).length).toBeGreaterThan(50);
  });
  it('stands in the table of the ledger as it is', () => {
    const file = 'docs/checks/brief-numbers.md';
    const text = existsSync(file) ? readFileSync(file, 'utf8') : '';
    expect(text).toContain(table(all));
    expect(text).toContain(twins(all));
    expect(readFileSync('docs/checks/reach.md', 'utf8')).toContain(reachTable());
  });
});
