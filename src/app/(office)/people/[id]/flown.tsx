import { Day } from '@/ui/shared/zone';
import { TableHead } from '@/ui/shared/table-head';
import type { PersonPage } from '@/server/people/queries/page';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { FlownTable } from '@/ui/open/flown-table';
import { HoursForm } from '@/ui/open/hours-form';
import { Act } from '@/ui/people/forms';
import { LogFlightForm } from '@/ui/people/log-form';
import { Panel } from '@/ui/shared/parts';
import { logFlightAction, saveHoursAction, takeBackImportAction } from '../../../actions';

/** Hours and landings by type, logbooks read in, and where more is entered. */
export function Flown({ own, p, user }: { own: { pilotId: string }; p: PersonPage; user: CurrentUser }) {
  return (
    <Panel title="Flown">
      <div className="grid">
        <div>
          <h3 className="group">Hours by type</h3>
          {p.hoursByType.length === 0 ? <p className="soft">None entered.</p> : <FlownTable rows={p.hoursByType} />}
        </div>
        <div>
          <h3 className="group">Landings by type</h3>
          {p.landings.length === 0 ? (
            <p className="soft">None recorded.</p>
          ) : (
            <table aria-label="Landings by type" className="plain">
              <TableHead columns={['Type', { right: 'Landings' }, { right: 'Full stops' }, { right: 'Water' }]} />
              <tbody>
                {p.landings.map((l) => (
                  <tr key={l.code + l.name}>
                    <td>{l.name}</td>
                    <td className="r mono">{l.landings}</td>
                    <td className="r mono">{l.fullStops}</td>
                    <td className="r mono">{l.water}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </div>
      </div>
      {p.imports.length > 0 ? (
        <>
          <h3 className="group">Imported logbooks</h3>
          <ul className="plain-list small">
            {p.imports.map((i) => (
              <li key={i.id}>
                <Day at={i.at} />, {i.fileName}: {i.added} flights, {i.doubled} already on record, {i.refused} refused;
                by {i.by}.{' '}
                {i.takenBackAt ? (
                  <>
                    Undone <Day at={i.takenBackAt} />.
                  </>
                ) : may.importLogbook(user, own) ? (
                  <Act id={i.id} words="undo import" name={i.fileName} act={takeBackImportAction} />
                ) : null}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {may.keepPilotRecord(user, own) && !p.erased ? (
        <details className="mt-2">
          <summary>Hours and PIC by type: enter or change what the habits come from</summary>
          <div className="mt-2">
            <HoursForm
              pilotId={p.pilotId}
              flown={p.hoursByType}
              written={p.written}
              types={p.types}
              today={p.today}
              action={saveHoursAction}
            />
          </div>
        </details>
      ) : null}
      {may.logFlying(user, own) && !p.erased ? (
        <details className="mt-2">
          <summary>Log a flight</summary>
          <div className="mt-2">
            <LogFlightForm pilotId={p.pilotId} today={p.today} types={p.types} action={logFlightAction} />
          </div>
        </details>
      ) : null}
    </Panel>
  );
}
