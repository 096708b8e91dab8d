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
