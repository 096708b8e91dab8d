import { Plot } from '../shared/plot';
import type { Standardised } from '@/core/assess';

const PARTS = [
  { key: 'kinder', name: 'more lenient', fill: 'var(--ochre)' },
  { key: 'agree', name: 'the same', fill: 'var(--lagoon)' },
  { key: 'harder', name: 'stricter', fill: 'var(--brick)' },
] as const;

/**
 * Of what each instructor judged and a recording measured: more lenient, the same, stricter. Each row is a whole, whatever its
 * count.
 */
export function EyeBars({ rows }: { rows: readonly (Standardised & { name: string })[] }) {
  const W = 700;
  const left = 190;
  return (
    <>
      <Plot
        w={W}
        h={rows.length * 34 + 4}
        least={14}
        style={{ maxWidth: 900 }}
        role="img"
        aria-label={rows.map((r) => `${r.name}: ${PARTS.map((p) => `${r[p.key]} ${p.name}`).join(', ')}`).join('; ')}
      >
        {rows.map((r, i) => {
          let x = left;
          return (
            <g key={r.author}>
              <text x="0" y={i * 34 + 22} fontSize="14" fill="var(--ink)">
                {r.name}
              </text>
              {PARTS.map((p) => {
                const w = ((W - left) * r[p.key]) / Math.max(1, r.n);
                const at = x;
                x += w;
                return w > 0 ? (
                  <g key={p.key}>
                    <rect
                      x={at}
                      y={i * 34 + 4}
                      width={Math.max(0, w - 2)}
                      height="26"
                      fill={p.fill}
                      stroke="var(--ink)"
                      strokeWidth="0.6"
                    />
                    {w > 18 ? (
                      <text
                        x={at + w / 2 - 1}
                        y={i * 34 + 22}
                        fontSize="14"
                        textAnchor="middle"
                        fill={p.key === 'agree' ? 'var(--on-lagoon)' : 'var(--card)'}
                      >
                        {r[p.key]}
                      </text>
                    ) : null}
                  </g>
                ) : null;
              })}
            </g>
          );
        })}
      </Plot>
      <p className="mb-2 small">
        {PARTS.map((p) => (
          <span key={p.key} className="me-3 d-inline-flex align-items-center gap-1">
            <svg width="12" height="12" aria-hidden>
              <rect width="12" height="12" fill={p.fill} stroke="var(--ink)" />
            </svg>
            {p.name}
          </span>
        ))}
      </p>
    </>
  );
}
