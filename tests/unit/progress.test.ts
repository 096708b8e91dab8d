import { describe, expect, it } from 'vitest';

interface Told {
  told: <T>(what: string, work: () => Promise<T>, how: { every: number; say: (line: string) => void }) => Promise<T>;
}
const setup = '../../scripts/lib/setup.mjs';
const { told } = (await import(setup)) as Told;
const after = <T>(ms: number, value: T) => new Promise<T>((done) => setTimeout(() => done(value), ms));

describe('what a long start says', () => {
  it('is said at once, again while it lasts, and at its end', async () => {
    const lines: string[] = [];
    expect(await told('Building', () => after(120, 7), { every: 25, say: (l) => lines.push(l) })).toBe(7);
    expect(lines[0]).toBe('Building ...');
    expect(lines.slice(1, -1).length).toBeGreaterThanOrEqual(2);
    for (const line of lines.slice(1, -1)) expect(line).toMatch(/^ {2}still: building, \d+ s$/);
    expect(lines.at(-1)).toMatch(/^ {2}done in \d+ s$/);
  });
  it('says a failure too, and then no more', async () => {
    const lines: string[] = [];
    const failing = () => after(10, 0).then(() => Promise.reject(new Error('no network')));
    await expect(told('Unpacking', failing, { every: 5, say: (l) => lines.push(l) })).rejects.toThrow('no network');
    const said = lines.length;
    expect(lines.at(-1)).toMatch(/^ {2}failed after/);
    await after(30, 0);
    expect(lines).toHaveLength(said);
  });
});
