/** The table of `docs/checks/brief-numbers.md`: one line for each type and day, and what stands out in it. */
import type { Worked } from './cases';

const n = (v: number | null | undefined, digits = 0): string =>
  v === null || v === undefined || !Number.isFinite(v) ? '–' : v.toFixed(digits);

export function table(all: readonly Worked[]): string {
  const head =
    '| type | day | mass kg | density alt. ft | across kt, gust | governs kt | verdict | flap | gates flown | over the stall | take-off m, in hand | landing m, in hand | circuits | Va, glide |\n|---|---|---|---|---|---|---|---|---|---|---|---|---|---|\n';
  return (
    head +
    all
      .map(({ name, day, brief: b, choices }) => {
        const used = b.runways.find((r) => r.ident === choices.runwayEnd);
        return `| ${[
          name,
          day,
          n(b.massKg),
          n(b.air.densityAltFt),
          `${n(Math.abs(used?.crosswindKt ?? NaN), 1)}${used?.gustCrosswindKt == null ? '' : `, ${n(Math.abs(used.gustCrosswindKt), 1)}`}`,
          n(b.crosswind.governingKt),
          b.crosswind.verdict ?? '–',
          b.flap.verdict === 'outside' ? 'none given' : `${n(b.flapHeldDeg)}°`,
          b.gates.map((g) => n(g.target)).join(' / ') + ` ${b.unit}`,
          b.gates.map((g) => n(g.margin?.marginLevel, 2)).join(' / '),
          `${n(b.takeoff?.need.over50M)}, ${n(b.takeoff?.need.marginM)}`,
          `${n(b.landing?.need.over50M)}, ${n(b.landing?.need.marginM)}`,
          n(b.fuel.circuits.circuits),
          `${n(b.vaDial)}, ${n(b.bestGlideDial)}`,
        ].join(' | ')} |`;
      })
      .join('\n') +
    '\n'
  );
}

/** The same for the aeroplanes with two engines, one of them stopped. */
export function twins(all: readonly Worked[]): string {
  const head =
    '| type | day | field, ft/min | ft per NM | circuit, ft/min | ceiling ft | accelerate and stop m, in hand | abort point m | pines past 22 |\n|---|---|---|---|---|---|---|---|---|\n';
  return (
    head +
    all
      .flatMap(({ name, day, brief: { oneEngine: o } }) => {
        if (!o) return [];
        const at = (where: string) => o.at.find((x) => x.where === where)?.climb;
        return `| ${[
          name,
          day,
          n(at('field')?.rocFpm),
          n(at('field')?.gradientFtPerNm),
          n(at('circuit')?.rocFpm),
          n(o.absoluteCeilingFt),
          o.stop?.neededM == null ? 'not known' : `${n(o.stop.neededM)}, ${n(o.stop.marginM)}`,
          n(o.stop?.abortM),
          o.obstacle?.verdict ?? 'none',
        ].join(' | ')} |`;
      })
      .join('\n') +
    '\n'
  );
}
