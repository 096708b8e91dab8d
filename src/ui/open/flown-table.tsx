import { dateText, fixed, plural } from '@/core/format';
import { kindOf } from '@/domain/kinds';
import type { PilotHours } from '@/core/differences';
import { TableHead } from '../shared/table-head';

/** What a pilot has flown, by type or kind: as entered, and beside it what was recorded here after that. */
export function FlownTable({ rows }: { rows: readonly PilotHours[] }) {
  return (
    <div className="scroll-x" tabIndex={0} role="region" aria-label="Flown, by type">
      <table aria-label="Hours by type" className="plain">
        <TableHead columns={['Type', { right: 'Entered' }, { right: 'As PIC' }, { right: 'Recorded here' }, 'Last']} />
        <tbody>
          {rows.map((h) => (
            <tr key={h.typeCode}>
              <td>
                {h.typeName}
                {kindOf(h.typeCode) ? <span className="soft small"> other types</span> : null}
              </td>
              <td
                className="r mono"
                title={
                  h.since > 0
                    ? `${fixed(h.since, 1)} h of them logged or read in since the office’s entry`
                    : `entered by ${h.enteredBy}`
                }
              >
                {h.hours > 0 ? `${fixed(h.hours, 1)} h` : 'none'}
              </td>
              <td className="r mono">{h.pic === null ? 'not known' : `${fixed(h.pic, 1)} h`}</td>
              <td className="r">
                {h.here.landings === 0 ? (
                  <span className="soft">none</span>
                ) : (
                  <>
                    <span className="mono">
                      {h.here.about ? 'about ' : ''}
                      {fixed(h.here.hours, 1)} h
                    </span>
                    <span className="soft small"> {plural(h.here.landings, 'landing')}</span>
                  </>
                )}
              </td>
              <td>{h.lastFlown ? dateText(h.lastFlown) : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
