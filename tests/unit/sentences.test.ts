/** Logic asks codes. What is made to be read (a sentence, a line of a screen) is never searched for its words. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

const OF_TEXT = new Set(['startsWith', 'endsWith', 'includes', 'indexOf', 'search', 'match']);
const OF_EXPRESSION = new Set(['test', 'exec']);
/** Two words beside each other, or one with the space before or after it. */
const PROSE = /[a-z]{2,}[,;:]? [a-z]{2,}|^ [a-z]{2,}|[a-z]{2,} $/i;
/** In an expression also words to choose between. */
const WORDS = /[a-z]{4,}\|[a-z]{4,}/;

/** Words of others, that have no code: by file, with whose they are. */
const FOREIGN: Readonly<Record<string, string>> = {
  'src/ui/shared/forms.ts': 'what Next throws when the page is older than the server',
  'src/core/plan/check.ts': 'the reason of a waiver, as a programme’s author wrote it',
  'src/core/circuit/pace.ts': 'the name of a flow, as the sheet’s author wrote it',
};

function searched(file: string, text: string): string[] {
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, false, ts.ScriptKind.TSX);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) && ts.isPropertyAccessExpression(node.expression)) {
      const { name, expression: of } = node.expression;
      for (const part of OF_TEXT.has(name.text) ? node.arguments : OF_EXPRESSION.has(name.text) ? [of] : []) {
        const prose = ts.isStringLiteralLike(part)
          ? PROSE.test(part.text)
          : ts.isRegularExpressionLiteral(part) && (PROSE.test(part.text) || WORDS.test(part.text));
        if (prose) found.push(`${file}: ${node.getText(source).slice(0, 100)}`);
      }
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}
/** Formats of files and reports are words of their own. */
const READERS = /^src\/core\/(trace\/read|logbook|wind)\//;

describe('no logic reads a sentence', () => {
  it('in the product', () => {
    const files = readdirSync('src', { recursive: true, encoding: 'utf8' })
      .filter((f) => /\.tsx?$/.test(f))
      .map((f) => path.join('src', f));
    expect(files.length).toBeGreaterThan(300);
    const found = files
      .filter((f) => !READERS.test(f) && !(f in FOREIGN))
      .flatMap((f) => searched(f, readFileSync(f, 'utf8')));
    expect(found).toEqual([]);
    for (const f of Object.keys(FOREIGN)) expect(searched(f, readFileSync(f, 'utf8')), f).not.toEqual([]);
  });
  it('a planted one is found, a code is not', () => {
    const of = (text: string) => searched('x.ts', text).length;
    expect(of("if (why.startsWith('the last time it was outside')) repeat();")).toBe(1);
    expect(of('const red = / on (land|water)/.test(restore);')).toBe(1);
    expect(of('const bad = /missed|invented/.test(word);')).toBe(1);
    expect(of("if (line.includes(' saved')) keep();")).toBe(1);
    expect(of("if (key.startsWith('tailwheel') || cls.endsWith('-sea') || roles.includes('chief')) go();")).toBe(0);
  });
});
