import { TableHead } from '@/ui/shared/table-head';
import { dateText, list } from '@/core/format';
import type { BoardData } from '@/server/board/queries/board';
import { Link } from '@/ui/shared/link';
import { Panel } from '@/ui/shared/parts';
import { Verdict } from '@/ui/shared/verdict';

/** The instructors side by side, for the chief. */
export function InstructorsPanel({ b }: { b: BoardData }) {
  return (
    <Panel title="Instructors">
      <div className="scroll-x">
        <table aria-label="Instructors" className="plain">
          <TableHead
            columns={[
              'Instructor',
              { right: 'Today' },
              { right: 'Open' },
              { right: 'Stalled' },
              'Out of recency to teach',
            ]}
          />
          <tbody>
            {b.instructors.map((i) => (
              <tr key={i.userId}>
                <td>
                  {i.pilotId ? <Link href={`/people/${i.pilotId}`}>{i.name}</Link> : i.name}
                  <div className="soft small">
                    {i.lastLesson ? `last lesson ${dateText(i.lastLesson)}` : 'no lesson yet'}
                  </div>
                </td>
                <td className="r mono">{i.today}</td>
                <td className="r mono">{i.open}</td>
                <td className="r mono">{i.stalled}</td>
                <td>
                  {i.outOf.length > 0 ? (
                    <Verdict verdict="outside">{list(i.outOf)}</Verdict>
                  ) : (
                    <Verdict verdict="within">in none</Verdict>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mb-0 mt-2">
        <Link href="/board/week">The week: overrides, refusals, stops, exceedances, duty and papers</Link>
      </p>
    </Panel>
  );
}
