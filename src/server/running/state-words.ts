/** The catalogue of what the chief is told about the machine and its backups. */
import { fixed } from '@/core/format';
import { type Coded, coder, sentence } from '@/domain/coded';

/** Rounded down: nobody has more room than is said. */
const room = (bytes: number): string =>
  bytes >= 1e9 ? `${fixed(Math.floor(bytes / 1e8) / 10, 1)}\u00a0GB` : `${fixed(Math.floor(bytes / 1e6))}\u00a0MB`;
export const STATE_WORDS = {
  'disk-low': ({ freeBytes, of }: { freeBytes: number; of: 'data' | 'backups' }) =>
    `Only ${room(freeBytes)} free on the disk of the ${of === 'data' ? 'data folder' : 'backups'}. Make room: on a full disk nothing can be saved.`,
  'backup-none': () => 'No backups are made: no folder is named for them. See docs/operations.md.',
  'backup-folder': ({ folder }: { folder: string }) =>
    `No backups are made: the folder ${folder} is not there, or cannot be written.`,
  'backup-yet': () => 'No backup has been made yet. Look at the log of the server.',
  'backup-failed': ({ on, why }: { on: string; why: string }) => `The backup of ${on} failed: ${why}`,
  'backup-old': ({ on }: { on: string }) => `The newest backup is of ${on}. Look at the log of the server.`,
  'trial-failed': ({ on, why }: { on: string; why: string }) =>
    `The trial of ${on} failed: a backup could not be restored. ${why}`,
} as const;
export type StateWarning = Coded<typeof STATE_WORDS>;
export const stateWarning = coder(STATE_WORDS);
export const stateWords = (w: StateWarning): string => sentence(STATE_WORDS, w);
export { room as roomWords };
