import type { Difference } from '@/core/differences';
import { byPhase } from '@/core/differences';
import { fixed } from '@/core/format';
import { say } from '@/domain/words';
import { ActionMark } from './action-mark';

/** One bar from three factors: how bad, how strong the habit, how much of this goal. */
function RankBar({ d }: { d: Difference }) {
  const W = 132;
  return (
    <svg
      width={W}
      height="26"
      viewBox={`0 0 ${W} 26`}
      role="img"
      aria-label={`Rank ${fixed(d.score, 1)} of 10: severity ${d.severity}, habit ${fixed(d.habit * 100)} %, exposure ${fixed(d.exposure * 100)} %`}
    >
      <path d={`M1 8H${W - 34}`} stroke="var(--line)" strokeWidth="9" />
      <path d={`M1 8H${1 + (d.severity / 10) * (W - 35)}`} stroke="var(--slate)" strokeWidth="1.5" />
      <path
        d={`M1 8H${Math.max(3, 1 + (d.score / 10) * (W - 35))}`}
        stroke={d.opposite ? 'var(--brick)' : 'var(--lagoon)'}
        strokeWidth="9"
      />
      <text x={W - 28} y="13" fontSize="14" className="num" fill="var(--ink)">
        {fixed(d.score, 1)}
      </text>
    </svg>
  );
}

/** The three that matter most, large. */
export function FirstThree({ rows }: { rows: readonly Difference[] }) {
  const first = rows.filter((r) => r.action === 'drop').slice(0, 3);
  return (
    <ol className="first-three" aria-label="First to drop">
      {first.map((d, i) => (
        <li key={d.key} className="panel">
          <div className="d-flex align-items-center gap-2 mb-1">
            <span className="num rank">{i + 1}</span>
            <ActionMark action={d.action} opposite={d.opposite} />
            <span className="soft small ms-auto">{say(d.phase)}</span>
          </div>
          <h2>{d.name}</h2>
          <p className="cue">{d.cue}</p>
          <p className="small mb-1">
            <span className="soft">before</span> {d.from}
            <br />
            <span className="soft">here</span> <strong>{d.to}</strong>
          </p>
          <p className="soft small mb-0">{d.numbers}.</p>
        </li>
      ))}
    </ol>
  );
}

/** Every attribute in the order of the flight. */
export function DifferenceGroups({
  rows,
  many,
}: {
  rows: readonly Difference[];
  /** More than one type flown: where a habit comes from is said in each row. */
  many: boolean;
}) {
  const different = rows.filter((r) => r.action !== 'same');
  return (
    <>
      {byPhase(different).map((g) => (
        <section key={g.phase} aria-label={say(g.phase)}>
          <h3 className="group">{g.phase === 'before' ? 'before starting' : say(g.phase)}</h3>
          <div className="scroll-x">
            <table aria-label={g.phase === 'before' ? 'Before starting' : say(g.phase)} className="plain diff">
              <thead className="visually-hidden">
                <tr>
                  <th scope="col">What to do</th>
                  <th scope="col">What</th>
                  <th scope="col">Cue</th>
                  <th scope="col">Rank: severity × habit × exposure</th>
                </tr>
              </thead>
              <tbody>
                {g.rows.map((d) => (
                  <tr key={d.key}>
                    <td>
                      <ActionMark action={d.action} opposite={d.opposite} />
                    </td>
                    <td>
                      <strong>{d.name}</strong>
                      <div className="small">
                        {d.from}
                        <span className="soft"> before</span>
                      </div>
                      <div className="small">
                        {d.to}
                        <span className="soft"> here{d.airframe ? `, by ${d.airframe}` : ''}</span>
                      </div>
                    </td>
                    <td>
                      {d.cue}
                      {many ? <div className="soft small">{d.numbers.split(';')[0]}.</div> : null}
                    </td>
                    <td>
                      <RankBar d={d} />
                      <div className="soft small">
                        {d.severity} × {fixed(d.habit * 100)} % × {fixed(d.exposure * 100)} %
                      </div>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </section>
      ))}
      {rows.some((r) => r.action === 'same') ? (
        <p className="mb-0 mt-3">
          <ActionMark action="same" opposite={false} /> Keep:{' '}
          {rows
            .filter((r) => r.action === 'same')
            .map((r) => `${r.name} (${r.to})`)
            .join(', ')}
          .
        </p>
      ) : null}
    </>
  );
}
