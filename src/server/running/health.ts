import { log } from '../floor/log';
import { newestMigration } from '../floor/statements/running';
import { stopping } from '../floor/under-way';
import { release } from './release';

export interface Health {
  status: 'ok' | 'stopping' | 'unwell';
  release: string;
  /** The newest change of the database’s form; null where it cannot be read. */
  schema: string | null;
}
/** Whether the server can do its work: it takes requests and the database reads. */
export async function health(): Promise<Health> {
  try {
    const schema = (await newestMigration.one())?.name ?? null;
    return { status: stopping() ? 'stopping' : schema === null ? 'unwell' : 'ok', release, schema };
  } catch (error) {
    log.error({ err: error }, 'the database does not read');
    return { status: 'unwell', release, schema: null };
  }
}
