import { type Series, type SeriesName, thinned } from '@/core/trace';

export interface Curve {
  name: SeriesName;
  title: string;
  colour: string;
}
const ROWS: Curve[][] = [
  [{ name: 'height', title: 'height, ft', colour: '--ink' }],
  [
    { name: 'ias', title: 'indicated, {unit}', colour: '--lagoon' },
    { name: 'gs', title: 'over the ground, {unit}', colour: '--slate' },
  ],
  [{ name: 'bank', title: 'bank, \u00b0', colour: '--ochre' }],
  [{ name: 'nz', title: 'load, g', colour: '--brick' }],
  [{ name: 'rpm', title: 'rpm', colour: '--meadow' }],
];
/** Pixels of the drawing: the curves between `TOP` and `TOP` + their room, `LEFT` and `RIGHT` beside them. */
export const TOP = 6;
export const LEFT = 64;
export const RIGHT = 14;
/** Under the curves: labels of time, and the strip of the whole flight. */
const BELOW = 62;

/** Rows with a curve the file supports. */
export const rowsOf = (series: Series): Curve[][] =>
  ROWS.map((r) => r.filter((c) => series.columns[c.name])).filter((r) => r.length > 0);
/** Pixels of height that the curves have. */
export const roomOf = (element: HTMLElement): number => element.clientHeight - BELOW;

/** Where each row stands; the first is the tallest. */
function gridsOf(rows: number, room: number) {
  const each = room / (rows + 0.6);
  let at = TOP;
  return Array.from({ length: rows }, (_, i) => {
    const height = i === 0 ? each * 1.6 : each;
    const grid = { left: LEFT, right: RIGHT, top: at, height: height - 12 };
    at += height;
    return grid;
  });
}

/** A window of the curves, thinned to what the screen can show; peaks stay. */
export const plotted = (series: Series, rows: readonly Curve[][], widthPx: number, fromS: number, toS: number) =>
  rows.flatMap((row, k) =>
    row.map((c) => {
      const x = series.columns[c.name] ?? new Float32Array(0);
      const shown = thinned(series.tS, x, fromS, toS, Math.max(200, Math.round(widthPx * 0.45)));
      return { id: c.name, xAxisIndex: k, yAxisIndex: k, data: shown.map((i) => [series.tS[i], x[i]]) };
    }),
  );

/** The whole drawing, over the whole flight. */
export function seriesOption(
  element: HTMLElement,
  series: Series,
  rows: readonly Curve[][],
  bands: readonly { fromS: number; toS: number }[],
  label: (s: number) => string,
  unit: 'kt' | 'mph',
) {
  const style = getComputedStyle(element);
  const css = (name: string) => style.getPropertyValue(name).trim();
  const font = { color: css('--ink'), fontFamily: 'B612', fontSize: 12 };
  const end = series.tS[series.tS.length - 1] ?? 1;
  const strip = series.columns.height ?? series.columns.gs ?? new Float32Array(0);
  const grids = gridsOf(rows.length, roomOf(element));
  const first = plotted(series, rows, element.clientWidth, 0, end);
  return {
    animation: false,
    textStyle: font,
    // The name of each row stands in it; the last grid is the whole flight behind the strip.
    title: rows.map((row, k) => ({
      text: row.map((c) => c.title.replace('{unit}', unit)).join(' \u00b7 ') + (row.length > 1 ? ' (dashed)' : ''),
      left: LEFT + 6,
      top: grids[k]?.top ?? 0,
      padding: [1, 4],
      textStyle: { ...font, fontWeight: 'normal' as const },
    })),
    grid: [...grids, { left: LEFT, right: RIGHT, bottom: 4, height: 24 }],
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
        left: LEFT,
        right: RIGHT,
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
          data: first.find((f) => f.id === c.name)?.data ?? [],
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
  };
}
