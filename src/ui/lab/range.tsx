'use client';

/** A slider with its value and unit in sight; the same value can be typed. */
export function Range({
  label,
  id,
  value,
  min,
  max,
  step = 1,
  unit,
  onChange,
  text,
  said,
}: {
  label: string;
  id: string;
  value: number;
  min: number;
  max: number;
  step?: number;
  unit: string;
  onChange: (v: number) => void;
  text?: string;
  /** In place of the number and its unit. */
  said?: string;
}) {
  const shown =
    Math.abs(value - Math.round(value)) < 1e-9 ? String(Math.round(value)) : value.toFixed(step < 0.1 ? 2 : 1);
  return (
    <div className="range">
      <label htmlFor={id}>{label}</label>
      <input
        type="range"
        id={id}
        min={min}
        max={max}
        step={step}
        value={Math.min(max, Math.max(min, value))}
        aria-valuetext={text ?? said ?? `${shown} ${unit}`}
        onChange={(e) => onChange(Number(e.target.value))}
      />
      <output htmlFor={id} className="mono">
        {said ?? `${shown} ${unit}`}
      </output>
    </div>
  );
}
