'use client';
import { useEffect, useRef, useState } from 'react';
import type { CriterionVerdict } from '@/domain/assess-words';
import { Loading } from '../shared/parts';
import { ALONG_BANDS, type AlongBand, LATERAL_BANDS, type LateralBand, say } from '@/domain/words';

export interface TouchdownPoint { number: number; along: AlongBand; lateral: LateralBand; verdict: CriterionVerdict; word: string; /** Measured from a recording: past the aim point and right of the line, metres; null = the eye's band. */ alongM: number | null; lateralM: number | null }
interface Props { points: TouchdownPoint[]; notSeen: number[]; aimPointM: number; trackM: number; box: { before: number; past: number } }

/** Touchdowns seen by eye, as soft bands on the runway: each stands in its cell, never at a made-up metre. */
export function TouchdownMap({ points, notSeen, aimPointM, trackM, box }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const [failed, setFailed] = useState(false);
  const [drawn, setDrawn] = useState(false);
  useEffect(() => {
    const element = holder.current;
    if (!element) return;
    let dispose = () => {};
    let gone = false;
    const draw = () => {
      void import('./touchdown-chart').then(({ drawTouchdowns }) => {
        if (gone) return;
        dispose();
        dispose = drawTouchdowns(element, points, { aimPointM, trackM, box });
        setDrawn(true);
      }).catch(() => setFailed(true));
    };
    draw();
    const themes = new MutationObserver(draw);
    themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] });
    return () => {
      gone = true;
      themes.disconnect();
      dispose();
    };
  }, [points, aimPointM, trackM, box]);
  const count = (l: LateralBand[]) => points.filter((p) => l.includes(p.lateral)).length;
  const inBox = points.filter((p) => p.along === 'in-the-box').length;
  const summary = points.length === 0 ? 'No touchdown place was seen in this lesson.' : `${inBox} of ${points.length} in the box; ${count(['beyond-left', 'wheel-left'])} left of the line, ${count(['line'])} on it, ${count(['wheel-right', 'beyond-right'])} right.`;
  return (
    <>
      <p className="mb-1">{summary}{notSeen.length > 0 ? ` Place not seen: ${notSeen.join(', ')}.` : ''}</p>
      {failed ? <p className="caution">The drawing cannot be loaded; the table below has the same places.</p> : <div style={{ position: 'relative' }}>{drawn ? null : <div style={{ position: 'absolute' }}><Loading what="the drawing" /></div>}<div ref={holder} style={{ width: '100%', height: 236 }} role="img" aria-label={`Touchdown map. ${summary}`} /></div>}
      <p className="soft mb-1" style={{ fontSize: 13 }}>Shapes: disc the pilot{'\u2019'}s own and in standard, half prompted or off target, barred ring outside or assisted, dash not judged. {points.some((p) => p.alongM !== null && p.lateralM !== null) ? <>Numbers with M were measured and stand at their metre; the others stand in the eye{'\u2019'}s band.</> : <>Bands are the eye{'\u2019'}s; nothing here was measured.</>}</p>
      <details><summary style={{ fontSize: 14 }}>As a table</summary>
        <div className="scroll-x"><table className="plain"><thead><tr><th>along</th>{LATERAL_BANDS.map((l) => <th key={l}>{say(l)}</th>)}</tr></thead>
          <tbody>{[...ALONG_BANDS].reverse().map((a) => <tr key={a}><th scope="row">{say(a)}</th>{LATERAL_BANDS.map((l) => <td key={l} className="mono">{points.filter((p) => p.along === a && p.lateral === l).map((p) => p.number).join(', ')}</td>)}</tr>)}</tbody></table></div>
      </details>
    </>
  );
}
