import Papa from 'papaparse';
import { coder } from '@/domain/coded';
import { PASTE_WORDS, type PasteProblem } from './paste-words';

const wrong = coder(PASTE_WORDS);
const MOST_ROWS = 200;
/** One column of a table: `empty` = the cell may be. */
export interface PasteColumn {
  key: string;
  name: string;
  kind: 'number' | 'text';
  empty: boolean;
}
export type PastedRow = Record<string, number | string | null>;

const plainName = (s: string): string => s.toLowerCase().replace(/[^a-z0-9]/g, '');
/** A column of which the header says the name or the key, with or without a unit behind it. */
const named = (column: PasteColumn, header: string): boolean =>
  [column.name, column.key].some((n) => plainName(header).startsWith(plainName(n)));
const number = (cell: string): number | 'comma' | null => {
  const text = cell.replace(/\s/g, '').replace(/^\u2212/, '-');
  if (/^-?\d{1,3}(,\d{3})+$/.test(text)) return 'comma';
  const point = text.replace(',', '.');
  return /^-?(\d+\.?\d*|\.\d+)$/.test(point) ? Number(point) : null;
};

/**
 * The rows of a table copied from a spreadsheet: tabs, semicolons or commas. A first line that names the columns says
 * their order; without one they stand as on the sheet. Nothing is taken while any cell is wrong.
 * @param text what was pasted
 * @param columns of the table, in the order of the sheet
 * @returns rows, or everything that is wrong with them
 * @example pasteRows('45', [{ key: 'ias', name: 'indicated', kind: 'number', empty: false }]).rows // [{ ias: 45 }]
 */
export function pasteRows(
  text: string,
  columns: readonly PasteColumn[],
): { rows: PastedRow[]; problems: PasteProblem[] } {
  const parsed = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', delimitersToGuess: ['\t', ';', ','] });
  const lines = parsed.data.map((cells) => cells.map((c) => c.trim()));
  const first = lines[0] ?? [];
  const byName = columns.map((c) => first.findIndex((h) => named(c, h)));
  const header = first.length > 0 && first.every((c) => number(c) === null) && byName.some((i) => i >= 0);
  const order = header && byName.every((i) => i >= 0) ? byName : columns.map((_, i) => i);
  const body = header ? lines.slice(1) : lines;
  if (body.length === 0) return { rows: [], problems: [wrong('paste-empty')] };
  if (body.length > MOST_ROWS) return { rows: [], problems: [wrong('paste-many', { most: MOST_ROWS })] };
  const problems: PasteProblem[] = [];
  const needed = Math.max(...order) + 1;
  const rows = body.map((cells, n): PastedRow => {
    const line = n + (header ? 2 : 1);
    if (cells.length < needed) {
      problems.push(
        wrong('paste-columns', { line, have: cells.length, columns: columns.map((c) => c.name).join(', ') }),
      );
      return {};
    }
    return Object.fromEntries(
      columns.map((c, i) => {
        const cell = cells[order[i] ?? i] ?? '';
        if (cell === '' && !c.empty) problems.push(wrong('paste-missing', { line, column: c.name }));
        if (cell === '' || c.kind === 'text') return [c.key, cell === '' && c.kind === 'number' ? null : cell];
        const value = number(cell);
        if (value === 'comma') problems.push(wrong('paste-comma', { line, column: c.name, text: cell.slice(0, 20) }));
        if (value === null) problems.push(wrong('paste-number', { line, column: c.name, text: cell.slice(0, 20) }));
        return [c.key, typeof value === 'number' ? value : null];
      }),
    );
  });
  return problems.length > 0 ? { rows: [], problems } : { rows, problems };
}
