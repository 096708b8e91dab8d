import { dateText, localDate, plural } from '@/core/format';
import { nowIso } from '@/server/floor/clock';
import { release } from '@/server/running/release';
import { runningState } from '@/server/running/keep';
import { roomWords, stateWords } from '@/server/running/state-words';
import { Panel } from '@/ui/shared/parts';

/** What the chief has to know of the machine: room, backups, the trial of them. */
export function RunningPanel({ timeZone }: { timeZone: string }) {
  const { freeBytes, databaseBytes, folder, archives, backup, trial, warnings } = runningState(nowIso(), timeZone);
  const on = (at: string) => dateText(localDate(at, timeZone));
  return (
    <Panel id="running" title="Disk and backups">
      {warnings.length > 0 ? (
        <div className="trouble mb-2">
          <ul>
            {warnings.map((w) => (
              <li key={w.code}>{stateWords(w)}</li>
            ))}
          </ul>
        </div>
      ) : null}
      <dl className="stats">
        <div>
          <dt>Release</dt>
          <dd>{release}</dd>
        </div>
        <div>
          <dt>Database</dt>
          <dd>{roomWords(databaseBytes)}</dd>
        </div>
        <div>
          <dt>Free on its disk</dt>
          <dd>{roomWords(freeBytes)}</dd>
        </div>
        <div>
          <dt>Newest backup</dt>
          <dd>{backup ? on(backup.at) : folder === null ? 'not made here' : 'none yet'}</dd>
        </div>
        <div>
          <dt>Last restored on trial</dt>
          <dd>{trial ? `${on(trial.at)}, ${trial.ok ? 'it held' : 'it failed'}` : 'never'}</dd>
        </div>
      </dl>
      {folder === null ? null : (
        <p className="small soft mb-0 mt-2">
          {plural(archives, 'archive')} in {folder}. Keep a copy on another machine, and the private key of the ledger
          apart from both.
        </p>
      )}
    </Panel>
  );
}
