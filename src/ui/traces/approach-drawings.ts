import { inPieces } from '../shared/chart-library';
import { useEffect, useRef, useState } from 'react';
import { ktPerUnit } from '@/core/speeds';
import { type Series, approachLine } from '@/core/trace';
import type { FoundEvent, TraceContext } from '@/domain/trace';
import { whenSeen } from '../shared/when-seen';
import type { ApproachGate, NamedLine } from './approach-chart';
import type { Dial } from './words';

interface Facts {
  event: FoundEvent;
  beside: FoundEvent | null;
  series: Series | null;
  context: TraceContext;
  /** What the standard allows about the target, knots. */
  tolerance: { low: number; high: number } | null;
  unit: Dial;
  /** How the two are named in the drawing. */
  spoken: string;
  other: string;
}

/** Height and speed over the distance to the threshold, and the load about the touch; drawn anew with the theme. */
export function useApproachDrawings({ event, beside, series, context, tolerance, unit, spoken, other }: Facts) {
  const profile = useRef<HTMLDivElement>(null);
  const load = useRef<HTMLDivElement>(null);
  const [failed, setFailed] = useState(false);
  const speedName = series?.columns.ias ? 'indicated' : 'over the ground';
  useEffect(() => {
    if (!series || !profile.current) return;
    const lines = [event, ...(beside ? [beside] : [])].map((e, i): NamedLine => ({
      name: i === 0 ? spoken : other,
      ...approachLine(series, context, e),
    }));
    const end = context.aerodrome.runways
      .flatMap((r) => r.ends.map((x) => ({ x, lengthM: r.lengthM })))
      .find(({ x }) => x.ident === event.runway);
    const gates = (event.gates ?? []).map((g, k): ApproachGate => ({
      name: g.name,
      x: -(context.gates[k]?.distanceM ?? 0),
      heightFt: context.gates[k]?.heightFt ?? g.heightFt,
      target: g.targetKt === null ? null : g.targetKt / ktPerUnit(unit),
    }));
    const drops: (() => void)[] = [];
    let gone = false;
    const draw = () => {
      void inPieces(() => import('./approach-chart'))
        .then(({ drawApproach }) => {
          if (gone) return;
          for (const d of drops.splice(0)) d();
          const options = {
            lines,
            gates,
            tolerance: tolerance && { low: tolerance.low / ktPerUnit(unit), high: tolerance.high / ktPerUnit(unit) },
            aimPointM: context.aimPointM,
            lengthM: end?.lengthM ?? 600,
            speedName: `${speedName}, ${unit}`,
          };
          if (profile.current) drops.push(drawApproach(profile.current, { ...options, what: 'profile' }));
          if (load.current) drops.push(drawApproach(load.current, { ...options, what: 'load' }));
        })
        .catch(() => setFailed(true));
    };
    const themes = new MutationObserver(draw);
    const leave = whenSeen(profile.current, () => {
      draw();
      themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] });
    });
    return () => {
      gone = true;
      leave();
      themes.disconnect();
      for (const d of drops) d();
    };
  }, [event, beside, series, context, tolerance, speedName, spoken, other, unit]);
  return { profile, load, failed };
}
