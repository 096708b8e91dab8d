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
    db.sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, (t) => db.writing.run(t, () => work(t)));
  const counted = () =>
    run().finally(() => {
      db.writes++;
    });
  const result = db.tail.then(counted, counted);
  db.tail = result.catch(() => undefined);
  return result;
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
    db.writes++;
  };
  const result = db.tail.then(run, run);
  db.tail = result.catch(() => undefined);
  return result;
}
