import { BarChart, CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { format, init, onNewSize, use as register } from '../shared/chart-core';
import { SVGRenderer } from 'echarts/renderers';
import {
  type GateStrip,
  type LessonPoint,
  type MeasureTrend,
  type TouchdownSpread,
  ellipsePoints,
} from '@/core/assess';
import { fixed } from '@/core/format';
import { ALONG_BANDS, type AlongBand, type LateralBand, say } from '@/domain/words';
import type { TouchdownPoint } from './points';

register([
  ScatterChart,
  CustomChart,
  LineChart,
  BarChart,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  SVGRenderer,
]);

const SHAPE: Record<TouchdownPoint['verdict'], string> = {
  within: 'circle',
  edge: 'path://M8 1a7 7 0 1 1 0 14a7 7 0 1 1 0-14zM8 3v10a5 5 0 1 0 0-10z',
  outside: 'path://M8 1a7 7 0 1 1 0 14a7 7 0 1 1 0-14zM8 3a5 5 0 0 0-4.9 4h9.8A5 5 0 0 0 8 3zM3.1 9a5 5 0 0 0 9.8 0z',
  'not-seen': 'path://M1 6h14v4H1z',
};
const COLOUR: Record<TouchdownPoint['verdict'], string> = {
  within: '--meadow',
  edge: '--ochre',
  outside: '--brick',
  'not-seen': '--slate',
};

function stage(element: HTMLElement) {
  const style = getComputedStyle(element);
  const css = (name: string) => style.getPropertyValue(name).trim();
  const chart = init(element, undefined, { renderer: 'svg' });
  const letGo = onNewSize(element, () => chart.resize());
  return {
    chart,
    css,
    text: { color: css('--ink'), fontFamily: 'B612', fontSize: 13 },
    end: () => {
      letGo();
      chart.dispose();
    },
  };
}
/** What a tip says is text, some of it typed by people: it is never taken for markup. */
const tipOf = (p: { data?: { tip?: string } }): string => format.encodeHTML(p.data?.tip ?? '').replaceAll('\n', '<br>');
const plainAxis = { splitLine: { show: false }, axisLine: { show: false }, axisTick: { show: false } };

export interface MapFacts {
  touchdownM: number;
  trackM: number;
  widthM: number;
  box: { before: number; past: number };
  limitM: number | null;
  spread: TouchdownSpread | null;
}

/** Metres a band stands for, across: nearest and farthest from the line. */
const ACROSS = (band: LateralBand, trackM: number, halfM: number): [number, number] => {
  const side = band.endsWith('left') ? -1 : 1;
  if (band === 'line') return [-trackM / 4, trackM / 4];
  const [near, far] = band.startsWith('wheel') ? [trackM / 4, trackM] : [trackM, Math.min(halfM, 3.2 * trackM)];
  return side < 0 ? [-far, -near] : [near, far];
};
const ALONG = (band: AlongBand, { touchdownM: a, box: b }: MapFacts): [number, number] => {
  const edges = [0, Math.max(0, a - b.before), a + b.past, a + 2 * b.past, a + 3 * b.past];
  const i = ALONG_BANDS.indexOf(band);
  return [edges[i] ?? 0, edges[i + 1] ?? 0];
};

/**
 * The runway from above, threshold at the left, the left of the pilot up. Measured touches stand at their metre, those
 * of the eye softly in their band.
 */
export function drawTouchdowns(element: HTMLElement, points: readonly TouchdownPoint[], facts: MapFacts): () => void {
  const { chart, css, text, end } = stage(element);
  const edge = facts.widthM / 2;
  // Drawn wide enough for what is there; the runway's edges show where they lie within it.
  const half = Math.min(
    edge,
    3 * Math.ceil(Math.max(3.3 * facts.trackM, ...points.map((p) => Math.abs(p.lateralM ?? 0) + 1)) / 3),
  );
  const { touchdownM: from, box, trackM, spread } = facts;
  const farthest = Math.max(
    from + 2.4 * box.past,
    ...points.map((p) => (p.alongM === null ? 0 : from + p.alongM + 30)),
  );
  const measured = points.filter((p) => p.alongM !== null && p.lateralM !== null);
  const eye = points.filter(
    (p) => !(p.alongM !== null && p.lateralM !== null) && p.along !== null && p.lateral !== null,
  );
  const cells = new Map<string, { x: [number, number]; y: [number, number]; n: number }>();
  const placed = eye.map((p, i) => {
    const x = ALONG(p.along as AlongBand, facts);
    const y = ACROSS(p.lateral as LateralBand, trackM, edge);
    const key = `${p.along ?? ''} ${p.lateral ?? ''}`;
    const cell = cells.get(key) ?? { x, y, n: 0 };
    cells.set(key, { ...cell, n: cell.n + 1 });
    const step = 0.08 + ((cell.n * 0.137) % 0.84);
    return {
      p,
      x: x[0] + (Math.min(x[1], farthest) - x[0]) * step,
      y: y[0] + (y[1] - y[0]) * (0.5 + (i % 2 ? 0.18 : -0.18)),
    };
  });
  const crowded = points.length > 16;
  const dot = (p: TouchdownPoint, x: number, y: number, soft: boolean) => ({
    value: [x, -y],
    symbol: SHAPE[p.verdict],
    symbolSize: soft ? 11 : 15,
    itemStyle: { color: css(COLOUR[p.verdict]), opacity: soft ? 0.75 : 1 },
    label: { show: !(crowded && soft), position: 'top', distance: 1, formatter: p.label, ...text, fontSize: 11 },
    tip: `Landing ${p.label}: ${soft ? `${say(p.along ?? '')}, ${say(p.lateral ?? '')}, by eye` : `${fixed(p.alongM ?? 0)} m past the touchdown point, ${fixed(Math.abs(p.lateralM ?? 0), 1)} m ${(p.lateralM ?? 0) < 0 ? 'left' : 'right'}, measured`}\n${p.word}`,
  });
  const ring = (sigma: number, dashed: boolean) =>
    spread
      ? [
          {
            type: 'line',
            silent: true,
            showSymbol: false,
            data: ellipsePoints(spread, sigma).map(([x, y]) => [from + y, -x]),
            lineStyle: { color: css('--lagoon'), width: dashed ? 1.2 : 2, type: dashed ? [5, 4] : 'solid' },
            ...(dashed ? {} : { areaStyle: { color: css('--lagoon'), opacity: 0 } }),
          },
        ]
      : [];
  const keys = Math.max(6, Math.round(facts.widthM / 1.8));
  const stripes = Array.from({ length: keys }, (_, i) => {
    const at = (share: number) => Math.max(-half, Math.min(half, -edge + (i + share) * (facts.widthM / keys)));
    return [
      { coord: [4, at(0.2)], itemStyle: { color: css('--runway-edge'), opacity: 0.9 } },
      { coord: [22, at(0.8)] },
    ];
  });
  const boxHalf = facts.limitM ?? trackM;
  chart.setOption({
    animation: false,
    textStyle: text,
    tooltip: { trigger: 'item', confine: true, textStyle: { fontFamily: 'B612' }, formatter: tipOf },
    grid: { left: 54, right: 14, top: 8, bottom: 26 },
    xAxis: {
      type: 'value',
      min: 0,
      max: Math.ceil(farthest / 50) * 50,
      interval: 50,
      ...plainAxis,
      axisLabel: { ...text, fontSize: 12, formatter: (v: number) => (v % 100 === 0 ? `${v} m` : '') },
    },
    yAxis: {
      type: 'value',
      min: -half,
      max: half,
      interval: half / 3,
      ...plainAxis,
      axisLabel: {
        ...text,
        fontSize: 12,
        formatter: (v: number) =>
          Math.abs(v) < 0.1 ? 'line' : `${fixed(Math.abs(v), half % 3 === 0 ? 0 : 1)} m ${v > 0 ? 'L' : 'R'}`,
      },
    },
    series: [
      {
        type: 'scatter',
        data: [],
        silent: true,
        markArea: {
          silent: true,
          data: [
            [
              { coord: [0, -half], itemStyle: { color: css('--wash') } },
              { coord: [Math.ceil(farthest / 50) * 50, half] },
            ],
            ...stripes,
            ...[...cells.values()].map((c) => [
              {
                coord: [c.x[0], -c.y[1]],
                itemStyle: { color: css('--strip-soft'), opacity: Math.min(0.5, 0.14 + 0.05 * c.n) },
              },
              { coord: [Math.min(c.x[1], farthest), -c.y[0]] },
            ]),
            [
              {
                coord: [Math.max(0, from - box.before), -boxHalf],
                itemStyle: {
                  color: 'transparent',
                  borderColor: css('--slate'),
                  borderWidth: 1.5,
                  borderType: 'dashed',
                },
                name: 'standard',
                label: { ...text, fontSize: 12, position: 'insideBottomRight', offset: [0, 18], color: css('--slate') },
              },
              { coord: [from + box.past, boxHalf] },
            ],
          ],
        },
        markLine: {
          silent: true,
          symbol: 'none',
          label: { show: false },
          lineStyle: { color: css('--runway-edge'), type: [16, 12], width: 2 },
          data: [[{ coord: [30, 0] }, { coord: [Math.ceil(farthest / 50) * 50, 0] }]],
        },
      },
      ...ring(2, true),
      ...ring(1, false),
      { type: 'scatter', labelLayout: { hideOverlap: true }, data: placed.map(({ p, x, y }) => dot(p, x, y, true)) },
      {
        type: 'scatter',
        labelLayout: { hideOverlap: true },
        data: measured.map((p) => dot(p, from + (p.alongM ?? 0), p.lateralM ?? 0, false)),
      },
      ...(spread?.meanAlongM != null && spread.n >= 3
        ? [
            {
              type: 'scatter',
              silent: true,
              z: 9,
              symbol: 'path://M6 0h4v6h6v4h-6v6h-4v-6h-6v-4h6z',
              symbolSize: 20,
              itemStyle: { color: css('--ink'), borderColor: css('--card'), borderWidth: 1.5 },
              data: [[from + spread.meanAlongM, -(spread.meanLateralM ?? 0)]],
            },
          ]
        : []),
    ],
  });
  return end;
}

/**
 * Speeds about their target, a strip for each gate; the standard's band behind, the mean with its interval as a bar.
 */
export function drawStrips(
  element: HTMLElement,
  strips: readonly GateStrip[],
  band: { low: number; high: number } | null,
): () => void {
  const { chart, css, text, end } = stage(element);
  const reach = Math.max(8, ...strips.flatMap((s) => s.values.map((v) => Math.abs(v.offKt) + 1)));
  chart.setOption({
    animation: false,
    textStyle: text,
    tooltip: { trigger: 'item', confine: true, textStyle: { fontFamily: 'B612' }, formatter: tipOf },
    grid: { left: 92, right: 16, top: 6, bottom: 40 },
    xAxis: {
      type: 'value',
      min: -Math.ceil(reach),
      max: Math.ceil(reach),
      ...plainAxis,
      name: 'knots about the target: slow left, fast right',
      nameLocation: 'middle',
      nameGap: 24,
      nameTextStyle: { ...text, fontSize: 12 },
      axisLabel: { ...text, fontSize: 12, formatter: (v: number) => (v > 0 ? `+${v}` : v < 0 ? `\u2013${-v}` : '0') },
    },
    yAxis: {
      type: 'category',
      inverse: true,
      data: strips.map((s) => s.gate.toLowerCase()),
      ...plainAxis,
      axisLabel: { ...text },
    },
    series: [
      {
        type: 'scatter',
        symbolSize: 9,
        data: strips.flatMap((s, row) =>
          s.values.map((v) => ({
            value: [v.offKt, row],
            symbol: v.source === 'measured' ? 'circle' : 'emptyCircle',
            symbolOffset: [0, 7],
            itemStyle: { color: css('--lagoon'), opacity: 0.7 },
            tip: `Landing ${v.label}, ${s.gate.toLowerCase()}: ${v.offKt >= 0 ? '+' : '\u2013'}${fixed(Math.abs(v.offKt), 1)} kt, ${v.source === 'measured' ? 'measured' : 'read by eye'}`,
          })),
        ),
        markArea: band
          ? {
              silent: true,
              itemStyle: { color: css('--lagoon-wash') },
              data: [[{ xAxis: band.low }, { xAxis: band.high }]],
            }
          : undefined,
        markLine: {
          silent: true,
          symbol: 'none',
          label: { show: false },
          lineStyle: { color: css('--slate'), type: 'solid', width: 1 },
          data: [{ xAxis: 0 }],
        },
      },
      {
        type: 'custom',
        silent: true,
        data: strips.flatMap((s, row) =>
          s.mean === null ? [] : [[row, s.mean, s.lower ?? s.mean, s.upper ?? s.mean]],
        ),
        encode: { x: 1, y: 0 },
        renderItem: (_p: unknown, api: { value: (d: number) => number; coord: (at: number[]) => number[] }) => {
          const [mx = 0, y = 0] = api.coord([api.value(1), api.value(0)]);
          const [lx = 0] = api.coord([api.value(2), api.value(0)]);
          const [ux = 0] = api.coord([api.value(3), api.value(0)]);
          const style = { stroke: css('--ink'), lineWidth: 2 };
          return {
            type: 'group',
            children: [
              { type: 'line', shape: { x1: lx, y1: y - 6, x2: ux, y2: y - 6 }, style },
              { type: 'line', shape: { x1: mx, y1: y - 12, x2: mx, y2: y }, style: { ...style, lineWidth: 3 } },
            ],
          };
        },
      },
    ],
  });
  return end;
}

/** A measure landing by landing: the points, their trend, the smoothed mean and its control limits. */
export function drawTrend(element: HTMLElement, f: MeasureTrend): () => void {
  const { chart, css, text, end } = stage(element);
  const n = f.points.length;
  const line = (data: (number | null)[][], colour: string, width: number, type: string | number[]) => ({
    type: 'line',
    silent: true,
    showSymbol: false,
    data,
    lineStyle: { color: css(colour), width, type },
  });
  const { slope, intercept } = f.trend;
  chart.setOption({
    animation: false,
    textStyle: text,
    tooltip: { trigger: 'item', confine: true, textStyle: { fontFamily: 'B612' }, formatter: tipOf },
    grid: { left: 62, right: 14, top: 12, bottom: 38 },
    xAxis: {
      type: 'value',
      min: 0.5,
      max: n + 0.5,
      interval: Math.max(1, Math.round(n / 12)),
      ...plainAxis,
      name: 'landings in order',
      nameLocation: 'middle',
      nameGap: 22,
      nameTextStyle: { ...text, fontSize: 12 },
      axisLabel: { ...text, fontSize: 12, formatter: (v: number) => f.points[Math.round(v) - 1]?.label ?? '' },
    },
    yAxis: {
      type: 'value',
      scale: true,
      axisLine: { show: false },
      axisTick: { show: false },
      splitLine: { lineStyle: { color: css('--line') } },
      axisLabel: { ...text, fontSize: 12, formatter: (v: number) => `${fixed(v)} ${f.measure.unit}` },
    },
    series: [
      {
        type: 'scatter',
        symbolSize: 10,
        data: f.points.map((p, i) => ({
          value: [i + 1, p.value],
          symbol: p.measured ? 'circle' : 'emptyCircle',
          itemStyle: { color: css(f.ewma[i]?.signal ? '--brick' : '--lagoon') },
          tip: `Landing ${p.label}: ${fixed(p.value, 1)} ${f.measure.unit}, ${p.measured ? 'measured' : 'read by eye'}`,
        })),
        markArea: f.standard
          ? {
              silent: true,
              itemStyle: { color: css('--lagoon-wash') },
              data: [[{ yAxis: f.standard.low }, { yAxis: f.standard.high }]],
            }
          : undefined,
      },
      line(
        f.ewma.map((e, i) => [i + 1, e.z]),
        '--ink',
        2,
        'solid',
      ),
      line(
        f.ewma.map((e, i) => [i + 1, e.lower]),
        '--slate',
        1,
        [4, 4],
      ),
      line(
        f.ewma.map((e, i) => [i + 1, e.upper]),
        '--slate',
        1,
        [4, 4],
      ),
      ...(slope === null || intercept === null
        ? []
        : [
            line(
              [
                [1, intercept],
                [n, intercept + slope * (n - 1)],
              ],
              '--ochre',
              2.5,
              [10, 6],
            ),
          ]),
    ],
  });
  return end;
}

/** Who flew the landings, lesson by lesson: the pilot's part of each, and how many were his or her own. */
export function drawAuthorship(
  element: HTMLElement,
  lessons: readonly LessonPoint[],
  medians: readonly { lesson: number; part: number }[],
): () => void {
  const { chart, css, text, end } = stage(element);
  chart.setOption({
    animation: false,
    textStyle: text,
    tooltip: { trigger: 'item', confine: true, textStyle: { fontFamily: 'B612' }, formatter: tipOf },
    grid: { left: 52, right: 12, top: 10, bottom: 26 },
    xAxis: {
      type: 'category',
      data: lessons.map((l) => `lesson ${l.lesson}`),
      axisLine: { lineStyle: { color: css('--slate') } },
      axisTick: { show: false },
      axisLabel: { ...text, fontSize: 12 },
    },
    yAxis: {
      type: 'value',
      min: 0,
      max: 1,
      interval: 0.25,
      axisLine: { show: false },
      axisTick: { show: false },
      splitLine: { lineStyle: { color: css('--line') } },
      axisLabel: { ...text, fontSize: 12, formatter: (v: number) => fixed(v, 2) },
    },
    series: [
      {
        type: 'bar',
        barMaxWidth: 54,
        data: lessons.map((l) => ({
          value: l.authorship ?? 0,
          itemStyle: { color: css('--lagoon') },
          label: {
            show: l.authorship !== null,
            position: 'insideTop',
            formatter: fixed(l.authorship ?? 0, 2),
            fontFamily: 'B612',
            fontSize: 12,
            color: css('--on-lagoon'),
          },
          tip: `Lesson ${l.lesson}: the pilot\u2019s part ${fixed(l.authorship ?? 0, 2)} over ${l.withLevel} landings; ${l.own} of ${l.landings} unassisted`,
        })),
      },
      {
        type: 'scatter',
        symbol: 'rect',
        symbolSize: [50, 4],
        itemStyle: { color: css('--ochre') },
        data: medians.map((m) => ({
          value: [`lesson ${m.lesson}`, m.part],
          tip: `Median of the school at this stage: ${fixed(m.part, 2)}`,
        })),
      },
    ],
  });
  return end;
}
