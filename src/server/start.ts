import { refreshMissing } from './aggregates';
import { nowIso } from './clock';
import { importContent, shippedContent } from './content';
import { dataFolder, holdFolder } from './data-folder';
import { migrate } from './db/migrate';
import { write } from './db/write';
import { publishHead, settleKey } from './ledger/book';
import { log } from './log';

/** Takes the data folder, migrates, imports shipped content by hash, and brings the signed head up to date. */
export async function prepareServer(): Promise<void> {
  holdFolder();
  const ran = await migrate();
  const added = await write((t) => importContent(shippedContent(), 'Jeito', t));
  await refreshMissing();
  await settleKey();
  await publishHead(nowIso());
  log.info({ folder: dataFolder(), migrations: ran.length, content: added }, 'data folder ready');
}
