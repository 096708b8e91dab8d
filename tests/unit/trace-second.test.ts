import { describe, expect, it } from 'vitest';
import { addTrial, emptyReport, precision, recall, sum, tables, trialsOf } from '../../scripts/flights/bench';

/** Seeds nobody tuned on; and one a day, printed and not asserted. */
const FIXED = [41, 42, 43];
const FLIGHTS = 8;
const flown = (seeds: readonly number[]) => {
  const report = emptyReport();
  for (const seed of seeds) for (let k = 0; k < FLIGHTS; k++) for (const t of trialsOf(seed, k)) addTrial(report, t);
  return report;
};

describe('flights of another recorder', () => {
  const report = flown(FIXED);
  const share = (name: RegExp, ok: (o: { error: number; beyond: number; sd: number | null }) => boolean): number => {
    const all = [...report.offs].filter(([n]) => name.test(n)).flatMap(([, o]) => o);
    expect(all.length).toBeGreaterThan(10);
    return all.filter(ok).length / all.length;
  };
  it('every file is read, whatever its columns are called', () => {
    expect(report.files).toBe(FIXED.length * FLIGHTS * 2);
    expect(report.unread).toEqual([]);
  });
  it('what was flown is found, and little else', () => {
    expect(sum(report.events).flown).toBeGreaterThan(60);
    expect(sum(report.airwork).flown).toBeGreaterThan(25);
    for (const [m, least] of [
      [report.events, 0.95],
      [report.airwork, 0.9],
    ] as const) {
      expect(recall(sum(m)), report.notes.join('\n')).toBeGreaterThanOrEqual(least);
      expect(precision(sum(m)), report.notes.join('\n')).toBeGreaterThanOrEqual(least);
    }
  });
  it('limits that were exceeded are found, and none is invented', () => {
    const limits = sum(report.limits);
    expect(limits.flown).toBeGreaterThan(10);
    expect(recall(limits), report.notes.join('\n')).toBeGreaterThanOrEqual(0.95);
    expect(limits.invented, report.notes.join('\n')).toBe(0);
  });
  it('touches are near their moment and their place, and as far off as they say', () => {
    expect(share(/^time, b/, (o) => Math.abs(o.error) <= 2)).toBeGreaterThan(0.85);
    expect(share(/^time, 4/, (o) => Math.abs(o.error) <= 1)).toBeGreaterThan(0.7);
    expect(share(/^along/, (o) => o.beyond <= 15)).toBeGreaterThan(0.7);
    expect(share(/^across/, (o) => o.beyond <= 1)).toBeGreaterThan(0.9);
    for (const name of [/^time/, /^along/, /^across/, /^crab/, /^swing/])
      expect(
        share(name, (o) => Math.abs(o.error) <= 2 * (o.sd ?? 0)),
        name.source,
      ).toBeGreaterThan(0.65);
  });
  it('a fresh seed, for the record', () => {
    const today = Math.floor(Date.now() / 86_400_000);
    const fresh = flown([today]);
    console.log(`seed ${today}\n${tables(fresh)}`);
    expect(fresh.files).toBe(FLIGHTS * 2);
  });
});
