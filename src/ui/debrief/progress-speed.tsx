'use client';
import { inPieces } from '../shared/chart-library';
import { useCallback, useMemo } from 'react';
import { type DebriefLanding, gateStrips, signed } from '@/core/assess';
import { Drawing } from '../shared/drawing';
import { FoldingPanel } from '../shared/folding';

/** Speeds about their targets at each gate. */
export function SpeedByGate({
  own,
  band,
}: {
  own: readonly DebriefLanding[];
  band: { low: number; high: number } | null;
}) {
  const strips = useMemo(() => gateStrips(own), [own]);
  const drawStrips = useCallback(
    async (el: HTMLElement) => (await inPieces(() => import('./charts'))).drawStrips(el, strips, band),
    [strips, band],
  );
  const spoken = strips.map(
    (s) => `${s.gate} mean ${s.mean === null ? 'not known' : `${signed(s.mean)} knots`}, ${s.values.length} seen`,
  );
  return (
    <FoldingPanel name="progress/speed" title="Speed at each gate">
      {strips.length === 0 ? (
        <p className="mb-0">No speed was read or recorded at a gate.</p>
      ) : (
        <>
          <p className="mb-1">
            {strips
              .map(
                (s) =>
                  `${s.gate.toLowerCase()} ${s.mean === null ? 'not known' : `${signed(s.mean)} kt of ${s.values.length}`}`,
              )
              .join('; ')}
            .
          </p>
          <Drawing
            draw={drawStrips}
            label={`Speeds about their targets: ${spoken.join('; ')}`}
            height={60 + strips.length * 46}
          />
          <p className="soft small mb-0">
            Dots are approaches, filled measured, open read by eye; the bar is the mean with its 95 in 100 interval; the
            wash is the standard{'\u2019'}s band.
          </p>
        </>
      )}
    </FoldingPanel>
  );
}
