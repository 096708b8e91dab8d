/** The slow approach: what trials at height support, sink and path by power, and the height to commit at. */
import { coder } from '@/domain/coded';
import { fixed } from '../format';
import { SLOW_NEEDS, sheetCas } from '../sheet';
import {
  ARRESTS,
  type SlowBody,
  type SlowFit,
  type SlowRefusal,
  type SlowTrial,
  nextTrial,
  slowSink,
  slowestApproach,
  spreadAt,
  stopHeight,
} from '../slowapproach';
import { casKtToDial, ktPerUnit } from '../speeds';
import { type FigureShape, type FigureText, type Point, circle, label, line, box } from './figure';
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
import { factsOf, lacking, landingDrag, landingFlap, num, stallKt } from './sheet';
import { LAB_WORDS } from './lab-words';

const said = coder(LAB_WORDS);
const LEAST_TRIALS = 5;
const MOST_TRIALS = 60;
const LETTERS = { f: 'fully', p: 'partly', n: 'not' } as const;
const letterOf = (a: SlowTrial['arrested']): string => (a === 'fully' ? 'f' : a === 'partly' ? 'p' : 'n');

/**
 * Trials as the address has them: speed off the dial, share of power in per cent, f, p or n; `46-30-f_44.5-0-n`. What is not
 * one is left out.
 * @example readTrials('46-30-f_x')[0] // { speedKt: 46, powerShare: 0.3, arrested: 'fully' }
 */
export const readTrials = (text: string): SlowTrial[] =>
  text
    .split('_')
    .slice(0, MOST_TRIALS)
    .flatMap((row) => {
      const [speed, power, arrested] = row.split('-');
      const [kt, share] = [Number(speed), Number(power)];
      const word = LETTERS[arrested as keyof typeof LETTERS];
      return word && Number.isFinite(kt) && kt > 0 && kt < 300 && Number.isFinite(share) && share >= 0 && share <= 100
        ? [{ speedKt: kt, powerShare: share / 100, arrested: word }]
        : [];
    });
/** The other way round. */
export const writeTrials = (trials: readonly SlowTrial[]): string =>
  trials
    .filter((t) => t.speedKt !== null && t.powerShare !== null && t.arrested !== null && ARRESTS.includes(t.arrested))
    .map((t) => `${t.speedKt}-${Math.round((t.powerShare ?? 0) * 100)}-${letterOf(t.arrested)}`)
    .join('_');

const WHY: Record<SlowRefusal, Exclude<Extract<keyof typeof LAB_WORDS, `slow-why-${string}`>, 'slow-why-few'> | null> =
  {
    'too-few-trials': null,
    'one-outcome': 'slow-why-one',
    'no-idle-trial': 'slow-why-idle',
    'speed-has-no-effect': 'slow-why-flat',
    'bound-never-reached': 'slow-why-bound',
    extrapolation: 'slow-why-range',
    'too-few-arrests-below': 'slow-why-below',
  };
const whyNot = (fit: SlowFit): LabSentence | null => {
  if (fit.reason === null) return null;
  const code = WHY[fit.reason];
  return code === null ? said('slow-why-few', { have: fit.trialsUsed, least: LEAST_TRIALS }) : said(code);
};

function askedOf(s: LabSheetData, set: Settings, day: LabDay) {
  const flapDeg = s.flapSteps.length > 1 ? Number(wordOf(set, 'flap')) || 0 : (s.flapSteps[0] ?? 0);
  const drag = landingDrag(s, flapDeg);
  const toTas = Math.sqrt(1.225 / day.rhoKgM3);
  const stallCasKt = stallKt(s, flapDeg);
  const body: SlowBody = {
    massKg: s.masses.refMassKg,
    wingAreaM2: s.wing.areaM2.value,
    cd0: drag.cd0,
    inducedK: drag.k,
    airDensityKgM3: day.rhoKgM3,
    stallTasKt: stallCasKt * toTas,
    powerHp: s.engine.powerHp.value * s.engine.count,
    propEfficiency: s.engine.propEfficiency?.value ?? null,
    staticThrustN: s.engine.staticThrustN === null ? null : s.engine.staticThrustN.value * s.engine.count,
    powerLiftK: num(s.dynamics.powerLift),
    elevatorLimitN: num(s.dynamics.elevatorLimitG),
  };
  const trials = readTrials(wordOf(set, 'trials')).map((t) => ({ ...t, speedKt: sheetCas(s, t.speedKt ?? 0) }));
  const last = s.approach[s.approach.length - 1];
  const handbook =
    last && last.flapDeg === flapDeg && last.speed.source === 'handbook' ? sheetCas(s, last.speed.value) : null;
  const powerShare = numberOf(set, 'power') / 100;
  const asked = {
    stallSpeedKt: stallCasKt,
    powerShare,
    handbookSpeedKt: handbook,
    gustAdditiveKt: numberOf(set, 'gust'),
  };
  return { body, toTas, stallCasKt, flapDeg, trials, asked, powerShare, handbook };
}

const CALM: LabDay = {
  ...{ rhoKgM3: 1.225, crosswindKt: 0, gustKt: null, runwayWidthM: 18, runwayIdent: '', circuitHeightFt: 1000 },
  ...{ windWords: null, limits: [], eyeHeightM: null },
};
/**
 * What trials support for a sheet, without a gust: the speed that may be entered on it as measured.
 * @param set flap, power in per cent of full, and the trials as the address has them
 * @returns the speed off the dial, rounded up, the flap and the trials used; null where they do not support one
 */
export function slowResult(
  s: LabSheetData,
  set: Settings,
): { value: number; flapDeg: number; power: number; trials: number } | null {
  const { asked, trials, flapDeg, powerShare } = askedOf(s, { ...set, gust: 0 }, CALM);
  const fit = slowestApproach(trials, asked);
  return fit.trialResultKt === null
    ? null
    : {
        value: Math.ceil(casKtToDial(fit.trialResultKt, s.dial) - 1e-9),
        flapDeg,
        power: powerShare,
        trials: fit.trialsUsed,
      };
}

const W = 860;
const H = 420;
/** Trials over speed and power, with the fitted chance at the power asked for. */
function drawn(
  s: LabSheetData,
  a: ReturnType<typeof askedOf>,
  fit: SlowFit,
): { shapes: FigureShape[]; texts: FigureText[] } {
  const [low, high] = [a.stallCasKt * 0.98, a.stallCasKt * 1.65];
  const X = (casKt: number) => 70 + ((Math.min(high, Math.max(low, casKt)) - low) / (high - low)) * (W - 100);
  const top = 40;
  const base = 230;
  const Y = (chance: number) => base - chance * (base - top);
  const inDial = (casKt: number) => casKtToDial(casKt, s.dial);
  const curve: Point[] = [];
  if (fit.coefficients)
    for (let kt = low; kt <= high; kt += (high - low) / 80) {
      const at = spreadAt(a.trials, a.asked, { speedKt: kt, powerShare: a.powerShare });
      if (at) curve.push([X(kt), Y(at.chance)]);
    }
  const rowY = (share: number) => 300 + Math.min(1, share) * 70;
  const speeds = Array.from({ length: 7 }, (_, i) => low + ((high - low) * (i + 0.5)) / 7);
  const mark = (
    kt: number | null,
    tone: 'ink' | 'other' | 'this',
    name: string,
    y: number,
  ): { shapes: FigureShape[]; texts: FigureText[] } =>
    kt === null
      ? { shapes: [], texts: [] }
      : {
          shapes: [
            line(
              [
                [X(kt), top - 8],
                [X(kt), base + 6],
              ],
              tone,
              { width: 2.5, dashed: tone !== 'this' },
            ),
          ],
          texts: [X(kt) > W - 160 ? label(X(kt) - 6, y, name, tone, 'end') : label(X(kt) + 6, y, name, tone)],
        };
  const floor = mark(fit.floorKt, 'ink', 'floor', top + 10);
  const bound = mark(fit.lowerBoundSpeedKt, 'other', 'sure from here', top + 34);
  const result = mark(fit.trialResultKt, 'this', 'trial result', top + 58);
  return {
    shapes: [
      box(70, top, W - 100, base - top, 'sky'),
      line(
        [
          [70, Y(0.99)],
          [W - 30, Y(0.99)],
        ],
        'soft',
        { width: 1.5, dashed: true },
      ),
      ...(curve.length > 1 ? [line(curve, 'this', { width: 4 })] : []),
      ...floor.shapes,
      ...bound.shapes,
      ...result.shapes,
      ...a.trials.map((t) =>
        t.arrested === 'fully'
          ? circle(X(t.speedKt), rowY(t.powerShare ?? 0), 7, 'this')
          : box(X(t.speedKt) - 7, rowY(t.powerShare ?? 0) - 3, 14, 6, t.arrested === 'partly' ? 'other' : 'warn'),
      ),
    ],
    texts: [
      label(14, 24, 'chance of a full arrest at this power', 'soft'),
      label(64, Y(0.99) + 5, '99 %', 'soft', 'end'),
      label(64, Y(0.5) + 5, '50 %', 'soft', 'end'),
      ...speeds.map((kt) => label(X(kt), base + 26, fixed(inDial(kt)), 'soft', 'middle')),
      label(W - 30, base + 46, s.dial.unit, 'soft', 'end'),
      label(64, rowY(0) + 5, 'idle', 'soft', 'end'),
      label(64, rowY(1) + 5, 'full', 'soft', 'end'),
      label(
        70,
        H - 14,
        a.trials.length === 0
          ? 'no trials yet: enter them under the picture'
          : 'discs: fully arrested; bars: partly or not',
        'soft',
      ),
      ...floor.texts,
      ...bound.texts,
      ...result.texts,
    ],
  };
}

export const slowModel: LabModel = {
  page: 'slow-approach',
  applies: () => true,
  missing: (s) => lacking(s, SLOW_NEEDS),
  start: (s) => ({
    flap: String(landingFlap(s)),
    speed: Math.round(s.approach[s.approach.length - 1]?.speed.value ?? 50),
    power: 20,
    gust: 0,
    trials: '',
  }),
  parameters: (s): Parameter[] => [
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
    {
      key: 'speed',
      label: 'Approach speed, indicated',
      kind: 'range',
      min: Math.ceil(casKtToDial(1.05 * stallKt(s, landingFlap(s)), s.dial)),
      max: Math.ceil(casKtToDial(1.8 * stallKt(s, landingFlap(s)), s.dial)),
      step: 1,
      unit: s.dial.unit,
    },
    { key: 'power', label: 'Power, of full', kind: 'range', min: 0, max: 60, step: 5, unit: '%' },
    { key: 'gust', label: 'Added for gusts', kind: 'range', min: 0, max: 15, step: 1, unit: 'kt' },
    { key: 'trials', label: 'Trials', kind: 'text' },
  ],
  compute: (s, set, day) => {
    const a = askedOf(s, set, day);
    const fit = slowestApproach(a.trials, a.asked);
    const next = fit.refused ? nextTrial(a.trials, a.asked) : null;
    const dial = (casKt: number, up = true) => {
      const v = casKtToDial(casKt, s.dial);
      return { value: up ? Math.ceil(v - 1e-9) : Math.round(v), unit: s.dial.unit };
    };
    const tasKt = sheetCas(s, numberOf(set, 'speed')) * a.toTas;
    const at = slowSink(a.body, tasKt, a.powerShare);
    const idle = slowSink(a.body, tasKt, 0);
    const stop = stopHeight(a.body, tasKt, a.powerShare);
    const { shapes, texts } = drawn(s, a, fit);
    const because = whyNot(fit);
    const why: LabSentence[] = [
      ...(because ? [because] : [said('slow-floor', { floor: dial(fit.floorKt), handbook: a.handbook !== null })]),
      at.sinkFpm <= 0 || at.pathDeg === null || at.nAvail === null || at.limitedBy === null
        ? said('slow-climbs')
        : said('slow-sink', {
            sinkFpm: at.sinkFpm,
            pathDeg: at.pathDeg,
            idleDeg: a.powerShare === 0 ? null : idle.pathDeg,
            nAvail: at.nAvail,
            by: at.limitedBy,
          }),
      stop.heightFt === null
        ? said('slow-stop-never')
        : stop.speedKt <= tasKt
          ? said('slow-stop-here', { heightFt: stop.heightFt })
          : said('slow-stop', { heightFt: stop.heightFt, speed: dial(stop.speedKt / a.toTas) }),
    ];
    return {
      page: 'slow-approach',
      answer:
        fit.trialResultKt !== null && fit.governedBy !== null
          ? said('slow-found', { speed: dial(fit.trialResultKt), trials: fit.trialsUsed, governed: fit.governedBy })
          : said('slow-not-yet', {
              left: next?.left ?? null,
              speed: dial(next?.speedKt ?? a.stallCasKt * 1.3, false),
              power: next?.powerShare ?? 0,
            }),
      tone: fit.refused ? 'edge' : 'within',
      why,
      figure: { w: W, h: H, shapes, texts },
      frames: [],
      facts: [
        ...factsOf(s, SLOW_NEEDS),
        {
          name: 'stall speed with this flap',
          value: `${fixed(a.stallCasKt / ktPerUnit(s.dial.unit), 1)} ${s.dial.unit} CAS`,
          source: s.stalls.find((x) => String(x.flapDeg) === wordOf(set, 'flap'))?.speed ?? null,
        },
      ],
      table: {
        name: 'Sink and path by power, at this speed',
        head: ['power', 'sink, ft/min', 'path', 'g to give', 'stop cannot be flared below, ft'],
        rows: [0, 10, 20, 30, 40].map((p) => {
          const x = slowSink(a.body, tasKt, p / 100);
          const h = stopHeight(a.body, tasKt, p / 100);
          return [
            p === 0 ? 'idle' : `${p} %`,
            fixed(Math.round(x.sinkFpm / 10) * 10),
            x.pathDeg === null ? '\u2013' : `${fixed(x.pathDeg, 1)}\u00b0`,
            x.nAvail === null ? '\u2013' : fixed(x.nAvail, 2),
            h.heightFt === null ? 'never' : fixed(Math.ceil(h.heightFt / 10) * 10),
          ];
        }),
      },
      assumed: [said('slow-assumed-fit'), said('slow-assumed-drag'), said('slow-assumed-stop')],
    };
  },
};
