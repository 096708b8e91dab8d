/** A crosswind landing: the limits, what holds it, what clears the ground, and when to bring the nose straight. */
import { coder } from '@/domain/coded';
import { cosDeg, sinDeg } from '../constants';
import { fixed, upTo } from '../format';
import { SLIP_NEEDS, sheetCas } from '../sheet';
import { crosswindHeld, crosswindStations, decrabDrift, slipBank, tipClearance } from '../slip';
import { casKtToDial, ktPerUnit } from '../speeds';
import { flapVerdict } from '../wind';
import { type FigureShape, type FigureText, type Point, area, arrow, box, circle, label, line } from './figure';
import {
  type LabDay,
  type LabModel,
  type LabSentence,
  type LabSheetData,
  type Parameter,
  type Settings,
  numberOf,
  wordOf,
} from './model';
import { dialSpeed, factsOf, lacking, num } from './sheet';
import { LAB_WORDS } from './lab-words';

const said = coder(LAB_WORDS);
const HEIGHTS_FT = [500, 300, 200, 100, 50, 20, 0];
/** Sink over the last feet, ft/min: a flare. */
const FLARE_FPM = 150;
const COMBINED_FROM_FT = 50;

interface Limit {
  name: string;
  kt: number;
}
function limitsOf(s: LabSheetData, day: LabDay): Limit[] {
  const { limitationKt, demonstratedKt } = s.crosswind;
  return [
    ...(limitationKt ? [{ name: 'limitation', kt: limitationKt.value }] : []),
    ...(demonstratedKt ? [{ name: 'demonstrated', kt: demonstratedKt.value }] : []),
    ...day.limits,
  ].sort((a, b) => a.kt - b.kt);
}

/** Everything the wind asks for at the touch. */
function askedOf(s: LabSheetData, set: Settings, day: LabDay) {
  const d = s.dynamics;
  const casKt = sheetCas(s, numberOf(set, 'speed'));
  const tasKt = casKt * Math.sqrt(1.225 / day.rhoKgM3);
  const crosswindKt = Math.max(Math.abs(numberOf(set, 'xw')), Math.abs(numberOf(set, 'gust')));
  const body = {
    cYBetaPerRad: num(d.sideForcePerRad),
    massKg: s.masses.refMassKg,
    wingAreaM2: s.wing.areaM2.value,
    airDensityKgM3: day.rhoKgM3,
  };
  const held = slipBank({ tasKt, crosswindKt, sideslipMaxDeg: num(d.sideslipMaxDeg), ...body });
  const bankDeg = held.bankDeg ?? 90;
  const parts = d.lowParts.map((p) => ({
    name: p.name,
    ...tipClearance(bankDeg, {
      tipHeightM: p.heightM.value,
      semiSpanM: p.outM.value,
      halfTrackM: s.gear.trackM.value / 2,
    }),
  }));
  const lowest = [...parts].sort((a, b) => a.clearanceM - b.clearanceM)[0] ?? null;
  const technique = wordOf(set, 'technique');
  const slipFromFt = technique === 'slip' ? 10_000 : technique === 'crab' ? -1 : COMBINED_FROM_FT;
  const stations = crosswindStations(HEIGHTS_FT, {
    tasKt,
    crosswindKt,
    slipFromFt,
    sideslipMaxDeg: num(d.sideslipMaxDeg),
    aileronInSlip: num(d.aileronInSlip),
    ...body,
  });
  const decrab =
    technique === 'crab'
      ? decrabDrift({ tasKt, crosswindKt, heightFt: numberOf(set, 'decrab'), sinkFpm: FLARE_FPM, bankDeg: 0, ...body })
      : null;
  const share = held.sideslipDeg === null ? Infinity : Math.abs(held.sideslipDeg) / num(d.sideslipMaxDeg);
  return { tasKt, crosswindKt, held, bankDeg, lowest, parts, stations, decrab, share, technique };
}

function answerOf(
  s: LabSheetData,
  day: LabDay,
  a: ReturnType<typeof askedOf>,
): { answer: LabSentence; tone: 'within' | 'edge' | 'outside' } {
  const least = limitsOf(s, day).find((l) => a.crosswindKt > l.kt);
  const up = Math.ceil(a.crosswindKt - 1e-9);
  if (least)
    return { answer: said('wind-over', { crosswindKt: up, limitKt: least.kt, whose: least.name }), tone: 'outside' };
  if (!a.held.held)
    return {
      answer: said('wind-short', { crosswindKt: up, holdsKt: crosswindHeld(a.tasKt, num(s.dynamics.sideslipMaxDeg)) }),
      tone: 'outside',
    };
  if (a.lowest && a.lowest.clearanceM <= 0)
    return {
      answer: said('wind-touches', { part: first(a.lowest.name), touchDeg: a.lowest.touchBankDeg ?? 0 }),
      tone: 'outside',
    };
  return {
    answer: said('wind-held', {
      crosswindKt: up,
      bankDeg: Math.abs(a.bankDeg),
      rudder: a.share,
      aileron: a.share * num(s.dynamics.aileronInSlip),
    }),
    tone: a.share > 0.85 ? 'edge' : 'within',
  };
}
const first = (x: string): string => `${x.charAt(0).toUpperCase()}${x.slice(1)}`;

function whyOf(s: LabSheetData, set: Settings, a: ReturnType<typeof askedOf>): LabSentence[] {
  const flap = flapVerdict(a.crosswindKt, null, s.crosswind.flapTable);
  const wind = numberOf(set, 'xw');
  const foot = s.engine.footOnPower;
  return [
    ...(a.decrab
      ? [
          said('wind-decrab', {
            heightFt: numberOf(set, 'decrab'),
            seconds: a.decrab.secondsToTouch,
            driftM: a.decrab.driftM,
            driftKt: a.decrab.driftKt,
          }),
        ]
      : []),
    ...(a.lowest && a.lowest.clearanceM > 0
      ? [
          said('wind-clear', {
            part: first(a.lowest.name),
            cm: a.lowest.clearanceM * 100,
            touchDeg: a.lowest.touchBankDeg,
          }),
        ]
      : []),
    ...(flap.maxFlapDeg !== null && flap.maxFlapDeg < Math.max(...s.flapSteps) && flap.reason !== null
      ? [said('wind-flap', { flapDeg: flap.maxFlapDeg, reason: flap.reason })]
      : []),
    ...(a.technique === 'crab' && a.held.sideslipDeg !== null
      ? [
          said('wind-crab', {
            crabDeg: Math.abs(a.held.sideslipDeg),
            sideKt: a.tasKt * sinDeg(Math.abs(a.held.sideslipDeg)),
          }),
        ]
      : []),
    // The tail weathercocks into the wind: a wind from the left wants right foot.
    ...(foot !== 'none' && Math.abs(wind) >= 3
      ? [said('wind-propeller', { wind: wind > 0 ? 'right' : 'left', worse: wind < 0 === (foot === 'right') })]
      : []),
    said('wind-holds', { holdsKt: crosswindHeld(a.tasKt, num(s.dynamics.sideslipMaxDeg)) }),
  ].slice(0, 3);
}

const W = 860;
const H = 400;
/** From behind at the touch, to scale, lower wheel on the ground. */
function fromBehind(s: LabSheetData, bankDeg: number, rightLow: boolean): { shapes: FigureShape[]; k: number } {
  const half = s.wing.spanM.value / 2;
  const k = Math.min(380 / (2 * half), 36);
  const t = s.gear.trackM.value / 2;
  const side = rightLow ? 1 : -1;
  const [x0, y0] = [230, 300];
  // Turned about the lower wheel.
  const place = (out: number, up: number): Point => {
    const dx = out - side * t;
    const c = cosDeg(bankDeg);
    const n = side * sinDeg(bankDeg);
    return [x0 + side * t * k + (dx * c + up * n) * k, y0 - (up * c - dx * n) * k];
  };
  const wing = s.geometry.wing;
  const h = s.geometry.heightM?.value ?? 2.2;
  const root = wing === 'low' ? 0.75 : wing === 'high' ? Math.min(h, 2.1) : 1.4;
  const tip = s.dynamics.lowParts.find((p) => /tip/.test(p.name))?.heightM.value ?? root;
  const r = (s.geometry.tyreDiameterM?.value ?? 0.4) / 2;
  const body = wing === 'low' ? 1.1 : 1.35;
  const round = Array.from({ length: 18 }, (_, i): Point =>
    place(0.5 * Math.cos((i * Math.PI) / 9), body + 0.62 * Math.sin((i * Math.PI) / 9)),
  );
  return {
    k,
    shapes: [
      box(0, y0, 460, H - y0, 'runway'),
      line([place(-half, tip), place(0, root), place(half, tip)], 'this', { width: 7 }),
      line([place(-t, r), place(-0.35, body - 0.4)], 'ink', { width: 3 }),
      line([place(t, r), place(0.35, body - 0.4)], 'ink', { width: 3 }),
      area(round, 'this'),
      line([place(0, body), place(0, h)], 'this', { width: 6 }),
      ...[-t, t].map((x) => {
        const [cx, cy] = place(x, r);
        return circle(cx, cy, r * k, 'ink');
      }),
      ...s.dynamics.lowParts.flatMap((p) =>
        [-1, 1].map((w) => {
          const [cx, cy] = place(w * p.outM.value, p.heightM.value);
          return circle(cx, cy, 5, 'other');
        }),
      ),
    ],
  };
}
/** Every limit and the wind on one scale. */
function scaleOf(
  limits: readonly Limit[],
  windKt: number,
  gustKt: number,
  holdsKt: number,
): { shapes: FigureShape[]; texts: FigureText[] } {
  const most = Math.max(20, ...limits.map((l) => l.kt), windKt, gustKt, holdsKt) * 1.12;
  const [x0, x1, y] = [500, W - 24, 120];
  const X = (kt: number) => x0 + ((x1 - x0) * kt) / most;
  const marks = [...limits, { name: 'wing low holds', kt: holdsKt }].sort((a, b) => a.kt - b.kt);
  const ticks = Array.from({ length: Math.floor(most / 5) + 1 }, (_, i) => i * 5);
  return {
    shapes: [
      box(x0, y - 8, x1 - x0, 16, 'card'),
      box(x0, y - 8, X(windKt) - x0, 16, 'this'),
      ...(gustKt > windKt ? [box(X(windKt), y - 8, X(gustKt) - X(windKt), 16, 'other')] : []),
      ...marks.map((m, i) =>
        line(
          [
            [X(m.kt), y - 14],
            [X(m.kt), y + 44 + 30 * i],
          ],
          m.kt < Math.max(windKt, gustKt) ? 'warn' : 'ink',
          { width: 2.5 },
        ),
      ),
    ],
    texts: [
      ...ticks.map((t) => label(X(t), y - 20, String(t), 'soft', 'middle')),
      label(x0, y - 48, 'crosswind, kt', 'soft'),
      ...marks.map((m, i) =>
        label(
          X(m.kt) > (x0 + x1) / 2 ? X(m.kt) - 6 : X(m.kt) + 6,
          y + 50 + 30 * i,
          `${m.name} ${fixed(Math.floor(m.kt + 1e-9))}`,
          m.kt < Math.max(windKt, gustKt) ? 'warn' : 'ink',
          X(m.kt) > (x0 + x1) / 2 ? 'end' : 'start',
        ),
      ),
    ],
  };
}

export const crosswindModel: LabModel = {
  page: 'crosswind',
  applies: () => true,
  missing: (s) => [
    ...lacking(s, SLIP_NEEDS),
    ...(s.dynamics.lowParts.length > 0
      ? []
      : [
          {
            key: 'lowParts',
            name: 'low parts',
            how: 'tape: height of wing tip, float or propeller over the floor, and out from the centreline',
          },
        ]),
  ],
  start: (s, day) => ({
    xw: Math.round(day.crosswindKt) || 8,
    gust: day.gustKt === null ? 0 : Math.ceil(Math.abs(day.gustKt)),
    speed: Math.round(s.approach[s.approach.length - 1]?.speed.value ?? casKtToDial(60, s.dial)),
    technique: 'both',
    decrab: 10,
  }),
  parameters: (s): Parameter[] => [
    { key: 'xw', label: 'Crosswind', kind: 'range', min: -30, max: 30, step: 1, unit: 'kt', signed: true },
    { key: 'gust', label: 'Crosswind in the gust', kind: 'range', min: 0, max: 35, step: 1, unit: 'kt' },
    {
      key: 'speed',
      label: 'Speed over the threshold',
      kind: 'range',
      min: Math.round(30 / ktPerUnit(s.dial.unit)),
      max: Math.round(140 / ktPerUnit(s.dial.unit)),
      step: 1,
      unit: s.dial.unit,
    },
    {
      key: 'technique',
      label: 'Technique',
      kind: 'choice',
      options: [
        ['both', 'crab, wing low from 50 ft'],
        ['slip', 'wing low'],
        ['crab', 'crab, then straighten'],
      ],
    },
    { key: 'decrab', label: 'Straightened at, wings level', kind: 'range', min: 1, max: 50, step: 1, unit: 'ft' },
  ],
  compute: (s, set, day) => {
    const a = askedOf(s, set, day);
    const { answer, tone } = answerOf(s, day, a);
    const wind = numberOf(set, 'xw');
    const shownBank = Math.min(40, Math.abs(a.bankDeg));
    const { shapes } = fromBehind(s, shownBank, wind > 0);
    const holdsKt = crosswindHeld(a.tasKt, num(s.dynamics.sideslipMaxDeg));
    const scale = scaleOf(limitsOf(s, day), Math.abs(wind), numberOf(set, 'gust'), holdsKt);
    const fromRight = wind > 0;
    return {
      page: 'crosswind',
      answer,
      tone,
      why: whyOf(s, set, a),
      figure: {
        w: W,
        h: H,
        shapes: [
          ...shapes,
          ...(wind === 0 ? [] : arrow(fromRight ? [440, 50] : [20, 50], fromRight ? [360, 50] : [100, 50], 'other', 4)),
          ...scale.shapes,
        ],
        texts: [
          label(230, H - 40, `from behind, ${upTo(shownBank)}\u00b0 of bank at the touch`, 'ink', 'middle'),
          label(
            230,
            H - 18,
            a.parts
              .map((x) => `${x.name} ${x.clearanceM <= 0 ? 'touches' : `${fixed(Math.floor(x.clearanceM * 100))} cm`}`)
              .join(', '),
            a.parts.some((x) => x.clearanceM <= 0) ? 'warn' : 'soft',
            'middle',
          ),
          ...scale.texts,
        ],
      },
      frames: [],
      facts: [
        ...factsOf(s, SLIP_NEEDS),
        ...s.dynamics.lowParts.map((p) => ({
          name: `${p.name}, height and out`,
          value: `${fixed(p.heightM.value, 2)} m, ${fixed(p.outM.value, 2)} m`,
          source: { source: p.heightM.source, ref: p.heightM.ref },
        })),
        {
          name: 'true airspeed',
          value: `${fixed(a.tasKt / ktPerUnit(s.dial.unit))} ${dialSpeed(s, a.tasKt).unit}`,
          source: null,
        },
      ],
      table: {
        name: 'On the way down',
        head: ['height, ft', 'nose', 'bank', 'rudder', 'aileron'],
        rows: a.stations.map((x) => [
          fixed(x.heightFt),
          x.technique === 'crab' ? `${fixed(x.crabDeg)}\u00b0 into the wind` : 'along the runway',
          x.bankDeg === 0 ? 'level' : `${fixed(x.bankDeg)}\u00b0 into the wind`,
          x.technique === 'crab' ? 'ball centred' : x.short ? 'not enough' : `${upTo(x.rudderShare * 100)} %`,
          x.technique === 'crab' ? '\u2013' : `${upTo(x.aileronShare * 100)} %`,
        ]),
      },
      assumed: [said('wind-assumed-tas'), said('wind-assumed-linear'), said('wind-assumed-gear')],
    };
  },
};
