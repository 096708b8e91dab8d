import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

/** The rooms of the server as the arrows are held by, as the page says them, and as they lie on the disk. */
const rooms = Object.entries(JSON.parse(readFileSync('src/server/rooms.json', 'utf8')) as Record<string, string[]>);
const names = rooms.map(([name]) => name);

describe('rooms of the server', () => {
  it('are the folders there are, each with its header', () => {
    const folders = readdirSync('src/server', { withFileTypes: true }).filter((e) => e.isDirectory());
    expect(folders.map((f) => f.name).sort()).toEqual([...names].sort());
    for (const name of names) expect(existsSync(`src/server/${name}/README.md`), name).toBe(true);
  });

  it('use only rooms that stand before them', () => {
    for (const [i, [name, uses]] of rooms.entries())
      for (const use of uses) expect(names.slice(0, i), `${name} uses ${use}`).toContain(use);
  });

  it('are told by docs/rooms.md as they are held', () => {
    const told = [...readFileSync('docs/rooms.md', 'utf8').matchAll(/^\| \[`(\w+)`\].*\| ([^|]*) \|$/gm)];
    expect(told.map(([, name, uses]) => [name, [...(uses ?? '').matchAll(/`(\w+)`/g)].map((m) => m[1])])).toEqual(
      rooms,
    );
  });
});
