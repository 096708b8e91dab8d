import { existsSync } from 'node:fs';
import { dataFolder, folderHolder, holdFolder, inData } from '@/server/floor/data-folder';

/** Ends with 2 where the data folder is none: what only reads, or changes what is there, never makes one. */
export function needFolder(): void {
  if (existsSync(inData('jeito.sqlite'))) return;
  console.error(`There is no database in ${dataFolder()}. Name the data folder with JEITO_DATA.`);
  process.exit(2);
}

/** Holds the data folder for this command; ends with 1 where a server has it. */
export function folderAlone(): void {
  needFolder();
  const holder = folderHolder();
  if (holder !== null) {
    console.error(`The data folder is held by a running server (process ${holder}). Stop it, then try again.`);
    process.exit(1);
  }
  holdFolder();
}
