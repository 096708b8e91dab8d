import { LineChart } from 'echarts/charts';
import { DataZoomComponent, GridComponent, MarkAreaComponent, TitleComponent } from 'echarts/components';
import { init, onNewSize, use as register } from '../shared/chart-core';
import { CanvasRenderer } from 'echarts/renderers';
import type { Series } from '@/core/trace';
import { oncePerFrame } from './observable';
import { handsOn } from './series-hands';
import { LEFT, RIGHT, TOP, plotted, roomOf, rowsOf, seriesOption } from './series-option';

register([LineChart, GridComponent, DataZoomComponent, MarkAreaComponent, TitleComponent, CanvasRenderer]);

/** No closer than this: a window of seconds. */
const LEAST_SPAN_S = 4;

export interface SeriesView {
  window: (fromS: number, toS: number) => void;
  cursor: (s: number | null) => void;
  dispose: () => void;
}
interface Hooks {
  onWindow: (fromS: number, toS: number) => void;
  onCursor: (s: number) => void;
}

/** The cursor is a line of its own over the curves: moving it draws none of them again. */
function cursorLine(element: HTMLElement): HTMLDivElement {
  const line = document.createElement('div');
  Object.assign(line.style, {
    position: 'absolute',
    top: `${TOP}px`,
    height: `${roomOf(element)}px`,
    width: '0',
    borderLeft: `2px dashed ${getComputedStyle(element).getPropertyValue('--brick').trim()}`,
    pointerEvents: 'none',
    display: 'none',
    left: '0',
  });
  element.appendChild(line);
  return line;
}

/**
 * Rows of curves over one time, with a strip for the whole flight below. Each window is thinned to what the screen can
 * show; peaks stay.
 */
export function drawSeries(
  element: HTMLElement,
  series: Series,
  bands: readonly { fromS: number; toS: number }[],
  label: (s: number) => string,
  unit: 'kt' | 'mph',
  hooks: Hooks,
): SeriesView {
  const rows = rowsOf(series);
  const end = series.tS[series.tS.length - 1] ?? 1;
  const chart = init(element, undefined, { renderer: 'canvas' });
  chart.setOption(seriesOption(element, series, rows, bands, label, unit));
  const line = cursorLine(element);
  const wide = () => element.clientWidth - LEFT - RIGHT;
  const curves = (fromS: number, toS: number) => plotted(series, rows, element.clientWidth, fromS, toS);
  let now: [number, number] = [0, end];
  let wanted = now;
  let cursorS: number | null = null;
  const place = () => {
    const share = cursorS === null ? -1 : (cursorS - now[0]) / (now[1] - now[0]);
    line.style.display = share >= 0 && share <= 1 ? 'block' : 'none';
    line.style.transform = `translateX(${LEFT + share * wide()}px)`;
  };
  const refill = (fromS: number, toS: number) => {
    now = [fromS, toS];
    chart.setOption({ series: curves(fromS, toS) }, { lazyUpdate: true, silent: true });
  };
  const zoomed = oncePerFrame(() => {
    const z = (chart.getOption() as { dataZoom: { startValue: number; endValue: number }[] }).dataZoom[0];
    if (!z) return;
    refill(z.startValue, z.endValue);
    wanted = now;
    place();
    hooks.onWindow(z.startValue, z.endValue);
  });
  chart.on('datazoom', zoomed.ask);
  // One drawing a frame: the window and the thinned curves of it go in together.
  const redraw = oncePerFrame(() => {
    now = wanted;
    chart.setOption({ dataZoom: [{ startValue: now[0], endValue: now[1] }], series: curves(...now) }, { silent: true });
    place();
    hooks.onWindow(...now);
  });
  const toWindow = (fromS: number, toS: number) => {
    const span = Math.min(end, Math.max(LEAST_SPAN_S, toS - fromS));
    const a = Math.max(0, Math.min(end - span, fromS));
    wanted = [a, a + span];
    redraw.ask();
  };
  const settle = () => {
    wanted = now;
  };
  const letGo = handsOn(element, {
    wanted: () => wanted,
    settle,
    wide,
    left: LEFT,
    bottom: TOP + roomOf(element),
    toWindow,
    zoomAbout: (s, factor) => {
      const span = wanted[1] - wanted[0];
      const next = Math.min(end, Math.max(LEAST_SPAN_S, span * factor));
      toWindow(s - ((s - wanted[0]) / span) * next, s + ((wanted[1] - s) / span) * next);
    },
    onCursor: (share) => hooks.onCursor(now[0] + share * (now[1] - now[0])),
  });
  const restful = onNewSize(element, () => {
    chart.resize();
    refill(...now);
    place();
  });
  return {
    window: (fromS, toS) => {
      settle();
      toWindow(fromS, toS);
    },
    cursor: (s) => {
      cursorS = s;
      place();
    },
    dispose: () => {
      zoomed.stop();
      redraw.stop();
      letGo();
      line.remove();
      restful();
      chart.dispose();
    },
  };
}
