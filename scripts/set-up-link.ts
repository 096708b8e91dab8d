/**
 * Prepares the data folder of `JEITO_DATA` for a school and prints the link by which its first chief instructor makes
 * an account; nothing where somebody can sign in already.
 */
import './lib/help.mjs';
import { closeDatabase } from '@/server/floor/connection';
import { dataFolder, ensureDataFolder, folderHolder, holdFolder } from '@/server/floor/data-folder';
import { migrate } from '@/server/floor/migrate';
import { newSetUpToken } from '@/server/running/commands/set-up';

const holder = folderHolder();
if (holder !== null) {
  console.error(
    `The data folder ${dataFolder()} is held by a running server (process ${holder}). Stop it, or name another folder with JEITO_DATA.`,
  );
  process.exit(4);
}
ensureDataFolder();
holdFolder();
await migrate();
const token = await newSetUpToken();
await closeDatabase();
if (token) console.log(`set-up ${token}`);
