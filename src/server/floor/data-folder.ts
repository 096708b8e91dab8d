import {
  closeSync,
  existsSync,
  fsyncSync,
  linkSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';

/** One school = one data folder: database, keys, signed head, traces. */
export const dataFolder = (): string =>
  path.resolve(/* turbopackIgnore: true */ process.env.JEITO_DATA ?? 'data/local');
export const inData = (...names: string[]): string => path.join(/* turbopackIgnore: true */ dataFolder(), ...names);

/** Whether this folder was filled by the demo: only there is anything simulated outside the lab. */
export const inDemo = (): boolean => existsSync(inData('demo.json'));

export function ensureDataFolder(): void {
  mkdirSync(inData('keys'), { recursive: true, mode: 0o700 });
}

/** Makes sure of the names in a folder: a file renamed into it is there after a power cut only when this has returned. */
export function syncFolder(folder: string): void {
  const fd = openSync(folder, 'r');
  fsyncSync(fd);
  closeSync(fd);
}

/** Whole or not at all, and sure when this returns: written beside, synced, renamed, the folder synced. */
export function writeWhole(file: string, text: string, mode = 0o600): void {
  const beside = `${file}.part`;
  writeFileSync(beside, text, { mode, flush: true });
  renameSync(beside, file);
  syncFolder(path.dirname(file));
}

/** Something about the folder that keeps the server from starting: one sentence, and what to do. */
export class FolderProblem extends Error {
  constructor(
    /** What the process ends with: 3 = the folder, 4 = it is in use. */
    readonly exitCode: 3 | 4,
    message: string,
  ) {
    super(message);
  }
}

const lockFile = (): string => inData('server.lock');

/**
 * Names a process beyond its number, which is given again: the boot of the machine and the moment it started. Where the
 * system does not tell, the number has to do.
 */
function processName(pid: number): string | null {
  try {
    const boot = readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim();
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    const started = stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19];
    return started ? `${boot} ${started}` : null;
  } catch {
    return null;
  }
}
const alive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
};
/** A lock that names nobody was written before a process that started later. */
function startedAfter(pid: number, writtenMs: number): boolean {
  try {
    return statSync(`/proc/${pid}`).ctimeMs > writtenMs + 2000;
  } catch {
    return false;
  }
}
const holderIn = (text: string, written: number): number | null => {
  const [first = '', name = ''] = text.split('\n');
  const pid = Number(first);
  if (!Number.isInteger(pid) || pid <= 0 || pid === process.pid || !alive(pid)) return null;
  const now = processName(pid);
  // A number that another process has since been given holds nothing.
  if (name.trim() !== '' && now !== null) return now === name.trim() ? pid : null;
  return startedAfter(pid, written) ? null : pid;
};
const readLock = (): { text: string; written: number } | null => {
  try {
    return { text: readFileSync(lockFile(), 'utf8'), written: statSync(lockFile()).mtimeMs };
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null;
    throw error;
  }
};

/** The process that holds the data folder, or null. A lock left by a dead process does not count. */
export function folderHolder(): number | null {
  const lock = readLock();
  return lock === null ? null : holderIn(lock.text, lock.written);
}

/** Takes the data folder for this process. @throws FolderProblem when another living process holds it */
export function holdFolder(): void {
  ensureDataFolder();
  const mine = `${process.pid}\n${processName(process.pid) ?? ''}\n`;
  const beside = `${lockFile()}.${process.pid}`;
  writeFileSync(beside, mine, { mode: 0o600 });
  try {
    for (let attempt = 0; ; attempt++) {
      try {
        // Whole from its first moment, and only where there is none.
        linkSync(beside, lockFile());
        break;
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
      }
      const lock = readLock();
      const holder = lock === null ? null : holderIn(lock.text, lock.written);
      if (holder !== null || attempt > 5)
        throw new FolderProblem(
          4,
          `The data folder ${dataFolder()} is in use by process ${holder ?? 'unknown'}. Stop it first.`,
        );
      takeAway(lock?.text ?? null);
    }
  } finally {
    rmSync(beside, { force: true });
  }
  process.off('exit', releaseFolder);
  process.once('exit', releaseFolder);
}
/** Takes a dead lock away: that one, and not the one somebody else put there meanwhile. */
function takeAway(dead: string | null): void {
  if (dead === null) return;
  const aside = `${lockFile()}.${process.pid}.dead`;
  try {
    renameSync(lockFile(), aside);
    if (readFileSync(aside, 'utf8') !== dead) linkSync(aside, lockFile());
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code !== 'ENOENT' && code !== 'EEXIST') throw error;
  } finally {
    rmSync(aside, { force: true });
  }
}

export function releaseFolder(): void {
  if (Number(readLock()?.text.split('\n')[0]) === process.pid) rmSync(lockFile(), { force: true });
}
