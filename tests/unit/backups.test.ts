import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { backupDue, backupName, backupTime, newestBackup, rotated, trialDue } from '@/core/keeping';

const at = (iso: string): string => backupName(iso);
const DAY_MS = 86_400_000;

describe('which backups are kept', () => {
  it('a name is its instant, to the second and back; anything else is nobody\u2019s', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }),
        (d) => backupTime(backupName(d.toISOString())) === `${d.toISOString().slice(0, 19)}.000Z`,
      ),
    );
    for (const name of [
      'jeito-20261301-000000.tar.gz',
      'jeito-20260631-000000.tar.gz',
      'x.tar.gz',
      '../jeito-20260101-000000.tar.gz',
    ])
      expect(backupTime(name), name).toBeNull();
    // As the command by hand names them.
    expect(backupTime('jeito-20261124143000.tar.gz')).toBe('2026-11-24T14:30:00.000Z');
  });

  it('is due after a day less an hour, whatever else lies there; one of the future is no backup of today', () => {
    expect(backupDue([], '2026-11-24T02:00:00Z')).toBe(true);
    expect(backupDue([at('2026-11-23T03:00:00Z')], '2026-11-24T01:59:00Z')).toBe(false);
    expect(backupDue([at('2026-11-23T03:00:00Z')], '2026-11-24T02:00:00Z')).toBe(true);
    expect(backupDue([at('2027-01-01T00:00:00Z'), 'notes.txt'], '2026-11-24T02:00:00Z')).toBe(true);
  });

  it('a year of daily backups leaves 14 days, 8 weeks and 12 months of them', () => {
    const now = Date.parse('2026-12-31T02:00:00Z');
    const all = Array.from({ length: 365 }, (_, i) => at(new Date(now - i * DAY_MS).toISOString()));
    const gone = new Set(rotated(all, new Date(now).toISOString()));
    const kept = all.filter((n) => !gone.has(n)).map((n) => (backupTime(n) ?? '').slice(0, 10));
    // By hand: 18 to 31 December each day; the Sundays before, back to the week of 9 November; the last of each month.
    expect(kept).toEqual([
      ...Array.from({ length: 14 }, (_, i) => `2026-12-${31 - i}`),
      '2026-12-13',
      '2026-12-06',
      '2026-11-30',
      '2026-11-29',
      '2026-11-22',
      '2026-11-15',
      '2026-10-31',
      '2026-09-30',
      '2026-08-31',
      '2026-07-31',
      '2026-06-30',
      '2026-05-31',
      '2026-04-30',
      '2026-03-31',
      '2026-02-28',
      '2026-01-31',
    ]);
  });

  it('thinned out every day or once at the end it comes to the same; the newest is never named, and nothing strange', () => {
    const strange = ['backups.json', 'jeito-old.tar.gz', '.trial-x'];
    let folder = [...strange];
    const start = Date.parse('2025-11-01T02:00:00Z');
    for (let i = 0; i < 430; i++) {
      const now = new Date(start + i * DAY_MS).toISOString();
      folder.push(at(now));
      const gone = rotated(folder, now);
      expect(gone).not.toContain(at(now));
      folder = folder.filter((n) => !gone.includes(n));
    }
    expect(folder.filter((n) => strange.includes(n))).toEqual(strange);
    const months = new Set(folder.flatMap((n) => backupTime(n)?.slice(0, 7) ?? []));
    expect(months.size).toBe(15);
    expect(folder.length).toBeLessThan(14 + 8 + 24 + strange.length);
  });

  it('one of the future and the only one of years ago stay', () => {
    expect(rotated([at('2020-01-01T00:00:00Z')], '2026-11-24T02:00:00Z')).toEqual([]);
    expect(rotated([at('2030-01-01T00:00:00Z'), at('2020-01-01T00:00:00Z')], '2026-11-24T02:00:00Z')).toEqual([
      at('2020-01-01T00:00:00Z'),
    ]);
  });

  it('the newest is told by its instant, however it is written', () => {
    expect(newestBackup(['jeito-20261124143000.tar.gz', at('2026-11-24T14:30:01Z'), 'zz.tar.gz'])).toBe(
      at('2026-11-24T14:30:01Z'),
    );
    expect(newestBackup(['notes.txt'])).toBeNull();
  });

  it('the trial is due once a calendar month', () => {
    expect(trialDue([], '2026-11-24T02:00:00Z')).toBe(true);
    expect(trialDue(['2026-11-01T00:00:00Z'], '2026-11-30T23:59:00Z')).toBe(false);
    expect(trialDue(['2025-11-24T02:00:00Z'], '2026-11-24T02:00:00Z')).toBe(true);
  });
});
