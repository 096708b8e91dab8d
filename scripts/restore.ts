/**
 * Puts a backup into an empty folder, checked whole before it gets its name:  npm run restore -- ARCHIVE --to FOLDER
 * [--key KEY.pem]: the published key you keep, to prove whose archive it is.
 */
import './lib/help.mjs';
import { existsSync, readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { restore } from '@/server/running/backup';
import { idOf } from '@/server/ledger/keys';

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { to: { type: 'string' }, key: { type: 'string', multiple: true } },
});
const [archive] = positionals;
if (!archive || !values.to || !existsSync(archive)) {
  console.error(
    archive && !existsSync(archive)
      ? `There is no file ${archive}.`
      : 'Say which archive and into which folder: npm run restore -- ARCHIVE --to FOLDER',
  );
  process.exit(2);
}
try {
  const trusted = (values.key ?? []).map((f) => idOf(readFileSync(f, 'utf8')));
  const done = await restore(archive, values.to, trusted);
  console.log(
    `Restored to ${values.to}: ${done.manifest.files.length} files by their hashes, ${Object.keys(done.manifest.tables).length} tables by their rows, ${done.entries} entries of the ledger by chain, signature and head, ${done.traces} traces by content.`,
  );
  if (done.signedWith && trusted.includes(done.signedWith)) console.log(`Signed with your key ${done.signedWith}.`);
  for (const line of done.unproven) console.log(`Not proven: ${line}`);
  console.log('Bring the private key back before signing: npm run keys -- import FILE.');
} catch (error) {
  console.error(`Nothing was restored. ${error instanceof Error ? error.message : String(error)}`);
  process.exit(1);
}
