import { TableHead } from '@/ui/shared/table-head';
import type { BoardData } from '@/server/board/queries/board';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { Link } from '@/ui/shared/link';
import { Panel } from '@/ui/shared/parts';

/** Checkouts that have not flown for a while. */
export function StalledPanel({ b, user }: { b: BoardData; user: CurrentUser }) {
  return (
    <Panel title="Stalled">
      <table aria-label="Stalled" className="plain">
        <TableHead columns={['Pilot', 'Aeroplane', { right: 'Since the last lesson' }, 'Booked']} />
        <tbody>
          {b.stalled.map((s) => (
            <tr key={s.id}>
              <td>
                <Link href={`/checkouts/${s.id}`}>{s.pilotName}</Link>
                {may.compareInstructors(user) ? <div className="soft small">{s.instructor}</div> : null}
              </td>
              <td className="code-face">{s.registration}</td>
              <td className="r mono">{s.days} days</td>
              <td>
                {s.booked ? (
                  'yes'
                ) : (
                  <Link href={`/schedule?checkout=${s.id}`}>
                    book<span className="visually-hidden"> {s.pilotName}</span>
                  </Link>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Panel>
  );
}
