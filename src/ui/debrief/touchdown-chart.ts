import { CustomChart, ScatterChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { init, use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { ALONG_BANDS, LATERAL_BANDS, say } from '@/domain/words';
import type { TouchdownPoint } from './touchdown-map';

register([ScatterChart, CustomChart, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent, SVGRenderer]);

const SHAPE: Record<TouchdownPoint['verdict'], string> = {
  within: 'circle',
  edge: 'path://M8 1a7 7 0 1 1 0 14a7 7 0 1 1 0-14zM8 3v10a5 5 0 1 0 0-10z',
  outside: 'path://M8 1a7 7 0 1 1 0 14a7 7 0 1 1 0-14zM8 3a5 5 0 0 0-4.9 4h9.8A5 5 0 0 0 8 3zM3.1 9a5 5 0 0 0 9.8 0z',
  'not-seen': 'path://M1 6h14v4H1z',
};
const COLOUR: Record<TouchdownPoint['verdict'], string> = { within: '--meadow', edge: '--ochre', outside: '--brick', 'not-seen': '--slate' };

/** Draws the map into `element`; the runway lies from left (threshold) to right. Returns what takes it down again. */
export function drawTouchdowns(element: HTMLElement, points: readonly TouchdownPoint[], { aimPointM, trackM, box }: { aimPointM: number; trackM: number; box: { before: number; past: number } }): () => void {
  const style = getComputedStyle(element);
  const css = (name: string) => style.getPropertyValue(name).trim();
  const chart = init(element, undefined, { renderer: 'svg' });
  const text = { color: css('--ink'), fontFamily: 'B612', fontSize: 13 };
  const edges = [aimPointM - box.before, aimPointM + box.past, aimPointM + 2 * box.past];
  const across = [...LATERAL_BANDS].reverse();
  const inCell = new Map<string, number>();
  // Bands are drawn equally wide: a measured place stands in its band at its share of it.
  const within = (x: number, marks: readonly number[]) => { const i = Math.max(0, Math.min(marks.length - 2, marks.findIndex((m, k) => k > 0 && x < m) - 1)); const at = x >= (marks[marks.length - 1] ?? 0) ? marks.length - 2 : i; const [a, b] = [marks[at] ?? 0, marks[at + 1] ?? 1]; return at + Math.max(0.04, Math.min(0.96, (x - a) / (b - a))); };
  const place = (p: TouchdownPoint): [number, number] => {
    if (p.alongM !== null && p.lateralM !== null) return [within(p.alongM + aimPointM, [0, ...edges, (edges[2] ?? 0) + box.past]), within(-p.lateralM, [-3 * trackM, -trackM, -trackM / 4, trackM / 4, trackM, 3 * trackM])];
    const key = `${p.along} ${p.lateral}`;
    const n = inCell.get(key) ?? 0;
    inCell.set(key, n + 1);
    return [ALONG_BANDS.indexOf(p.along) + 0.12 + ((n * 0.11) % 0.78), across.indexOf(p.lateral) + 0.5 + (Math.floor(n / 7) % 2 ? 0.22 : 0)];
  };
  chart.setOption({
    animation: false,
    textStyle: text,
    tooltip: { trigger: 'item', confine: true, textStyle: { fontFamily: 'B612' }, formatter: (p: { data?: { tip?: string } }) => p.data?.tip ?? '' },
    grid: { left: 142, right: 16, top: 12, bottom: 30 },
    xAxis: { type: 'value', min: 0, max: 4, interval: 1, splitLine: { show: false }, axisLine: { show: false }, axisTick: { show: false }, axisLabel: { ...text, formatter: (v: number) => (v === 0 ? 'threshold' : v === 4 ? '' : `${edges[v - 1] ?? ''} m`) } },
    yAxis: { type: 'value', min: 0, max: 5, interval: 1, splitLine: { lineStyle: { color: css('--line'), type: 'dotted' } }, axisLine: { show: false }, axisTick: { show: false }, axisLabel: { show: false } },
    series: [
      {
        type: 'scatter', data: [], silent: true,
        markArea: { silent: true, data: [[{ coord: [0, 0], itemStyle: { color: css('--wash') } }, { coord: [4, 5] }], [{ coord: [1, 1], itemStyle: { color: 'transparent', borderColor: css('--slate'), borderWidth: 1.5, borderType: 'dashed' }, name: 'box of the standard', label: { ...text, fontSize: 12, position: 'insideBottomRight', color: css('--slate') } }, { coord: [2, 4] }]] },
        markLine: { silent: true, symbol: 'none', label: { show: false }, lineStyle: { color: css('--slate'), type: [14, 10], width: 2 }, data: [[{ coord: [0, 2.5] }, { coord: [4, 2.5] }]] },
      },
      {
        type: 'custom', silent: true, data: across.map((_, i) => [0, i]),
        renderItem: (_p: unknown, api: { value: (d: number) => number; coord: (at: number[]) => number[] }) => {
          const [x = 0, y = 0] = api.coord([0, api.value(1) + 0.5]);
          return { type: 'text', x: x - 10, y, style: { text: SHORT[across[api.value(1)] ?? 'line'] ?? '', textAlign: 'right', textVerticalAlign: 'middle', fill: css('--ink'), font: '13px B612' } };
        },
      },
      {
        type: 'scatter', symbolSize: 19,
        data: points.map((p) => ({ value: place(p), symbol: SHAPE[p.verdict], itemStyle: { color: css(COLOUR[p.verdict]) }, label: { show: true, position: 'top', distance: 2, formatter: `${p.number}${p.alongM !== null && p.lateralM !== null ? ' M' : ''}`, ...text, fontSize: 12 }, tip: `Landing ${p.number}: ${say(p.along)}, ${say(p.lateral)}<br>${p.word}` })),
      },
    ],
  });
  const sizes = new ResizeObserver(() => chart.resize());
  sizes.observe(element);
  return () => {
    sizes.disconnect();
    chart.dispose();
  };
}

const SHORT: Record<string, string> = { 'beyond-left': 'beyond, left', 'wheel-left': 'a wheel off, left', line: 'on the line', 'wheel-right': 'a wheel off, right', 'beyond-right': 'beyond, right' };
