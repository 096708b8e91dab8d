import { Transaction } from 'sequelize';
import { database } from './connection';

/**
 * The only door for writers: one queue in the process, one IMMEDIATE transaction at a time. Waiting writers wait in
 * JavaScript and never in SQLite, where they would hold the threads that the lock holder needs to commit.
 * What throws inside is rolled back whole.
 */
export function write<T>(work: (t: Transaction) => Promise<T>): Promise<T> {
  const db = database();
  if (db.writing.getStore())
    return Promise.reject(new Error('write() inside write() would wait for itself: pass the transaction on'));
  const run = () =>
    db.sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, (t) => {
      const writing = { transaction: t, tables: new Set<string>() };
      return db.writing.run(writing, async () => {
        const answer = await work(t);
        await raiseVersions([...writing.tables], t);
        return answer;
      });
    });
  const counted = () =>
    run().finally(() => {
      db.versions = null;
    });
  const result = db.tail.then(counted, counted);
  db.tail = result.catch(() => undefined);
  return result;
}

/** One more for each table that was written, in the same transaction: another process that reads sees it, too. */
async function raiseVersions(tables: readonly string[], t: Transaction): Promise<void> {
  if (tables.length === 0) return;
  await database().sequelize.query(
    `INSERT INTO table_versions (name, version) VALUES ${tables.map(() => '(?, 1)').join(', ')}
     ON CONFLICT (name) DO UPDATE SET version = version + 1`,
    { replacements: [...tables], transaction: t },
  );
}

class NotDone<T> extends Error {
  constructor(readonly answer: T) {
    super('not done');
  }
}
/** A write of several steps whose refusal half-way leaves nothing behind. */
export async function writeOrNothing<T extends { ok: boolean }>(work: (t: Transaction) => Promise<T>): Promise<T> {
  try {
    return await write(async (t) => {
      const answer = await work(t);
      if (!answer.ok) throw new NotDone(answer);
      return answer;
    });
  } catch (error) {
    if (error instanceof NotDone) return error.answer as T;
    throw error;
  }
}

/**
 * Overwrites what was deleted: rebuilds the file and cuts the log. In the queue of writers, so that nothing is half-way.
 */
export function compact(): Promise<void> {
  const db = database();
  const run = async () => {
    await db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
    await db.sequelize.query('VACUUM');
    await db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
  };
  const result = db.tail.then(run, run);
  db.tail = result.catch(() => undefined);
  return result;
}
