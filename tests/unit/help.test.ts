import { existsSync, readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { LAB_PAGES } from '@/domain/lab-pages';
import { describe, expect, it } from 'vitest';
import { GLOSSARY } from '@/ui/help/glossary';
import { hintsFrom } from '@/ui/help/hint-cookie';
import { ALL_SCREENS, screenOf } from '@/ui/help/screens';

const read = (file: string) => readFileSync(file, 'utf8');
const under = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((f) => path.join(folder, f));
/** What screens are made of, in one text: entities and line breaks as they are read. */
const SCREENS = ['app', 'ui', 'domain', 'core']
  .flatMap((room) => under(`src/${room}`))
  .filter((f) => /\.tsx?$/.test(f) && !f.startsWith('src/ui/help/screens'))
  .map(read)
  .join('\n')
  .replaceAll('&apos;', '\u2019')
  .replace(/\s+/g, ' ');
const stands = (label: string): boolean => SCREENS.includes(label);
const GUIDE = readdirSync('docs/guide').map((f) => [f, read(path.join('docs/guide', f))] as const);

describe('the help of a screen', () => {
  it('is there for every page of the office, and no two share one by accident', () => {
    const pages = under('src/app/(office)')
      .filter((f) => f.endsWith('page.tsx'))
      .map((f) =>
        f
          .replace('src/app/(office)', '')
          .replace('/page.tsx', '')
          .replace(/\[\w+\]/g, 'x1'),
      );
    // One page of code, one screen for each model of the lab.
    pages.push(...LAB_PAGES.map((p) => `/lab/${p}`));
    expect(pages.length).toBeGreaterThan(40);
    const nobodys = pages.filter((p) => p !== '/board' && screenOf(p, true).key === 'board');
    expect(nobodys).toEqual([]);
    expect([screenOf('/board', true).key, screenOf('/board', false).key]).toEqual(['board', 'home']);
    const used = new Set([...pages.flatMap((p) => [screenOf(p, true).key]), 'home']);
    expect(ALL_SCREENS.map((s) => s.key).filter((k) => !used.has(k))).toEqual([]);
    expect(new Set(ALL_SCREENS.map((s) => s.key)).size).toBe(ALL_SCREENS.length);
    for (const { key } of ALL_SCREENS) expect([...hintsFrom(key).seen]).toEqual([key]);
  });
  it('is five lines, each short enough to be read, and its words in bold stand on screens', () => {
    for (const s of ALL_SCREENS) {
      expect([s.key, s.lines.length]).toEqual([s.key, 5]);
      for (const line of s.lines) {
        expect(line.length, line).toBeLessThanOrEqual(118);
        expect(line, line).toMatch(/[.?]$/);
        expect(line.split('*').length % 2, line).toBe(1);
        for (const [i, part] of line.split('*').entries())
          if (i % 2 === 1) expect([part, stands(part)]).toEqual([part, true]);
      }
      if (s.guide) expect(existsSync(`docs/guide/${s.guide}.md`), s.guide).toBe(true);
    }
  });
});

describe('the guide', () => {
  it('has its words in bold from the screens', () => {
    const strange = GUIDE.flatMap(([file, text]) =>
      [...text.matchAll(/\*\*([^*]+)\*\*/g)]
        .map((m) => (m[1] ?? '').replace(/\s+/g, ' '))
        .filter((label) => label !== 'bold' && label !== '?' && !stands(label))
        .map((label) => `${file}: ${label}`),
    );
    expect(strange).toEqual([]);
  });
  it('has a picture on every page of a stage, and links and pictures that are there', () => {
    for (const [file, text] of GUIDE) {
      const targets = [...text.matchAll(/\]\(([^)#]+)\)/g)].map((m) => m[1] ?? '');
      for (const t of targets) expect(existsSync(path.join('docs/guide', t)), `${file}: ${t}`).toBe(true);
      if (['open', 'brief', 'fly', 'debrief', 'sign'].includes(file.replace('.md', '')))
        expect(targets.filter((t) => t.endsWith('.png')).length, file).toBeGreaterThan(0);
    }
  });
});

describe('the glossary', () => {
  it('explains each word once, in the order of the alphabet', () => {
    const all = GLOSSARY.flatMap((g) => g.terms.map((t) => t.term));
    expect(new Set(all).size).toBe(all.length);
    for (const g of GLOSSARY) {
      const names = g.terms.map((t) => t.term);
      expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b, 'en')));
      for (const t of g.terms) expect(t.text, t.term).toMatch(/\.$/);
    }
  });
});
