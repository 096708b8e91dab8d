/**
 * Prints a one-time link to choose a password, and takes the second factor away: for the only chief who lost theirs.
 * Refused while a server holds the data folder.
 */
import './lib/help.mjs';
import { linkAtConsole } from '@/server/account/commands/links';
import { closeDatabase } from '@/server/floor/connection';
import { migrate } from '@/server/floor/migrate';
import { folderAlone } from './lib/command';

const email = process.argv[2] ?? '';
if (email === '') {
  console.error('Say whose: npm run account -- name@school.example');
  process.exit(2);
}
folderAlone();
await migrate();
const link = await linkAtConsole(email);
await closeDatabase();
if (!link) {
  console.error(`There is no open account with the address ${email}.`);
  process.exit(1);
}
console.log(
  `Start the server, then open ${link.path} behind its address, until ${link.until.slice(0, 10)}. It works once.`,
);
