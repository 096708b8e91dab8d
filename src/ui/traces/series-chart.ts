import { LineChart } from 'echarts/charts';
import { DataZoomComponent, GridComponent, MarkAreaComponent, TitleComponent } from 'echarts/components';
import { init, use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { type Series, type SeriesName, thinned } from '@/core/trace';
import { oncePerFrame } from './observable';

register([LineChart, GridComponent, DataZoomComponent, MarkAreaComponent, TitleComponent, CanvasRenderer]);

const ROWS: { name: SeriesName; title: string; colour: string }[][] = [
  [{ name: 'height', title: 'height, ft', colour: '--ink' }],
  [
    { name: 'ias', title: 'indicated, {unit}', colour: '--lagoon' },
    { name: 'gs', title: 'over the ground, {unit}', colour: '--slate' },
  ],
  [{ name: 'bank', title: 'bank, \u00b0', colour: '--ochre' }],
  [{ name: 'nz', title: 'load, g', colour: '--brick' }],
  [{ name: 'rpm', title: 'rpm', colour: '--meadow' }],
];
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
  const style = getComputedStyle(element);
  const css = (name: string) => style.getPropertyValue(name).trim();
  const font = { color: css('--ink'), fontFamily: 'B612', fontSize: 12 };
  const rows = ROWS.map((r) => r.filter((c) => series.columns[c.name])).filter((r) => r.length > 0);
  const end = series.tS[series.tS.length - 1] ?? 1;
  const chart = init(element, undefined, { renderer: 'canvas' });
  const plotted = (fromS: number, toS: number) =>
    rows.flatMap((row, k) =>
      row.map((c) => {
        const x = series.columns[c.name] ?? new Float32Array(0);
        return {
          id: c.name,
          xAxisIndex: k,
          yAxisIndex: k,
          data: thinned(series.tS, x, fromS, toS, Math.max(200, Math.round(element.clientWidth * 0.45))).map((i) => [
            series.tS[i],
            x[i],
          ]),
        };
      }),
    );
  const strip = series.columns.height ?? series.columns.gs ?? new Float32Array(0);
  const top = 6;
  const room = element.clientHeight - 62;
  const each = room / (rows.length + 0.6);
  const heights = rows.map((_, i) => (i === 0 ? each * 1.6 : each));
  let at = top;
  const grids = heights.map((h) => {
    const g = { left: 64, right: 14, top: at, height: h - 12 };
    at += h;
    return g;
  });
  let now: [number, number] = [0, end];
  chart.setOption({
    animation: false,
    textStyle: font,
    // The name of each row stands in it; the last grid is the whole flight behind the strip.
    title: rows.map((row, k) => ({
      text: row.map((c) => c.title.replace('{unit}', unit)).join(' \u00b7 ') + (row.length > 1 ? ' (dashed)' : ''),
      left: 70,
      top: grids[k]?.top ?? 0,
      padding: [1, 4],
      textStyle: { ...font, fontWeight: 'normal' as const },
    })),
    grid: [...grids, { left: 64, right: 14, bottom: 4, height: 24 }],
    xAxis: [
      ...rows.map((_, k) => ({
        type: 'value',
        gridIndex: k,
        min: 0,
        max: end,
        axisLine: { lineStyle: { color: css('--slate') } },
        axisTick: { show: false },
        axisLabel:
          k === rows.length - 1
            ? { ...font, formatter: label, hideOverlap: true, showMaxLabel: false }
            : { show: false },
        splitLine: { show: false },
      })),
      { type: 'value', gridIndex: rows.length, min: 0, max: end, show: false },
    ],
    yAxis: [
      ...rows.map((_, k) => ({
        type: 'value',
        gridIndex: k,
        scale: true,
        splitNumber: 3,
        axisLabel: { ...font, fontSize: 11 },
        splitLine: { lineStyle: { color: css('--line') } },
      })),
      { type: 'value', gridIndex: rows.length, scale: true, show: false },
    ],
    dataZoom: [
      {
        type: 'slider',
        xAxisIndex: rows.map((_, k) => k),
        filterMode: 'none',
        height: 24,
        bottom: 4,
        left: 64,
        right: 14,
        brushSelect: true,
        throttle: 0,
        minValueSpan: 4,
        showDetail: false,
        showDataShadow: false,
        backgroundColor: 'transparent',
        borderColor: css('--line'),
        fillerColor: 'rgba(15,110,132,0.16)',
        handleStyle: { color: css('--lagoon') },
        textStyle: font,
      },
    ],
    series: [
      {
        id: 'whole',
        type: 'line',
        xAxisIndex: rows.length,
        yAxisIndex: rows.length,
        data: thinned(series.tS, strip, 0, end, 600).map((i) => [series.tS[i], strip[i]]),
        showSymbol: false,
        silent: true,
        lineStyle: { color: css('--slate'), width: 1 },
      },
      ...rows.flatMap((row, k) =>
        row.map((c, j) => ({
          id: c.name,
          type: 'line',
          xAxisIndex: k,
          yAxisIndex: k,
          data: [],
          showSymbol: false,
          silent: true,
          lineStyle: {
            color: css(c.colour),
            width: c.name === 'gs' ? 1 : 1.6,
            type: c.name === 'gs' ? 'dashed' : 'solid',
          },
          itemStyle: { color: css(c.colour) },
          ...(j === 0
            ? {
                markArea: {
                  silent: true,
                  itemStyle: { color: css('--lagoon-wash') },
                  data: bands.map((b) => [{ xAxis: b.fromS }, { xAxis: b.toS }]),
                },
              }
            : {}),
        })),
      ),
    ],
  });
  const refill = (fromS: number, toS: number) => {
    now = [fromS, toS];
    chart.setOption({ series: plotted(fromS, toS) }, { lazyUpdate: true, silent: true });
  };
  refill(0, end);
  const zoomed = oncePerFrame(() => {
    const z = (chart.getOption() as { dataZoom: { startValue: number; endValue: number }[] }).dataZoom[0];
    if (!z) return;
    refill(z.startValue, z.endValue);
    wanted = now;
    place();
    hooks.onWindow(z.startValue, z.endValue);
  });
  chart.on('datazoom', zoomed.ask);
  // The cursor is a line of its own over the curves: moving it draws none of them again.
  const line = document.createElement('div');
  Object.assign(line.style, {
    position: 'absolute',
    top: `${top}px`,
    height: `${room}px`,
    width: '0',
    borderLeft: `2px dashed ${css('--brick')}`,
    pointerEvents: 'none',
    display: 'none',
    left: '0',
  });
  element.appendChild(line);
  let cursorS: number | null = null;
  const left = 64;
  const wide = () => element.clientWidth - left - 14;
  const place = () => {
    const share = cursorS === null ? -1 : (cursorS - now[0]) / (now[1] - now[0]);
    line.style.display = share >= 0 && share <= 1 ? 'block' : 'none';
    line.style.transform = `translateX(${left + share * wide()}px)`;
  };
  const point = (event: PointerEvent) => {
    const r = element.getBoundingClientRect();
    const share = (event.clientX - r.left - left) / wide();
    if (event.clientY - r.top > top + room || share < 0 || share > 1 || event.buttons !== 0) return;
    hooks.onCursor(now[0] + share * (now[1] - now[0]));
  };
  // One drawing a frame: the window and the thinned curves of it go in together. The wheel and two fingers zoom about
  // where they are; a drag moves.
  let wanted: [number, number] = now;
  const redraw = oncePerFrame(() => {
    now = wanted;
    chart.setOption(
      { dataZoom: [{ startValue: now[0], endValue: now[1] }], series: plotted(...now) },
      { silent: true },
    );
    place();
    hooks.onWindow(...now);
  });
  const toWindow = (fromS: number, toS: number) => {
    const span = Math.min(end, Math.max(LEAST_SPAN_S, toS - fromS));
    const a = Math.max(0, Math.min(end - span, fromS));
    wanted = [a, a + span];
    redraw.ask();
  };
  const secondAt = (clientX: number) =>
    wanted[0] + ((clientX - element.getBoundingClientRect().left - left) / wide()) * (wanted[1] - wanted[0]);
  const zoomAbout = (s: number, factor: number) => {
    const span = wanted[1] - wanted[0];
    const next = Math.min(end, Math.max(LEAST_SPAN_S, span * factor));
    toWindow(s - ((s - wanted[0]) / span) * next, s + ((wanted[1] - s) / span) * next);
  };
  const inCurves = (clientY: number) => clientY - element.getBoundingClientRect().top < top + room;
  const wheel = (event: WheelEvent) => {
    if (!inCurves(event.clientY)) return;
    event.preventDefault();
    zoomAbout(secondAt(event.clientX), Math.exp(event.deltaY * 0.0012));
  };
  const fingers = new Map<number, number>();
  const down = (event: PointerEvent) => {
    if (!inCurves(event.clientY)) return;
    if (fingers.size === 0) wanted = now;
    fingers.set(event.pointerId, event.clientX);
  };
  const move = (event: PointerEvent) => {
    const before = fingers.get(event.pointerId);
    if (before === undefined) {
      point(event);
      return;
    }
    const others = [...fingers].filter(([id]) => id !== event.pointerId).map(([, x]) => x);
    const [other] = others;
    if (other === undefined) {
      const by = ((event.clientX - before) / wide()) * (wanted[1] - wanted[0]);
      toWindow(wanted[0] - by, wanted[1] - by);
    } else if (Math.abs(event.clientX - other) > 20)
      zoomAbout(secondAt((event.clientX + other) / 2), Math.abs(before - other) / Math.abs(event.clientX - other));
    fingers.set(event.pointerId, event.clientX);
  };
  const up = (event: PointerEvent) => {
    fingers.delete(event.pointerId);
  };
  element.addEventListener('wheel', wheel, { passive: false });
  element.addEventListener('pointerdown', down);
  element.addEventListener('pointermove', move);
  for (const name of ['pointerup', 'pointercancel', 'pointerleave'] as const) element.addEventListener(name, up);
  const sizes = new ResizeObserver(() => {
    chart.resize();
    refill(...now);
    place();
  });
  sizes.observe(element);
  return {
    window: (fromS, toS) => {
      wanted = now;
      toWindow(fromS, toS);
    },
    cursor: (s) => {
      cursorS = s;
      place();
    },
    dispose: () => {
      zoomed.stop();
      redraw.stop();
      element.removeEventListener('wheel', wheel);
      element.removeEventListener('pointerdown', down);
      element.removeEventListener('pointermove', move);
      for (const name of ['pointerup', 'pointercancel', 'pointerleave'] as const) element.removeEventListener(name, up);
      line.remove();
      sizes.disconnect();
      chart.dispose();
    },
  };
}
