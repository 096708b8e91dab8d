import { Plot } from '../shared/plot';
import type { TypeSheet } from '@/domain/sheet';
import { spread } from '../brief/drawings';

interface Mark {
  name: string;
  value: number;
  kind: 'stall' | 'gate' | 'climb' | 'limit';
}

function marksOf(sheet: TypeSheet): Mark[] {
  const s = sheet.speeds;
  const climb: [string, { value: number } | null][] = [
    ['Vr', s.vr],
    ['Vx', s.vx],
    ['Vy', s.vy],
    ['best glide', s.bestGlide],
    ['Va', s.va],
  ];
  const flapLimits = [...new Map(s.vfe.map((v) => [v.speed.value, v])).values()];
  return [
    ...sheet.stalls
      .filter((_, i, all) => i === 0 || i === all.length - 1)
      .map((x): Mark => ({
        name: sheet.flapSteps.length > 1 ? `stall flap ${x.flapDeg}°` : 'stall',
        value: x.speed.value,
        kind: 'stall',
      })),
    ...sheet.approach.map((g): Mark => ({ name: g.name.toLowerCase(), value: g.speed.value, kind: 'gate' })),
    ...climb.flatMap(([name, v]): Mark[] => (v ? [{ name, value: v.value, kind: 'climb' }] : [])),
    ...flapLimits.map((v): Mark => ({ name: `flap ${v.flapDeg}° limit`, value: v.speed.value, kind: 'limit' })),
    { name: 'Vno', value: s.vno.value, kind: 'limit' },
    { name: 'Vne', value: s.vne.value, kind: 'limit' },
  ];
}

const COLOUR: Record<Mark['kind'], string> = {
  stall: 'var(--brick)',
  gate: 'var(--lagoon)',
  climb: 'var(--ink)',
  limit: 'var(--ochre)',
};

/**
 * Stalls, gates, climb speeds and limits on one axis, to scale, in the dial's unit. Labels are laid out so that none
 * touches another.
 */
export function SpeedLadder({ sheet, compact = false }: { sheet: TypeSheet; compact?: boolean }) {
  const marks = marksOf(sheet).sort((a, b) => a.value - b.value);
  const W = compact ? 780 : 920;
  const low = Math.floor((Math.min(...marks.map((m) => m.value)) - 8) / 10) * 10;
  const high = Math.ceil((Math.max(...marks.map((m) => m.value)) + 5) / 10) * 10;
  const x = (v: number) => 20 + ((v - low) / (high - low)) * (W - 40);
  const above = marks.filter((m) => m.kind === 'gate' || m.kind === 'stall');
  const below = marks.filter((m) => m.kind === 'climb' || m.kind === 'limit');
  const axis = compact ? 26 : 140;
  const H = compact ? 62 : 276;
  const unit = sheet.dial.unit;
  const lines = (group: Mark[], side: -1 | 1) => {
    const at = spread(
      group.map((m) => x(m.value)),
      25,
      16,
      W - 16,
    );
    return group.map((m, i) => (
      <g key={`${m.name}${m.value}`}>
        <path
          d={`M${x(m.value)} ${axis + side * 3}L${x(m.value)} ${axis + side * 12}L${at[i] ?? 0} ${axis + side * 26}`}
          fill="none"
          stroke={COLOUR[m.kind]}
          strokeWidth="1.5"
        />
        <text
          transform={`translate(${(at[i] ?? 0) + 4} ${axis + side * 29 + (side > 0 ? 2 : 0)}) rotate(${side > 0 ? 52 : -52})`}
          fontSize="14"
          fill="var(--ink)"
        >
          <tspan className="mono" fontWeight="700">
            {m.value}
          </tspan>{' '}
          {m.name}
        </text>
      </g>
    ));
  };
  const ticks = Array.from({ length: Math.floor((high - low) / 10) + 1 }, (_, i) => low + i * 10);
  return (
    <Plot
      w={W}
      h={H}
      least={14}
      role="img"
      aria-label={`Speeds in ${unit}, indicated: ${marks.map((m) => `${m.name} ${m.value}`).join(', ')}`}
    >
      <path d={`M20 ${axis}H${W - 20}`} stroke="var(--ink)" strokeWidth="3" />
      {marks.map((m) => (
        <circle key={`${m.name}${m.value}`} cx={x(m.value)} cy={axis} r={compact ? 6 : 5} fill={COLOUR[m.kind]} />
      ))}
      {compact ? (
        ticks
          .filter((t) => t % 20 === 0)
          .map((t) => (
            <text key={t} x={x(t)} y={axis + 26} fontSize="14" textAnchor="middle" className="mono" fill="var(--slate)">
              {t}
              {t === ticks.filter((q) => q % 20 === 0)[0] ? ` ${unit}` : ''}
            </text>
          ))
      ) : (
        <>
          {lines(above, -1)}
          {lines(below, 1)}
        </>
      )}
    </Plot>
  );
}
