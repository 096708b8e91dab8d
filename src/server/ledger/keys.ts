import { createHash, createPrivateKey, createPublicKey, generateKeyPairSync, sign, verify } from 'node:crypto';
import {
  existsSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync,
  openSync,
  fsyncSync,
  closeSync,
} from 'node:fs';
import { type LedgerHead, type LedgerTools, headText } from '@/core/ledger';
import { ensureDataFolder, inData } from '../data-folder';

const privateFile = (): string => inData('keys', 'ledger-private.pem');
const nextFile = (): string => inData('keys', 'ledger-private.next.pem');
const publicFiles = (): string[] =>
  existsSync(inData('keys')) ? readdirSync(inData('keys')).filter((n) => n.endsWith('.pub.pem')) : [];
const publicOf = (privatePem: string): string =>
  createPublicKey(createPrivateKey(privatePem)).export({ type: 'spki', format: 'pem' }).toString();

/**
 * Can this installation sign? Not after a restore, until its private key is brought back: a new key would not be the
 * book's.
 */
export const signingReady = (): boolean => existsSync(privateFile()) || publicFiles().length === 0;

function newPair(file: string): { keyId: string; publicPem: string } {
  ensureDataFolder();
  const pair = generateKeyPairSync('ed25519', {
    privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
    publicKeyEncoding: { type: 'spki', format: 'pem' },
  });
  writeFileSync(inData('keys', `ledger-${idOf(pair.publicKey)}.pub.pem`), pair.publicKey);
  writeFileSync(file, pair.privateKey, { mode: 0o600, flag: 'wx' });
  return { keyId: idOf(pair.publicKey), publicPem: pair.publicKey };
}

/**
 * The installation's Ed25519 key pair, made at the first start. Public keys stay for ever, so that old entries verify.
 */
function keyPair(): { privatePem: string; keyId: string } {
  if (!signingReady()) throw new Error('The private key of the book is not in this data folder.');
  if (!existsSync(privateFile())) newPair(privateFile());
  const privatePem = readFileSync(privateFile(), 'utf8');
  return { privatePem, keyId: idOf(publicOf(privatePem)) };
}

/** The key the book is signed with now, as anybody may have it. */
export function currentPublicKey(): { keyId: string; publicPem: string } {
  const { privatePem, keyId } = keyPair();
  return { keyId, publicPem: publicOf(privatePem) };
}
/** Every public key this book was ever signed with, by id. */
export const publicKeys = (): Record<string, string> =>
  Object.fromEntries(
    publicFiles()
      .map((f) => readFileSync(inData('keys', f), 'utf8'))
      .map((pem) => [idOf(pem), pem]),
  );

/** A key waiting to take over; it does so by {@link takeUpNextKey}, once an entry of the book names it. */
export function prepareNextKey(): { keyId: string; publicPem: string } {
  rmSync(nextFile(), { force: true });
  return newPair(nextFile());
}
/**
 * @param named the key the newest key entry of the book hands over to. A key no entry names is thrown away: that change
 * never happened.
 */
export function takeUpNextKey(named: string | null): void {
  if (!existsSync(nextFile())) return;
  const publicPem = publicOf(readFileSync(nextFile(), 'utf8'));
  if (idOf(publicPem) === named) renameSync(nextFile(), privateFile());
  else {
    rmSync(nextFile());
    rmSync(inData('keys', `ledger-${idOf(publicPem)}.pub.pem`), { force: true });
  }
}

/** The private key, encrypted with a passphrase, for a safe outside the backups. */
export function exportPrivateKey(passphrase: string): string {
  return createPrivateKey(keyPair().privatePem)
    .export({ type: 'pkcs8', format: 'pem', cipher: 'aes-256-cbc', passphrase })
    .toString();
}
/**
 * Brings the private key back. Refused when it is not the one the book is signed with, or one is here already. @returns
 * its id
 */
export function importPrivateKey(encryptedPem: string, passphrase: string, expected: string | null): string {
  const key = createPrivateKey({ key: encryptedPem, passphrase });
  const pem = key.export({ type: 'pkcs8', format: 'pem' }).toString();
  const keyId = idOf(publicOf(pem));
  if (expected !== null && keyId !== expected)
    throw new Error(`This is key ${keyId}; the book is signed with ${expected}.`);
  ensureDataFolder();
  writeFileSync(inData('keys', `ledger-${keyId}.pub.pem`), publicOf(pem));
  writeFileSync(privateFile(), pem, { mode: 0o600, flag: 'wx' });
  return keyId;
}

/** Name of a key: the start of the hash of its public half. */
export const idOf = (publicPem: string): string => createHash('sha256').update(publicPem).digest('hex').slice(0, 16);

export const sha256Hex = (text: string): string => createHash('sha256').update(text, 'utf8').digest('hex');

export function signText(text: string): { signature: string; keyId: string } {
  const { privatePem, keyId } = keyPair();
  return { signature: sign(null, Buffer.from(text, 'utf8'), privatePem).toString('base64'), keyId };
}

/** Tools for `verifyLedger` with the public keys given, by id. */
export function toolsWith(keys: Readonly<Record<string, string>>): LedgerTools {
  return {
    sha256Hex,
    reencodeBase64: (text) => Buffer.from(text, 'base64').toString('base64'),
    verifySignature: (text, signature, keyId) => {
      const pem = Object.hasOwn(keys, keyId) ? keys[keyId] : undefined;
      return (
        pem !== undefined &&
        idOf(pem) === keyId &&
        verify(null, Buffer.from(text, 'utf8'), pem, Buffer.from(signature, 'base64'))
      );
    },
  };
}
/** The same with the public keys kept in the data folder. */
export const ledgerTools = (): LedgerTools => toolsWith(publicKeys());

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
