import { createHmac, randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { ensureDataFolder, inData } from '../data-folder';

/** The secret cookies are sealed with: made at the first need, of this folder alone, in no backup. */
export function installationSecret(): string {
  const file = inData('keys', 'session.key');
  if (!existsSync(file)) {
    ensureDataFolder();
    try {
      writeFileSync(file, randomBytes(48).toString('base64url'), { mode: 0o600, flag: 'wx' });
    } catch (error) {
      // Two first requests at once: the other one made it.
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
  }
  return readFileSync(file, 'utf8');
}

/** A hash that only this installation can make, for what must be recognised and not read. */
export const keyedHash = (text: string): string =>
  createHmac('sha256', installationSecret()).update(text).digest('hex');
