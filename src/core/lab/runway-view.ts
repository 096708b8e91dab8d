/** A roll seen from above: the runway, the path, the aeroplane and the feet. Shared by the pages of a roll. */
import { fixed } from '../format';
import type { RunOutcome, RunState } from '../ground';
import {
  type Figure,
  type FigureShape,
  type FigureText,
  type Point,
  area,
  arrow,
  box,
  circle,
  label,
  line,
} from './figure';
import type { LabFrame, LabSheetData } from './model';

/** Grip left and right, and rolling resistance, by surface. */
export const SURFACES: Record<string, { left: number; right: number; rolling: number }> = {
  dry: { left: 0.7, right: 0.7, rolling: 0.03 },
  wet: { left: 0.45, right: 0.45, rolling: 0.035 },
  grass: { left: 0.45, right: 0.45, rolling: 0.08 },
  'ice-left': { left: 0.1, right: 0.7, rolling: 0.03 },
  'ice-right': { left: 0.7, right: 0.1, rolling: 0.03 },
};
export const SURFACE_CHOICES = [
  ['dry', 'dry'],
  ['wet', 'wet'],
  ['grass', 'grass'],
  ['ice-left', 'ice left'],
  ['ice-right', 'ice right'],
] as const;
export const RUN_TONES = { within: 'this', edge: 'other', outside: 'warn' } as const;
export type RunTone = (typeof RUN_TONES)[keyof typeof RUN_TONES];
const FRAME_S = 0.06;
/** Size of the drawing. */
export const RUNWAY = { w: 860, h: 430 } as const;
const { w: W, h: H } = RUNWAY;
/** Drawing of the runway from above: along to the right, left of the runway up. */
export type RunView = ReturnType<typeof runView>;
export function runView(run: RunOutcome, other: RunOutcome | null, halfM: number) {
  const far = Math.max(60, ...run.states.map((x) => x.xM), ...(other?.states ?? []).map((x) => x.xM));
  const scale = Math.min((W - 90) / far, (H - 40) / Math.max(4 * halfM, 36));
  return {
    scale,
    x: (m: number) => 40 + m * scale,
    y: (m: number) => H / 2 + m * scale,
  };
}
const plan = (sheet: LabSheetData, at: RunState, v: RunView, tone: RunTone): FigureShape[] => {
  const a = (at.headingDeg * Math.PI) / 180;
  // Drawn at least so big that it is seen; its own shape.
  const k = Math.max(1, 34 / (sheet.wing.spanM.value * v.scale));
  const place = (ahead: number, right: number): Point => [
    v.x(at.xM) + (ahead * Math.cos(a) - right * Math.sin(a)) * v.scale * k,
    v.y(at.yM) + (ahead * Math.sin(a) + right * Math.cos(a)) * v.scale * k,
  ];
  const half = sheet.wing.spanM.value / 2;
  const length = sheet.geometry.lengthM?.value ?? sheet.wing.spanM.value * 0.7;
  const chord = sheet.wing.areaM2.value / sheet.wing.spanM.value;
  const nose = length * 0.3;
  return [
    area([place(chord / 2, -half), place(chord / 2, half), place(-chord / 2, half), place(-chord / 2, -half)], tone, {
      width: 0,
    }),
    area(
      [
        place(nose, -0.25),
        place(nose, 0.25),
        place(0, 0.5),
        place(nose - length, 0.12),
        place(nose - length, -0.12),
        place(0, -0.5),
      ],
      tone,
    ),
    line([place(nose - length + 0.3, -half / 3.2), place(nose - length + 0.3, half / 3.2)], tone, { width: 4 }),
  ];
};

export const pathOf = (o: RunOutcome, v: RunView): Point[] =>
  o.states.filter((_, n) => n % 3 === 0).map((x): Point => [v.x(x.xM), v.y(x.yM)]);

/** Runway, centreline and wind, with what lies on it. @param windKt + from the right */
export function runwayFigure(
  v: RunView,
  half: number,
  windKt: number,
  on: { shapes: FigureShape[]; texts: FigureText[] },
): Figure {
  const right = windKt > 0;
  return {
    w: W,
    h: H,
    shapes: [
      box(0, 0, W, H, 'field'),
      box(0, v.y(-half), W, 2 * half * v.scale, 'runway'),
      // Edges as lines: a theme may give runway and grass the same white.
      ...[-half, half].map((m) =>
        line(
          [
            [0, v.y(m)],
            [W, v.y(m)],
          ],
          'soft',
          { width: 1.5 },
        ),
      ),
      line(
        [
          [0, H / 2],
          [W, H / 2],
        ],
        'paint',
        { width: 3, dashed: true },
      ),
      ...on.shapes,
      ...(windKt === 0 ? [] : arrow([W - 40, right ? H - 60 : 60], [W - 40, right ? H - 130 : 130], 'other', 4)),
    ],
    texts: [
      label(12, 22, `from above; runway ${fixed(2 * half)} m wide`, 'soft'),
      ...(windKt === 0 ? [] : [label(W - 60, right ? H - 96 : 108, `${fixed(Math.abs(windKt))} kt`, 'other', 'end')]),
      ...on.texts,
    ],
  };
}

/** The aeroplane and the pressed foot, moment by moment. @param more what else moves */
export const runFrames = (
  sheet: LabSheetData,
  run: RunOutcome,
  v: RunView,
  tone: RunTone,
  more: (x: RunState) => { shapes: FigureShape[]; texts: FigureText[] } = () => ({ shapes: [], texts: [] }),
): LabFrame[] =>
  run.states
    .filter((_, n) => n % Math.round(FRAME_S / 0.02) === 0)
    .map((x) => {
      const own = more(x);
      return {
        tS: x.tS,
        shapes: [
          ...plan(sheet, x, v, tone),
          box(W / 2 - 62, H - 34, 56, 12, 'card'),
          box(W / 2 + 6, H - 34, 56, 12, 'card'),
          x.pedal < 0
            ? box(W / 2 - 6 + 56 * x.pedal, H - 34, -56 * x.pedal, 12, 'warn')
            : box(W / 2 + 6, H - 34, 56 * x.pedal, 12, 'warn'),
          ...(x.outerLoad > 0.95 ? [circle(v.x(x.xM), v.y(x.yM), 5, 'warn')] : []),
          ...own.shapes,
        ],
        texts: [label(W / 2, H - 42, 'left foot \u00b7 right foot', 'soft', 'middle'), ...own.texts],
      };
    });
