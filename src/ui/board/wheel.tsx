export interface WheelSegment {
  progress: number;
  met: boolean;
  label: string;
}

const point = (cx: number, r: number, turn: number): string => {
  const a = turn * 2 * Math.PI - Math.PI / 2;
  return `${(cx + r * Math.cos(a)).toFixed(2)} ${(cx + r * Math.sin(a)).toFixed(2)}`;
};

/** The wheel of evidence: one segment an item, filled from the hub as evidence comes; a met one is full and dark. */
export function Wheel({
  segments,
  size,
  centre,
  label,
  names = false,
}: {
  segments: readonly WheelSegment[];
  size: number;
  centre: string;
  label: string;
  names?: boolean;
}) {
  const c = size / 2;
  const outer = c - (names ? 26 : 2);
  const inner = outer * 0.52;
  const n = Math.max(1, segments.length);
  const ring = (r: number, from: number, to: number) =>
    `M${point(c, inner, from)} L${point(c, r, from)} A${r} ${r} 0 0 1 ${point(c, r, to)} L${point(c, inner, to)} A${inner} ${inner} 0 0 0 ${point(c, inner, from)} Z`;
  return (
    <svg
      width={size}
      height={size}
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label={label}
      style={names ? undefined : { maxWidth: '100%' }}
    >
      {segments.map((s, i) => {
        const gap = n > 1 ? 0.06 / n : 0;
        const from = i / n + gap;
        const to = (i + 1) / n - gap;
        const reach = inner + (outer - inner) * Math.max(0, Math.min(1, s.progress));
        const [x = '0', y = '0'] = point(c, outer + 13, (i + 0.5) / n).split(' ');
        return (
          <g key={i}>
            <path d={ring(outer, from, to)} fill="var(--wash)" stroke="var(--line)" strokeWidth="1" />
            {s.progress > 0 ? <path d={ring(reach, from, to)} fill={s.met ? 'var(--lagoon)' : 'var(--ochre)'} /> : null}
            {names ? (
              <text
                x={x}
                y={y}
                textAnchor="middle"
                dominantBaseline="central"
                fontSize="12"
                fill="var(--ink)"
                className="mono"
              >
                {s.label}
              </text>
            ) : null}
          </g>
        );
      })}
      <text
        x={c}
        y={c}
        textAnchor="middle"
        dominantBaseline="central"
        fontSize={names ? 26 : 15}
        fontWeight="700"
        fill="var(--ink)"
      >
        {centre}
      </text>
    </svg>
  );
}
