import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** One school = one data folder: database, keys, signed head, traces. */
export const dataFolder = (): string =>
  path.resolve(/* turbopackIgnore: true */ process.env.JEITO_DATA ?? 'data/local');
export const inData = (...names: string[]): string => path.join(/* turbopackIgnore: true */ dataFolder(), ...names);

export function ensureDataFolder(): void {
  mkdirSync(inData('keys'), { recursive: true, mode: 0o700 });
}

const lockFile = (): string => inData('server.lock');

const alive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
};

/** The process that holds the data folder, or null. A lock left by a dead process does not count. */
export function folderHolder(): number | null {
  if (!existsSync(lockFile())) return null;
  const pid = Number(readFileSync(lockFile(), 'utf8'));
  return Number.isInteger(pid) && pid > 0 && pid !== process.pid && alive(pid) ? pid : null;
}

/** Takes the data folder for this process. Throws when another living process holds it. */
export function holdFolder(): void {
  ensureDataFolder();
  const holder = folderHolder();
  if (holder !== null)
    throw new Error(`The data folder ${dataFolder()} is in use by process ${holder}. Stop it first.`);
  writeFileSync(lockFile(), String(process.pid));
  process.once('exit', releaseFolder);
}

export function releaseFolder(): void {
  if (existsSync(lockFile()) && readFileSync(lockFile(), 'utf8') === String(process.pid))
    rmSync(lockFile(), { force: true });
}
