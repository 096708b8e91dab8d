import type { Scene, Shape } from '@/core/sightpicture';

const STYLE: Record<Shape['id'], { fill: string; stroke: string; width: number }> = {
  furrow: { fill: 'none', stroke: 'var(--furrow)', width: 1 },
  runway: { fill: 'var(--tarmac)', stroke: 'var(--runway-edge)', width: 2.5 },
  threshold: { fill: '#ffffff', stroke: 'none', width: 0 },
  centreline: { fill: '#ffffff', stroke: 'none', width: 0 },
  aim: { fill: '#f3c46c', stroke: '#16263a', width: 0.5 },
  landmark: { fill: 'none', stroke: 'var(--brick)', width: 4 },
  nose: { fill: 'var(--nose)', stroke: 'var(--ink)', width: 2.5 },
  part: { fill: 'none', stroke: 'var(--nose)', width: 9 },
};

/**
 * The picture over the nose. Horizon, runway and cowling to angle; the glass is as wide as the view the core projects.
 */
export function SightDrawing({
  scene,
  label,
  ratio = 0.62,
  plain = false,
}: {
  scene: Scene;
  label: string;
  ratio?: number;
  plain?: boolean;
}) {
  const W = 1000;
  const H = W * ratio;
  const x = (v: number) => (W / 2) * (1 + v);
  const y = (v: number) => H * 0.44 + (W / 2) * v;
  const path = (s: Shape) =>
    `${s.points.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.x).toFixed(1)} ${y(p.y).toFixed(1)}`).join('')}${s.closed ? 'Z' : ''}`;
  const [a, b] = scene.horizon;
  // The ground fills everything below the horizon, whichever way it is tilted.
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const far = (p: { x: number; y: number }, along: number, down: number) =>
    `${x(p.x + dx * along - dy * down).toFixed(1)} ${y(p.y + dy * along + dx * down).toFixed(1)}`;
  const order: Shape['id'][] = ['furrow', 'runway', 'threshold', 'centreline', 'aim', 'landmark', 'part', 'nose'];
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      role="img"
      aria-label={label}
      className={plain ? 'sight plain-sight' : 'sight'}
      preserveAspectRatio="xMidYMid slice"
    >
      <rect width={W} height={H} fill="var(--sky)" />
      <path d={`M${far(a, -2, 0)}L${far(b, 2, 0)}L${far(b, 2, 6)}L${far(a, -2, 6)}Z`} fill="var(--field)" />
      <path d={`M${far(a, -2, 0)}L${far(b, 2, 0)}`} stroke="var(--ink)" strokeWidth="2" />
      {plain
        ? null
        : scene.shapes
            .filter((s) => s.id === 'landmark')
            .map((s) =>
              s.points[1] ? (
                <text
                  key="label"
                  x={x(s.points[1].x) - 8}
                  y={y(s.points[1].y)}
                  fontSize="32"
                  textAnchor="end"
                  className="halo sight-name"
                  fill="var(--brick)"
                >
                  {s.name}
                </text>
              ) : null,
            )}
      {order.flatMap((id) =>
        scene.shapes
          .filter((s) => s.id === id)
          .map((s, i) => (
            <path
              key={`${id}${i}`}
              d={path(s)}
              fill={s.closed ? STYLE[id].fill : 'none'}
              stroke={STYLE[id].stroke}
              strokeWidth={STYLE[id].width}
              strokeLinecap="round"
              strokeLinejoin="round"
            />
          )),
      )}
      {scene.aim ? (
        <circle cx={x(scene.aim.x)} cy={y(scene.aim.y)} r="13" fill="none" stroke="var(--aim)" strokeWidth="3.5" />
      ) : null}
      {plain
        ? null
        : scene.references.map((r) => (
            <g key={r.name}>
              <circle cx={x(r.at.x)} cy={y(r.at.y)} r="7" fill="var(--ochre)" />
              <text
                x={x(r.at.x) + (r.at.x < -0.4 ? -14 : 14)}
                y={y(r.at.y) + 30}
                fontSize="32"
                className="halo sight-name"
                textAnchor={r.at.x < -0.4 ? 'start' : r.at.x > 0.4 ? 'end' : 'start'}
                fill="var(--ink)"
              >
                {r.name}
              </text>
            </g>
          ))}
    </svg>
  );
}
