import { TableHead } from '../shared/table-head';
import { Plot } from '../shared/plot';
import { dateText, downTo, fixed } from '@/core/format';

interface Props {
  group: string;
  stepKt: number;
  provenKt: number;
  ladderKt: number;
  points: readonly { date: string; provenKt: number; ladderKt: number }[];
  landings: readonly { date: string; kt: number; good: boolean | null }[];
}
const W = 520;
const H = 190;
const DAY_MS = 86_400_000;

/** A pilot’s own wind as it grew: what was proven after each day, the step above it, and the landings it rests on. */
export function LadderDrawing({ group, stepKt, provenKt, ladderKt, points, landings }: Props) {
  const all = points.map((p) => Date.parse(p.date));
  const [from, to] = [Math.min(...all), Math.max(...all)];
  const span = Math.max(DAY_MS, to - from);
  const top = Math.max(ladderKt, ...points.map((p) => p.ladderKt), ...landings.map((l) => l.kt)) + 2;
  const x = (date: string) => 40 + ((W - 60) * (Date.parse(date) - from)) / span;
  const y = (kt: number) => H - 28 - ((H - 46) * kt) / top;
  const stairs = (of: (p: Props['points'][number]) => number) =>
    points.map((p, i) => `${i === 0 ? `M${x(p.date)} ${y(of(p))}` : `H${x(p.date)}V${y(of(p))}`}`).join('') +
    `H${W - 14}`;
  const held = ladderKt < provenKt + 0.5;
  const words = `${group.replaceAll('-', ' ')}: proven ${downTo(provenKt)} kt crosswind, step to ${downTo(ladderKt)} kt`;
  return (
    <figure className="mb-2">
      <figcaption>
        <b>{group.replaceAll('-', ' ')}</b>: proven <span className="num">{downTo(provenKt)}</span> kt crosswind,{' '}
        {held ? 'no step beyond it: a stronger wind was denied and not proven since' : 'the next step goes to'}{' '}
        {held ? null : (
          <>
            <span className="num">{downTo(ladderKt)}</span> kt{' '}
          </>
        )}
        <span className="soft">(steps of {fixed(stepKt)} kt, last three landings that count)</span>
      </figcaption>
      <Plot
        w={W}
        h={H}
        least={13}
        role="img"
        aria-label={`${words}. The table below holds the same.`}
        style={{ maxWidth: 640 }}
      >
        {Array.from({ length: Math.floor(top / 4) + 1 }, (_, i) => i * 4).map((kt) => (
          <g key={kt}>
            <path d={`M40 ${y(kt)}H${W - 14}`} stroke="var(--line)" />
            <text x="34" y={y(kt) + 4} fontSize="13" textAnchor="end" className="mono" fill="var(--slate)">
              {kt}
            </text>
          </g>
        ))}
        <text x="6" y="14" fontSize="13" fill="var(--slate)">
          kt crosswind
        </text>
        {landings.map((l, i) =>
          l.good === null ? null : l.good ? (
            <circle key={i} cx={x(l.date)} cy={y(l.kt)} r="3" fill="var(--meadow)" />
          ) : (
            <g key={i} stroke="var(--brick)" strokeWidth="1.6">
              <circle cx={x(l.date)} cy={y(l.kt)} r="3.4" fill="var(--card)" />
              <path d={`M${x(l.date) - 3.4} ${y(l.kt)}h6.8`} />
            </g>
          ),
        )}
        <path d={stairs((p) => p.ladderKt)} fill="none" stroke="var(--ochre)" strokeWidth="2" strokeDasharray="5 4" />
        <path d={stairs((p) => p.provenKt)} fill="none" stroke="var(--lagoon)" strokeWidth="3" />
        {points[0] ? (
          <text x="40" y={H - 8} fontSize="13" className="mono" fill="var(--slate)">
            {dateText(points[0].date)}
          </text>
        ) : null}
        {points.length > 1 ? (
          <text x={W - 14} y={H - 8} fontSize="13" textAnchor="end" className="mono" fill="var(--slate)">
            {dateText(points[points.length - 1]?.date ?? '')}
          </text>
        ) : null}
      </Plot>
      <ul className="legend">
        <li>line: proven</li>
        <li>dashes: the next step</li>
        <li>filled: own landing that holds</li>
        <li>barred: one that denies</li>
      </ul>
      <details>
        <summary className="small">As a table</summary>
        <table aria-label="Crosswind proven, step by step" className="plain">
          <TableHead columns={['After', { right: 'Proven' }, { right: 'Step to' }]} />
          <tbody>
            {points.map((p) => (
              <tr key={p.date}>
                <td>{dateText(p.date)}</td>
                <td className="r mono">{downTo(p.provenKt)} kt</td>
                <td className="r mono">{downTo(p.ladderKt)} kt</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </figure>
  );
}
