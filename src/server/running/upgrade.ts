import { copyFileSync, mkdirSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import { ledgerProblemWords } from '@/core/ledger';
import { backupName } from '@/core/keeping';
import { closeDatabase } from '../floor/connection';
import { dataFolder, holdFolder, inData, releaseFolder, syncFolder } from '../floor/data-folder';
import { migrate, migrationNames } from '../floor/migrate';
import { checkLedger } from '../ledger/entries';
import { ask, backup, checkSchema, restore, tableCounts } from './backup';

/**
 * From yesterday's release to this one: a backup, a rehearsal on what the backup restores to, and only then the folder
 * itself, with the files of before at hand until the result is proven. A failure at any step leaves the folder as it was.
 */
export class UpgradeProblem extends Error {
  constructor(
    /** Where it stopped: before anything was touched, in the rehearsal, or rolled back. */
    readonly at: 'before' | 'rehearsal' | 'rolled-back',
    message: string,
  ) {
    super(message);
  }
}
const why = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Migrations of this release that the folder has not had. @throws UpgradeProblem when it has had others */
export async function pending(): Promise<string[]> {
  const ran = (await ask<{ name: string }>(inData('jeito.sqlite'), 'SELECT name FROM migrations ORDER BY name')).map(
    (m) => m.name,
  );
  const ours = migrationNames();
  const strange = ran.find((name, i) => name !== ours[i]);
  if (strange !== undefined)
    throw new UpgradeProblem(
      'before',
      `The data folder was last used by a newer release (${strange}). Start that one, or a later one.`,
    );
  return ours.slice(ran.length);
}

/** What must hold of a migrated folder. @param before rows of every table before */
async function proven(file: string, before: Readonly<Record<string, number>>): Promise<void> {
  const [integrity] = await ask<{ integrity_check: string }>(file, 'PRAGMA integrity_check');
  if (integrity?.integrity_check !== 'ok')
    throw new Error(`The database is damaged: ${integrity?.integrity_check ?? 'no answer'}.`);
  const broken = await ask(file, 'PRAGMA foreign_key_check');
  if (broken.length > 0)
    throw new Error(`The database does not hold together: ${broken.length} rows refer to nothing.`);
  const after = await tableCounts(file);
  const fewer = Object.entries(before).filter(([name, rows]) => (after[name] ?? 0) < rows);
  if (fewer.length > 0) throw new Error(`Rows of ${fewer.map(([name]) => name).join(', ')} are missing.`);
}
async function provenLedger(): Promise<number> {
  const book = await checkLedger();
  await closeDatabase();
  const [first] = book.problems;
  if (first) throw new Error(`The ledger does not verify. ${ledgerProblemWords(first)}`);
  return book.entries;
}

/** Runs work with another folder as the data folder. */
async function within<T>(folder: string, work: () => Promise<T>): Promise<T> {
  const before = process.env.JEITO_DATA;
  await closeDatabase();
  process.env.JEITO_DATA = folder;
  try {
    return await work();
  } finally {
    await closeDatabase();
    if (before === undefined) delete process.env.JEITO_DATA;
    else process.env.JEITO_DATA = before;
  }
}

export interface Rehearsed {
  archive: string;
  pending: string[];
  entries: number;
}
/**
 * Backs the folder up and migrates what the backup restores to. The folder itself is only read, also while a server runs
 * on it.
 * @param keep where the archive is written @throws UpgradeProblem
 */
export async function rehearse(keep: string, at: string): Promise<Rehearsed> {
  const waiting = await pending();
  mkdirSync(keep, { recursive: true, mode: 0o700 });
  const archive = path.join(keep, backupName(at));
  await backup(archive, at);
  const beside = mkdtempSync(path.join(keep, '.rehearsal-'));
  try {
    const folder = path.join(beside, 'restored');
    await restore(archive, folder);
    const entries = await within(folder, async () => {
      const file = inData('jeito.sqlite');
      const before = await tableCounts(file);
      await migrate();
      await proven(file, before);
      await checkSchema(file, beside);
      process.env.JEITO_DATA = folder;
      return provenLedger();
    });
    return { archive, pending: waiting, entries };
  } catch (error) {
    throw new UpgradeProblem('rehearsal', why(error));
  } finally {
    rmSync(beside, { recursive: true, force: true });
  }
}

/**
 * Migrates the folder. The database is copied beside itself before, and takes its name back when anything fails, also the
 * proof. @throws UpgradeProblem, with the folder as it was; FolderProblem when a server runs on it
 */
export async function upgrade(): Promise<string[]> {
  holdFolder();
  const file = inData('jeito.sqlite');
  const aside = inData('jeito.sqlite.before');
  try {
    // Asked and closed again, nothing of it is left in a log beside it: the one file is all of it.
    const before = await tableCounts(file);
    copyFileSync(file, aside);
    syncFolder(dataFolder());
    try {
      const ran = await migrate();
      await proven(file, before);
      await provenLedger();
      rmSync(aside);
      return ran;
    } catch (error) {
      await closeDatabase();
      for (const log of ['-wal', '-shm']) rmSync(`${file}${log}`, { force: true });
      renameSync(aside, file);
      syncFolder(dataFolder());
      throw new UpgradeProblem('rolled-back', why(error));
    }
  } finally {
    releaseFolder();
  }
}
