import { database } from './connection';

declare global {
  var __jeitoAsOf: WeakMap<object, Map<string, { writes: number; value: Promise<unknown> }>> | undefined;
}
const MOST = 400;

/**
 * An answer that stands until something is written. This process is the only writer of its data folder, so while its
 * count of writes stands still nothing that was read has changed. The key names everything else the answer depends on,
 * the day too. Never inside a write.
 */
export function asOfLastWrite<T>(key: string, read: () => Promise<T>): Promise<T> {
  const db = database();
  const all = (globalThis.__jeitoAsOf ??= new WeakMap());
  const kept = all.get(db.sequelize) ?? new Map<string, { writes: number; value: Promise<unknown> }>();
  all.set(db.sequelize, kept);
  const known = kept.get(key);
  if (known?.writes === db.writes) return known.value as Promise<T>;
  const value = read();
  kept.delete(key);
  kept.set(key, { writes: db.writes, value });
  value.catch(() => kept.delete(key));
  const oldest = kept.size > MOST ? kept.keys().next().value : undefined;
  if (oldest !== undefined) kept.delete(oldest);
  return value;
}
