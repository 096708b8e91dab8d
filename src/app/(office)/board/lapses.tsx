import { TableHead } from '@/ui/shared/table-head';
import { plural } from '@/core/format';
import type { BoardData } from '@/server/board/queries/board';
import { OneTapBooking } from '@/ui/board/one-tap';
import { LapseMark } from '@/ui/people/lapse';
import { Link } from '@/ui/shared/link';
import { Panel } from '@/ui/shared/parts';
import { bookAction, proposeSlotsAction } from '../../actions';

/** What ends soon or has ended, who is concerned, and what keeps it. */
export function LapsesPanel({ b, staff }: { b: BoardData; staff: boolean }) {
  return (
    <Panel title={staff ? 'Expiring: in 30 days, or expired this week' : 'Expiring'}>
      <div className="scroll-x">
        <table aria-label="Expiring" className="plain">
          <TableHead columns={['Who', 'What', 'To', 'Renewed or restored by', 'Book']} />
          <tbody>
            {b.lapses.map((l) => (
              <tr key={l.pilotId + l.lapse.key}>
                <td>
                  <Link href={`/people/${l.pilotId}`}>{l.name}</Link>
                </td>
                <td>{l.lapse.what}</td>
                <td>
                  <LapseMark lapse={l.lapse} />
                </td>
                <td className="small">{l.lapse.restore ?? l.lapse.keep ?? ''}</td>
                <td>
                  {l.books ? (
                    <OneTapBooking
                      name={l.name}
                      pilotId={l.pilotId}
                      kind={l.books.kind}
                      airframeId={l.books.airframeId}
                      registration={l.books.registration}
                      through={l.lapse.through ?? b.today}
                      today={b.today}
                      zone={b.zone}
                      book={bookAction}
                      propose={proposeSlotsAction}
                    />
                  ) : (
                    <span className="soft small">
                      {l.lapse.kind === 'interval' ? 'with an instructor' : 'not by flying'}
                    </span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {b.lapsesMore > 0 ? (
        <p className="mb-0 mt-2">
          <Link href="/people?show=soon">and {plural(b.lapsesMore, 'more', 'more')}</Link>
        </p>
      ) : null}
    </Panel>
  );
}
