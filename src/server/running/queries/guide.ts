import { existsSync, readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';

/** The pages that come with the application, as they lie in `docs/`. */
const docs = (...parts: string[]): string => path.join(process.cwd(), 'docs', ...parts);
/** Beside the guide, what a chief instructor is referred to. */
const BESIDE: Record<string, string> = { operations: 'operations.md', law: 'law.md' };

/** Names of the pages of the guide, as in their addresses. */
export const guidePages = (): string[] =>
  existsSync(docs('guide'))
    ? readdirSync(docs('guide'))
        .filter((f) => f.endsWith('.md') && f !== 'README.md')
        .map((f) => f.slice(0, -3))
        .concat(Object.keys(BESIDE))
    : [];

/** A page as Markdown; null = there is none of this name. The empty name is the list of all. */
export function guideText(name: string): string | null {
  if (name !== '' && !guidePages().includes(name)) return null;
  const file = BESIDE[name] === undefined ? docs('guide', `${name || 'README'}.md`) : docs(BESIDE[name]);
  return existsSync(file) ? readFileSync(file, 'utf8') : null;
}

/** A picture of the guide; null = there is none of this name. */
export const guidePicture = (name: string): Buffer | null =>
  existsSync(docs('screenshots')) && readdirSync(docs('screenshots')).includes(name)
    ? readFileSync(docs('screenshots', name))
    : null;
