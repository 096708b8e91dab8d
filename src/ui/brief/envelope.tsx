import { Plot } from '../shared/plot';
import type { MassBalance } from '@/core/loading';
import { fixed } from '@/core/format';
import type { TypeSheet } from '@/domain/sheet';

/** The loading envelope with both aboard and solo: from take-off down to no fuel. */
export function EnvelopeDrawing({ sheet, dual, solo }: { sheet: TypeSheet; dual: MassBalance; solo: MassBalance }) {
  const points = sheet.loading?.envelope ?? [];
  const all = [...points, ...[dual, solo].flatMap((b) => [b.takeOff, b.zeroFuel])];
  const span = (xs: number[], pad: number): [number, number] => {
    const lo = Math.min(...xs);
    const hi = Math.max(...xs);
    return [lo - (hi - lo) * pad, hi + (hi - lo) * pad];
  };
  const [a0, a1] = span(
    all.map((p) => p.armM),
    0.12,
  );
  const [m0, m1] = span(
    all.map((p) => p.massKg),
    0.1,
  );
  const W = 380;
  const H = 240;
  const x = (arm: number) => 54 + ((arm - a0) / (a1 - a0)) * (W - 74);
  const y = (kg: number) => H - 30 - ((kg - m0) / (m1 - m0)) * (H - 46);
  const polygon = points.map((p) => `${x(p.armM)},${y(p.massKg)}`).join(' ');
  const line = (b: MassBalance, name: string, dash: boolean) => {
    const out = !b.allInside;
    return (
      <g key={name}>
        <path
          d={`M${x(b.takeOff.armM)} ${y(b.takeOff.massKg)}L${x(b.landing.armM)} ${y(b.landing.massKg)}L${x(b.zeroFuel.armM)} ${y(b.zeroFuel.massKg)}`}
          fill="none"
          stroke={out ? 'var(--brick)' : 'var(--lagoon)'}
          strokeWidth="3"
          strokeDasharray={dash ? '6 4' : undefined}
        />
        <circle
          cx={x(b.takeOff.armM)}
          cy={y(b.takeOff.massKg)}
          r="6"
          fill="var(--card)"
          stroke={out ? 'var(--brick)' : 'var(--lagoon)'}
          strokeWidth="3"
        />
        <text x={x(b.takeOff.armM) + 11} y={y(b.takeOff.massKg) + 4} fontSize="13" fill="var(--ink)">
          {name} {fixed(b.takeOff.massKg)} kg
        </text>
      </g>
    );
  };
  const ticks = (lo: number, hi: number, step: number) =>
    Array.from(
      { length: Math.floor(hi / step) - Math.ceil(lo / step) + 1 },
      (_, i) => (Math.ceil(lo / step) + i) * step,
    );
  const armStep = a1 - a0 > 0.4 ? 0.1 : 0.05;
  const massStep = m1 - m0 > 900 ? 500 : m1 - m0 > 300 ? 100 : 50;
  return (
    <Plot
      w={W}
      h={H}
      least={13}
      role="img"
      aria-label={`Loading envelope. With both ${fixed(dual.takeOff.massKg)} kg at ${fixed(dual.takeOff.armM, 3)} m, ${dual.allInside ? 'inside' : 'outside'}; solo ${fixed(solo.takeOff.massKg)} kg at ${fixed(solo.takeOff.armM, 3)} m, ${solo.allInside ? 'inside' : 'outside'}.`}
    >
      <polygon points={polygon} fill="var(--lagoon-wash)" stroke="var(--ink)" strokeWidth="1.5" />
      {ticks(a0, a1, armStep).map((t) => (
        <text key={t} x={x(t)} y={H - 8} fontSize="13" textAnchor="middle" className="mono" fill="var(--slate)">
          {t.toFixed(2)}
        </text>
      ))}
      <text x={W - 4} y={H - 8} fontSize="13" textAnchor="end" fill="var(--slate)">
        m aft
      </text>
      {ticks(m0, m1, massStep).map((t) => (
        <text key={t} x={46} y={y(t) + 4} fontSize="13" textAnchor="end" className="mono" fill="var(--slate)">
          {t}
        </text>
      ))}
      {line(solo, 'solo', true)}
      {line(dual, 'both', false)}
    </Plot>
  );
}
