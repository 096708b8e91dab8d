/** Rebuilds every landing from the capture events. Refused while a server holds the data folder. */
import './lib/help.mjs';
import { rebuildLandings } from '@/server/fly/commands/capture';
import { closeDatabase } from '@/server/floor/connection';
import { folderHolder, holdFolder } from '@/server/floor/data-folder';
import { needFolder } from './lib/command';

needFolder();
const holder = folderHolder();
if (holder !== null) {
  console.error(`The data folder is held by a running server (process ${holder}). Stop it, then try again.`);
  process.exit(1);
}
holdFolder();
console.log(`Rebuilt the landings of ${await rebuildLandings()} flights.`);
await closeDatabase();
