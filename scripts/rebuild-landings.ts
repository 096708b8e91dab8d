/** Rebuilds every landing from the capture events. Refused while a server holds the data folder. */
import './lib/help.mjs';
import { rebuildLandings } from '@/server/fly/commands/capture';
import { closeDatabase } from '@/server/floor/connection';
import { folderAlone } from './lib/command';

folderAlone();
console.log(`Rebuilt the landings of ${await rebuildLandings()} flights.`);
await closeDatabase();
