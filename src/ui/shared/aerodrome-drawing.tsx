import { Plot } from './plot';
interface Runway {
  surface: string;
  lengthM: number;
  widthM: number;
  centre: { eastM: number; northM: number };
  ends: { ident: string; trueBearingDeg: number; landmark: { name: string; alongM: number } | null }[];
}
const WIDE = 640;
/** Beside a form. */
const NARROW = 380;
const H = 420;
const FILL: Record<string, string> = { asphalt: 'var(--tarmac)', grass: 'var(--meadow)', water: 'var(--lagoon)' };

/** Runways to one scale, north up, each end with its designator and its landmark. What cannot be drawn is said. */
export function AerodromeDrawing({
  runways,
  name,
  narrow = false,
}: {
  runways: readonly Runway[];
  name: string;
  narrow?: boolean;
}) {
  const W = narrow ? NARROW : WIDE;
  const good = runways.filter(
    (r) =>
      [r.lengthM, r.widthM, r.centre?.eastM, r.centre?.northM, r.ends?.[0]?.trueBearingDeg].every(
        (n) => typeof n === 'number' && Number.isFinite(n),
      ) && r.lengthM > 0,
  );
  if (good.length === 0)
    return <p className="soft mb-0">No runway can be drawn yet: give length, width, bearing and middle.</p>;
  const at = (r: Runway, along: number) => {
    const a = ((r.ends[0]?.trueBearingDeg ?? 0) * Math.PI) / 180;
    return { e: r.centre.eastM + along * Math.sin(a), n: r.centre.northM + along * Math.cos(a) };
  };
  const points = good.flatMap((r) => [at(r, -r.lengthM / 2), at(r, r.lengthM / 2)]);
  const [e0, e1] = [Math.min(...points.map((p) => p.e)), Math.max(...points.map((p) => p.e))];
  const [n0, n1] = [Math.min(...points.map((p) => p.n)), Math.max(...points.map((p) => p.n))];
  const scale = Math.min((W - 90) / Math.max(1, e1 - e0), (H - 90) / Math.max(1, n1 - n0));
  const X = (e: number) => W / 2 + (e - (e0 + e1) / 2) * scale;
  const Y = (n: number) => H / 2 - (n - (n0 + n1) / 2) * scale;
  const bar = [50, 100, 200, 500, 1000, 2000].find((b) => b * scale > 60) ?? 5000;
  return (
    <Plot
      w={W}
      h={H}
      least={14}
      role="img"
      aria-label={`${name}, drawn to scale, north up: ${good.map((r) => `${r.ends.map((e) => e.ident).join(' and ')}, ${r.surface}, ${r.lengthM} by ${r.widthM} m`).join('; ')}`}
    >
      <rect width={W} height={H} fill="var(--field)" rx="6" />
      {good.map((r, i) => {
        const [a, b] = [at(r, -r.lengthM / 2), at(r, r.lengthM / 2)];
        return (
          <g key={i}>
            <path
              d={`M${X(a.e)} ${Y(a.n)}L${X(b.e)} ${Y(b.n)}`}
              stroke={FILL[r.surface] ?? 'var(--slate)'}
              strokeWidth={Math.max(5, r.widthM * scale)}
              opacity={r.surface === 'asphalt' ? 1 : 0.65}
            />
            {r.surface === 'asphalt' ? (
              <path
                d={`M${X(a.e)} ${Y(a.n)}L${X(b.e)} ${Y(b.n)}`}
                stroke="var(--runway-edge)"
                strokeWidth="1"
                strokeDasharray="8 8"
              />
            ) : null}
            {[a, b].map((p, j) => (
              <text
                key={j}
                x={X(
                  p.e +
                    (j === 0 ? -1 : 1) * (22 / scale) * Math.sin(((r.ends[0]?.trueBearingDeg ?? 0) * Math.PI) / 180),
                )}
                y={
                  Y(
                    p.n +
                      (j === 0 ? -1 : 1) * (22 / scale) * Math.cos(((r.ends[0]?.trueBearingDeg ?? 0) * Math.PI) / 180),
                  ) + 5
                }
                fontSize="14"
                textAnchor="middle"
                className="mono"
                fill="var(--ink)"
                fontWeight="700"
              >
                {r.ends[j]?.ident}
              </text>
            ))}
            {r.ends.map((end, j) => {
              if (!end.landmark || !Number.isFinite(end.landmark.alongM)) return null;
              const p = at(r, (j === 0 ? -1 : 1) * (r.lengthM / 2 - end.landmark.alongM));
              return (
                <g key={j}>
                  <circle cx={X(p.e)} cy={Y(p.n)} r="4" fill="var(--ochre)" stroke="var(--card)" />
                  <title>{`${end.landmark.name}, ${end.landmark.alongM} m from ${end.ident}`}</title>
                </g>
              );
            })}
          </g>
        );
      })}
      <path d={`M20 ${H - 18}H${20 + bar * scale}`} stroke="var(--ink)" strokeWidth="3" />
      <text x="20" y={H - 26} fontSize="14" className="mono" fill="var(--ink)">
        {bar} m, north up
      </text>
    </Plot>
  );
}
