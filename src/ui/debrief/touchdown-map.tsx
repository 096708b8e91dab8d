'use client';
import { inPieces } from '../shared/chart-library';
import { useCallback, useMemo } from 'react';
import { touchdownSpread } from '@/core/assess';
import { fixed } from '@/core/format';
import { ALONG_BANDS, LATERAL_BANDS, type LateralBand, say } from '@/domain/words';
import { Drawing } from '../shared/drawing';
import type { TouchdownPoint } from './points';

interface Props {
  points: readonly TouchdownPoint[];
  notSeen: readonly string[];
  touchdownM: number;
  trackM: number;
  widthM: number;
  box: { before: number; past: number };
  limitM: number | null;
  height?: number;
}

const side = (m: number): string => `${fixed(Math.abs(m), 1)} m ${m < 0 ? 'left' : 'right'}`;

/**
 * Where the wheels met the runway, drawn on it: measured touches with their mean and ellipses, the eye's as soft bands.
 * Counts and table say the same.
 */
export function TouchdownMap({ points, notSeen, touchdownM, trackM, widthM, box, limitM, height = 250 }: Props) {
  const measured = useMemo(() => points.filter((p) => p.alongM !== null && p.lateralM !== null), [points]);
  const spread = useMemo(() => {
    const own = measured.filter((p) => !p.helped);
    return touchdownSpread(
      own.map((p) => p.lateralM),
      own.map((p) => p.alongM),
    );
  }, [measured]);
  const draw = useCallback(
    async (element: HTMLElement) =>
      (await inPieces(() => import('./charts'))).drawTouchdowns(element, points, {
        touchdownM,
        trackM,
        widthM,
        box,
        limitM,
        spread: spread.n >= 3 ? spread : null,
      }),
    [points, touchdownM, trackM, widthM, box, limitM, spread],
  );
  const placed = points.filter((p) => p.along !== null && p.lateral !== null);
  const count = (l: readonly LateralBand[]) => placed.filter((p) => p.lateral !== null && l.includes(p.lateral)).length;
  const summary =
    placed.length === 0
      ? 'No touchdown place was seen.'
      : `${placed.filter((p) => p.along === 'in-the-box').length} of ${placed.length} in the box; ${count(['beyond-left', 'wheel-left'])} left of the line, ${count(['line'])} on it, ${count(['wheel-right', 'beyond-right'])} right.`;
  const s = spread;
  const said =
    s.n >= 3 && s.meanLateralM !== null && s.meanAlongM !== null
      ? `${s.n} measured${measured.length > s.n ? ` and flown without hands on, of ${measured.length}` : ''}: mean ${side(s.meanLateralM)}, ${fixed(s.meanAlongM)} m past the touchdown point; median ${side(s.medianLateralM ?? 0)}, ${fixed(s.medianAlongM ?? 0)} m, median deviation ${fixed(s.madLateralM ?? 0, 1)} and ${fixed(s.madAlongM ?? 0)} m.`
      : measured.length > 0
        ? `${measured.length} measured: too few for an ellipse.`
        : '';
  return (
    <>
      <p className="mb-1" data-summary>
        {summary}
        {said ? ` ${said}` : ''}
        {notSeen.length > 0 ? ` Place not seen: ${notSeen.join(', ')}.` : ''}
      </p>
      <Drawing draw={draw} label={`Touchdown map. ${summary} ${said}`} height={height} />
      <p className="soft mb-1 small">
        Shapes: disc unassisted and in standard, half prompted or off target, barred ring outside or assisted, dash not
        judged.{' '}
        {s.n >= 3
          ? 'The full ellipse is one standard deviation and holds 39 in 100, the dashed one two and 86 in 100; the cross is the mean. '
          : ''}
        {placed.length > measured.length ? <>Small and pale: the eye{'\u2019'}s band, not a metre.</> : null}
      </p>
      <details>
        <summary style={{ fontSize: 14 }}>As a table</summary>
        <div className="scroll-x">
          <table aria-label="Touchdowns by place" className="plain">
            <thead>
              <tr>
                <th scope="col">along</th>
                {LATERAL_BANDS.map((l) => (
                  <th scope="col" key={l}>
                    {say(l)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {[...ALONG_BANDS].reverse().map((a) => (
                <tr key={a}>
                  <th scope="row">{say(a)}</th>
                  {LATERAL_BANDS.map((l) => (
                    <td key={l} className="mono">
                      {placed
                        .filter((p) => p.along === a && p.lateral === l)
                        .map(
                          (p) =>
                            `${p.label}${p.alongM !== null && p.lateralM !== null ? ` (${fixed(p.alongM)} m, ${side(p.lateralM)})` : ''}`,
                        )
                        .join('; ')}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </>
  );
}
