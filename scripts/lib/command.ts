import { existsSync } from 'node:fs';
import { dataFolder, inData } from '@/server/floor/data-folder';

/** Ends with 2 where the data folder is none: what only reads, or changes what is there, never makes one. */
export function needFolder(): void {
  if (existsSync(inData('jeito.sqlite'))) return;
  console.error(`There is no database in ${dataFolder()}. Name the data folder with JEITO_DATA.`);
  process.exit(2);
}
