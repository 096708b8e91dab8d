'use client';
import { inPieces } from '../shared/chart-library';
import { useCallback, useMemo, useState } from 'react';
import { type DebriefLanding, type MeasureKey, SHOWN_MEASURES, measureTrend, trendWords } from '@/core/assess';
import { Drawing } from '../shared/drawing';
import { FoldingPanel } from '../shared/folding';
import { Choose } from './progress-filters';

export interface CriterionBand {
  id: string;
  unit: string;
  measured: { low: number; high: number } | null;
}
/** One measure, landing by landing: which way it goes. */
export function MeasureTrend({
  own,
  criteria,
}: {
  own: readonly DebriefLanding[];
  criteria: readonly CriterionBand[];
}) {
  const [measure, setMeasure] = useState<MeasureKey>('fence');
  const spec = SHOWN_MEASURES.find((m) => m.key === measure) ?? SHOWN_MEASURES[0];
  const trend = useMemo(
    () => measureTrend(own, spec, criteria.find((x) => x.id === spec.criterion)?.measured ?? null),
    [own, spec, criteria],
  );
  const drawTrend = useCallback(
    async (el: HTMLElement) => (await inPieces(() => import('./charts'))).drawTrend(el, trend),
    [trend],
  );
  const trendSaid = trendWords(trend);
  return (
    <FoldingPanel name="progress/trend" title="Trend">
      <div className="filters mb-1">
        <Choose
          id="f-measure"
          label="Measure"
          value={measure}
          set={(v) => setMeasure(v as MeasureKey)}
          options={SHOWN_MEASURES.map((m) => ({ key: m.key, name: m.name }))}
        />
      </div>
      {trend.points.length < 3 ? (
        <p className="mb-0">Fewer than three of these landings have it measured.</p>
      ) : (
        <>
          <p className="mb-1">{trendSaid}</p>
          <Drawing draw={drawTrend} label={trendSaid} height={236} />
          <p className="soft small mb-0">
            Long dashes: Theil-Sen trend. Line: smoothed mean (EWMA, 0.3) between its control limits about{' '}
            {zeroWords(spec)}; brick dots lie where it left them.
          </p>
        </>
      )}
    </FoldingPanel>
  );
}

/** About what a measure is shown. */
function zeroWords(spec: (typeof SHOWN_MEASURES)[number]): string {
  if (spec.key === 'sink') return 'its mean';
  return spec.key === 'along' ? 'the middle of the box' : spec.zero;
}
