/** The take-off roll: power that comes on, the tail that comes up, and the foot that leads or follows. */
import { coder } from '@/domain/coded';
import { MS_PER_KT, W_PER_HP } from '../constants';
import { fixed, upTo } from '../format';
import { type RunInput, type RunOutcome, footNeeded, groundRun } from '../ground';
import { TAKEOFF_NEEDS, fieldName, sheetCas } from '../sheet';
import { casKtToDial, ktPerUnit } from '../speeds';
import { type Point, box, label, line } from './figure';
import {
  type LabDay,
  type LabMissing,
  type LabModel,
  type LabSentence,
  type LabSheetData,
  type Parameter,
  type Settings,
  numberOf,
  wordOf,
} from './model';
import { RUNWAY, RUN_TONES, SURFACES, SURFACE_CHOICES, pathOf, runFrames, runView, runwayFigure } from './runway-view';
import { dialSpeed, factsOf, lacking, lackingAttitude, landingDrag, num, runBody, stallKt, tailwheel } from './sheet';
import { LAB_WORDS } from './lab-words';

const said = coder(LAB_WORDS);
const FOR_S = 30;
const STEP_S = 0.005;
const START_MS = 2;
const LIFT_SHARE = { down: 0.9, up: 0.3 };
/** Flies at this much of the stall where the sheet has no rotation speed. */
const FLIES = 1.15;
const HELD_DEG = 10;
const { h: H } = RUNWAY;
const TURNS = { clockwise: 1, anticlockwise: -1, 'opposite ways': 0, 'not said': 0 } as const;

/** True airspeed at which it flies, m/s, and the same as the dial has it. */
function flyingAt(s: LabSheetData, rhoKgM3: number): { ms: number; dial: number } {
  const casKt = s.speeds.vr ? sheetCas(s, s.speeds.vr.value) : FLIES * stallKt(s, 0);
  return { ms: casKt * MS_PER_KT * Math.sqrt(1.225 / rhoKgM3), dial: Math.round(casKtToDial(casKt, s.dial)) };
}

function inputOf(s: LabSheetData, set: Settings, day: LabDay): RunInput {
  const d = s.dynamics;
  const surface = SURFACES[wordOf(set, 'surface')] ?? { left: 0.7, right: 0.7, rolling: 0.03 };
  const tail = tailwheel(s);
  return {
    body: {
      ...runBody(s, day.rhoKgM3),
      stallSpeedMs: stallKt(s, 0) * MS_PER_KT * Math.sqrt(1.225 / day.rhoKgM3),
      dragAreaM2: landingDrag(s, 0).cd0 * s.wing.areaM2.value,
      ...(wordOf(set, 'steering') === 'free' ? { steerDeg: 0 } : {}),
    },
    groundSpeedMs: START_MS,
    crosswindMs: numberOf(set, 'xw') * MS_PER_KT,
    headwindMs: 0,
    swerveDeg: 0,
    grip: { left: surface.left, right: surface.right },
    rollingFriction: surface.rolling,
    thirdDown: true,
    liftShare: tail ? LIFT_SHARE.down : LIFT_SHARE.up,
    brake: 0,
    gust: { fromS: 0, toS: 0, ms: 0 },
    pilot: {
      feet: wordOf(set, 'foot') === 'none' ? 'none' : 'strokes',
      firstFootS: 0,
      delayS: numberOf(set, 'delay'),
      brakesForDirection: false,
    },
    forS: FOR_S,
    stepS: STEP_S,
    halfWidthM: day.runwayWidthM / 2,
    power: {
      propeller: {
        powerW: s.engine.powerHp.value * W_PER_HP,
        turns: TURNS[d.propellerTurns],
        count: s.engine.count,
        diameterM: num(s.geometry.propDiameterM),
        speedRadS: (num(d.propellerRpm) * 2 * Math.PI) / 60,
        inertiaKgM2: num(d.propellerInertiaKgM2),
      },
      overS: numberOf(set, 'over'),
      finInWash: num(d.finInWash),
      attitudeDeg: num(s.geometry.groundPitchDeg),
      raise:
        tail && wordOf(set, 'tail') === 'raised'
          ? { atMs: numberOf(set, 'raise') * ktPerUnit(s.dial.unit) * MS_PER_KT, overS: numberOf(set, 'in') }
          : null,
      liftShareUp: LIFT_SHARE.up,
      footLeads: wordOf(set, 'foot') === 'leads',
      untilMs: flyingAt(s, day.rhoKgM3).ms,
    },
  };
}

function answerOf(
  s: LabSheetData,
  run: RunOutcome,
  i: RunInput,
  day: LabDay,
): { answer: LabSentence; tone: 'within' | 'edge' | 'outside' } {
  const last = run.states[run.states.length - 1];
  const speedAt = (tS: number) => {
    const x = run.states.find((state) => state.tS >= tS - 1e-9) ?? last;
    return { speed: dialSpeed(s, (x?.speedMs ?? 0) / MS_PER_KT), tail: (x?.tailUp ?? 0) > 0 };
  };
  if (run.offAtS !== null && run.offAtS <= (run.loop?.atS ?? Infinity))
    return { answer: said('take-edge', { speed: speedAt(run.offAtS).speed, atS: run.offAtS }), tone: 'outside' };
  if (run.loop)
    return {
      answer: said('take-lost', { ...speedAt(run.loop.atS), atS: run.loop.atS, why: run.loop.why }),
      tone: 'outside',
    };
  const flies = { value: flyingAt(s, day.rhoKgM3).dial, unit: s.dial.unit };
  if (!last || last.tS >= i.forS - 1e-6) return { answer: said('take-slow', { flies, forS: i.forS }), tone: 'edge' };
  return {
    answer: said('take-straight', {
      flies,
      afterS: last.tS,
      mostM: run.farthestM,
      greatestDeg: run.greatestHeadingDeg,
    }),
    tone: run.greatestHeadingDeg > HELD_DEG || run.farthestM > i.halfWidthM / 2 ? 'edge' : 'within',
  };
}

function whyOf(s: LabSheetData, i: RunInput): LabSentence[] {
  const { power } = i;
  if (!power) return [];
  const { raise } = power;
  const early = raise?.atMs ?? power.untilMs / 3;
  const calm = footNeeded({ ...i, crosswindMs: 0 }, early, 1, 0);
  const windy = i.crosswindMs === 0 ? null : footNeeded(i, early, 1, 0);
  const speed = dialSpeed(s, early / MS_PER_KT);
  const why: LabSentence[] = [
    power.propeller.turns === 0
      ? said('take-opposite')
      : said('take-foot', { speed, share: Math.abs(calm), foot: calm > 0 ? 'right' : 'left', windShare: windy }),
  ];
  if (raise && power.propeller.turns !== 0) {
    const rate = power.attitudeDeg / Math.max(0.1, raise.overS);
    const still = footNeeded(i, raise.atMs, 1, 0.5);
    const share = Math.abs(footNeeded(i, raise.atMs, 1, 0.5, rate) - still);
    why.push(said('take-gyro', { overS: raise.overS, swings: power.propeller.turns > 0 ? 'left' : 'right', share }));
  }
  if (raise)
    why.push(
      said('take-raised', {
        speed,
        share: Math.abs(footNeeded(i, raise.atMs, 1, 1)),
        before: i.body.steerDeg > 0 ? Math.abs(footNeeded(i, raise.atMs, 1, 0)) : null,
        wind: i.crosswindMs !== 0,
      }),
    );
  if (power.overS < 1 && power.propeller.turns !== 0) {
    const standing = footNeeded({ ...i, crosswindMs: 0 }, START_MS, 1, 0);
    why.unshift(said('take-at-once', { share: Math.abs(standing), foot: standing > 0 ? 'right' : 'left' }));
  }
  return why.slice(0, 3);
}

const missingOf = (s: LabSheetData): LabMissing => [
  ...lacking(s, TAKEOFF_NEEDS),
  ...(s.dynamics.propellerTurns === 'not said'
    ? [{ key: 'propellerTurns', name: fieldName('propellerTurns'), how: 'from the seat, turned slowly by the starter' }]
    : []),
  ...(s.geometry.propDiameterM
    ? []
    : [{ key: 'propDiameterM', name: fieldName('propDiameterM'), how: 'tape, tip to tip, ignition off and key out' }]),
  ...lackingAttitude(s),
];

export const takeOffModel: LabModel = {
  page: 'take-off',
  applies: (s) => s.surface !== 'sea',
  missing: missingOf,
  start: (s, day) => ({
    xw: Math.round(day.crosswindKt),
    over: 3,
    foot: 'leads',
    delay: 0.2,
    tail: 'raised',
    raise: Math.round((0.6 * stallKt(s, 0)) / ktPerUnit(s.dial.unit)),
    in: 1.5,
    steering: 'steered',
    surface: 'dry',
  }),
  parameters: (s): Parameter[] => [
    { key: 'xw', label: 'Crosswind', kind: 'range', min: -25, max: 25, step: 1, unit: 'kt', signed: true },
    { key: 'over', label: 'Power, idle to full in', kind: 'range', min: 0, max: 6, step: 0.5, unit: 's' },
    {
      key: 'foot',
      label: 'Foot',
      kind: 'choice',
      options: [
        ['leads', 'with the power'],
        ['follows', 'after the nose'],
        ['none', 'none'],
      ],
    },
    { key: 'delay', label: 'Foot behind the eye', kind: 'range', min: 0.1, max: 1, step: 0.1, unit: 's' },
    ...(tailwheel(s)
      ? ([
          {
            key: 'tail',
            label: 'Tail',
            kind: 'choice',
            options: [
              ['raised', 'raised'],
              ['stays', 'stays down'],
            ],
          },
          {
            key: 'raise',
            label: 'Tail raised at',
            kind: 'range',
            min: 5,
            max: Math.round((1.1 * stallKt(s, 0)) / ktPerUnit(s.dial.unit)),
            step: 1,
            unit: s.dial.unit,
          },
          { key: 'in', label: 'Tail up in', kind: 'range', min: 0.5, max: 3, step: 0.5, unit: 's' },
        ] as const)
      : []),
    ...(s.gear.steerDeg
      ? ([
          {
            key: 'steering',
            label: tailwheel(s) ? 'Tailwheel' : 'Nosewheel',
            kind: 'choice',
            options: [
              ['steered', 'steers'],
              ['free', 'casters free'],
            ],
          },
        ] as const)
      : []),
    { key: 'surface', label: 'Surface', kind: 'choice', options: SURFACE_CHOICES },
  ],
  compute: (s, set, day) => {
    const i = inputOf(s, set, day);
    const run = groundRun(i);
    const { answer, tone } = answerOf(s, run, i, day);
    const v = runView(run, null, i.halfWidthM);
    const flies = flyingAt(s, day.rhoKgM3);
    const raised = run.states.find((x) => x.tailUp > 0);
    const figure = runwayFigure(v, i.halfWidthM, numberOf(set, 'xw'), {
      shapes: [
        line(pathOf(run, v), RUN_TONES[tone], { width: 4 }),
        ...(raised
          ? [
              line(
                [
                  [v.x(raised.xM), v.y(raised.yM) - 22],
                  [v.x(raised.xM), v.y(raised.yM) + 22],
                ] as Point[],
                'ink',
                { width: 2 },
              ),
            ]
          : []),
      ],
      texts: raised ? [label(v.x(raised.xM) + 6, v.y(raised.yM) + 36, 'tail up', 'soft')] : [],
    });
    const bar = (x: number, share: number) => [
      box(x, H - 34, 80, 12, 'card'),
      box(x, H - 34, Math.max(0, Math.min(80, 80 * share)), 12, 'this'),
    ];
    const windKt = Math.max(1, Math.abs(numberOf(set, 'xw')) || 8);
    const rows = [0.3, 0.5, 0.7, 0.9, 1].map((part) => part * flies.ms);
    const foot = (ms: number, windMs: number): string => {
      const up = i.power?.raise && ms >= i.power.raise.atMs ? 1 : 0;
      const x = footNeeded({ ...i, crosswindMs: windMs }, ms, 1, up);
      if (Math.abs(x) > 1) return `not enough ${x > 0 ? 'right' : 'left'}`;
      return Math.abs(x) < 0.005 ? 'none' : `${upTo(Math.abs(x) * 100)} % ${x > 0 ? 'right' : 'left'}`;
    };
    return {
      page: 'take-off',
      answer,
      tone,
      why: whyOf(s, i),
      figure,
      frames: runFrames(s, run, v, RUN_TONES[tone], (x) => ({
        shapes: [...bar(40, x.power), ...bar(150, x.speedMs / flies.ms)],
        texts: [
          label(80, H - 42, `power ${fixed(x.power * 100)} %`, 'soft', 'middle'),
          label(
            190,
            H - 42,
            `${fixed(x.speedMs / MS_PER_KT / ktPerUnit(s.dial.unit))} ${s.dial.unit}`,
            'soft',
            'middle',
          ),
        ],
      })),
      facts: [
        ...factsOf(s, TAKEOFF_NEEDS),
        {
          name: 'propeller, from the cockpit',
          value: s.dynamics.propellerTurns,
          source: null,
        },
        {
          name: fieldName('propDiameterM'),
          value: `${fixed(num(s.geometry.propDiameterM), 2)} m`,
          source: s.geometry.propDiameterM,
        },
        { name: fieldName('powerHp'), value: `${fixed(s.engine.powerHp.value)} hp`, source: s.engine.powerHp },
      ],
      table: {
        name: 'Foot that full power and wind ask for',
        head: [
          `speed, ${s.dial.unit}`,
          `${fixed(windKt)} kt from the left`,
          'no wind',
          `${fixed(windKt)} kt from the right`,
        ],
        rows: rows.map((ms) => [
          fixed(ms / MS_PER_KT / ktPerUnit(s.dial.unit)),
          foot(ms, -windKt * MS_PER_KT),
          foot(ms, 0),
          foot(ms, windKt * MS_PER_KT),
        ]),
      },
      assumed: [
        said('take-assumed-roll'),
        said('take-assumed-wash'),
        said('take-assumed-feet'),
        ...(s.engine.count > 1 || i.body.steerDeg === 0 ? [said('take-assumed-differential')] : []),
      ],
    };
  },
};
