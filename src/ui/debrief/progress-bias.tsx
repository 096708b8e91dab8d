'use client';
import { TableHead } from '../shared/table-head';
import { type Bias, biasWords, type ShownMeasure, signed } from '@/core/assess';
import { fixed } from '@/core/format';
import { FoldingPanel } from '../shared/folding';

/** Which way each measure leans, with how sure that is. */
export function BiasTable({
  biases,
}: {
  biases: { m: ShownMeasure; b: Bias; standard: { low: number; high: number } | null }[];
}) {
  return (
    <FoldingPanel
      name="progress/bias"
      title="Bias by measure"
      answer={biases.length === 0 ? 'Nothing of these landings was measured.' : biases.map((x) => x.m.name).join(', ')}
    >
      {biases.length === 0 ? (
        <p className="mb-0">
          Nothing of these landings was measured. What was seen by eye counts in the findings and is never turned into
          metres.
        </p>
      ) : (
        <>
          <div className="scroll-x">
            <table aria-label="Bias by measure" className="plain">
              <TableHead columns={['Measure', 'Result', 'Standard', { right: 'Landings' }]} />
              <tbody>
                {biases.map(({ m, b, standard }) => (
                  <tr key={m.key}>
                    <td>
                      {m.name}{' '}
                      <span className="soft small">
                        ({m.unit}, about {m.zero})
                      </span>
                    </td>
                    <td>{biasWords(b, m, standard)}</td>
                    <td className="mono">{standard ? `${signed(standard.low)} to ${signed(standard.high)}` : ''}</td>
                    <td className="r mono">{b.n}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <details>
            <summary className="small">Details</summary>
            <div className="scroll-x">
              <table aria-label="Bias by measure, in figures" className="plain">
                <TableHead
                  columns={['Measure', { right: 'mean' }, { right: '95 in 100 interval' }, { right: 'spread (sd)' }]}
                />
                <tbody>
                  {biases.map(({ m, b }) => (
                    <tr key={m.key}>
                      <td>{m.name}</td>
                      <td className="r mono">{signed(b.mean ?? 0)}</td>
                      <td className="r mono">
                        {b.lower === null || b.upper === null ? '\u2013' : `${signed(b.lower)} to ${signed(b.upper)}`}
                      </td>
                      <td className="r mono">{b.sd === null ? '\u2013' : fixed(b.sd, 1)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </details>
        </>
      )}
    </FoldingPanel>
  );
}
