import './lib/help.mjs';
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';

/**
 * How hard the code is to read, counted from its own syntax tree: the longest functions and components, ternaries in
 * ternaries, casts, forms sent by hand and lines of guards, each with where they are.
 *
 *   npm run counts -- [FOLDER] [--list ternaries|casts|forms|guards|functions|components]
 */
const args = process.argv.slice(2);
const listed = args.includes('--list') ? args[args.indexOf('--list') + 1] : undefined;
const folder = args.find((a, i) => !a.startsWith('--') && args[i - 1] !== '--list') ?? '.';

interface Found {
  at: string;
  size: number;
}
const found: Record<'functions' | 'components' | 'ternaries' | 'casts' | 'forms' | 'guards', Found[]> = {
  functions: [],
  components: [],
  ternaries: [],
  casts: [],
  forms: [],
  guards: [],
};

const bare = (node: ts.Node): ts.Node => (ts.isParenthesizedExpression(node) ? bare(node.expression) : node);
const isConst = (type: ts.TypeNode): boolean => ts.isTypeReferenceNode(type) && type.getText() === 'const';
/** A line that only looks whether an input can be computed with. */
const GUARD = /^(needNumbers|needPositive|isNumber)$/;

function nameOf(node: ts.Node): string {
  if ((ts.isFunctionDeclaration(node) || ts.isMethodDeclaration(node)) && node.name) return node.name.getText();
  const parent = node.parent;
  return ts.isVariableDeclaration(parent) || ts.isPropertyAssignment(parent) ? parent.name.getText() : '';
}

function read(path: string): void {
  const text = readFileSync(path, 'utf8');
  // In a file without elements an arrow with a type of its own is no element.
  const kind = path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS;
  const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true, kind);
  const line = (at: number): number => source.getLineAndCharacterOfPosition(at).line + 1;
  const put = (kind: keyof typeof found, node: ts.Node, size: number, name = ''): void => {
    found[kind].push({ at: `${relative(folder, path)}:${line(node.getStart())} ${name}`.trim(), size });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isFunctionLike(node) && 'body' in node && node.body) {
      const name = nameOf(node);
      const size = line(node.end) - line(node.getStart()) + 1;
      if (name !== '') put(path.endsWith('.tsx') && /^[A-Z]/.test(name) ? 'components' : 'functions', node, size, name);
    }
    if (ts.isConditionalExpression(node))
      for (const arm of [node.whenTrue, node.whenFalse])
        if (ts.isConditionalExpression(bare(arm))) put('ternaries', arm, 1);
    if (ts.isAsExpression(node) && !isConst(node.type)) put('casts', node, 1, node.type.getText().slice(0, 40));
    if (ts.isNonNullExpression(node)) put('casts', node, 1, '!');
    if (ts.isCallExpression(node)) {
      const called = node.expression.getText();
      if (called === 'runAction' && !path.endsWith('action-form.ts')) put('forms', node, 1);
      if (GUARD.test(called)) put('guards', node, 1, called);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
}

function walk(dir: string): void {
  for (const entry of readdirSync(dir, { withFileTypes: true })) {
    const path = join(dir, entry.name);
    if (entry.isDirectory()) walk(path);
    else if (/\.tsx?$/.test(entry.name)) read(path);
  }
}
walk(join(folder, 'src'));

const longest = (kind: keyof typeof found): Found[] => found[kind].sort((a, b) => b.size - a.size);
const over = (kind: keyof typeof found, lines: number): number => found[kind].filter((f) => f.size > lines).length;
const top = (kind: keyof typeof found): string => {
  const [first] = longest(kind);
  return first ? `${first.size} lines: ${first.at}` : 'none';
};
if (listed !== undefined && listed in found)
  for (const f of longest(listed as keyof typeof found)) console.log(f.size > 1 ? `${f.size} ${f.at}` : f.at);
else {
  console.log(`longest function    ${top('functions')}`);
  console.log(`functions > 60      ${over('functions', 60)}`);
  console.log(`longest component   ${top('components')}`);
  console.log(`components > 150    ${over('components', 150)}`);
  console.log(`nested ternaries    ${found.ternaries.length}`);
  console.log(`casts               ${found.casts.length}`);
  console.log(`forms sent by hand  ${found.forms.length}`);
  console.log(`lines of guards     ${found.guards.length}`);
}
