import { createHash, createPrivateKey, createPublicKey, generateKeyPairSync, sign, verify } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, renameSync, writeFileSync, openSync, fsyncSync, closeSync } from 'node:fs';
import { type LedgerHead, type LedgerTools, headText } from '@/core/ledger';
import { ensureDataFolder, inData } from '../data-folder';

/** The installation's Ed25519 key pair, made at the first start. Public keys stay for ever, so that old entries verify. */
function keyPair(): { privatePem: string; keyId: string } {
  const file = inData('keys', 'ledger-private.pem');
  if (!existsSync(file)) {
    ensureDataFolder();
    const pair = generateKeyPairSync('ed25519', { privateKeyEncoding: { type: 'pkcs8', format: 'pem' }, publicKeyEncoding: { type: 'spki', format: 'pem' } });
    writeFileSync(inData('keys', `ledger-${idOf(pair.publicKey)}.pub.pem`), pair.publicKey);
    writeFileSync(file, pair.privateKey, { mode: 0o600, flag: 'wx' });
  }
  const privatePem = readFileSync(file, 'utf8');
  const publicPem = createPublicKey(createPrivateKey(privatePem)).export({ type: 'spki', format: 'pem' }).toString();
  return { privatePem, keyId: idOf(publicPem) };
}

const idOf = (publicPem: string): string => createHash('sha256').update(publicPem).digest('hex').slice(0, 16);

export const sha256Hex = (text: string): string => createHash('sha256').update(text, 'utf8').digest('hex');

export function signText(text: string): { signature: string; keyId: string } {
  const { privatePem, keyId } = keyPair();
  return { signature: sign(null, Buffer.from(text, 'utf8'), privatePem).toString('base64'), keyId };
}

/** Tools for `verifyLedger` with the public keys kept in the data folder. */
export function ledgerTools(): LedgerTools {
  const publicKeys = new Map<string, string>();
  if (existsSync(inData('keys'))) {
    for (const f of readdirSync(inData('keys')).filter((n) => n.endsWith('.pub.pem'))) {
      const pem = readFileSync(inData('keys', f), 'utf8');
      publicKeys.set(idOf(pem), pem);
    }
  }
  return {
    sha256Hex,
    reencodeBase64: (text) => Buffer.from(text, 'base64').toString('base64'),
    verifySignature: (text, signature, keyId) => {
      const pem = publicKeys.get(keyId);
      return pem !== undefined && verify(null, Buffer.from(text, 'utf8'), pem, Buffer.from(signature, 'base64'));
    },
  };
}

const headFile = (): string => inData('ledger-head.json');

/** Writes the signed head outside the database: to a new file, flushed, then renamed over the old one. */
export function writeHead(count: number, hash: string, at: string): LedgerHead {
  const text = headText({ count, hash, at });
  const head: LedgerHead = { count, hash, at, ...signText(text) };
  const next = `${headFile()}.next`;
  writeFileSync(next, `${JSON.stringify(head, null, 2)}\n`);
  const fd = openSync(next, 'r+');
  fsyncSync(fd);
  closeSync(fd);
  renameSync(next, headFile());
  return head;
}

export function readHead(): LedgerHead | null {
  return existsSync(headFile()) ? (JSON.parse(readFileSync(headFile(), 'utf8')) as LedgerHead) : null;
}
