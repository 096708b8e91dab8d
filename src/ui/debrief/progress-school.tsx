'use client';
import { TableHead } from '../shared/table-head';
import { type DebriefLanding, type StageMedian, shareWords, stageRows } from '@/core/assess';
import { fixed } from '@/core/format';
import { FoldingPanel } from '../shared/folding';

/** Beside the school, never with a name. */
export function BesideSchool({
  judged,
  medians,
}: {
  judged: readonly DebriefLanding[];
  medians: readonly StageMedian[];
}) {
  return (
    <FoldingPanel name="progress/school" title="Compared with the school and before">
      <div className="scroll-x">
        <table aria-label="Compared with the school" className="plain">
          <TableHead
            columns={[
              'Stage',
              { right: 'unassisted, this pilot' },
              { right: 'unassisted, school' },
              { right: 'unassisted and in standard, this pilot' },
              { right: 'unassisted and in standard, school' },
              'From',
            ]}
          />
          <tbody>
            {stageRows(judged, medians).map((s) => (
              <tr key={s.stage}>
                <td>{s.name}</td>
                <td className="r mono">{shareWords(s.own, s.n)}</td>
                <td className="r mono">{s.median ? `${fixed(100 * s.median.own)} in 100` : ''}</td>
                <td className="r mono">{shareWords(s.inStandard, s.n)}</td>
                <td className="r mono">{s.median ? `${fixed(100 * s.median.inStandard)} in 100` : ''}</td>
                <td className="soft small">
                  {s.median ? `median of ${s.median.pilots} pilots on this type` : 'fewer than five pilots: not shown'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="soft small mb-0">
        Medians are of pilots, one voice each, at the same landing of a checkout on the same type; no name goes with
        them.
      </p>
    </FoldingPanel>
  );
}
