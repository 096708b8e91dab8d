import type { BriefResult, BriefGate } from '@/core/approach';
import { direction, fixed } from '@/core/format';
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

/** The way down: the gates to scale along the path, with speed, height, flap and power. */
export function ApproachDrawing({ result, unit }: { result: BriefResult; unit: string }) {
  const W = 760;
  const H = 318;
  const left = 60;
  const right = 706;
  const ground = 226;
  const gates = result.gates;
  const far = Math.max(...gates.map((g) => g.distanceM));
  const high = Math.max(...gates.map((g) => g.heightFt));
  const x = (m: number) => right - (m / far) * (right - left);
  const y = (ft: number) => ground - (ft / high) * 150;
  const labels = spread(gates.map((g) => x(g.distanceM)), 128, 64, W - 62);
  const path = gates.map((g, i) => `${i === 0 ? 'M' : 'L'}${x(g.distanceM)} ${y(g.heightFt)}`).join(' ');
  const summary = gates.map((g) => `${g.name} ${g.target ?? 'no speed'} ${unit} at ${g.heightFt} ft, flap ${g.flapDeg}, ${g.power}`).join('; ');
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width="100%" role="img" aria-label={`Approach gates: ${summary}`}>
      <path d={`M${left - 36} ${y(gates[0]?.heightFt ?? 0)} L${x(gates[0]?.distanceM ?? 0)} ${y(gates[0]?.heightFt ?? 0)} ${path.replace('M', 'L')} L${right + 20} ${ground - 3}`} fill="none" stroke="var(--lagoon)" strokeWidth="3" strokeLinejoin="round" />
      <path d={`M${left - 36} ${ground}H${W - 6}`} stroke="var(--ink)" strokeWidth="1.5" />
      <rect x={right - 4} y={ground} width={W - right} height="8" fill="var(--tarmac)" />
      {gates.map((g, i) => <GateMark key={g.name} gate={g} x={x(g.distanceM)} y={y(g.heightFt)} labelX={labels[i] ?? 0} ground={ground} unit={unit} />)}
    </svg>
  );
}

function GateMark({ gate, x, y, labelX, ground, unit }: { gate: BriefGate; x: number; y: number; labelX: number; ground: number; unit: string }) {
  const low = gate.margin?.lowLevel || gate.margin?.lowBanked || gate.target === null;
  return (
    <g>
      <path d={`M${x} ${y}V${ground}`} stroke="var(--line)" strokeWidth="1" />
      <text x={labelX} y={y - 38} fontSize="14" fill="var(--slate)" textAnchor="middle">{gate.name}</text>
      <text x={labelX} y={y - 14} textAnchor="middle" fill={low ? 'var(--brick)' : 'var(--ink)'}><tspan fontSize="24" fontWeight="700" className="num">{gate.target ?? '–'}</tspan><tspan fontSize="13" className="mono"> {gate.target === null ? 'no speed' : unit}</tspan></text>
      <circle cx={x} cy={y} r="6.5" fill="var(--card)" stroke="var(--lagoon)" strokeWidth="3" />
      <g fontSize="13" className="mono" textAnchor="middle" fill="var(--ink)">
        <text x={labelX} y={ground + 26}>{gate.heightFt} ft</text>
        <text x={labelX} y={ground + 44} fill="var(--slate)">{gate.altimeterFt} QNH</text>
        <text x={labelX} y={ground + 62}>flap {gate.flapDeg}°</text>
        <text x={labelX} y={ground + 80}>{gate.power.split(',')[0]}</text>
      </g>
    </g>
  );
}

/** Runways by their true bearing, the wind as it comes, the runway in use dark. */
export function RunwayDial({ result, runwayEnd, windText }: { result: BriefResult; runwayEnd: string; windText: string }) {
  const S = 236;
  const c = S / 2;
  const R = 82;
  const longest = Math.max(...result.runways.map((r) => r.lengthM));
  const at = (deg: number, r: number): [number, number] => [c + r * Math.sin((deg * Math.PI) / 180), c - r * Math.cos((deg * Math.PI) / 180)];
  const used = result.runways.find((r) => r.ident === runwayEnd);
  const strips = result.runways.filter((_, i) => i % 2 === 0);
  const ordered = [...strips].sort((a, b) => Number(usesStrip(a.trueBearingDeg, used?.trueBearingDeg)) - Number(usesStrip(b.trueBearingDeg, used?.trueBearingDeg)));
  return (
    <svg viewBox={`0 0 ${S} ${S}`} width="100%" style={{ maxWidth: 270, display: 'block', margin: '0 auto' }} role="img" aria-label={`Wind ${windText} on runway ${runwayEnd}`}>
      <circle cx={c} cy={c} r={R + 6} fill="none" stroke="var(--line)" />
      <text x={c} y={14} textAnchor="middle" fontSize="11" fill="var(--slate)">true north</text>
      {ordered.map((r) => {
        const half = (R - 10) * (r.lengthM / longest);
        const [x1, y1] = at(r.trueBearingDeg, half);
        const [x2, y2] = at(r.trueBearingDeg + 180, half);
        const on = usesStrip(r.trueBearingDeg, used?.trueBearingDeg);
        return <g key={r.ident}><path d={`M${x1} ${y1}L${x2} ${y2}`} stroke={on ? 'var(--tarmac)' : 'var(--line)'} strokeWidth={on ? 20 : 12} />{on ? <path d={`M${x1} ${y1}L${x2} ${y2}`} stroke="var(--card)" strokeWidth="1.5" strokeDasharray="7 6" /> : null}</g>;
      })}
      {result.runways.map((r) => {
        const [x, y] = at(r.trueBearingDeg + 180, R + 20);
        const on = r.ident === runwayEnd;
        return <text key={r.ident} x={x} y={y} textAnchor="middle" dominantBaseline="central" fontSize={on ? 15 : 12} fontWeight={on ? 700 : 400} fill={on ? 'var(--ink)' : 'var(--slate)'} className="mono">{r.ident}</text>;
      })}
      {result.windTrueDeg !== null ? (() => {
        const [x1, y1] = at(result.windTrueDeg, R + 4);
        const [x2, y2] = at(result.windTrueDeg, 18);
        return <g><path d={`M${x1} ${y1}L${x2} ${y2}`} stroke="var(--ochre)" strokeWidth="5" strokeLinecap="round" /><circle cx={x2} cy={y2} r="8" fill="var(--ochre)" /></g>;
      })() : null}
    </svg>
  );
}
const usesStrip = (bearing: number, used: number | undefined): boolean => used !== undefined && Math.abs((((bearing - used) % 180) + 180) % 180) < 1;

/** Every crosswind limit as a bar, today's mean and gust drawn across them. */
export function LimitBars({ result, runwayEnd }: { result: BriefResult; runwayEnd: string }) {
  const used = result.runways.find((r) => r.ident === runwayEnd);
  const mean = Math.abs(used?.crosswindKt ?? 0);
  const gust = used?.gustCrosswindKt === null || used === undefined ? null : Math.abs(used.gustCrosswindKt);
  const top = Math.max(20, mean, gust ?? 0, ...result.limits.map((l) => l.valueKt)) * 1.08;
  const rows = [...result.limits].sort((a, b) => a.valueKt - b.valueKt);
  const rowH = 38;
  const W = 520;
  const L = 12;
  const x = (kt: number) => L + (kt / top) * (W - L - 60);
  const H = rows.length * rowH + 26;
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width="100%" role="img" aria-label={`Crosswind limits: ${rows.map((l) => `${say(l.kind)} ${fixed(l.valueKt, l.kind === 'vs0Floor' ? 1 : 0)} kt`).join(', ')}. Today ${fixed(mean)} kt${gust === null ? '' : `, ${fixed(gust)} in gusts`}.`}>
      {rows.map((l, i) => {
        const governs = l.kind === result.crosswind.governingKind && l.valueKt === result.crosswind.governingKt;
        const soft = l.kind === 'vs0Floor' || l.kind === 'demonstrated' || l.kind === 'pilotStep';
        const y = i * rowH + 6;
        return (
          <g key={`${l.kind}${l.source}`}>
            <text x={L} y={y + 10} fontSize="13" fill="var(--ink)" fontWeight={governs ? 700 : 400}>{say(l.kind)}{governs ? ', governs' : ''}<tspan fill="var(--slate)" fontWeight="400"> {l.source.length > 34 || l.kind === 'airframe' ? '' : ` ${l.source}`}</tspan></text>
            <path d={`M${L} ${y + 21}H${x(l.valueKt)}`} stroke={governs ? 'var(--lagoon)' : 'var(--slate)'} strokeWidth={governs ? 8 : 4} strokeDasharray={soft && !governs ? '5 4' : undefined} />
            <text x={x(l.valueKt) + 8} y={y + 26} fontSize="14" className="num" fill="var(--ink)">{fixed(l.valueKt, l.kind === 'vs0Floor' ? 1 : 0)} kt</text>
          </g>
        );
      })}
      {result.windAgeMin !== null ? <g>
        <path d={`M${x(mean)} 4V${H - 18}`} stroke="var(--ochre)" strokeWidth="2.5" /><text x={x(mean)} y={H - 4} fontSize="13" textAnchor="middle" fill="var(--ochre)" fontWeight="700">now {fixed(mean)}</text>
        {gust !== null && gust - mean > 0.5 ? <><path d={`M${x(gust)} 4V${H - 18}`} stroke="var(--ochre)" strokeWidth="2" strokeDasharray="3 3" /><text x={Math.max(x(gust), x(mean) + 58)} y={H - 4} fontSize="13" textAnchor="middle" fill="var(--ochre)">gust {fixed(gust)}</text></> : null}
      </g> : null}
    </svg>
  );
}

export const directionText = (trueDeg: number | null, magDeg: number | null): string => (trueDeg === null || magDeg === null ? 'variable' : `${direction(trueDeg)}° true, ${direction(magDeg)}° magnetic`);
