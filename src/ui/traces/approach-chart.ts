import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, LegendComponent, MarkAreaComponent, MarkLineComponent } from 'echarts/components';
import { init, onNewSize, use as register } from '../shared/chart-core';
import { CanvasRenderer } from 'echarts/renderers';
import type { ApproachLine } from '@/core/trace';

register([
  LineChart,
  ScatterChart,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  MarkAreaComponent,
  CanvasRenderer,
]);

export interface NamedLine extends ApproachLine {
  name: string;
}
export interface ApproachGate {
  name: string;
  x: number;
  heightFt: number | null;
  target: number | null;
}
interface Options {
  lines: readonly NamedLine[];
  gates: readonly ApproachGate[];
  tolerance: { low: number; high: number } | null;
  aimPointM: number | null;
  lengthM: number;
  what: 'profile' | 'load';
  speedName: string;
}

/**
 * The approach as height and speed over the distance, with the gates and the band allowed about their speeds; or the
 * load about the touch. One line a landing.
 */
export function drawApproach(element: HTMLElement, o: Options): () => void {
  const style = getComputedStyle(element);
  const css = (name: string) => style.getPropertyValue(name).trim();
  const font = { color: css('--ink'), fontFamily: 'B612', fontSize: 12 };
  const chart = init(element, undefined, { renderer: 'canvas' });
  const pen = (i: number) => ({
    color: css(i === 0 ? '--lagoon' : '--brick'),
    width: 2,
    type: i === 0 ? ('solid' as const) : ('dashed' as const),
  });
  const axis = {
    axisLine: { onZero: false, lineStyle: { color: css('--slate') } },
    splitLine: { lineStyle: { color: css('--line') } },
    axisLabel: font,
  };
  const line = (l: NamedLine, i: number, data: (number | null)[][], k: number) => ({
    type: 'line',
    name: l.name,
    xAxisIndex: k,
    yAxisIndex: k,
    showSymbol: false,
    silent: true,
    data,
    lineStyle: pen(i),
    itemStyle: { color: pen(i).color },
  });
  const legend =
    o.lines.length > 1
      ? { legend: { top: 0, right: 10, itemWidth: 30, textStyle: font, data: o.lines.map((l) => l.name) } }
      : {};
  if (o.what === 'load') {
    chart.setOption({
      animation: false,
      textStyle: font,
      ...legend,
      grid: { left: 46, right: 14, top: 26, bottom: 34 },
      xAxis: {
        type: 'value',
        ...axis,
        min: -4,
        max: 8,
        name: 's from the touch',
        nameLocation: 'middle',
        nameGap: 20,
        nameTextStyle: font,
      },
      yAxis: { type: 'value', ...axis, scale: true, name: 'g', nameTextStyle: font, nameGap: 8 },
      series: o.lines.map((l, i) => ({
        ...line(
          l,
          i,
          l.loadS.map((s, k) => [s, l.load[k] ?? null]),
          0,
        ),
        markLine:
          i === 0
            ? {
                silent: true,
                symbol: 'none',
                label: { show: false },
                lineStyle: { color: css('--slate'), type: 'dotted' },
                data: [{ xAxis: 0 }, { yAxis: 1 }],
              }
            : undefined,
      })),
    });
  } else {
    const gates = [...o.gates].sort((a, b) => a.x - b.x);
    const least = Math.max(-2400, Math.min(-700, ...gates.map((g) => g.x - 150)));
    const most = Math.min(o.lengthM, 700);
    const withTarget = gates.filter((g) => g.target !== null);
    const t = o.tolerance;
    chart.setOption({
      animation: false,
      textStyle: font,
      ...legend,
      grid: [
        { left: 52, right: 14, top: 26, height: '42%' },
        { left: 52, right: 14, bottom: 38, height: '32%' },
      ],
      xAxis: [0, 1].map((k) => ({
        type: 'value',
        gridIndex: k,
        min: least,
        max: most,
        ...axis,
        axisLabel:
          k === 1 ? { ...font, formatter: (v: number) => (v === 0 ? 'threshold' : String(v)) } : { show: false },
        ...(k === 1
          ? { name: 'm to fly to the threshold, and past it', nameLocation: 'middle', nameGap: 22, nameTextStyle: font }
          : {}),
      })),
      yAxis: [
        {
          type: 'value',
          gridIndex: 0,
          ...axis,
          min: 0,
          name: 'height, ft',
          nameTextStyle: { ...font, align: 'left' },
          nameGap: 8,
        },
        {
          type: 'value',
          gridIndex: 1,
          ...axis,
          scale: true,
          name: o.speedName,
          nameTextStyle: { ...font, align: 'left' },
          nameGap: 8,
        },
      ],
      series: [
        ...(t && withTarget.length > 1
          ? [
              {
                type: 'line',
                xAxisIndex: 1,
                yAxisIndex: 1,
                stack: 'allowed',
                showSymbol: false,
                silent: true,
                lineStyle: { opacity: 0 },
                data: withTarget.map((g) => [g.x, (g.target ?? 0) + t.low]),
              },
              {
                type: 'line',
                xAxisIndex: 1,
                yAxisIndex: 1,
                stack: 'allowed',
                showSymbol: false,
                silent: true,
                lineStyle: { opacity: 0 },
                areaStyle: { color: css('--meadow'), opacity: 0.18 },
                data: withTarget.map((g) => [g.x, t.high - t.low]),
              },
            ]
          : []),
        ...o.lines.flatMap((l, i) => [
          {
            ...line(
              l,
              i,
              l.x.map((x, k) => [x, l.heightFt[k] ?? null]),
              0,
            ),
            markLine:
              i === 0
                ? {
                    silent: true,
                    symbol: 'none',
                    label: { ...font, formatter: 'aim', position: 'middle', rotate: 0, distance: 6 },
                    lineStyle: { color: css('--aim'), type: 'dotted' },
                    data: o.aimPointM === null ? [] : [{ xAxis: o.aimPointM }],
                  }
                : undefined,
          },
          line(
            l,
            i,
            l.x.map((x, k) => [x, l.speed[k] ?? null]),
            1,
          ),
        ]),
        {
          type: 'scatter',
          xAxisIndex: 0,
          yAxisIndex: 0,
          silent: true,
          symbol: 'diamond',
          symbolSize: 10,
          itemStyle: { color: css('--ochre') },
          data: gates
            .filter((g) => g.heightFt !== null)
            .map((g) => ({
              value: [g.x, g.heightFt],
              label: { show: true, position: 'top', formatter: g.name, ...font },
            })),
        },
        {
          type: 'scatter',
          xAxisIndex: 1,
          yAxisIndex: 1,
          silent: true,
          symbol: 'diamond',
          symbolSize: 10,
          itemStyle: { color: css('--ochre') },
          data: withTarget.map((g) => ({
            value: [g.x, g.target],
            label: { show: true, position: 'top', formatter: `${g.target?.toFixed(0) ?? ''}`, ...font },
          })),
        },
      ],
    });
  }
  const letGo = onNewSize(element, () => chart.resize());
  return () => {
    letGo();
    chart.dispose();
  };
}
