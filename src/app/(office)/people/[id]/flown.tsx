import { Day } from '@/ui/shared/zone';
import { TableHead } from '@/ui/shared/table-head';
import type { PersonPage } from '@/server/people/queries/page';
import { dateText, fixed } from '@/core/format';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { HoursForm } from '@/ui/open/hours-form';
import { Act } from '@/ui/people/forms';
import { LogFlightForm } from '@/ui/people/log-form';
import { Panel } from '@/ui/shared/parts';
import { logFlightAction, saveHoursAction, takeBackImportAction } from '../../../actions';

/** Hours and landings by type, logbooks read in, and where more is entered. */
export function Flown({ own, p, user }: { own: { pilotId: string }; p: PersonPage; user: CurrentUser }) {
  return (
    <Panel title="Flown">
      <div className="grid g-1-1">
        <div>
          <h3 className="group">Hours by type</h3>
          {p.hoursByType.length === 0 ? (
            <p className="soft">None entered.</p>
          ) : (
            <table aria-label="Hours by type" className="plain">
              <TableHead columns={['Type', { right: 'Hours' }, { right: 'As PIC' }, 'Last']} />
              <tbody>
                {p.hoursByType.map((h) => (
                  <tr key={h.typeCode}>
                    <td>{h.typeName}</td>
                    <td
                      className="r mono"
                      title={
                        h.since > 0
                          ? `${fixed(h.since, 1)} h of them logged or read in since the office’s entry`
                          : `entered by ${h.enteredBy}`
                      }
                    >
                      {fixed(h.hours, 1)} h
                    </td>
                    <td className="r mono">{h.pic === null ? 'not known' : `${fixed(h.pic, 1)} h`}</td>
                    <td>{h.lastFlown ? dateText(h.lastFlown) : ''}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
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
          <summary>Enter hours by type and PIC</summary>
          <div className="mt-2">
            <HoursForm
              pilotId={p.pilotId}
              rows={p.hoursByType.map((h) => ({
                typeCode: h.typeCode,
                hours: h.hours,
                pic: h.pic,
                lastFlown: h.lastFlown.slice(0, 10),
              }))}
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
