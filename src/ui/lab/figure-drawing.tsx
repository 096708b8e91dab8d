import type { Figure, FigureShape, FigureText, Tone } from '@/domain/lab';
import { Plot } from '../shared/plot';

const COLOUR: Record<Tone, string> = {
  ink: 'var(--ink)',
  soft: 'var(--slate)',
  this: 'var(--lagoon)',
  other: 'var(--ochre)',
  warn: 'var(--brick)',
  field: 'var(--field)',
  runway: 'var(--taxiway)',
  paint: 'var(--card)',
  card: 'var(--line)',
  sky: 'var(--sky)',
};
const TEXT_PX = 16;

function Shape({ shape: s }: { shape: FigureShape }) {
  const d = `${s.points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join('')}${s.closed ? 'Z' : ''}`;
  return s.closed ? (
    <path
      d={d}
      // An empty bar is an outline: its line may be as dark as what fills it.
      fill={s.tone === 'card' ? 'var(--card)' : COLOUR[s.tone]}
      stroke={s.tone === 'card' ? COLOUR.card : undefined}
      opacity={s.width === 0 ? 0.45 : 1}
    />
  ) : (
    <path
      d={d}
      fill="none"
      stroke={COLOUR[s.tone]}
      strokeWidth={s.width ?? 2}
      strokeDasharray={s.dashed ? '3 7' : undefined}
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
}
const Words = ({ text: t }: { text: FigureText }) => (
  <text x={t.x} y={t.y} fontSize={TEXT_PX} textAnchor={t.anchor} fill={COLOUR[t.tone]} className="halo">
    {t.text}
  </text>
);

/** Draws a figure of the lab: what stands still, and what moves at one moment. */
export function FigureDrawing({
  figure,
  moving,
  label,
}: {
  figure: Figure;
  moving?: { shapes: readonly FigureShape[]; texts: readonly FigureText[] } | undefined;
  label: string;
}) {
  return (
    <Plot w={figure.w} h={figure.h} least={TEXT_PX} role="img" aria-label={label} className="lab-figure">
      {figure.shapes.map((s, i) => (
        <Shape key={i} shape={s} />
      ))}
      {moving?.shapes.map((s, i) => (
        <Shape key={`m${i}`} shape={s} />
      ))}
      {[...figure.texts, ...(moving?.texts ?? [])].map((t, i) => (
        <Words key={i} text={t} />
      ))}
    </Plot>
  );
}
