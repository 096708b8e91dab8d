import { hash, verify } from '@node-rs/argon2';
import { heavy } from '../busy';

/** argon2id with the library's defaults (19 MiB, 2 passes). */
export const hashPassword = (password: string): Promise<string> => hash(password);

let decoy: Promise<string> | undefined;

/**
 * True when the password fits. Without a user the same work is done, so that time tells nothing. Two at once in the whole
 * server: hashing takes a core and 19 MiB each.
 * @throws Busy when too many wait
 */
export async function passwordFits(password: string, stored: string | null, who: string): Promise<boolean> {
  return heavy('password', who, async () => {
    decoy ??= hash('nobody has this password');
    const fits = await verify(stored ?? (await decoy), password).catch(() => false);
    return stored !== null && fits;
  });
}
