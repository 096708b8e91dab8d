import { LineChart } from 'echarts/charts';
import { AxisPointerComponent, DataZoomComponent, GridComponent, MarkAreaComponent, TitleComponent } from 'echarts/components';
import { init, use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { type Series, type SeriesName, thinned } from '@/core/trace';

register([LineChart, GridComponent, DataZoomComponent, AxisPointerComponent, MarkAreaComponent, TitleComponent, CanvasRenderer]);

const ROWS: { name: SeriesName; title: string; colour: string }[][] = [
  [{ name: 'height', title: 'height, ft', colour: '--ink' }],
  [{ name: 'ias', title: 'indicated, {unit}', colour: '--lagoon' }, { name: 'gs', title: 'over the ground, {unit}', colour: '--slate' }],
  [{ name: 'bank', title: 'bank, \u00b0', colour: '--ochre' }],
  [{ name: 'nz', title: 'load, g', colour: '--brick' }],
  [{ name: 'rpm', title: 'rpm', colour: '--meadow' }],
];
export interface SeriesView { window: (fromS: number, toS: number) => void; cursor: (s: number | null) => void; dispose: () => void }
interface Hooks { onWindow: (fromS: number, toS: number) => void; onCursor: (s: number) => void }

/** Rows of curves over one time, with a strip for the whole flight below. Each window is thinned to what the screen can show; peaks stay. */
export function drawSeries(element: HTMLElement, series: Series, bands: readonly { fromS: number; toS: number }[], label: (s: number) => string, unit: 'kt' | 'mph', hooks: Hooks): SeriesView {
  const style = getComputedStyle(element);
  const css = (name: string) => style.getPropertyValue(name).trim();
  const font = { color: css('--ink'), fontFamily: 'B612', fontSize: 12 };
  const rows = ROWS.map((r) => r.filter((c) => series.columns[c.name])).filter((r) => r.length > 0);
  const end = series.tS[series.tS.length - 1] ?? 1;
  const chart = init(element, undefined, { renderer: 'canvas' });
  const plotted = (fromS: number, toS: number) => rows.flatMap((row, k) => row.map((c) => {
    const x = series.columns[c.name] ?? new Float32Array(0);
    return { id: c.name, xAxisIndex: k, yAxisIndex: k, data: thinned(series.tS, x, fromS, toS, Math.max(200, element.clientWidth)).map((i) => [series.tS[i], x[i]]) };
  }));
  const strip = series.columns.height ?? series.columns.gs ?? new Float32Array(0);
  const top = 6;
  const room = element.clientHeight - 62;
  const each = room / (rows.length + 0.6);
  const heights = rows.map((_, i) => (i === 0 ? each * 1.6 : each));
  let at = top;
  const grids = heights.map((h) => { const g = { left: 64, right: 14, top: at, height: h - 12 }; at += h; return g; });
  let now: [number, number] = [0, end];
  chart.setOption({
    animation: false, textStyle: font,
    axisPointer: { link: [{ xAxisIndex: 'all' }], lineStyle: { color: css('--brick'), width: 1.5 }, label: { show: false } },
    // The name of each row stands in it; the last grid is the whole flight behind the strip.
    title: rows.map((row, k) => ({ text: row.map((c) => c.title.replace('{unit}', unit)).join(' \u00b7 ') + (row.length > 1 ? ' (dashed)' : ''), left: 70, top: grids[k]?.top ?? 0, padding: [1, 4], textStyle: { ...font, fontWeight: 'normal' as const }, backgroundColor: css('--card') })),
    grid: [...grids, { left: 64, right: 14, bottom: 4, height: 24 }],
    xAxis: [...rows.map((_, k) => ({ type: 'value', gridIndex: k, min: 0, max: end, axisLine: { lineStyle: { color: css('--slate') } }, axisTick: { show: false }, axisLabel: k === rows.length - 1 ? { ...font, formatter: label, hideOverlap: true, showMaxLabel: false } : { show: false }, splitLine: { show: false }, axisPointer: { show: true, type: 'line', snap: false, triggerTooltip: false } })), { type: 'value', gridIndex: rows.length, min: 0, max: end, show: false, axisPointer: { show: false } }],
    yAxis: [...rows.map((_, k) => ({ type: 'value', gridIndex: k, scale: true, splitNumber: 3, axisLabel: { ...font, fontSize: 11 }, splitLine: { lineStyle: { color: css('--line') } } })), { type: 'value', gridIndex: rows.length, scale: true, show: false }],
    dataZoom: [
      { type: 'inside', xAxisIndex: rows.map((_, k) => k), filterMode: 'none', zoomOnMouseWheel: true, moveOnMouseMove: true, throttle: 0, minValueSpan: 4 },
      { type: 'slider', xAxisIndex: rows.map((_, k) => k), filterMode: 'none', height: 24, bottom: 4, left: 64, right: 14, brushSelect: true, throttle: 0, minValueSpan: 4, showDetail: false, showDataShadow: false, backgroundColor: 'transparent', borderColor: css('--line'), fillerColor: 'rgba(15,110,132,0.16)', handleStyle: { color: css('--lagoon') }, textStyle: font },
    ],
    series: [{ id: 'whole', type: 'line', xAxisIndex: rows.length, yAxisIndex: rows.length, data: thinned(series.tS, strip, 0, end, 600).map((i) => [series.tS[i], strip[i]]), showSymbol: false, silent: true, lineStyle: { color: css('--slate'), width: 1 } }, ...rows.flatMap((row, k) => row.map((c, j) => ({
      id: c.name, type: 'line', xAxisIndex: k, yAxisIndex: k, data: [], showSymbol: false, silent: true, lineStyle: { color: css(c.colour), width: c.name === 'gs' ? 1 : 1.6, type: c.name === 'gs' ? 'dashed' : 'solid' }, itemStyle: { color: css(c.colour) },
      ...(j === 0 ? { markArea: { silent: true, itemStyle: { color: css('--lagoon-wash') }, data: bands.map((b) => [{ xAxis: b.fromS }, { xAxis: b.toS }]) } } : {}),
    })))],
  });
  const refill = (fromS: number, toS: number) => { now = [fromS, toS]; chart.setOption({ series: plotted(fromS, toS) }, { lazyUpdate: true, silent: true }); };
  refill(0, end);
  let waiting = 0;
  const fromZoom = () => {
    const z = (chart.getOption() as { dataZoom: { startValue: number; endValue: number }[] }).dataZoom[0];
    if (!z) return;
    cancelAnimationFrame(waiting);
    waiting = requestAnimationFrame(() => { refill(z.startValue, z.endValue); hooks.onWindow(z.startValue, z.endValue); });
  };
  chart.on('datazoom', fromZoom);
  chart.on('updateAxisPointer', (event) => {
    const s = (event as { axesInfo?: { axisDim: string; value: number }[] }).axesInfo?.find((a) => a.axisDim === 'x')?.value;
    if (s !== undefined) hooks.onCursor(s);
  });
  const sizes = new ResizeObserver(() => { chart.resize(); refill(...now); });
  sizes.observe(element);
  return {
    window: (fromS, toS) => { chart.dispatchAction({ type: 'dataZoom', startValue: fromS, endValue: toS }); },
    cursor: (s) => {
      if (s === null) { chart.dispatchAction({ type: 'updateAxisPointer', currTrigger: 'leave' }); return; }
      const [px] = chart.convertToPixel({ xAxisIndex: 0, yAxisIndex: 0 }, [s, 0]) as [number, number];
      chart.dispatchAction({ type: 'updateAxisPointer', x: px, y: (grids[0]?.top ?? 0) + 4 });
    },
    dispose: () => { cancelAnimationFrame(waiting); sizes.disconnect(); chart.dispose(); },
  };
}
