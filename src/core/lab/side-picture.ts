/** The side picture: where the runway lies in the side window on downwind, and when base is turned. */
import { coder } from '@/domain/coded';
import { MS_PER_KT, M_PER_FT } from '../constants';
import { fixed } from '../format';
import { sheetCas } from '../sheet';
import { type SideSeen, type View, missingMeasures, partInWindow, sideSeen, viewOf } from '../sightpicture';
import { type FigureShape, type FigureText, type Point, area, box, circle, label, line } from './figure';
import {
  type LabDay,
  type LabModel,
  type LabSheetData,
  type Parameter,
  type Settings,
  numberOf,
  wordOf,
} from './model';
import { LAB_WORDS } from './lab-words';

const said = coder(LAB_WORDS);
type SightData = LabSheetData & { code: string };
/** The sheet with the code the sight picture names it by; the page does not use it. */
const sighted = (s: LabSheetData): SightData => ({ ...s, code: '' });

function viewFor(s: LabSheetData, set: Settings, day: LabDay): View | null {
  const eye = numberOf(set, 'eye');
  return viewOf(
    sighted(s),
    eye > 0 ? eye : day.eyeHeightM,
    day.rhoKgM3 / 1.225,
    wordOf(set, 'seat') === 'instructor' ? 'instructor' : 'pilot',
  );
}
const levelPitch = (v: View): number => v.attitudes.find((a) => a.name === 'level')?.pitchDeg ?? 0;
/** From abeam the touchdown point to where base is turned: what the path has beyond the base leg. */
const baseAfterM = (s: LabSheetData, spacingM: number): number =>
  Math.max(0, ((s.approach[1] ?? s.approach[0])?.distanceM ?? 0) - spacingM) +
  (s.landing.touchdownM ?? s.landing.aimPointM).value;

const W = 860;
const H = 430;
const PX_PER_DEG = 8.2;
/** Azimuth in the middle of the window. */
const MID_DEG = 90;
const HORIZON_Y = 150;

interface Asked {
  view: View;
  pitchDeg: number;
  seen: SideSeen;
  side: 'left' | 'right';
  heightFt: number;
  spacingM: number;
  bankDeg: number;
}
function asked(s: LabSheetData, set: Settings, day: LabDay): Asked | null {
  const view = viewFor(s, set, day);
  if (!view) return null;
  const side = wordOf(set, 'side') === 'right' ? 'right' : 'left';
  const pitchDeg = levelPitch(view);
  const at = {
    heightFt: numberOf(set, 'height'),
    spacingM: numberOf(set, 'spacing'),
    side,
    bankDeg: numberOf(set, 'bank'),
  } as const;
  const seen = sideSeen({ profile: view.profile, parts: view.parts, pitchDeg }, at);
  return seen === null ? null : { view, pitchDeg, seen, ...at };
}

function drawn(a: Asked): { shapes: FigureShape[]; texts: FigureText[] } {
  const way = a.side === 'left' ? -1 : 1;
  // Looking out of the side: ahead is to the right from the left seat's window, to the left from the right one's.
  const X = (azimuth: number) => W / 2 + (a.side === 'left' ? 1 : -1) * (MID_DEG - Math.abs(azimuth)) * PX_PER_DEG;
  const Y = (depression: number) => HORIZON_Y + depression * PX_PER_DEG;
  // The runway, abeam and on both sides of it: 500 m each way.
  const farEnd = (along: number): Point => {
    const azimuth = 90 - (Math.atan2(along, a.spacingM) * 180) / Math.PI;
    const d = Math.hypot(along, a.spacingM);
    return [X(azimuth), Y((Math.atan2(a.heightFt * M_PER_FT, d) * 180) / Math.PI)];
  };
  const wide = 6;
  const [p, q] = [farEnd(-500), farEnd(500)];
  const mid: Point = [X(90), Y(a.seen.belowDeg)];
  const sill = a.view.profile
    .filter((x) => Math.sign(x.azimuthDeg) === way || x.azimuthDeg === 0)
    .sort((x, y) => Math.abs(x.azimuthDeg) - Math.abs(y.azimuthDeg));
  const edge = sill.map((x): Point => {
    const [seen] = partInWindow({ from: x, to: x }, a.pitchDeg, a.bankDeg);
    return [X(seen.azimuthDeg), Y(seen.depressionDeg)];
  });
  const lastEdge = edge[edge.length - 1] ?? [W / 2, H];
  const names: FigureText[] = [];
  const parts = a.view.parts
    .filter((x) => Math.sign(x.from.azimuthDeg) === way || Math.sign(x.to.azimuthDeg) === way)
    .map((x): FigureShape => {
      const [from, to] = partInWindow(x, a.pitchDeg, a.bankDeg);
      const ends: Point[] = [
        [X(from.azimuthDeg), Y(from.depressionDeg)],
        [X(to.azimuthDeg), Y(to.depressionDeg)],
      ];
      const [fx, fy] = ends[1] ?? [0, 0];
      if (fx > 20 && fx < W - 20)
        names.push(label(fx, Math.min(H - 12, fy + 22), x.name.replace(/, (left|right)$/, ''), 'ink', 'middle'));
      return line(ends, a.seen.part?.name === x.name ? 'other' : 'ink', { width: 11 });
    });
  return {
    shapes: [
      box(0, 0, W, H, 'sky'),
      box(0, HORIZON_Y, W, H - HORIZON_Y, 'field'),
      area(
        [
          [p[0], p[1] - wide],
          [mid[0], mid[1] - wide * 1.3],
          [q[0], q[1] - wide],
          [q[0], q[1] + wide],
          [mid[0], mid[1] + wide * 1.3],
          [p[0], p[1] + wide],
        ],
        'runway',
      ),
      line([[p[0], p[1]], mid, [q[0], q[1]]], 'paint', { width: 1.5, dashed: true }),
      area([...edge, [lastEdge[0], H], [edge[0]?.[0] ?? 0, H]], 'soft'),
      ...parts,
      circle(mid[0], mid[1], 6, a.seen.visible ? 'this' : 'warn'),
    ],
    texts: [
      label(14, 24, `${a.side} window, level; abeam in the middle`, 'soft'),
      label(a.side === 'left' ? W - 14 : 14, HORIZON_Y - 10, 'ahead', 'soft', a.side === 'left' ? 'end' : 'start'),
      label(mid[0] + 12, mid[1] - 14, `${fixed(a.seen.belowDeg)}\u00b0 below the horizon`, 'ink'),
      ...names,
    ],
  };
}

export const sideModel: LabModel = {
  page: 'side-picture',
  applies: () => true,
  missing: (s) => missingMeasures(sighted(s)).map((m) => ({ key: m.field, name: m.what, how: m.how })),
  start: (s, day) => ({
    side: 'left',
    height: day.circuitHeightFt > 0 ? Math.round(day.circuitHeightFt) : 1000,
    spacing: Math.max(300, Math.round((0.45 * ((s.approach[1] ?? s.approach[0])?.distanceM ?? 2000)) / 50) * 50),
    seat: 'pilot',
    bank: 0,
    eye: day.eyeHeightM ?? s.geometry.eyeHeightM?.value ?? 0,
  }),
  parameters: (s): Parameter[] => [
    {
      key: 'side',
      label: 'Runway on the',
      kind: 'choice',
      options: [
        ['left', 'left'],
        ['right', 'right'],
      ],
    },
    { key: 'spacing', label: 'Spacing on downwind', kind: 'range', min: 300, max: 4000, step: 50, unit: 'm' },
    { key: 'height', label: 'Height over the field', kind: 'range', min: 200, max: 1500, step: 50, unit: 'ft' },
    {
      key: 'seat',
      label: 'Seat',
      kind: 'choice',
      options: [
        ['pilot', 'pilot'],
        ['instructor', 'instructor'],
      ],
    },
    { key: 'bank', label: 'Bank', kind: 'range', min: -30, max: 30, step: 5, unit: '\u00b0' },
    {
      key: 'eye',
      label: 'Eye above the ground',
      kind: 'range',
      min: Math.max(0.5, (s.geometry.eyeHeightM?.value ?? 1.5) - 0.4),
      max: (s.geometry.eyeHeightM?.value ?? 1.5) + 0.4,
      step: 0.01,
      unit: 'm',
    },
  ],
  compute: (s, set, day) => {
    const a = asked(s, set, day);
    const seat = wordOf(set, 'seat') === 'instructor' ? 'instructor\u2019s seat' : 'pilot\u2019s seat';
    if (!a)
      return {
        page: 'side-picture',
        answer: said('side-hidden', { seat, belowDeg: 0, sillDeg: 0 }),
        tone: 'outside',
        why: [],
        figure: { w: W, h: H, shapes: [], texts: [] },
        frames: [],
        facts: [],
        table: { name: 'By spacing', head: [], rows: [] },
        assumed: [],
      };
    const { seen } = a;
    const down = s.approach[0];
    const tasMs = sheetCas(s, down?.speed.value ?? 60) * MS_PER_KT * Math.sqrt(1.225 / day.rhoKgM3);
    const afterM = baseAfterM(s, a.spacingM);
    const behindDeg = (Math.atan2(afterM, a.spacingM) * 180) / Math.PI;
    const closer = sideSeen(
      { profile: a.view.profile, parts: a.view.parts, pitchDeg: a.pitchDeg },
      { ...a, spacingM: Math.max(50, a.spacingM - 100) },
    );
    const spacings = [0.6, 0.8, 1, 1.25, 1.5].map((k) => Math.round((a.spacingM * k) / 10) * 10);
    const { shapes, texts } = drawn(a);
    const part = seen.part;
    return {
      page: 'side-picture',
      answer: seen.visible
        ? said('side-seen', {
            seat,
            belowDeg: seen.belowDeg,
            part: part?.name.replace(/, (left|right)$/, '') ?? null,
            share: part?.share ?? 0,
            spacingM: a.spacingM,
            heightFt: a.heightFt,
          })
        : said('side-hidden', { seat, belowDeg: seen.belowDeg, sillDeg: seen.edgeDepressionDeg }),
      tone: seen.visible ? 'plain' : 'outside',
      why: [
        said('side-key', { behindDeg, afterS: afterM / Math.max(1, tasMs) }),
        ...(closer
          ? [said('side-close', { spacingM: Math.max(50, a.spacingM - 100), belowDeg: closer.belowDeg })]
          : []),
        ...(a.bankDeg === 0
          ? [
              said('side-eye', {
                eyeM: a.view.eyeHeightM,
                own: day.eyeHeightM !== null && Math.abs(a.view.eyeHeightM - day.eyeHeightM) < 0.005,
              }),
            ]
          : [said('side-wing', { bankDeg: Math.abs(a.bankDeg) })]),
      ],
      figure: { w: W, h: H, shapes, texts },
      frames: [],
      facts: [
        ...(s.geometry.eyeHeightM
          ? [
              {
                name: 'eye above ground, of the sheet',
                value: `${fixed(s.geometry.eyeHeightM.value, 2)} m`,
                source: s.geometry.eyeHeightM,
              },
            ]
          : []),
        ...(s.sight
          ? [
              {
                name: 'view from the seat',
                value: `${s.sight.profile.length} directions`,
                source: { source: s.sight.source, ref: s.sight.ref },
              },
            ]
          : []),
        {
          name: 'pitch in level flight',
          value: `${fixed(a.pitchDeg, 1)}\u00b0`,
          source: s.sight?.attitudes.find((x) => x.name === 'level')?.pitchDeg ?? null,
        },
      ],
      table: {
        name: 'By spacing',
        head: ['spacing, m', 'below the horizon', 'on the airframe', 'seen'],
        rows: spacings.map((spacingM) => {
          const at = sideSeen(
            { profile: a.view.profile, parts: a.view.parts, pitchDeg: a.pitchDeg },
            { ...a, spacingM },
          );
          return [
            fixed(spacingM),
            `${fixed(at?.belowDeg ?? 0)}\u00b0`,
            at?.part
              ? `${at.part.name.replace(/, (left|right)$/, '')}, ${fixed(at.part.share * 100)} % down`
              : 'no part near',
            at?.visible ? 'yes' : 'hidden',
          ];
        }),
      },
      assumed: [said('side-assumed'), said('side-assumed-parts')],
    };
  },
};
