import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { inData } from '../floor/data-folder';

const stamp = (): string => inData('demo.json');
const STALE_AFTER_DAYS = 7;

/** Who may sign in to a demo, with the password all of them have. */
export interface DemoAccounts {
  password: string;
  accounts: { email: string; name: string; role: string }[];
}
/** Marks this data folder as a demo whose dates are anchored on `startedAt`. */
export function markDemo(startedAt: string, signIn: DemoAccounts): void {
  writeFileSync(stamp(), `${JSON.stringify({ startedAt, ...signIn })}\n`);
}
/** Who may sign in to this demo; null for a real school. */
export function demoAccounts(): DemoAccounts | null {
  if (!existsSync(stamp())) return null;
  const { password, accounts } = JSON.parse(readFileSync(stamp(), 'utf8')) as Partial<DemoAccounts>;
  return password !== undefined && accounts !== undefined ? { password, accounts } : null;
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
