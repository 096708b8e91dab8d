import { Plot } from '../shared/plot';
import { type BriefGate, type BriefResult, type RunwayWind, gateConfiguration } from '@/core/approach';
import { direction, fixed, upTo, downTo, besideLimit } from '@/core/format';
import type { Aerodrome } from '@/domain/sheet';
import { say } from '@/domain/words';

/** Pushes labels apart along one axis until none is nearer than `gap`; order is kept, ends stay inside. */
export function spread(wanted: readonly number[], gap: number, low: number, high: number): number[] {
  const at = [...wanted];
  for (let pass = 0; pass < 40; pass++) {
    for (let i = 1; i < at.length; i++) {
      const a = at[i - 1] ?? 0;
      const b = at[i] ?? 0;
      if (b - a < gap) {
        const push = (gap - (b - a)) / 2;
        at[i - 1] = a - push;
        at[i] = b + push;
      }
    }
    for (let i = 0; i < at.length; i++) at[i] = Math.min(high, Math.max(low, at[i] ?? 0));
  }
  return at;
}

/**
 * The way down: height and speed along the path, to one scale of distance; the slope of each leg and where it cannot
 * slow.
 */
export function ProfileDrawing({ result, unit, hasFlap }: { result: BriefResult; unit: string; hasFlap: boolean }) {
  const W = 760;
  const H = 400;
  const left = 60;
  const right = 706;
  const ground = 196;
  const gates = result.gates;
  const far = Math.max(...gates.map((g) => g.distanceM));
  const high = Math.max(...gates.map((g) => g.heightFt), 1);
  const x = (m: number) => right - (m / far) * (right - left);
  const y = (ft: number) => ground - (ft / high) * 132;
  const flown = gates.filter((g) => g.target !== null);
  const top = Math.max(...flown.map((g) => g.target ?? 0));
  const low = Math.min(...flown.map((g) => g.target ?? 0));
  const sy = (v: number) => 372 - ((v - low) / Math.max(1, top - low)) * 62;
  const labels = spread(
    gates.map((g) => x(g.distanceM)),
    122,
    64,
    W - 62,
  );
  const path = gates.map((g, i) => `${i === 0 ? 'M' : 'L'}${x(g.distanceM)} ${y(g.heightFt)}`).join(' ');
  const stable = result.stabilised.heightFt;
  const summary = gates
    .map(
      (g) =>
        `${g.name} ${g.target ?? 'no speed'} ${unit} at ${[`${g.heightFt} ft`, gateConfiguration(g, hasFlap), g.power].filter(Boolean).join(', ')}`,
    )
    .join('; ');
  return (
    <Plot w={W} h={H} least={13} role="img" aria-label={`Approach: ${summary}`}>
      <path
        d={`M${left - 36} ${y(stable)}H${x(distanceAt(gates, stable))}`}
        stroke="var(--ochre)"
        strokeDasharray="3 5"
      />
      <text x={left - 36} y={y(stable) - 5} fontSize="13" fill="var(--ochre)">
        stabilised {stable} ft
      </text>
      <path
        d={`M${left - 36} ${y(gates[0]?.heightFt ?? 0)} L${x(gates[0]?.distanceM ?? 0)} ${y(gates[0]?.heightFt ?? 0)} ${path.replace('M', 'L')} L${right + 20} ${ground - 3}`}
        fill="none"
        stroke="var(--lagoon)"
        strokeWidth="3"
        strokeLinejoin="round"
      />
      <path d={`M${left - 36} ${ground}H${W - 6}`} stroke="var(--ink)" strokeWidth="1.5" />
      <rect x={right - 4} y={ground} width={W - right} height="8" fill="var(--tarmac)" />
      {gates.slice(1).map((g, i) => {
        const from = gates[i];
        const leg = result.legs.find((l) => l.to === g.name);
        if (!from || !leg) return null;
        const bad = leg.canSlow === 'no';
        return (
          <g key={g.name} fontSize="13">
            {from.target !== null && g.target !== null ? (
              <path
                d={`M${x(from.distanceM)} ${sy(from.target)}L${x(g.distanceM)} ${sy(g.target)}`}
                stroke={bad ? 'var(--brick)' : leg.canSlow === 'tight' ? 'var(--ochre)' : 'var(--ink)'}
                strokeWidth="2.5"
                strokeDasharray={bad ? '6 4' : undefined}
              />
            ) : null}
            <text x={(x(from.distanceM) + x(g.distanceM)) / 2} y={390} textAnchor="middle" fill="var(--slate)">
              {fixed(leg.slopeDeg ?? 0, 1)}° · {fixed(leg.timeS ?? 0)} s
              {leg.canSlow === 'no' ? ' · cannot slow' : leg.canSlow === 'tight' ? ' · tight' : ''}
            </text>
          </g>
        );
      })}
      <text x={4} y={300} fontSize="13" fill="var(--slate)">
        speed, {unit}
      </text>
      {gates.map((g) =>
        g.target === null ? null : (
          <circle key={g.name} cx={x(g.distanceM)} cy={sy(g.target)} r="4.5" fill="var(--ink)" />
        ),
      )}
      {gates.map((g, i) => (
        <GateMark
          key={g.name}
          gate={g}
          x={x(g.distanceM)}
          y={y(g.heightFt)}
          labelX={labels[i] ?? 0}
          ground={ground}
          unit={unit}
          hasFlap={hasFlap}
        />
      ))}
    </Plot>
  );
}

/** Where along the path a height is passed. */
function distanceAt(gates: readonly BriefGate[], heightFt: number): number {
  const i = gates.findIndex((g) => g.heightFt <= heightFt);
  const a = gates[i - 1];
  const b = gates[i];
  if (!a || !b || a.heightFt === b.heightFt) return b?.distanceM ?? 0;
  return b.distanceM + ((heightFt - b.heightFt) / (a.heightFt - b.heightFt)) * (a.distanceM - b.distanceM);
}

function GateMark({
  gate,
  x,
  y,
  labelX,
  ground,
  unit,
  hasFlap,
}: {
  gate: BriefGate;
  x: number;
  y: number;
  labelX: number;
  ground: number;
  unit: string;
  hasFlap: boolean;
}) {
  const low = gate.margin?.lowLevel || gate.margin?.lowBanked || gate.target === null;
  return (
    <g>
      <path d={`M${x} ${y}V${ground}`} stroke="var(--line)" strokeWidth="1" />
      <text x={labelX} y={y - 38} fontSize="14" fill="var(--slate)" textAnchor="middle">
        {gate.name}
      </text>
      <text x={labelX} y={y - 14} textAnchor="middle" fill={low ? 'var(--brick)' : 'var(--ink)'}>
        <tspan fontSize="24" fontWeight="700" className="num">
          {gate.target ?? '–'}
        </tspan>
        <tspan fontSize="13" className="mono">
          {' '}
          {gate.target === null ? 'no speed' : unit}
        </tspan>
      </text>
      <circle cx={x} cy={y} r="6.5" fill="var(--card)" stroke="var(--lagoon)" strokeWidth="3" />
      <g fontSize="13" className="mono" textAnchor="middle" fill="var(--ink)">
        <text x={labelX} y={ground + 26}>
          {gate.heightFt} ft
        </text>
        <text x={labelX} y={ground + 43} fill="var(--slate)">
          {gate.altimeterFt} QNH
        </text>
        <text x={labelX} y={ground + 60}>
          {gateConfiguration(gate, hasFlap)}
        </text>
        <text x={labelX} y={ground + 77}>
          {gate.power.split(',')[0]}
        </text>
        {gate.whites === null ? null : <WhiteLights whites={gate.whites} x={labelX} y={ground + 92} />}
      </g>
    </g>
  );
}

/** Four slope lights: white ones empty, red ones filled. */
const WhiteLights = ({ whites, x, y }: { whites: number; x: number; y: number }) => (
  <g>
    {[0, 1, 2, 3].map((n) => (
      <circle
        key={n}
        cx={x - 21 + n * 14}
        cy={y}
        r="5"
        fill={n < whites ? 'var(--card)' : 'var(--brick)'}
        stroke="var(--ink)"
      />
    ))}
  </g>
);

/** The runway from the threshold: its length, what take-off and landing need, and the landmark to be down by. */
export function RunwayStrip({
  used,
  takeoffM,
  landingM,
  landmark,
}: {
  used: RunwayWind;
  takeoffM: number | null;
  landingM: number | null;
  landmark: { name: string; alongM: number } | null;
}) {
  const W = 760;
  const most = Math.max(used.lengthM, takeoffM ?? 0, landingM ?? 0) * 1.02;
  const x = (m: number) => 8 + (m / most) * (W - 16);
  const need = (m: number | null, y: number, name: string) =>
    m === null ? null : (
      <g key={name}>
        <path
          d={`M${x(0)} ${y}H${x(m)}`}
          stroke={m > used.lengthM ? 'var(--brick)' : 'var(--lagoon)'}
          strokeWidth="5"
          strokeDasharray={m > used.lengthM ? '8 5' : undefined}
        />
        <text x={Math.min(x(m) + 6, W - 150)} y={y + (m > used.lengthM ? -7 : 4)} fontSize="13" fill="var(--ink)">
          {name} <tspan className="num">{Math.ceil(m)} m</tspan>
        </text>
      </g>
    );
  return (
    <Plot
      w={W}
      h={112}
      least={13}
      role="img"
      aria-label={`Runway ${used.ident}, ${used.lengthM} m ${used.surface}. ${takeoffM === null ? '' : `Take-off needs ${Math.ceil(takeoffM)} m. `}${landingM === null ? '' : `Landing needs ${Math.ceil(landingM)} m. `}${landmark ? `Down by the ${landmark.name}, ${landmark.alongM} m.` : ''}`}
    >
      <rect x={x(0)} y={12} width={x(used.lengthM) - x(0)} height={32} fill="var(--tarmac)" />
      <path
        d={`M${x(0) + 20} 28H${x(used.lengthM) - 8}`}
        stroke="var(--card)"
        strokeWidth="2"
        strokeDasharray="14 12"
      />
      <text x={x(0) + 4} y={58} fontSize="13" className="mono" fill="var(--slate)">
        {used.ident}
      </text>
      <text x={x(used.lengthM)} y={58} fontSize="13" textAnchor="end" className="mono" fill="var(--slate)">
        {used.lengthM} m · {used.widthM} m wide
      </text>
      {landmark ? (
        <g>
          <path d={`M${x(landmark.alongM)} 4V52`} stroke="var(--ochre)" strokeWidth="3" />
          <text x={x(landmark.alongM) + 5} y={58} fontSize="13" fill="var(--ochre)">
            {landmark.name}, {landmark.alongM} m
          </text>
        </g>
      ) : null}
      {need(takeoffM, 78, 'take-off')}
      {need(landingM, 100, 'landing')}
    </Plot>
  );
}

/** Floors of airspace on the way out, height against distance. */
export function AirspaceStrip({ aerodrome }: { aerodrome: Aerodrome }) {
  const W = 520;
  const far = Math.max(...aerodrome.airspace.map((a) => a.toKm));
  const high = Math.max(...aerodrome.airspace.map((a) => a.floorFt)) * 1.15;
  const x = (km: number) => 8 + (km / far) * (W - 16);
  const y = (ft: number) => 130 - (ft / high) * 112;
  return (
    <Plot
      w={W}
      h={152}
      least={13}
      role="img"
      aria-label={aerodrome.airspace
        .map((a) => `${a.name}: floor ${a.floorFt} ft from ${a.fromKm} to ${a.toKm} km`)
        .join('; ')}
    >
      <path d={`M8 ${y(aerodrome.elevationFt)}H${W - 8}`} stroke="var(--ink)" strokeWidth="2" />
      {aerodrome.airspace.map((a) => (
        <g key={a.name}>
          <rect
            x={x(a.fromKm)}
            y={6}
            width={x(a.toKm) - x(a.fromKm)}
            height={y(a.floorFt) - 6}
            fill="var(--wash)"
            stroke="var(--slate)"
          />
          <text
            x={(x(a.fromKm) + x(a.toKm)) / 2}
            y={y(a.floorFt) + 16}
            fontSize="14"
            textAnchor="middle"
            className="num"
            fill="var(--ink)"
          >
            {a.floorFt} ft
          </text>
          <text x={(x(a.fromKm) + x(a.toKm)) / 2} y={20} fontSize="13" textAnchor="middle" fill="var(--slate)">
            {a.name}
          </text>
        </g>
      ))}
      {[0, ...aerodrome.airspace.map((a) => a.toKm)].map((km) => (
        <text
          key={km}
          x={Math.min(W - 26, Math.max(22, x(km)))}
          y={148}
          fontSize="13"
          textAnchor="middle"
          className="mono"
          fill="var(--slate)"
        >
          {km} km
        </text>
      ))}
    </Plot>
  );
}

/** Runways by their true bearing, the wind as it comes, the runway in use dark. */
export function RunwayDial({
  result,
  runwayEnd,
  windText,
}: {
  result: BriefResult;
  runwayEnd: string;
  windText: string;
}) {
  const S = 236;
  const c = S / 2;
  const R = 82;
  const longest = Math.max(...result.runways.map((r) => r.lengthM));
  const at = (deg: number, r: number): [number, number] => [
    c + r * Math.sin((deg * Math.PI) / 180),
    c - r * Math.cos((deg * Math.PI) / 180),
  ];
  const used = result.runways.find((r) => r.ident === runwayEnd);
  const strips = result.runways.filter((_, i) => i % 2 === 0);
  const ordered = [...strips].sort(
    (a, b) =>
      Number(usesStrip(a.trueBearingDeg, used?.trueBearingDeg)) -
      Number(usesStrip(b.trueBearingDeg, used?.trueBearingDeg)),
  );
  return (
    <Plot
      w={S}
      h={S}
      least={11}
      style={{ maxWidth: 270, display: 'block', margin: '0 auto' }}
      role="img"
      aria-label={`Wind ${windText} on runway ${runwayEnd}`}
    >
      <circle cx={c} cy={c} r={R + 6} fill="none" stroke="var(--line)" />
      {/* In the corner: at the top it would lie on the name of a runway that leads north. */}
      <text x={0} y={11} fontSize="11" fill="var(--slate)">
        true north up
      </text>
      {ordered.map((r) => {
        const half = (R - 10) * (r.lengthM / longest);
        const [x1, y1] = at(r.trueBearingDeg, half);
        const [x2, y2] = at(r.trueBearingDeg + 180, half);
        const on = usesStrip(r.trueBearingDeg, used?.trueBearingDeg);
        return (
          <g key={r.ident}>
            <path
              d={`M${x1} ${y1}L${x2} ${y2}`}
              stroke={on ? 'var(--tarmac)' : 'var(--line)'}
              strokeWidth={on ? 20 : 12}
            />
            {on ? (
              <path d={`M${x1} ${y1}L${x2} ${y2}`} stroke="var(--card)" strokeWidth="1.5" strokeDasharray="7 6" />
            ) : null}
          </g>
        );
      })}
      {result.runways.map((r) => {
        const [x, y] = at(r.trueBearingDeg + 180, R + 20);
        const on = r.ident === runwayEnd;
        return (
          <text
            key={r.ident}
            x={x}
            y={y}
            textAnchor="middle"
            dominantBaseline="central"
            fontSize={on ? 15 : 12}
            fontWeight={on ? 700 : 400}
            fill={on ? 'var(--ink)' : 'var(--slate)'}
            className="mono"
          >
            {r.ident}
          </text>
        );
      })}
      {result.windTrueDeg !== null
        ? (() => {
            const [x1, y1] = at(result.windTrueDeg, R + 4);
            const [x2, y2] = at(result.windTrueDeg, 18);
            return (
              <g>
                <path d={`M${x1} ${y1}L${x2} ${y2}`} stroke="var(--ochre)" strokeWidth="5" strokeLinecap="round" />
                <circle cx={x2} cy={y2} r="8" fill="var(--ochre)" />
              </g>
            );
          })()
        : null}
    </Plot>
  );
}
const usesStrip = (bearing: number, used: number | undefined): boolean =>
  used !== undefined && Math.abs((((bearing - used) % 180) + 180) % 180) < 1;

/** Every crosswind limit as a bar, today's mean and gust drawn across them. */
export function LimitBars({ result, runwayEnd }: { result: BriefResult; runwayEnd: string }) {
  const used = result.runways.find((r) => r.ident === runwayEnd);
  const mean = Math.abs(used?.crosswindKt ?? 0);
  const gust = used?.gustCrosswindKt === null || used === undefined ? null : Math.abs(used.gustCrosswindKt);
  // Decimals at which no number contradicts the verdict.
  const beside =
    result.crosswind.governingKt === null
      ? 0
      : (besideLimit(result.crosswind.governingKt, mean, gust ?? 0)[0]?.split('.')[1]?.length ?? 0);
  const top = Math.max(20, mean, gust ?? 0, ...result.limits.map((l) => l.valueKt)) * 1.08;
  const rows = [...result.limits].sort((a, b) => a.valueKt - b.valueKt);
  const rowH = 40;
  const W = 350;
  const L = 12;
  const x = (kt: number) => L + (kt / top) * (W - L - 60);
  const H = rows.length * rowH + 26;
  return (
    <Plot
      w={W}
      h={H}
      least={13}
      role="img"
      aria-label={`Crosswind limits: ${rows.map((l) => `${say(l.kind)} ${downTo(l.valueKt, l.kind === 'vs0Floor' ? 1 : beside)} kt`).join(', ')}. Today ${upTo(mean, beside)} kt${gust === null ? '' : `, ${upTo(gust, beside)} in gusts`}.`}
    >
      {result.windAgeMin !== null ? (
        <g>
          <path d={`M${x(mean)} 4V${H - 18}`} stroke="var(--ochre)" strokeWidth="2.5" />
          <text x={x(mean)} y={H - 4} fontSize="13" textAnchor="middle" fill="var(--ochre)" fontWeight="700">
            now {upTo(mean, beside)}
          </text>
          {gust !== null && gust - mean > 0.5 ? (
            <>
              <path d={`M${x(gust)} 4V${H - 18}`} stroke="var(--ochre)" strokeWidth="2" strokeDasharray="3 3" />
              <text x={Math.max(x(gust), x(mean) + 58)} y={H - 4} fontSize="13" textAnchor="middle" fill="var(--ochre)">
                gust {upTo(gust, beside)}
              </text>
            </>
          ) : null}
        </g>
      ) : null}
      {rows.map((l, i) => {
        const governs = l.kind === result.crosswind.governingKind && l.valueKt === result.crosswind.governingKt;
        const soft = l.kind === 'vs0Floor' || l.kind === 'demonstrated' || l.kind === 'pilotStep';
        const y = i * rowH + 6;
        return (
          <g key={`${l.kind}${l.source}`}>
            <text x={L} y={y + 10} className="halo" fontSize="13" fill="var(--ink)" fontWeight={governs ? 700 : 400}>
              {say(l.kind)}
              {governs ? ', governs' : ''}
              <tspan fill="var(--slate)" fontWeight="400">
                {' '}
                {l.source.length > 20 || l.kind === 'airframe' || governs ? '' : ` ${l.source}`}
              </tspan>
            </text>
            <path
              d={`M${L} ${y + 21}H${x(l.valueKt)}`}
              stroke={governs ? 'var(--lagoon)' : 'var(--slate)'}
              strokeWidth={governs ? 8 : 4}
              strokeDasharray={soft && !governs ? '5 4' : undefined}
            />
            <text x={x(l.valueKt) + 8} y={y + 26} fontSize="14" className="num halo" fill="var(--ink)">
              {downTo(l.valueKt, l.kind === 'vs0Floor' ? 1 : beside)} kt
            </text>
          </g>
        );
      })}
    </Plot>
  );
}

export const directionText = (trueDeg: number | null, magDeg: number | null): string =>
  trueDeg === null || magDeg === null ? 'variable' : `${direction(trueDeg)}° true, ${direction(magDeg)}° magnetic`;
