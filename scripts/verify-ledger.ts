/**
 * Checks the ledger of a data folder, or a file away from it.
 *   npm run verify-ledger                                 the whole ledger of the data folder, against its chain,
 * signatures and signed head
 *   npm run verify-ledger -- FILE [--key KEY.pem]...      a PDF of an entry, the JSON attached to it, or an export of
 * the ledger; no network, no database
 * The public key is published at /api/ledger/key; it is trusted because you keep it, not because the file carries it.
 * Ends 0 when everything holds, 1 when something does not, 2 when it cannot be read, 3 when the file fits together but
 * its key is not one you gave.
 */
import './lib/help.mjs';
import { entryProblemWords } from '@/core/ledger';
import { existsSync, readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { closeDatabase } from '@/server/floor/connection';
import { checkLedger } from '@/server/ledger/entries';
import { idOf, publicKeys } from '@/server/ledger/keys';
import { attachedJson } from '@/server/ledger/attached';
import { checkDocument } from '@/server/ledger/verify';
import { needFolder } from './lib/command';

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { key: { type: 'string', multiple: true } },
});
if (!process.env.JEITO_DATA && existsSync('data/demo/jeito.sqlite') && !existsSync('data/local/jeito.sqlite'))
  process.env.JEITO_DATA = 'data/demo';
const [file] = positionals;
process.exit(file ? await checkFile(file, values.key ?? []) : await checkFolder());

async function checkFolder(): Promise<number> {
  needFolder();
  const { entries, problems, doubts } = await checkLedger();
  await closeDatabase();
  for (const p of problems) console.log(`entry ${p.seq}${p.id ? ` (${p.id})` : ''}: ${entryProblemWords(p)}`);
  for (const d of doubts) console.log(`note: entry ${d.seq}${d.id ? ` (${d.id})` : ''} ${entryProblemWords(d)}`);
  console.log(
    problems.length === 0
      ? `The ledger is whole: ${entries} entries.`
      : `The ledger does not check: ${problems.length} findings in ${entries} entries.`,
  );
  return problems.length === 0 ? 0 : 1;
}

async function checkFile(name: string, keyFiles: readonly string[]): Promise<number> {
  const missing = [name, ...keyFiles].find((f) => !existsSync(f));
  if (missing) {
    console.error(`There is no file ${missing}.`);
    return 2;
  }
  const given = Object.fromEntries(keyFiles.map((f) => readFileSync(f, 'utf8')).map((pem) => [idOf(pem), pem]));
  const trusted = keyFiles.length > 0 ? given : publicKeys();
  const bytes = readFileSync(name);
  const json = bytes.subarray(0, 5).toString() === '%PDF-' ? attachedJson(bytes) : bytes.toString('utf8');
  if (json === null) {
    console.error('This PDF carries no signed entry.');
    return 2;
  }
  const found = checkDocument(json, trusted);
  for (const p of found.problems) console.log(p);
  if (found.line) console.log(found.line);
  if (found.what === 'unreadable') return 2;
  const named = found.what === 'entry' ? 'The entry' : `The ledger of ${found.entries} entries`;
  if (found.ownKeyOnly) {
    console.log(
      `${named} fits together, but only by the key inside the file: that says nothing of who made it. Give the published key with --key.`,
    );
    return 3;
  }
  console.log(
    found.ok
      ? `${named} holds: text, hash and signature fit the key you trust.${found.what === 'entry' ? ' Whether it was voided later only the ledger can say.' : ''}`
      : `${named} does not hold.`,
  );
  return found.ok ? 0 : 1;
}
