import { Plot } from '../shared/plot';
import type { Pace, PacePoint, ReachSample } from '@/core/circuit';
import { placeAt, toNorth } from '@/core/circuit';

export interface Strip {
  ident: string;
  other: string;
  east: number;
  north: number;
  lengthM: number;
  widthM: number;
  bearingDeg: number;
  surface: string;
}
interface Props {
  pace: Pace;
  old: Pace;
  reach: readonly ReachSample[] | null;
  strips: readonly Strip[];
  runwayDeg: number;
  atS: number;
  windFromDeg: number;
  windKt: number;
  windText: string;
  names: [string, string];
  picked: ReachSample | null;
}

const MARK: Record<ReachSample['verdict'], { dash: string | undefined; width: number; color: string }> = {
  reaches: { dash: undefined, width: 9, color: 'var(--meadow)' },
  doubtful: { dash: '10 6', width: 6, color: 'var(--ochre)' },
  no: { dash: '2 7', width: 4, color: 'var(--brick)' },
};

/** Both circuits on the field, to one scale, north up; the new one marked by what is reached without the engine. */
export function CircuitDrawing(p: Props) {
  const W = 760;
  const H = 520;
  const place = (q: { x: number; y: number }) => toNorth(q, p.runwayDeg);
  const all = [...p.pace.points, ...p.old.points].map(place).concat(p.strips.flatMap((s) => ends(s)));
  const east = all.map((q) => q.east);
  const north = all.map((q) => q.north);
  const spanE = Math.max(...east) - Math.min(...east);
  const spanN = Math.max(...north) - Math.min(...north);
  const scale = Math.min((W - 90) / Math.max(1, spanE), (H - 80) / Math.max(1, spanN));
  const cx = (Math.max(...east) + Math.min(...east)) / 2;
  const cy = (Math.max(...north) + Math.min(...north)) / 2;
  const X = (e: number) => W / 2 + (e - cx) * scale;
  const Y = (n: number) => H / 2 - (n - cy) * scale;
  const at = (q: { x: number; y: number }): [number, number] => {
    const e = place(q);
    return [X(e.east), Y(e.north)];
  };
  const line = (points: readonly PacePoint[]) =>
    points
      .map(
        (q, i) =>
          `${i === 0 ? 'M' : 'L'}${at(q)
            .map((n) => n.toFixed(1))
            .join(' ')}`,
      )
      .join('');
  const now = placeAt(p.pace.points, p.atS);
  const oldNow = placeAt(p.old.points, p.atS);
  const bar = niceBar(120 / scale);
  const wind = (p.windFromDeg * Math.PI) / 180;
  return (
    <Plot
      w={W}
      h={H}
      least={13}
      role="img"
      aria-label={`${p.names[0]} and ${p.names[1]} in the circuit, to scale, wind ${p.windText}. The table below holds the same.`}
    >
      {p.strips.map((s) => {
        const [a, b] = ends(s);
        return a && b ? (
          <g key={s.ident}>
            <path
              d={`M${X(a.east)} ${Y(a.north)}L${X(b.east)} ${Y(b.north)}`}
              stroke={
                s.surface === 'asphalt' ? 'var(--tarmac)' : s.surface === 'water' ? 'var(--lagoon)' : 'var(--meadow)'
              }
              strokeWidth={Math.max(6, s.widthM * scale)}
              opacity={s.surface === 'asphalt' ? 1 : 0.45}
            />
            <text
              x={X(a.east)}
              y={Y(a.north)}
              fontSize="13"
              className="mono halo"
              textAnchor="middle"
              fill="var(--ink)"
              dy="18"
            >
              {s.ident}
            </text>
            <text
              x={X(b.east)}
              y={Y(b.north)}
              fontSize="13"
              className="mono halo"
              textAnchor="middle"
              fill="var(--ink)"
              dy="-8"
            >
              {s.other}
            </text>
          </g>
        ) : null;
      })}
      <path d={line(p.old.points)} fill="none" stroke="var(--slate)" strokeWidth="2" strokeDasharray="3 6" />
      <path
        d={line(p.pace.points)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={p.reach ? 1 : 2.5}
        strokeLinejoin="round"
      />
      {p.reach
        ? p.reach.map((r, i) => {
            const next = p.reach?.[i + 1];
            if (!next) return null;
            const [x1, y1] = at(r);
            const [x2, y2] = at(next);
            const m = MARK[r.verdict];
            return (
              <path
                key={r.tS}
                d={`M${x1} ${y1}L${x2} ${y2}`}
                stroke={m.color}
                strokeWidth={m.width}
                strokeDasharray={m.dash}
              />
            );
          })
        : null}
      {p.pace.tasks.map((t) => {
        const q = placeAt(p.pace.points, t.tS);
        if (!q) return null;
        const [x, y] = at(q);
        return (
          <circle key={`${t.name}${t.tS}`} cx={x} cy={y} r="4" fill="var(--card)" stroke="var(--ink)" strokeWidth="1.5">
            <title>{t.name}</title>
          </circle>
        );
      })}
      {oldNow ? <Plane at={at(oldNow)} deg={oldNow.headingDeg} color="var(--slate)" /> : null}
      {now ? <Plane at={at(now)} deg={now.headingDeg} color="var(--lagoon)" /> : null}
      {p.picked ? (
        <circle cx={at(p.picked)[0]} cy={at(p.picked)[1]} r="16" fill="none" stroke="var(--ochre)" strokeWidth="4" />
      ) : null}
      <g transform={`translate(${W - 52} 54)`}>
        <path
          d={`M${-26 * -Math.sin(wind)} ${26 * -Math.cos(wind)}L${14 * -Math.sin(wind)} ${14 * Math.cos(wind)}`}
          stroke="var(--ochre)"
          strokeWidth="4"
          strokeLinecap="round"
        />
        <circle cx={14 * -Math.sin(wind)} cy={14 * Math.cos(wind)} r="6" fill="var(--ochre)" />
        <text y="44" fontSize="13" textAnchor="middle" className="mono" fill="var(--ink)">
          {p.windText}
        </text>
      </g>
      <g>
        <path d={`M24 ${H - 24}H${24 + bar * scale}`} stroke="var(--ink)" strokeWidth="3" />
        <text x="24" y={H - 32} fontSize="13" className="mono" fill="var(--ink)">
          {bar} m, north up
        </text>
      </g>
    </Plot>
  );
}

const ends = (s: Strip) => {
  const r = (s.bearingDeg * Math.PI) / 180;
  const half = s.lengthM / 2;
  return [
    { east: s.east - half * Math.sin(r), north: s.north - half * Math.cos(r) },
    { east: s.east + half * Math.sin(r), north: s.north + half * Math.cos(r) },
  ];
};
const niceBar = (m: number): number => [100, 200, 500, 1000, 2000].find((b) => b >= m) ?? 2000;
const Plane = ({ at: [x, y], deg, color }: { at: [number, number]; deg: number; color: string }) => (
  <g transform={`translate(${x} ${y}) rotate(${deg})`}>
    <path d="M0 -11L3 -3H12V0L3 2V8L6 11H-6L-3 8V2L-12 0V-3H-3Z" fill={color} stroke="var(--card)" strokeWidth="1" />
  </g>
);

/** Tasks against seconds, two aeroplanes under each other on one time axis. */
export function TaskTimeline({ rows, atS }: { rows: { name: string; pace: Pace; strong: boolean }[]; atS: number }) {
  const W = 960;
  const L = 8;
  const most = Math.max(...rows.map((r) => r.pace.totalTimeS ?? 0), 60);
  const x = (s: number) => L + (s / most) * (W - L - 20);
  const rowH = 96;
  const H = rows.length * rowH + 26;
  return (
    <Plot
      w={W}
      h={H}
      least={15}
      role="img"
      aria-label={rows
        .map((r) => `${r.name}: ${r.pace.tasks.length} tasks in ${Math.round(r.pace.totalTimeS ?? 0)} s`)
        .join('; ')}
    >
      {rows.map((r, i) => {
        const y = i * rowH + 30;
        let from = 0;
        return (
          <g key={r.name}>
            <text x={L} y={y - 16} fontSize="15" fontWeight="700" fill="var(--ink)">
              {r.name}
            </text>
            {r.pace.legs.map((l) => {
              const a = from;
              from += l.timeS ?? 0;
              return (
                <g key={l.leg}>
                  <rect
                    x={x(a)}
                    y={y - 4}
                    width={Math.max(0, x(from) - x(a) - 2)}
                    height={26}
                    fill={l.leg === r.pace.busiestLeg ? 'var(--wash)' : 'none'}
                    stroke="var(--slate)"
                    strokeWidth={l.leg === r.pace.busiestLeg ? 2 : 1}
                  />
                  <text x={(x(a) + x(from)) / 2} y={y + 42} fontSize="15" textAnchor="middle" fill="var(--slate)">
                    {l.leg} {Math.round(l.timeS ?? 0)} s
                  </text>
                </g>
              );
            })}
            {r.pace.tasks.map((t) => (
              <path
                key={`${t.name}${t.tS}`}
                d={`M${x(t.tS)} ${y - 4 - (t.items - 1) * 3}V${y + 22}`}
                stroke={r.strong ? 'var(--lagoon)' : 'var(--slate)'}
                strokeWidth={r.strong ? 4 : 3}
              >
                <title>{`${Math.round(t.tS)} s: ${t.name}`}</title>
              </path>
            ))}
            {r.pace.tooClose.map((g) => {
              const t = r.pace.tasks.find((k) => k.name === g.second);
              return t ? <path key={g.second} d={`M${x(t.tS) - 6} ${y + 27}l6 -7l6 7z`} fill="var(--brick)" /> : null;
            })}
          </g>
        );
      })}
      <path d={`M${x(atS)} 12V${H - 22}`} stroke="var(--ochre)" strokeWidth="2" />
      {Array.from({ length: Math.floor(most / 30) + 1 }, (_, i) => i * 30).map((s) => (
        <text
          key={s}
          x={x(s)}
          y={H - 4}
          fontSize="15"
          className="mono"
          fill="var(--slate)"
          textAnchor={s === 0 ? 'start' : 'middle'}
        >
          {s} s
        </text>
      ))}
    </Plot>
  );
}
