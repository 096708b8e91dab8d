/**
 * The key of the ledger. The passphrase is read from JEITO_KEY_PASSPHRASE, at least twelve characters.
 *   npm run keys -- show                    the public key, as it may be published
 *   npm run keys -- export --out FILE       the private key, encrypted, for a safe outside the backups
 *   npm run keys -- import FILE             brings it back after a restore
 *   npm run keys -- rotate --by EMAIL --reason TEXT    hands the ledger over to a new key, by an entry signed with the
 * old one; the server must be stopped
 */
import './lib/help.mjs';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { nowIso } from '@/server/floor/clock';
import { folderHolder, holdFolder } from '@/server/floor/data-folder';
import { needFolder } from './lib/command';
import { closeDatabase } from '@/server/floor/connection';
import { row } from './lib/raw';
import { ledgerKeyId, rotateKey } from '@/server/ledger/entries';
import { currentPublicKey, exportPrivateKey, importPrivateKey } from '@/server/ledger/keys';

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { out: { type: 'string' }, by: { type: 'string' }, reason: { type: 'string' } },
});
const fail = (message: string): never => {
  console.error(message);
  process.exit(1);
};
const passphrase = (): string => {
  const given = process.env.JEITO_KEY_PASSPHRASE ?? '';
  return given.length >= 12 ? given : fail('Set JEITO_KEY_PASSPHRASE to a passphrase of at least twelve characters.');
};
needFolder();
try {
  switch (positionals[0]) {
    case 'show': {
      const { keyId, publicPem } = currentPublicKey();
      console.log(`Key ${keyId}\n${publicPem}`);
      break;
    }
    case 'export': {
      if (!values.out || existsSync(values.out))
        fail(values.out ? `${values.out} exists already: nothing is overwritten.` : 'Say where: --out FILE');
      writeFileSync(values.out ?? '', exportPrivateKey(passphrase()), { mode: 0o600, flag: 'wx' });
      console.log(
        `${values.out ?? ''}: the private key, encrypted. Keep it and its passphrase apart from the backups.`,
      );
      break;
    }
    case 'import': {
      const file = positionals[1] ?? fail('Say which file: npm run keys -- import FILE');
      console.log(
        `Key ${importPrivateKey(readFileSync(file, 'utf8'), passphrase(), await ledgerKeyId())} is back: the ledger can be signed.`,
      );
      break;
    }
    case 'rotate': {
      const holder = folderHolder();
      if (holder !== null)
        fail(`The data folder is held by a running server (process ${holder}). Stop it, then try again.`);
      if (!values.reason || values.reason.trim().length < 10) fail('Say why, in a sentence: --reason TEXT');
      const by = await row<{ id: string; name: string; roles: string }>(
        'SELECT id, name, roles FROM users WHERE email = :email',
        { email: values.by ?? '' },
      );
      if (!by || !(JSON.parse(by.roles) as string[]).includes('chief'))
        fail('The chief instructor changes the key: --by EMAIL');
      holdFolder();
      const done = await rotateKey({ id: by?.id ?? '', name: by?.name ?? '' }, (values.reason ?? '').trim(), nowIso());
      console.log(
        `The ledger goes from key ${done.from} to ${done.to}. Export the new one now: npm run keys -- export --out FILE`,
      );
      break;
    }
    case undefined:
    default:
      fail('Say what: show, export, import or rotate.');
  }
} catch (error) {
  fail(error instanceof Error ? error.message : String(error));
} finally {
  await closeDatabase();
}
