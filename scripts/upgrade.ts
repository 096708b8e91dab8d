/**
 * Brings a data folder to this release:  JEITO_DATA=FOLDER npm run upgrade. A backup, a rehearsal on a copy (a server may
 * run meanwhile), then the folder itself, which nothing may use. Ends with 1 when nothing was changed, 4 when the rehearsal
 * held and a server has to be stopped first.
 */
import './lib/help.mjs';
import { nowIso } from '@/server/floor/clock';
import { dataFolder, folderHolder } from '@/server/floor/data-folder';
import { backupFolder } from '@/server/running/keep';
import { UpgradeProblem, rehearse, upgrade } from '@/server/running/upgrade';
import { release } from '@/server/running/release';
import { needFolder } from './lib/command';

needFolder();
const keep = backupFolder() ?? `${dataFolder()}-backups`;
try {
  const { archive, pending, entries } = await rehearse(keep, nowIso());
  console.log(`Backup: ${archive}`);
  console.log(
    `Rehearsed on a copy: ${pending.length === 0 ? 'nothing to migrate' : pending.join(', ')}; ${entries} entries of the ledger verified.`,
  );
  const holder = folderHolder();
  if (pending.length > 0 && holder !== null) {
    console.log(
      `Release ${release} fits this folder. The server (process ${holder}) goes on as it is: stop it, then run this again.`,
    );
    process.exit(4);
  }
  const ran = pending.length === 0 ? [] : await upgrade();
  console.log(
    ran.length === 0
      ? `The folder is ready for release ${release}. Start it.`
      : `Migrated: ${ran.join(', ')}. Rows, keys and ledger verified. Start release ${release}.`,
  );
} catch (error) {
  const message = error instanceof Error ? error.message : String(error);
  const at = error instanceof UpgradeProblem ? error.at : 'before';
  console.error(
    at === 'rolled-back'
      ? `Rolled back: the folder is as it was before. ${message} Start the release of before; it goes on where it was.`
      : `Nothing was changed. ${message} What runs goes on running.`,
  );
  process.exit(1);
}
