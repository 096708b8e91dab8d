/**
 * Which backup is due and which are kept. Names carry the instant, so that the folder itself is the list. Method:
 * grandfather, father, son: the newest of each of so many days, weeks and months.
 */

const NAME = /^jeito-(\d{4})(\d\d)(\d\d)-?(\d\d)(\d\d)(\d\d)\.tar\.gz$/;
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** How many days, weeks and months back one backup of each is kept. */
export interface Rotation {
  days: number;
  weeks: number;
  months: number;
}
export const ROTATION: Rotation = { days: 14, weeks: 8, months: 24 };

/**
 * The name of a backup made at an instant, to the second, UTC. @throws RangeError when it is no instant
 * @example backupName('2026-11-24T14:30:00.000Z') // 'jeito-20261124-143000.tar.gz'
 */
export const backupName = (iso: string): string => {
  const at = new Date(iso).toISOString();
  return `jeito-${at.slice(0, 10).replaceAll('-', '')}-${at.slice(11, 19).replaceAll(':', '')}.tar.gz`;
};

/**
 * The instant a backup was made at, from its name; null when it is no name of ours.
 * @example backupTime('jeito-20261124-143000.tar.gz') // '2026-11-24T14:30:00.000Z'
 */
export function backupTime(name: string): string | null {
  const [, year, month, day, h, min, s] = NAME.exec(name) ?? [];
  if (year === undefined) return null;
  const at = `${year}-${month ?? ''}-${day ?? ''}T${h ?? ''}:${min ?? ''}:${s ?? ''}.000Z`;
  const ms = Date.parse(at);
  // A month of 13, or a 31st of June, is nobody's.
  return Number.isFinite(ms) && new Date(ms).toISOString() === at ? at : null;
}

/**
 * The newest backup of a folder by the instant in its name; null when there is none.
 * @example newestBackup(['jeito-20261124-020000.tar.gz', 'notes.txt']) // 'jeito-20261124-020000.tar.gz'
 */
export const newestBackup = (names: readonly string[]): string | null =>
  names.reduce<string | null>((newest, name) => {
    const at = backupTime(name);
    return at !== null && (newest === null || at > (backupTime(newest) ?? '')) ? name : newest;
  }, null);

/**
 * Whether a backup is due: none of ours is younger than a day less one hour, so that it stays at about the same hour.
 * One from the future (a clock put back) counts for nothing. @param names files of the folder
 * @example backupDue(['jeito-20261123-020000.tar.gz'], '2026-11-24T02:00:00Z') // true
 */
export function backupDue(names: readonly string[], nowIso: string): boolean {
  const now = Date.parse(nowIso);
  return !names.some((n) => {
    const at = Date.parse(backupTime(n) ?? '');
    return at <= now && now - at < DAY_MS - HOUR_MS;
  });
}

/** Monday of the week of an instant, by UTC. */
const weekOf = (ms: number): number => Math.floor((ms / DAY_MS + 3) / 7);

/**
 * Which backups go: all but the newest of each of the last days, weeks and months. The newest of all always stays, what
 * is from the future too, and what is no backup of ours is never named. @param names files of the folder
 * @returns names to be removed, the oldest first
 * @example rotated(['jeito-20260101-020000.tar.gz', 'jeito-20261124-020000.tar.gz'], '2026-11-24T02:00:00Z') // []
 */
export function rotated(names: readonly string[], nowIso: string, keep: Rotation = ROTATION): string[] {
  const now = Date.parse(nowIso);
  const ours = names
    .flatMap((name) => {
      const at = backupTime(name);
      return at === null ? [] : [{ name, at, ms: Date.parse(at) }];
    })
    .sort((a, b) => b.ms - a.ms || b.name.localeCompare(a.name));
  const month = (iso: string): number => Number(iso.slice(0, 4)) * 12 + Number(iso.slice(5, 7));
  const nowMonth = month(new Date(now).toISOString());
  const kept = new Set<string>(ours.slice(0, 1).map((b) => b.name));
  const seen = new Set<string>();
  for (const b of ours) {
    if (b.ms > now) {
      kept.add(b.name);
      continue;
    }
    const days = Math.floor(now / DAY_MS) - Math.floor(b.ms / DAY_MS);
    const weeks = weekOf(now) - weekOf(b.ms);
    const months = nowMonth - month(b.at);
    for (const [slot, back, most] of [
      [`d${days}`, days, keep.days],
      [`w${weeks}`, weeks, keep.weeks],
      [`m${months}`, months, keep.months],
    ] as const)
      if (back < most && !seen.has(slot)) {
        seen.add(slot);
        kept.add(b.name);
      }
  }
  return ours
    .filter((b) => !kept.has(b.name))
    .map((b) => b.name)
    .reverse();
}

/**
 * Whether the monthly trial of a backup is due: none has held in this calendar month, UTC.
 * @param held instants of the trials that held
 * @example trialDue(['2026-10-31T23:00:00Z'], '2026-11-01T03:00:00Z') // true
 */
export const trialDue = (held: readonly string[], nowIso: string): boolean =>
  !held.some((at) => at.slice(0, 7) === new Date(nowIso).toISOString().slice(0, 7));
