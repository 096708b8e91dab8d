import { readFileSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import fontkit from '@pdf-lib/fontkit';
import { describe, expect, it } from 'vitest';

/** Every character the product may print, from the sources of its texts. */
function characters(): Map<string, string> {
  const found = new Map<string, string>();
  const walk = (dir: string): void => {
    for (const name of readdirSync(dir)) {
      const file = path.join(dir, name);
      if (statSync(file).isDirectory()) walk(file);
      else if (/\.(tsx?|json)$/.test(name) && !/\.test\./.test(name)) {
        const source = readFileSync(file, 'utf8')
          .replace(/\/\*[\s\S]*?\*\//g, '')
          .replace(/^\s*\/\/.*$/gm, '')
          .replace(/\\u([0-9a-f]{4})/gi, (_, h: string) => String.fromCharCode(parseInt(h, 16)));
        for (const c of source) if (c > '~') found.set(c, file);
      }
    }
  };
  ['src/ui', 'src/app', 'src/core', 'src/domain', 'src/server', 'content', 'demo'].forEach(walk);
  return found;
}

describe('shipped fonts', () => {
  it.each([
    'b612/files/b612-latin-400-normal.woff2',
    'b612/files/b612-latin-700-normal.woff2',
    'b612-mono/files/b612-mono-latin-400-normal.woff2',
  ])('%s has every glyph of the texts', (file) => {
    const font = fontkit.create(readFileSync(path.join('node_modules/@fontsource', file))) as unknown as {
      hasGlyphForCodePoint: (c: number) => boolean;
    };
    const missing = [...characters()]
      .filter(([c]) => !font.hasGlyphForCodePoint(c.codePointAt(0) ?? 0))
      .map(([c, where]) => `${c} (U+${(c.codePointAt(0) ?? 0).toString(16)}) in ${where}`);
    expect(missing).toEqual([]);
  });
});
