/** Puts the tables of `docs/checks` in their places, between the marks. `npm run checks`. */
import { readFileSync, writeFileSync } from 'node:fs';
import { worked } from './cases';
import { reachTable } from './reach';
import { table, twins } from './table';

const put = (file: string, name: string, text: string): void => {
  const before = readFileSync(file, 'utf8');
  const mark = new RegExp(`(<!-- ${name} -->\\n\\n)[^]*?(<!-- end -->)`);
  if (!mark.test(before)) throw new Error(`${file} has no place for ${name}`);
  writeFileSync(
    file,
    before.replace(mark, (_all, open: string, close: string) => `${open}${text}\n${close}`),
  );
};
const all = worked();
put('docs/checks/brief-numbers.md', 'brief', table(all));
put('docs/checks/brief-numbers.md', 'twins', twins(all));
put('docs/checks/reach.md', 'reach', reachTable());
