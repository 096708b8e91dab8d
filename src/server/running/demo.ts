import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { inData } from '../floor/data-folder';

const stamp = (): string => inData('demo.json');
const STALE_AFTER_DAYS = 7;

/** Marks this data folder as a demo whose dates are anchored on `startedAt`. */
export function markDemo(startedAt: string): void {
  writeFileSync(stamp(), `${JSON.stringify({ startedAt })}\n`);
}

/**
 * Whole days since the demo was filled in, once they are more than a week; null for a fresh demo and for a real school.
 */
export function staleDemoDays(nowIso: string): number | null {
  if (!existsSync(stamp())) return null;
  const { startedAt } = JSON.parse(readFileSync(stamp(), 'utf8')) as { startedAt: string };
  const days = Math.floor((Date.parse(nowIso) - Date.parse(startedAt)) / 86_400_000);
  return days > STALE_AFTER_DAYS ? days : null;
}
