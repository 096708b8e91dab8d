/** One archive of the data folder, also while the server runs:  npm run backup [-- --out FILE.tar.gz] */
import './lib/help.mjs';
import { parseArgs } from 'node:util';
import { backupName } from '@/core/keeping';
import { backup } from '@/server/running/backup';
import { nowIso } from '@/server/floor/clock';
import { needFolder } from './lib/command';

const { values } = parseArgs({ options: { out: { type: 'string' } } });
needFolder();
const out = values.out ?? `backups/${backupName(nowIso())}`;
try {
  const made = await backup(out, nowIso());
  console.log(
    `${out}: ${made.files.length} files, ${Object.values(made.tables).reduce((a, b) => a + b, 0)} rows, ${made.ledger.entries} entries of the ledger. The private key is not in it: npm run keys -- export --out FILE.`,
  );
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
}
