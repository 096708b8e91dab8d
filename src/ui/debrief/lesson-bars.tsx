import { Plot } from '../shared/plot';
import type { LessonSummary } from '@/core/assess';

const PARTS = [
  { key: 'own', name: 'unassisted', fill: 'var(--lagoon)' },
  { key: 'prompted', name: 'prompted', fill: 'var(--strip-soft)' },
  { key: 'assisted', name: 'assisted or taken over', fill: 'var(--ochre)' },
  { key: 'outside', name: 'outside', fill: 'var(--brick)' },
  { key: 'notJudged', name: 'not judged', fill: 'var(--wash)' },
] as const;

/** Who flew the landings, lesson by lesson; the table of the same numbers is one tap away. */
export function LessonBars({ summaries }: { summaries: readonly LessonSummary[] }) {
  const most = Math.max(1, ...summaries.map((s) => s.landings));
  const W = 330;
  const H = summaries.length * 26 + 4;
  return (
    <>
      <Plot
        w={W}
        h={H}
        least={13}
        style={{ maxWidth: 460 }}
        role="img"
        aria-label={summaries
          .map((s) => `lesson ${s.lesson}: ${PARTS.map((p) => `${s[p.key]} ${p.name}`).join(', ')}`)
          .join('; ')}
      >
        {summaries.map((s, row) => {
          let x = 74;
          return (
            <g key={s.lesson}>
              <text x="0" y={row * 26 + 17} fontSize="14" fill="var(--ink)">
                lesson {s.lesson}
              </text>
              {PARTS.map((p) => {
                const w = (s[p.key] / most) * (W - 78);
                const at = x;
                x += w;
                return w > 0 ? (
                  <g key={p.key}>
                    <rect
                      x={at}
                      y={row * 26 + 3}
                      width={Math.max(0, w - 2)}
                      height="20"
                      fill={p.fill}
                      stroke="var(--ink)"
                      strokeWidth="0.6"
                    />
                    {w > 15 ? (
                      <text
                        x={at + w / 2 - 1}
                        y={row * 26 + 17.5}
                        fontSize="13"
                        textAnchor="middle"
                        fill={
                          p.key === 'own'
                            ? 'var(--on-lagoon)'
                            : p.key === 'outside' || p.key === 'assisted'
                              ? 'var(--card)'
                              : p.key === 'prompted'
                                ? '#16263a'
                                : 'var(--ink)'
                        }
                      >
                        {s[p.key]}
                      </text>
                    ) : null}
                  </g>
                ) : null;
              })}
            </g>
          );
        })}
      </Plot>
      <p className="mb-1" style={{ fontSize: 13 }}>
        {PARTS.map((p) => (
          <span key={p.key} className="me-3 d-inline-flex align-items-center gap-1">
            <svg width="12" height="12" aria-hidden>
              <rect width="12" height="12" fill={p.fill} stroke="var(--ink)" />
            </svg>
            {p.name}
          </span>
        ))}
      </p>
      <details>
        <summary style={{ fontSize: 14 }}>As a table</summary>
        <div className="scroll-x">
          <table aria-label="Lesson by lesson" className="plain">
            <thead>
              <tr>
                <th scope="col">Lesson</th>
                {PARTS.map((p) => (
                  <th scope="col" key={p.key} className="r">
                    {p.name}
                  </th>
                ))}
                <th scope="col" className="r">
                  go-arounds
                </th>
              </tr>
            </thead>
            <tbody>
              {summaries.map((s) => (
                <tr key={s.lesson}>
                  <td>{s.lesson}</td>
                  {PARTS.map((p) => (
                    <td key={p.key} className="r mono">
                      {s[p.key]}
                    </td>
                  ))}
                  <td className="r mono">{s.goArounds}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </>
  );
}
