import { execFile } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statfsSync, statSync } from 'node:fs';
import path from 'node:path';
import { promisify } from 'node:util';
import { z } from 'zod';
import { dateText, localDate } from '@/core/format';
import { backupDue, backupName, backupTime, newestBackup, rotated, trialDue } from '@/core/keeping';
import { nowIso } from '../floor/clock';
import { dataFolder, inData, inDemo, writeWhole } from '../floor/data-folder';
import { log } from '../floor/log';
import { backup } from './backup';
import { type StateWarning, stateWarning } from './state-words';

/**
 * Backups made by the server itself, once a day: an archive, the old ones thinned out, and once a month a trial: the
 * newest is restored into a folder of its own and checked whole. What was done is written beside the archives, so that it
 * is known when the database is not there any more.
 */
const Run = z.object({
  at: z.string(),
  what: z.enum(['backup', 'trial']),
  ok: z.boolean(),
  file: z.string(),
  /** Bytes of an archive, or why it did not work. */
  bytes: z.number().nullable(),
  why: z.string().nullable(),
});
export type Run = z.infer<typeof Run>;
const STATE = 'backups.json';
const MOST_RUNS = 200;

/** Where the server keeps its backups; null = nobody named a folder, and none are made. */
export const backupFolder = (): string | null =>
  process.env.JEITO_BACKUPS ? path.resolve(/* turbopackIgnore: true */ process.env.JEITO_BACKUPS) : null;

/** What was done, the newest last; what cannot be read is as if nothing had been. */
export function runsIn(folder: string): Run[] {
  try {
    return z.array(Run).parse(JSON.parse(readFileSync(path.join(folder, STATE), 'utf8')));
  } catch {
    return [];
  }
}
function remember(folder: string, run: Run): Run {
  writeWhole(path.join(folder, STATE), `${JSON.stringify([...runsIn(folder), run].slice(-MOST_RUNS), null, 1)}\n`);
  if (run.ok) log.info({ what: run.what, bytes: run.bytes }, 'backup kept');
  else log.error({ what: run.what, why: run.why }, 'backup failed');
  return run;
}

const run = promisify(execFile);
const TRIAL_MS = 15 * 60_000;
/** Restores one archive into a folder that goes again, in a process of its own: it opens another database. */
async function tried(folder: string, archive: string): Promise<string | null> {
  const into = mkdtempSync(path.join(folder, '.trial-'));
  try {
    await run(
      process.execPath,
      ['node_modules/tsx/dist/cli.mjs', 'scripts/restore.ts', path.join(folder, archive), '--to', path.join(into, 'x')],
      { env: { ...process.env, JEITO_DATA: path.join(into, 'none'), JEITO_LOG: 'silent' }, timeout: TRIAL_MS },
    );
    return null;
  } catch (error) {
    const { stderr, message } = error as { stderr?: string; message: string };
    return (stderr?.trim() || message).slice(0, 500);
  } finally {
    rmSync(into, { recursive: true, force: true });
  }
}

/** Does what is due at an instant, and says what was done. Nothing where no folder is named. */
export async function keepBackups(now: string): Promise<Run[]> {
  const folder = backupFolder();
  if (folder === null) return [];
  const done: Run[] = [];
  const names = (): string[] => readdirSync(folder);
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    if (backupDue(names(), now)) {
      const file = backupName(now);
      try {
        await backup(path.join(folder, file), now);
        const { size: bytes } = statSync(path.join(folder, file));
        done.push(remember(folder, { at: now, what: 'backup', ok: true, file, bytes, why: null }));
        // Only after a new one stands is an old one taken away.
        for (const old of rotated(names(), now)) rmSync(path.join(folder, old), { force: true });
      } catch (error) {
        const why = error instanceof Error ? error.message : String(error);
        done.push(remember(folder, { at: now, what: 'backup', ok: false, file, bytes: null, why: why.slice(0, 500) }));
      }
    }
    const held = runsIn(folder).flatMap((r) => (r.what === 'trial' && r.ok ? r.at : []));
    const newest = newestBackup(names());
    const last = runsIn(folder).findLast((r) => r.what === 'trial');
    // One that did not restore is not tried again until there is another.
    const refused = last?.ok === false && last.file === newest;
    if (newest !== null && !refused && trialDue(held, now)) {
      const why = await tried(folder, newest);
      done.push(remember(folder, { at: now, what: 'trial', ok: why === null, file: newest, bytes: null, why }));
    }
  } catch (error) {
    log.error({ err: error }, 'backups cannot be kept');
  }
  return done;
}

const LOOK_MS = 15 * 60_000;
const FIRST_MS = 60_000;
declare global {
  var __jeitoKeeping: boolean | undefined;
}
/** Looks four times an hour whether something is due; never twice at once. */
export function startKeeping(): void {
  const folder = backupFolder();
  if (globalThis.__jeitoKeeping !== undefined || folder === null) return;
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
  } catch (error) {
    log.error({ err: error }, 'backups cannot be kept');
  }
  globalThis.__jeitoKeeping = false;
  const look = () => {
    if (globalThis.__jeitoKeeping) return;
    globalThis.__jeitoKeeping = true;
    void keepBackups(nowIso()).finally(() => (globalThis.__jeitoKeeping = false));
  };
  setTimeout(look, FIRST_MS).unref();
  setInterval(look, LOOK_MS).unref();
}

/** Less free than this, or than three times the database, and the chief is told. */
const LOW_BYTES = 1_000_000_000;
const OLD_MS = 36 * 3_600_000;
/** A folder for backups that has been there so long has one. */
const SOON_MS = 3_600_000;
export interface RunningState {
  freeBytes: number;
  databaseBytes: number;
  folder: string | null;
  /** Archives there, the newest last one that held, and the last trial. */
  archives: number;
  backup: Run | null;
  trial: Run | null;
  warnings: StateWarning[];
}

const freeIn = (folder: string): number => {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
};
/** How the disk and the backups stand, and what somebody has to do. @param timeZone of the dates in it */
export function runningState(now: string, timeZone: string): RunningState {
  const folder = backupFolder();
  const file = inData('jeito.sqlite');
  const databaseBytes = existsSync(file) ? statSync(file).size : 0;
  const freeBytes = freeIn(dataFolder());
  const least = Math.max(LOW_BYTES, 3 * databaseBytes);
  const runs = folder === null ? [] : runsIn(folder);
  const last = (what: Run['what'], ok?: boolean): Run | null =>
    [...runs].reverse().find((r) => r.what === what && (ok === undefined || r.ok === ok)) ?? null;
  const [backed, good, trial] = [last('backup'), last('backup', true), last('trial')];
  const there = folder !== null && existsSync(folder);
  const warnings: StateWarning[] = [];
  if (freeBytes < least) warnings.push(stateWarning('disk-low', { freeBytes, of: 'data' }));
  if (there) {
    const beside = freeIn(folder);
    // The same disk is told once.
    if (beside < least && beside !== freeBytes)
      warnings.push(stateWarning('disk-low', { freeBytes: beside, of: 'backups' }));
  }
  const on = (at: string) => dateText(localDate(at, timeZone));
  if (folder === null) warnings.push(...(inDemo() ? [] : [stateWarning('backup-none')]));
  else if (!there) warnings.push(stateWarning('backup-folder', { folder }));
  else if (backed && !backed.ok)
    warnings.push(stateWarning('backup-failed', { on: on(backed.at), why: backed.why ?? '' }));
  else if (good && Date.parse(now) - Date.parse(good.at) > OLD_MS)
    warnings.push(stateWarning('backup-old', { on: on(good.at) }));
  else if (!backed && Date.parse(now) - statSync(folder).mtimeMs > SOON_MS) warnings.push(stateWarning('backup-yet'));
  if (trial && !trial.ok) warnings.push(stateWarning('trial-failed', { on: on(trial.at), why: trial.why ?? '' }));
  const archives = there ? readdirSync(folder).filter((n) => backupTime(n) !== null).length : 0;
  return { freeBytes, databaseBytes, folder, archives, backup: good, trial, warnings };
}
