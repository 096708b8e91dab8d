import { inPieces } from '../shared/chart-library';
import { useEffect, useRef, useState } from 'react';
import type { Series } from '@/core/trace';
import type { TraceAnalysis } from '@/domain/trace';
import { whenSeen } from '../shared/when-seen';
import type { Observable } from './observable';
import type { SeriesView } from './series-chart';
import { useClock } from './use-clock';
import type { Dial } from './words';

/** The curves over time, drawn anew with the theme; they follow the cursor without rendering the page. */
export function useCurves({
  series,
  analysis,
  startUtc,
  unit,
  shown,
  cursor,
  fail,
}: {
  series: Series | null;
  analysis: TraceAnalysis;
  startUtc: string | null;
  unit: Dial;
  shown: Observable<[number, number]>;
  cursor: Observable<number | null>;
  fail: (why: string) => void;
}) {
  const holder = useRef<HTMLDivElement>(null);
  const view = useRef<SeriesView | null>(null);
  const label = useClock(startUtc);
  useEffect(() => {
    const element = holder.current;
    if (!element || !series) return;
    let gone = false;
    const draw = () => {
      void inPieces(() => import('./series-chart'))
        .then(({ drawSeries }) => {
          if (gone) return;
          view.current?.dispose();
          view.current = drawSeries(
            element,
            series,
            analysis.events.filter((e) => e.kind !== 'takeoff').map((e) => ({ fromS: e.startS, toS: e.endS })),
            label,
            unit,
            { onWindow: (a, b) => shown.set([a, b]), onCursor: cursor.set },
          );
          view.current.cursor(cursor.get());
        })
        .catch(() => fail('The curves cannot be loaded; what was measured is in the list.'));
    };
    const themes = new MutationObserver(draw);
    const leave = whenSeen(element, () => {
      draw();
      themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] });
    });
    const follow = cursor.subscribe(() => view.current?.cursor(cursor.get()));
    return () => {
      gone = true;
      leave();
      follow();
      themes.disconnect();
      view.current?.dispose();
      view.current = null;
    };
  }, [series, analysis.events, label, unit, shown, cursor, fail]);
  return { holder, view };
}

/** Plays by the screen's own frames: the cursor moves, the plan and the curves follow. */
export function usePlaying(
  series: Series | null,
  cursor: Observable<number | null>,
  shown: Observable<[number, number]>,
) {
  const [playing, setPlaying] = useState<number | null>(null);
  useEffect(() => {
    if (playing === null || !series) return;
    const end = series.tS[series.tS.length - 1] ?? 0;
    let last = performance.now();
    let at = cursor.get() ?? shown.get()[0];
    let frame = requestAnimationFrame(function step(t) {
      at += ((t - last) / 1000) * playing;
      last = t;
      if (at >= end) {
        setPlaying(null);
        return;
      }
      cursor.set(at);
      frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, series, cursor, shown]);
  return [playing, setPlaying] as const;
}
