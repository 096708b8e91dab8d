/** The touch: sink to load, the skip and the bounce, and what the hands do about it. */
import { coder } from '@/domain/coded';
import { G_MS2, MS_PER_KT, W_PER_HP } from '../constants';
import { fixed, upTo } from '../format';
import { torqueRoll } from '../ground';
import { TORQUE_NEEDS, TOUCH_NEEDS } from '../sheet';
import {
  FIRMNESS_FPM,
  type BounceInput,
  type BounceOutcome,
  PITCH_HANDS,
  type PitchHands,
  bounce,
  firmnessOf,
  sideSpeed,
  touchLoad,
} from '../touchdown';
import { type FigureShape, type Point, area, box, circle, label, line } from './figure';
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
import { factsOf, lacking, lackingAttitude, landingDrag, landingFlap, num, stallKt, tailwheel } from './sheet';
import { LAB_WORDS } from './lab-words';

const said = coder(LAB_WORDS);
const RUN_S = 5;
const STEP_S = 0.002;
const TRICKLE = 0.05;
/** Thrust over weight of full power at the speed of a landing, at most; from power and propeller where the sheet has no thrust. */
const MOST_THRUST = 0.5;
/** Looked at so long after the power is called for; fed in, it comes over this. */
const TORQUE_AFTER_S = 1.5;
const POWER_FED_S = 3;
/** Attitudes a landing is flown in here, by the side that has three wheels down. */
const WHEEL_OFF_GROUND_DEG = { tail: 4, nose: 5 };
const FIRMNESS_WORDS = {
  'very-soft': 'very soft',
  normal: 'normal',
  firm: 'firm',
  hard: 'hard: log it',
  inspect: 'beyond hard: have it inspected',
} as const;
type Limits = readonly [number, number, number, number];

const stallMs = (s: LabSheetData, day: LabDay): number =>
  stallKt(s, landingFlap(s)) * MS_PER_KT * Math.sqrt(1.225 / day.rhoKgM3);
const limitsOf = (s: LabSheetData): Limits => {
  const f = s.dynamics.firmnessFpm;
  return f ? [f.verySoft, f.normal, f.firm, f.hard] : FIRMNESS_FPM;
};
/** The longitudinal axis at the touch, by the attitude chosen. */
function pitchOf(s: LabSheetData, attitude: string): number {
  const ground = num(s.geometry.groundPitchDeg);
  if (tailwheel(s)) return attitude === 'three' ? ground : WHEEL_OFF_GROUND_DEG.tail;
  return attitude === 'flat' ? ground : ground + WHEEL_OFF_GROUND_DEG.nose;
}

function inputOf(s: LabSheetData, set: Settings, day: LabDay): BounceInput {
  const d = s.dynamics;
  const mains = num(d.mainsAheadM);
  const base = s.gear.wheelbaseM.value;
  const vs = stallMs(s, day);
  const speedMs = numberOf(set, 'ratio') * vs;
  const full = Math.min(
    MOST_THRUST,
    Math.min(
      ((s.engine.propEfficiency?.value ?? 0.75) * s.engine.powerHp.value * s.engine.count * W_PER_HP) / speedMs,
      s.engine.staticThrustN === null ? Infinity : s.engine.staticThrustN.value * s.engine.count,
    ) /
      (s.masses.refMassKg * G_MS2),
  );
  const power = wordOf(set, 'power');
  return {
    body: {
      massKg: s.masses.refMassKg,
      pitchInertiaKgM2: num(d.pitchInertiaKgM2),
      mainsXM: mains,
      thirdXM: mains > 0 ? mains - base : mains + base,
      groundPitchDeg: num(s.geometry.groundPitchDeg),
      cgHeightM: num(d.cgHeightM),
      strokeM: num(d.gearStrokeM),
      efficiency: num(d.gearEfficiency),
      restitution: num(d.gearRestitution),
      wingAreaM2: s.wing.areaM2.value,
      spanM: s.wing.spanM.value,
      stallSpeedMs: vs,
      dragAreaM2: landingDrag(s, landingFlap(s)).cd0 * s.wing.areaM2.value,
      airDensityKgM3: day.rhoKgM3,
    },
    pitchDeg: pitchOf(s, wordOf(set, 'attitude')),
    speedMs,
    sinkFpm: numberOf(set, 'sink'),
    hands: PITCH_HANDS.find((h) => h === wordOf(set, 'hands')) ?? 'hold',
    delayS: numberOf(set, 'delay'),
    power: {
      fromS: power === 'bounce' ? 0.5 : 0,
      thrustToWeight: power === 'bounce' ? full : power === 'trickle' ? TRICKLE : 0,
    },
    forS: RUN_S,
    stepS: STEP_S,
  };
}

function answerOf(o: BounceOutcome, limits: Limits): { answer: LabSentence; tone: 'within' | 'edge' | 'outside' } {
  const worst = Math.max(1, ...o.contacts.map((c) => c.loadG));
  const sink = Math.max(0, ...o.contacts.map((c) => c.sinkFpm));
  const first = o.contacts[0]?.loadG ?? 1;
  if (o.ends === 'flies')
    return {
      answer: said('touch-flies', { highestFt: o.highestFt, ratio: o.slowestAboveStall ?? 1 }),
      tone: 'outside',
    };
  if (o.ends === 'grows' && worst > 1.05 * first)
    return { answer: said('touch-porpoise', { first, worst }), tone: 'outside' };
  const { word } = firmnessOf(sink, limits as [number, number, number, number]);
  const hard = word === 'hard' || word === 'inspect';
  const hops = o.contacts.filter((c) => c.hopFt > 0.1).length;
  if (hops > 0)
    return {
      answer: said('touch-skips', { hops, highestFt: o.highestFt, loadG: worst }),
      tone: hard || hops > 1 ? 'outside' : 'edge',
    };
  return {
    answer: said('touch-stays', { loadG: worst, word: word === null ? 'not known' : FIRMNESS_WORDS[word] }),
    tone: hard ? 'outside' : word === 'firm' ? 'edge' : 'within',
  };
}

const HANDS_SAY: Partial<
  Record<PitchHands, 'touch-push' | 'touch-pull' | 'touch-early' | 'touch-right' | 'touch-late'>
> = {
  push: 'touch-push',
  pull: 'touch-pull',
  'ease-early': 'touch-early',
  'ease-right': 'touch-right',
  'ease-late': 'touch-late',
};
/** Full power from the bounce, slow and without aileron: what the engine rolls. */
function torqueWords(s: LabSheetData, i: BounceInput): LabSentence | null {
  const { propellerTurns } = s.dynamics;
  if (i.power.fromS === 0) return null;
  if (propellerTurns === 'opposite ways') return said('touch-torque-none');
  if (propellerTurns === 'not said' || lacking(s, TORQUE_NEEDS).length > 0) return said('touch-torque-unknown');
  const torqueNm = (s.engine.count * s.engine.powerHp.value * W_PER_HP * 30) / (Math.PI * num(s.dynamics.propellerRpm));
  const rolls = (overS: number): number =>
    torqueRoll(
      {
        rollInertiaKgM2: num(s.dynamics.rollInertiaKgM2),
        wingAreaM2: i.body.wingAreaM2,
        spanM: i.body.spanM,
        airDensityKgM3: i.body.airDensityKgM3,
        airspeedMs: i.speedMs,
      },
      torqueNm,
      overS,
      TORQUE_AFTER_S,
    ).bankDeg;
  return said('touch-torque', {
    side: propellerTurns === 'clockwise' ? 'left' : 'right',
    atOnceDeg: rolls(0),
    fedDeg: rolls(POWER_FED_S),
    afterS: TORQUE_AFTER_S,
    fedS: POWER_FED_S,
  });
}

function whyOf(s: LabSheetData, i: BounceInput, crabDeg: number): LabSentence[] {
  const loadG = touchLoad(i.sinkFpm, i.body.strokeM, i.body.efficiency);
  const hands = HANDS_SAY[i.hands];
  const ratio = i.speedMs / i.body.stallSpeedMs;
  const torque = torqueWords(s, i);
  return [
    ...(torque ? [torque] : []),
    ...(loadG === null ? [] : [said('touch-load', { sinkFpm: i.sinkFpm, loadG, strokeM: i.body.strokeM })]),
    ...(Math.abs(crabDeg) >= 0.5
      ? [
          said('touch-side', {
            crabDeg: Math.abs(crabDeg),
            sideKt: Math.abs(sideSpeed(i.speedMs / MS_PER_KT, crabDeg).kt),
          }),
        ]
      : []),
    ...(hands ? [said(hands)] : []),
    ...(ratio > 1.15 ? [said('touch-fast', { ratio })] : []),
    tailwheel(s) ? said('touch-tail') : said('touch-nose'),
    said('touch-gear', { restitution: i.body.restitution }),
  ].slice(0, 3);
}

const W = 860;
const H = 400;
const GROUND_Y = H - 60;
/** The aeroplane from the side, to scale, at its height and attitude. */
function sideView(
  s: LabSheetData,
  i: BounceInput,
  at: { heightM: number; mainsM: number; pitchDeg: number },
  k: number,
  x0: number,
): FigureShape[] {
  const b = i.body;
  const th = (at.pitchDeg * Math.PI) / 180;
  // The centre of gravity stands over the mains' contact.
  const z = at.mainsM - b.mainsXM * Math.sin(th) + b.cgHeightM * Math.cos(th);
  const place = (ahead: number, up: number): Point => [
    x0 + (ahead * Math.cos(th) - up * Math.sin(th)) * k,
    GROUND_Y - (z + ahead * Math.sin(th) + up * Math.cos(th)) * k,
  ];
  const length = s.geometry.lengthM?.value ?? 7;
  const nose = b.mainsXM + (s.geometry.noseToMainM?.value ?? length * 0.25);
  const tail = nose - length;
  const r = (s.geometry.tyreDiameterM?.value ?? 0.4) / 2;
  const high = s.geometry.wing === 'high' ? 0.75 : s.geometry.wing === 'low' ? -0.3 : 0.35;
  const chord = s.wing.areaM2.value / s.wing.spanM.value;
  const drop = -b.cgHeightM + (b.mainsXM - b.thirdXM) * Math.tan((b.groundPitchDeg * Math.PI) / 180);
  const wheel = (x: number, low: number, radius: number): FigureShape => {
    const [cx, cy] = place(x, low + radius);
    return circle(cx, cy, radius * k, 'ink');
  };
  return [
    line([place(b.mainsXM, -0.2), place(b.mainsXM, -b.cgHeightM + r)], 'ink', { width: 4 }),
    area(
      [
        place(nose, 0.1),
        place(nose - 0.5, 0.45),
        place(0.2, 0.75),
        place(-0.8, 0.7),
        place(tail, 0.35),
        place(tail, 0.1),
        place(0, -0.5),
        place(nose - 0.4, -0.4),
      ],
      'this',
    ),
    area([place(tail + 1.1, 0.4), place(tail + 0.4, 1.5), place(tail, 1.5), place(tail, 0.3)], 'this'),
    line([place(chord * 0.3, high), place(-chord * 0.7, high - 0.05)], 'ink', { width: 8 }),
    wheel(b.mainsXM, -b.cgHeightM, r),
    wheel(b.thirdXM, drop, b.mainsXM > 0 ? r * 0.45 : r * 0.9),
  ];
}

export const touchModel: LabModel = {
  page: 'touch',
  applies: (s) => s.surface !== 'sea',
  missing: (s) => [...lacking(s, [...TOUCH_NEEDS, 'cgHeightM']), ...lackingAttitude(s)],
  start: (s) => ({
    attitude: tailwheel(s) ? (s.landing.usualAttitude === 'three-point' ? 'three' : 'wheel') : 'held',
    ratio: tailwheel(s) && s.landing.usualAttitude === 'three-point' ? 1 : 1.1,
    sink: 120,
    hands: 'hold',
    delay: 0.3,
    crab: 0,
    power: 'idle',
  }),
  parameters: (s): Parameter[] => [
    {
      key: 'attitude',
      label: 'Attitude at the touch',
      kind: 'choice',
      options: tailwheel(s)
        ? [
            ['three', 'three-point'],
            ['wheel', 'wheel'],
          ]
        : [
            ['held', 'nose held off'],
            ['flat', 'flat, three wheels'],
          ],
    },
    { key: 'ratio', label: 'Speed over the stall', kind: 'range', min: 0.95, max: 1.5, step: 0.05, unit: '\u00d7 Vs' },
    { key: 'sink', label: 'Sink at the touch', kind: 'range', min: 0, max: 700, step: 10, unit: 'ft/min' },
    {
      key: 'hands',
      label: 'Hands',
      kind: 'choice',
      options: [
        ['hold', 'hold'],
        ['pull', 'pull'],
        ['push', 'push in the bounce'],
        ['ease-early', 'forward early'],
        ['ease-right', 'forward as felt'],
        ['ease-late', 'forward late'],
      ],
    },
    { key: 'delay', label: 'Hand behind the feel', kind: 'range', min: 0.1, max: 0.8, step: 0.1, unit: 's' },
    { key: 'crab', label: 'Crab left at the touch', kind: 'range', min: 0, max: 15, step: 1, unit: '\u00b0' },
    {
      key: 'power',
      label: 'Power',
      kind: 'choice',
      options: [
        ['idle', 'idle'],
        ['trickle', 'a trickle'],
        ['bounce', 'full, from the bounce'],
      ],
    },
  ],
  compute: (s, set, day) => {
    const i = inputOf(s, set, day);
    const o = bounce(i);
    const limits = limitsOf(s);
    const { answer, tone } = answerOf(o, limits);
    const crab = numberOf(set, 'crab');
    // The aeroplane with room over it, and the highest hop.
    const tallest = Math.max(3.6, ...o.states.map((x) => x.heightM + 2.2));
    const k = Math.min(48, 360 / (s.geometry.lengthM?.value ?? 7), (GROUND_Y - 30) / tallest);
    // Height against time behind the aeroplane: the path of the mains.
    const X = (t: number) => 420 + (t / RUN_S) * (W - 440);
    const path = (pick: (x: (typeof o.states)[number]) => number): Point[] =>
      o.states.filter((_, n) => n % 2 === 0).map((x): Point => [X(x.tS), GROUND_Y - Math.max(-0.2, pick(x)) * k]);
    const frames = o.states
      .filter((_, n) => n % 3 === 0)
      .map((x) => ({
        tS: x.tS,
        shapes: [
          ...sideView(s, i, x, k, 280),
          circle(X(x.tS), GROUND_Y - Math.max(-0.2, x.mainsM) * k, 6, tone === 'outside' ? 'warn' : 'this'),
          box(150, H - 26, 120, 12, 'card'),
          box(150, H - 26, Math.min(120, 60 * x.liftShare), 12, 'other'),
        ],
        texts: [
          label(
            14,
            24,
            `nose ${fixed(x.pitchDeg)}\u00b0, ${fixed(x.speedMs / i.body.stallSpeedMs, 2)} \u00d7 Vs`,
            'ink',
          ),
          label(142, H - 15, `lift ${fixed(x.liftShare * 100)} %`, 'soft', 'end'),
        ],
      }));
    return {
      page: 'touch',
      answer,
      tone,
      why: whyOf(s, i, crab),
      figure: {
        w: W,
        h: H,
        shapes: [
          box(0, 0, W, GROUND_Y, 'sky'),
          box(0, GROUND_Y, W, H - GROUND_Y, 'runway'),
          line(
            path((x) => x.thirdM),
            'soft',
            { width: 1.5, dashed: true },
          ),
          line(
            path((x) => x.mainsM),
            tone === 'outside' ? 'warn' : 'this',
            { width: 3 },
          ),
          ...[1, 2, 3, 4, 5].map((t) =>
            line(
              [
                [X(t), GROUND_Y],
                [X(t), GROUND_Y + 8],
              ],
              'ink',
              { width: 1.5 },
            ),
          ),
        ],
        texts: [
          label(
            W - 14,
            24,
            `main wheels over time; dotted: ${tailwheel(s) ? 'tailwheel' : 'nosewheel'}`,
            'soft',
            'end',
          ),
          ...[1, 2, 3, 4].map((t) => label(X(t), GROUND_Y + 26, `${t} s`, 'soft', 'middle')),
          ...o.contacts
            .slice(0, 5)
            .map((c) => label(X(c.tS), GROUND_Y - 8, `${upTo(c.loadG, 1)} g`, c.loadG > 2 ? 'warn' : 'ink')),
        ],
      },
      frames,
      facts: [
        ...factsOf(s, [...TOUCH_NEEDS, 'cgHeightM', ...(i.power.fromS > 0 ? TORQUE_NEEDS : [])]),
        {
          name: 'firmness: very soft, normal, firm below; hard up to',
          value: `${limits.join(', ')} ft/min`,
          source: s.dynamics.firmnessFpm
            ? { source: s.dynamics.firmnessFpm.source, ref: s.dynamics.firmnessFpm.ref }
            : null,
        },
      ],
      table: {
        name: 'Every touch',
        head: ['time, s', 'wheels', 'sink, ft/min', 'load, g', 'hop after it, ft'],
        rows: o.contacts.map((c) => [
          fixed(c.tS, 1),
          c.wheels === 'all' ? 'all' : c.wheels === 'mains' ? 'main wheels' : tailwheel(s) ? 'tailwheel' : 'nosewheel',
          fixed(c.sinkFpm),
          upTo(c.loadG, 1),
          fixed(c.hopFt, 1),
        ]),
      },
      assumed: [
        tailwheel(s) ? said('touch-assumed-wing') : said('touch-assumed-wing-nose'),
        said('touch-assumed-gear'),
        said('touch-assumed-tail'),
        ...(i.power.fromS > 0 ? [said('touch-assumed-torque')] : []),
      ],
    };
  },
};
