'use client';
import { TableHead } from '../shared/table-head';
import type { TraceAnalysis } from '@/domain/trace';
import { type Dial, FOUND_NAME, itemText, measuresText, momentOf } from './words';
import { useClock } from './use-clock';

/** Everything found with its numbers, for who does not read curves. */
export function FoundTable({
  analysis,
  startUtc,
  unit,
}: {
  analysis: TraceAnalysis;
  startUtc: string | null;
  unit: Dial;
}) {
  const clock = useClock(startUtc);
  return (
    <details className="mt-3">
      <summary>Everything found, as a table</summary>
      <div className="scroll-x">
        <table aria-label="Everything found" className="plain">
          <TableHead columns={['At', 'What', 'Where', 'Measured', { right: 'Confidence' }]} />
          <tbody>
            {analysis.events.map((e, k) => (
              <tr key={`e${k}`}>
                <td className="mono">{clock(momentOf(e))}</td>
                <td>{FOUND_NAME[e.kind]}</td>
                <td className="mono">{e.runway}</td>
                <td>
                  {measuresText(e, unit)
                    .map(([n, v]) => `${n.toLowerCase()} ${v}`)
                    .join('; ')}
                </td>
                <td className="r mono">{e.confidence.toFixed(2)}</td>
              </tr>
            ))}
            {analysis.airwork.map((a, k) => (
              <tr key={`a${k}`}>
                <td className="mono">{clock(a.startS)}</td>
                <td>{FOUND_NAME[a.kind]}</td>
                <td>{a.direction ?? ''}</td>
                <td>
                  {itemText(a, unit)
                    .map(([n, v]) => `${n.toLowerCase()} ${v}`)
                    .join('; ')}
                </td>
                <td className="r mono">{a.confidence.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
