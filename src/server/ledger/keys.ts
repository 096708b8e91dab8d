import { type Told } from '../floor/sentences';
import { told } from './sentences';
import {
  type KeyObject,
  createHash,
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  sign,
  verify,
} from 'node:crypto';
import { existsSync, readFileSync, readdirSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import { type LedgerHead, type LedgerTools, headText } from '@/core/ledger';
import { ensureDataFolder, inData, writeWhole } from '../floor/data-folder';

const privateFile = (): string => inData('keys', 'ledger-private.pem');
const nextFile = (): string => inData('keys', 'ledger-private.next.pem');
const publicFiles = (): string[] =>
  existsSync(inData('keys')) ? readdirSync(inData('keys')).filter((n) => n.endsWith('.pub.pem')) : [];
const publicOf = (privatePem: string): string =>
  createPublicKey(createPrivateKey(privatePem)).export({ type: 'spki', format: 'pem' }).toString();

/**
 * The key of this installation against the key the ledger is signed with.
 * `none`: nothing is signed yet and there is no key, so the first may be made. Anything but `ready` and `none` refuses
 * to sign: a new key, or a stranger's, would end the chain for ever.
 */
export type KeyState = 'ready' | 'none' | 'missing' | 'other' | 'unreadable';
export function keyState(ofLedger: string | null): KeyState {
  if (!existsSync(privateFile()))
    return ofLedger === null && publicFiles().length === 0 && readHead() === null ? 'none' : 'missing';
  try {
    const keyId = idOf(publicOf(readFileSync(privateFile(), 'utf8')));
    return ofLedger === null || ofLedger === keyId ? 'ready' : 'other';
  } catch {
    return 'unreadable';
  }
}
/** Why nothing can be signed, and what to do; null = it can. */
export function signingProblem(ofLedger: string | null): Told | null {
  switch (keyState(ofLedger)) {
    case 'ready':
    case 'none':
      return null;
    case 'missing':
      return told('key-missing');
    case 'other':
      return told('key-other', { ofLedger: ofLedger ?? '' });
    case 'unreadable':
      return told('key-unreadable');
  }
}
/** Makes the first key of an installation that has signed nothing; leaves everything else as it is. */
export function firstKey(ofLedger: string | null): void {
  if (keyState(ofLedger) === 'none') newPair(privateFile());
}

function writeKeyFile(file: string, text: string, options: { mode?: number; fresh?: boolean } = {}): void {
  if (options.fresh && existsSync(file)) throw new Error(`${path.basename(file)} is there already.`);
  writeWhole(file, text, options.mode ?? 0o644);
}

function newPair(file: string): { keyId: string; publicPem: string } {
  ensureDataFolder();
  const pair = generateKeyPairSync('ed25519', {
    privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
    publicKeyEncoding: { type: 'spki', format: 'pem' },
  });
  // The private one first: a public key without it would say for ever that this ledger has a key somewhere.
  writeKeyFile(file, pair.privateKey, { mode: 0o600, fresh: true });
  writeKeyFile(publicFile(idOf(pair.publicKey)), pair.publicKey);
  return { keyId: idOf(pair.publicKey), publicPem: pair.publicKey };
}
const publicFile = (keyId: string): string => inData('keys', `ledger-${keyId}.pub.pem`);

/** The installation's Ed25519 key pair. Public keys stay for ever, so that old entries verify. */
function keyPair(): { privatePem: string; keyId: string } {
  if (!existsSync(privateFile())) throw new Error('There is no signing key in this data folder.');
  const privatePem = readFileSync(privateFile(), 'utf8');
  const publicPem = publicOf(privatePem);
  const keyId = idOf(publicPem);
  // A stop between the two files of a new pair: the public half is made again from the private one.
  if (!existsSync(publicFile(keyId))) writeKeyFile(publicFile(keyId), publicPem);
  return { privatePem, keyId };
}

/** The key the ledger is signed with now, as anybody may have it. Never makes one. */
export function currentPublicKey(): { keyId: string; publicPem: string } {
  if (!existsSync(privateFile())) throw new Error('There is no signing key in this data folder.');
  const publicPem = publicOf(readFileSync(privateFile(), 'utf8'));
  return { keyId: idOf(publicPem), publicPem };
}
/** Every public key this ledger was ever signed with, by id. */
export const publicKeys = (): Record<string, string> =>
  Object.fromEntries(
    publicFiles()
      .map((f) => readFileSync(inData('keys', f), 'utf8'))
      .map((pem) => [idOf(pem), pem]),
  );

/** A key waiting to take over; it does so by {@link activateNextKey}, once an entry of the ledger names it. */
export function prepareNextKey(): { keyId: string; publicPem: string } {
  rmSync(nextFile(), { force: true });
  return newPair(nextFile());
}
/**
 * @param named the key the newest key entry of the ledger hands over to. A key no entry names is thrown away: that change
 * never happened.
 */
export function activateNextKey(named: string | null): void {
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
 * Brings the private key back. Refused when it is not the one the ledger is signed with, or one is here already. @returns
 * its id
 */
export function importPrivateKey(encryptedPem: string, passphrase: string, expected: string | null): string {
  const key = createPrivateKey({ key: encryptedPem, passphrase });
  const pem = key.export({ type: 'pkcs8', format: 'pem' }).toString();
  const keyId = idOf(publicOf(pem));
  if (expected !== null && keyId !== expected)
    throw new Error(`This is key ${keyId}; the ledger is signed with ${expected}.`);
  ensureDataFolder();
  writeKeyFile(privateFile(), pem, { mode: 0o600, fresh: true });
  writeKeyFile(publicFile(keyId), publicOf(pem));
  return keyId;
}

/** Name of a key: the start of the hash of its public half. */
export const idOf = (publicPem: string): string => createHash('sha256').update(publicPem).digest('hex').slice(0, 16);

export const sha256Hex = (text: string): string => createHash('sha256').update(text, 'utf8').digest('hex');

/**
 * @param ofLedger the key the ledger is signed with so far; null = nothing is signed
 * @throws when the key here is not that one
 */
export function signText(text: string, ofLedger: string | null): { signature: string; keyId: string } {
  const wrong = signingProblem(ofLedger);
  if (wrong) throw new Error(wrong.message);
  firstKey(ofLedger);
  const { privatePem, keyId } = keyPair();
  return { signature: sign(null, Buffer.from(text, 'utf8'), privatePem).toString('base64'), keyId };
}

/** Tools for `verifyLedger` with the public keys given, by id. A key is read once; one that is none fits nothing. */
export function toolsWith(keys: Readonly<Record<string, string>>): LedgerTools {
  const read = new Map<string, KeyObject | null>();
  const keyOf = (keyId: string): KeyObject | null => {
    const known = read.get(keyId);
    if (known !== undefined) return known;
    const pem = Object.hasOwn(keys, keyId) ? keys[keyId] : undefined;
    let key: KeyObject | null = null;
    try {
      key = pem !== undefined && idOf(pem) === keyId ? createPublicKey(pem) : null;
    } catch {
      key = null;
    }
    read.set(keyId, key);
    return key;
  };
  return {
    sha256Hex,
    reencodeBase64: (text) => Buffer.from(text, 'base64').toString('base64'),
    verifySignature: (text, signature, keyId) => {
      const key = keyOf(keyId);
      return key !== null && verify(null, Buffer.from(text, 'utf8'), key, Buffer.from(signature, 'base64'));
    },
  };
}
/** The same with the public keys kept in the data folder. */
export const ledgerTools = (): LedgerTools => toolsWith(publicKeys());

const headFile = (): string => inData('ledger-head.json');

/** Writes the signed head outside the database: to a new file, flushed, then renamed over the old one. */
export function writeHead(count: number, hash: string, at: string, ofLedger: string | null): LedgerHead {
  const text = headText({ count, hash, at });
  const head: LedgerHead = { count, hash, at, ...signText(text, ofLedger) };
  writeKeyFile(headFile(), `${JSON.stringify(head, null, 2)}\n`);
  return head;
}

export function readHead(): LedgerHead | null {
  return existsSync(headFile()) ? (JSON.parse(readFileSync(headFile(), 'utf8')) as LedgerHead) : null;
}
