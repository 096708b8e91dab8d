import { FolderProblem } from '../floor/data-folder';
import { startKeeping } from './keep';
import { prepareServer } from './start';
import { stopWhenAsked } from './stop';

/** Starts, or says why not in one sentence and ends: 3 = the data folder, 4 = it is in use, 1 = anything else. */
export async function startOrEnd(): Promise<void> {
  try {
    await prepareServer();
    stopWhenAsked();
    startKeeping();
  } catch (error) {
    const known = error instanceof FolderProblem;
    console.error(
      known ? error.message : `Not started. ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`,
    );
    process.exit(known ? error.exitCode : 1);
  }
}
