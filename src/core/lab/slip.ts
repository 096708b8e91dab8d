/** A slip: what it loses, its path beside the unslipped one, leaving it, and the final turn with the wrong foot. */
import { coder } from '@/domain/coded';
import { G_MS2, MS_PER_KT, M_PER_FT } from '../constants';
import { fixed } from '../format';
import { SLIP_NEEDS, sheetCas } from '../sheet';
import { type SlipBody, finalTurn, slipSink, slipTurn } from '../slip';
import { ktPerUnit } from '../speeds';
import { type FigureShape, type FigureText, type Point, area, box, circle, label, line } from './figure';
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
import { dialSpeed, factsOf, lacking, landingDrag, landingFlap, num, stallKt } from './sheet';
import { LAB_WORDS } from './lab-words';

const said = coder(LAB_WORDS);
const FROM_FT = 500;
const FLOAT_SPEED_KT = 5;
const W = 860;
const H = 420;

function bodyOf(
  s: LabSheetData,
  set: Settings,
  day: LabDay,
): { body: SlipBody; tasKt: number; casKt: number; flapDeg: number } {
  const flapDeg = Number(wordOf(set, 'flap')) || 0;
  const drag = landingDrag(s, flapDeg);
  const casKt = sheetCas(s, numberOf(set, 'speed'));
  return {
    body: {
      massKg: s.masses.refMassKg,
      wingAreaM2: s.wing.areaM2.value,
      cd0: drag.cd0,
      inducedK: drag.k,
      slipK: num(s.dynamics.slipDrag),
      airDensityKgM3: day.rhoKgM3,
    },
    casKt,
    tasKt: casKt * Math.sqrt(1.225 / day.rhoKgM3),
    flapDeg,
  };
}

/** Metres further for speed too high at the flare: kinetic energy over drag in the flare. */
function floatM(body: SlipBody, tasKt: number, moreKt: number): number {
  const v = tasKt * MS_PER_KT;
  const q = 0.5 * body.airDensityKgM3 * v * v * body.wingAreaM2;
  const cl = (body.massKg * G_MS2) / q;
  const slows = (q * (body.cd0 + body.inducedK * cl * cl)) / body.massKg;
  return (v * moreKt * MS_PER_KT) / slows;
}

function drawn(
  s: LabSheetData,
  slipped: number | null,
  clean: number | null,
  turn: { skid: ReturnType<typeof finalTurn>; slip: ReturnType<typeof finalTurn> },
): { shapes: FigureShape[]; texts: FigureText[] } {
  const groundY = 330;
  const topY = 60;
  const k = (groundY - topY) / FROM_FT;
  // From one height down both paths; the flatter one fills the width.
  const far = (deg: number | null) =>
    deg === null || deg <= 0.5 ? 3000 : (FROM_FT * M_PER_FT) / Math.tan((deg * Math.PI) / 180);
  const most = Math.max(far(slipped), far(clean));
  const X = (m: number) => 30 + (m / most) * 480;
  const path = (deg: number | null): Point[] => [
    [30, topY],
    [X(far(deg)), groundY],
  ];
  const bars = (
    t: ReturnType<typeof finalTurn>,
    x: number,
    name: string,
  ): { shapes: FigureShape[]; texts: FigureText[] } => {
    if (!t) return { shapes: [], texts: [] };
    const zero = Math.min(t.inner.stallsAtCasKt, t.outer.stallsAtCasKt) - 4;
    const scale = 12;
    const bar = (w: { stallsAtCasKt: number }, at: number, isFirst: boolean, what: string) => {
      const h = Math.min(150, Math.max(6, (w.stallsAtCasKt - zero) * scale));
      return {
        shape: box(at, groundY - h, 44, h, isFirst ? 'warn' : 'this'),
        texts: [
          label(
            at + 22,
            groundY - h - 8,
            fixed(Math.ceil(w.stallsAtCasKt / ktPerUnit(s.dial.unit))),
            isFirst ? 'warn' : 'ink',
            'middle',
          ),
          label(at + 22, groundY + 20, what, 'soft', 'middle'),
        ],
      };
    };
    const inner = bar(t.inner, x, t.first === 'inner', 'inner');
    const outer = bar(t.outer, x + 60, t.first === 'outer', 'outer');
    return {
      shapes: [inner.shape, outer.shape],
      texts: [
        ...inner.texts,
        ...outer.texts,
        label(x + 52, groundY + 44, name, 'ink', 'middle'),
        label(
          x + 52,
          groundY + 64,
          t.rolls === 'under' ? 'rolls under' : 'rolls to level',
          t.rolls === 'under' ? 'warn' : 'soft',
          'middle',
        ),
      ],
    };
  };
  const skid = bars(turn.skid, 560, 'foot into the turn');
  const slip = bars(turn.slip, 720, 'foot out of it');
  return {
    shapes: [
      box(0, 0, 530, groundY, 'sky'),
      box(0, groundY, 530, H - groundY, 'field'),
      line(path(clean), 'soft', { width: 3, dashed: true }),
      line(path(slipped), 'this', { width: 4 }),
      ...[100, 200, 300, 400].map((ft) =>
        line(
          [
            [22, groundY - ft * k],
            [30, groundY - ft * k],
          ],
          'ink',
          { width: 1.5 },
        ),
      ),
      area(
        [
          [30, topY],
          [18, topY - 9],
          [18, topY + 9],
        ],
        'ink',
      ),
      circle(X(far(slipped)), groundY, 5, 'this'),
      circle(X(far(clean)), groundY, 5, 'soft'),
      ...skid.shapes,
      ...slip.shapes,
    ],
    texts: [
      label(40, 30, `from ${FROM_FT} ft, no wind`, 'soft'),
      label(X(far(slipped)), groundY + 24, `${fixed(Math.round(far(slipped) / 10) * 10)} m`, 'this', 'middle'),
      label(X(far(clean)), groundY + 46, `${fixed(Math.round(far(clean) / 10) * 10)} m without`, 'soft', 'end'),
      label(550, 30, `each wing stalls at, ${s.dial.unit}`, 'soft'),
      ...skid.texts,
      ...slip.texts,
    ],
  };
}

export const slipModel: LabModel = {
  page: 'slip',
  applies: () => true,
  missing: (s) => lacking(s, SLIP_NEEDS),
  start: (s) => ({
    speed: Math.round((s.approach[2] ?? s.approach[s.approach.length - 1])?.speed.value ?? 60),
    share: 100,
    flap: '0',
    bank: 20,
  }),
  parameters: (s): Parameter[] => [
    {
      key: 'speed',
      label: 'Speed, indicated',
      kind: 'range',
      min: Math.floor((1.1 * stallKt(s, landingFlap(s))) / ktPerUnit(s.dial.unit)),
      max: Math.ceil((2.2 * stallKt(s, 0)) / ktPerUnit(s.dial.unit)),
      step: 1,
      unit: s.dial.unit,
    },
    { key: 'share', label: 'Slip, of the greatest', kind: 'range', min: 0, max: 100, step: 10, unit: '%' },
    ...(s.flapSteps.length > 1
      ? ([
          {
            key: 'flap',
            label: 'Flap',
            kind: 'choice',
            options: s.flapSteps.map((f) => [String(f), `${f}\u00b0`] as const),
          },
        ] as const)
      : []),
    { key: 'bank', label: 'Bank in the final turn', kind: 'range', min: 10, max: 45, step: 5, unit: '\u00b0' },
  ],
  compute: (s, set, day) => {
    const { body, tasKt, casKt, flapDeg } = bodyOf(s, set, day);
    const share = numberOf(set, 'share') / 100;
    const most = num(s.dynamics.sideslipMaxDeg);
    const slipped = slipSink(body, tasKt, share * most);
    const clean = slipSink(body, tasKt, 0);
    const bankDeg = numberOf(set, 'bank');
    const turned = slipTurn(body, tasKt, { bankDeg, turnDeg: 90, sideslipDeg: share * most });
    const wings = {
      casKt,
      bankDeg,
      stallCasKt: stallKt(s, flapDeg),
      spanM: s.wing.spanM.value,
      sideslipMaxDeg: most,
      aileronInSlip: num(s.dynamics.aileronInSlip),
    };
    const skid = finalTurn({ ...wings, skid: Math.max(0.3, share) });
    const slip = finalTurn({ ...wings, skid: -Math.max(0.3, share) });
    const speed = { value: numberOf(set, 'speed'), unit: s.dial.unit };
    const { shapes, texts } = drawn(s, slipped.glidePathDeg, clean.glidePathDeg, { skid, slip });
    const why: LabSentence[] = [
      ...(skid
        ? [
            said('slip-skid', {
              innerKt: skid.inner.stallsAtCasKt,
              outerKt: skid.outer.stallsAtCasKt,
              under: skid.rolls === 'under',
              awayDeg: skid.rollAwayDeg,
            }),
          ]
        : []),
      ...s.dynamics.slipNotes.slice(0, 1).map((n) => said('slip-note', { text: n.text })),
      ...(turned.heightLostFt === null || turned.timeS === null
        ? []
        : [said('slip-turn', { lostFt: turned.heightLostFt, seconds: turned.timeS })]),
      said('slip-leave', { floatM: floatM(body, tasKt, FLOAT_SPEED_KT), speed: dialSpeed(s, FLOAT_SPEED_KT) }),
      said('slip-low'),
    ];
    return {
      page: 'slip',
      answer: said('slip-loses', {
        speed,
        share,
        sinkFpm: slipped.sinkFpm ?? 0,
        extraFpm: slipped.extraSinkFpm ?? 0,
        perS: slipped.heightLostPerSFt ?? 0,
      }),
      tone: 'plain',
      why: why.slice(0, 3),
      figure: { w: W, h: H, shapes, texts },
      frames: [],
      facts: [
        ...factsOf(s, SLIP_NEEDS),
        ...s.dynamics.slipNotes.map((n, i) => ({
          name: `of slips, ${i + 1}`,
          value: n.text.slice(0, 76),
          source: { source: n.source, ref: n.ref },
        })),
      ],
      table: {
        name: 'Slip and sink',
        head: ['slip', 'sink, ft/min', 'ft a second', 'path', 'quarter turn, ft'],
        rows: [0, 25, 50, 75, 100].map((p) => {
          const at = slipSink(body, tasKt, (p / 100) * most);
          const t = slipTurn(body, tasKt, { bankDeg, turnDeg: 90, sideslipDeg: (p / 100) * most });
          return [
            `${p} %`,
            fixed(Math.round((at.sinkFpm ?? 0) / 10) * 10),
            fixed(at.heightLostPerSFt ?? 0, 1),
            at.glidePathDeg === null ? '\u2013' : `${fixed(at.glidePathDeg, 1)}\u00b0`,
            t.heightLostFt === null ? '\u2013' : fixed(Math.ceil(t.heightLostFt / 10) * 10),
          ];
        }),
      },
      assumed: [said('slip-assumed'), said('slip-assumed-turn'), said('slip-low')],
    };
  },
};
