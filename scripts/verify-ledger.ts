/** Checks the whole book against its chain, signatures and signed head. Reads only; names every entry that does not fit. */
import { existsSync } from 'node:fs';
import { closeDatabase } from '@/server/db/connection';
import { dataFolder, inData } from '@/server/data-folder';
import { checkBook } from '@/server/ledger/book';

if (!process.env.JEITO_DATA && existsSync('data/demo/jeito.sqlite') && !existsSync('data/local/jeito.sqlite')) process.env.JEITO_DATA = 'data/demo';
if (!existsSync(inData('jeito.sqlite'))) {
  console.error(`There is no database in ${dataFolder()}. Name the data folder with JEITO_DATA.`);
  process.exit(2);
}
const { entries, problems } = await checkBook();
await closeDatabase();
for (const p of problems) console.log(`entry ${p.seq}${p.id ? ` (${p.id})` : ''}: ${p.what}`);
console.log(problems.length === 0 ? `The book is whole: ${entries} entries.` : `The book does not check: ${problems.length} findings in ${entries} entries.`);
process.exit(problems.length === 0 ? 0 : 1);
