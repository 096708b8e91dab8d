import { refreshMissing } from './aggregates';
import { nowIso } from './clock';
import { importContent, shippedContent } from './content';
import { dataFolder, holdFolder } from './data-folder';
import { migrate } from './db/migrate';
import { write } from './db/write';
import { publishHead, settleKey } from './ledger/book';
import { currentPublicKey, signingReady } from './ledger/keys';
import { log } from './log';

/** Takes the data folder, migrates, imports shipped content by hash, and brings the signed head up to date. */
export async function prepareServer(): Promise<void> {
  holdFolder();
  const ran = await migrate();
  const added = await write((t) => importContent(shippedContent(), 'Jeito', t));
  await refreshMissing();
  await settleKey();
  // The key is there from the first start, so that its public half can be kept elsewhere before anything is signed.
  if (signingReady()) currentPublicKey();
  await publishHead(nowIso());
  log.info({ folder: dataFolder(), migrations: ran.length, content: added }, 'data folder ready');
}
