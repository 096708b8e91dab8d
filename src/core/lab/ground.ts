/** Straight or swerving: a roll after a small disturbance, tailwheel against nosewheel, with feet that are early or late. */
import { coder } from '@/domain/coded';
import { MS_PER_KT } from '../constants';
import { fixed } from '../format';
import {
  FEET,
  fadeGuard,
  groundRun,
  linearModel,
  rudderFade,
  type RunInput,
  type RunOutcome,
  unstableBand,
} from '../ground';
import { GROUND_NEEDS } from '../sheet';
import { ktPerUnit } from '../speeds';
import { label, line } from './figure';
import {
  type LabDay,
  type LabModel,
  type LabSentence,
  type LabSheetData,
  type Settings,
  numberOf,
  wordOf,
} from './model';
import { RUNWAY, RUN_TONES, SURFACES, SURFACE_CHOICES, pathOf, runFrames, runView, runwayFigure } from './runway-view';
import { dialSpeed, factsOf, lacking, landingFlap, runBody, stallKt, tailwheel } from './sheet';
import { LAB_WORDS } from './lab-words';

const said = coder(LAB_WORDS);
const LIFT_SHARE = { down: 0.9, up: 0.3 };
const RUN_S = 6;
const STEP_S = 0.005;
/** Yaw the rudder must still be able to give when the tail is to come down, °/s². */
const RESERVE_DEG_S2 = 2;
/** Of the stall speed: somewhat after the touch, and just after it. */
const START_SPEED = 0.85;
const ROLL_OUT = 0.95;
const HELD_DEG = 12;
/** Less than this is no weave to speak of. */
const WEAVE_DEG = 5;
const HEAVY_TAIL = 0.15;

/** The roll the settings of the page describe. */
export function rollInput(sheet: LabSheetData, s: Settings, day: LabDay): RunInput {
  const body = runBody(sheet, day.rhoKgM3);
  const surface = SURFACES[wordOf(s, 'surface')] ?? { left: 0.7, right: 0.7, rolling: 0.03 };
  const heavy = wordOf(s, 'load') === 'aft' ? HEAVY_TAIL : 0;
  const up = wordOf(s, 'tail') === 'up' && tailwheel(sheet);
  const feet = FEET.find((f) => f === wordOf(s, 'feet')) ?? 'strokes';
  return {
    body: {
      ...body,
      // The centre of gravity moved aft by this much: every arm with it.
      mainsXM: body.mainsXM + heavy,
      thirdWheelXM: body.thirdWheelXM + heavy,
      finArmM: body.finArmM - heavy,
      bodyCentreXM: body.bodyCentreXM + heavy,
      yawInertiaKgM2: body.yawInertiaKgM2 * (1 + 2 * heavy),
      steerDeg: wordOf(s, 'steering') === 'free' ? 0 : body.steerDeg,
    },
    groundSpeedMs: numberOf(s, 'speed') * ktPerUnit(sheet.dial.unit) * MS_PER_KT,
    crosswindMs: numberOf(s, 'xw') * MS_PER_KT,
    headwindMs: 0,
    swerveDeg: numberOf(s, 'swerve'),
    grip: { left: surface.left, right: surface.right },
    rollingFriction: surface.rolling,
    thirdDown: !up,
    liftShare: up ? LIFT_SHARE.up : LIFT_SHARE.down,
    brake: numberOf(s, 'brake') / 100,
    gust: { fromS: 1, toS: 2.5, ms: numberOf(s, 'gust') * MS_PER_KT },
    pilot: {
      feet,
      firstFootS: numberOf(s, 'foot'),
      delayS: numberOf(s, 'delay'),
      brakesForDirection: wordOf(s, 'toe') === 'yes',
    },
    forS: RUN_S,
    stepS: STEP_S,
    halfWidthM: day.runwayWidthM / 2,
  };
}

function answerOf(
  run: RunOutcome,
  i: RunInput,
  speed: { value: number; unit: string },
): {
  answer: LabSentence;
  tone: 'within' | 'edge' | 'outside';
} {
  const footS = i.pilot.feet === 'none' ? null : Math.max(i.pilot.firstFootS, i.pilot.delayS);
  const { swerveDeg } = i;
  if (run.loop)
    return {
      answer: said('run-loop', { speed, swerveDeg, footS, atS: run.loop.atS, why: run.loop.why, wing: run.outside }),
      tone: 'outside',
    };
  if (run.offAtS !== null) return { answer: said('run-off', { speed, footS, atS: run.offAtS }), tone: 'outside' };
  if (footS !== null && run.growingSwings >= 2 && run.greatestHeadingDeg > Math.max(WEAVE_DEG, 2 * Math.abs(swerveDeg)))
    return {
      answer: said('run-weaves', { speed, delayS: i.pilot.delayS, swings: run.growingSwings + 1 }),
      tone: run.greatestHeadingDeg > HELD_DEG ? 'outside' : 'edge',
    };
  const last = run.states[run.states.length - 1];
  if (footS === null) {
    const dies = Math.abs(last?.headingDeg ?? 0) < Math.max(0.5, Math.abs(swerveDeg) / 2);
    return dies
      ? { answer: said('run-alone-dies', { speed, swerveDeg, mostM: run.farthestM }), tone: 'within' }
      : {
          answer: said('run-alone-drifts', { speed, swerveDeg, mostM: run.farthestM, afterS: last?.tS ?? RUN_S }),
          tone: 'edge',
        };
  }
  return {
    answer: said('run-held', {
      speed,
      swerveDeg,
      footS,
      mostM: run.farthestM,
      greatestDeg: run.greatestHeadingDeg,
    }),
    tone: run.greatestHeadingDeg > HELD_DEG ? 'edge' : 'within',
  };
}

/** The speed to have the tail down by, in words, or why there is none. */
function fadeWords(sheet: LabSheetData, i: RunInput, day: LabDay): LabSentence | null {
  const crosswindKt = Math.abs(i.crosswindMs / MS_PER_KT);
  if (!tailwheel(sheet) || crosswindKt < 1) return null;
  const b = i.body;
  const fadeIn = (kt: number) =>
    rudderFade({
      crosswindKt: kt,
      headwindKt: 0,
      groundSpeedKt: i.groundSpeedMs / MS_PER_KT,
      massKg: b.massKg,
      yawInertiaKgM2: b.yawInertiaKgM2,
      mainsXM: b.mainsXM,
      finAreaM2: b.finAreaM2,
      finArmM: b.finArmM,
      finLiftSlopePerRad: b.finLiftSlopePerRad,
      rudderEffectiveness: b.rudderEffectiveness,
      rudderMaxDeg: b.rudderMaxDeg,
      bodySideAreaM2: b.bodySideAreaM2,
      bodySideSlopePerRad: b.bodySideSlopePerRad,
      bodyCentreXM: b.bodyCentreXM,
      reserveYawAccelDegS2: RESERVE_DEG_S2,
      airDensityKgM3: day.rhoKgM3,
    }).fadeAirspeedKt;
  const stall = stallKt(sheet, landingFlap(sheet));
  const demonstratedKt = sheet.crosswind.demonstratedKt?.value ?? null;
  // The greatest crosswind whose fade speed is still below the stall.
  let holdsKt = 0;
  while (holdsKt < 60 && (fadeIn(holdsKt + 0.5) ?? Infinity) <= stall) holdsKt += 0.5;
  const fade = fadeIn(crosswindKt);
  const guard = fadeGuard(
    fade,
    stall,
    demonstratedKt === null ? null : { crosswindKt: demonstratedKt, modelHoldsKt: holdsKt },
  );
  if (guard === 'contradicts-demonstrated')
    return said('run-fade-withheld', { demonstratedKt: demonstratedKt ?? 0, holdsKt });
  if (guard === 'runs-out' || fade === null) return said('run-fade-runs-out', { crosswindKt: Math.ceil(crosswindKt) });
  return said('run-fade', {
    fade: dialSpeed(sheet, fade, 'up'),
    crosswindKt: Math.ceil(crosswindKt),
    downBy: dialSpeed(sheet, fade * 1.1, 'up'),
  });
}

function whyOf(sheet: LabSheetData, i: RunInput, run: RunOutcome, day: LabDay): LabSentence[] {
  const tail = tailwheel(sheet);
  const held = i.thirdDown && i.body.steerDeg > 0;
  const body = held ? i.body : { ...i.body, corneringThirdNPerRad: 0 };
  const m = linearModel(body, i.groundSpeedMs, i.body.yawInertiaKgM2);
  const free = linearModel({ ...i.body, corneringThirdNPerRad: 0 }, i.groundSpeedMs, i.body.yawInertiaKgM2);
  const why: LabSentence[] = [];
  if (m.timeToDoubleS !== null) why.push(said('run-doubles', { doubleS: m.timeToDoubleS, tail }));
  else if (m.timeToHalfS !== null)
    why.push(said('run-halves', { halfS: m.timeToHalfS, nosewheel: !tail, steered: held }));
  if (tail && held && free.timeToDoubleS !== null) why.push(said('run-free-doubles', { doubleS: free.timeToDoubleS }));
  const fade = fadeWords(sheet, i, day);
  if (fade) why.push(fade);
  else if (tail) {
    const band = unstableBand(body);
    const kt = (ms: number | null) => dialSpeed(sheet, (ms ?? 0) / MS_PER_KT);
    if (band.unstable && band.fromMs !== null && why.length < 3)
      why.push(said('run-band', { from: kt(band.fromMs), to: band.toMs === null ? null : kt(band.toMs) }));
  }
  if (run.loop?.why === 'slid') why.push(said('run-grip', { ...i.grip, mostG: run.greatestLateralG }));
  else if (run.loop) why.push(said('run-outer', { percent: 100 * Math.max(...run.states.map((x) => x.outerLoad)) }));
  if (i.pilot.brakesForDirection) why.push(said('run-brakes'));
  return why.slice(0, 3);
}

export const groundModel: LabModel = {
  page: 'ground',
  applies: (s) => s.surface !== 'sea',
  missing: (s) => lacking(s, GROUND_NEEDS),
  start: (s, day) => ({
    speed: Math.round((START_SPEED * stallKt(s, landingFlap(s))) / ktPerUnit(s.dial.unit)),
    xw: Math.round(day.crosswindKt),
    gust: 0,
    swerve: 2,
    foot: 0,
    delay: 0.2,
    feet: 'strokes',
    tail: 'down',
    steering: 'steered',
    surface: 'dry',
    brake: 0,
    toe: 'no',
    load: 'usual',
  }),
  parameters: (s) => {
    const tail = tailwheel(s);
    const unit = s.dial.unit;
    const most = Math.round((1.15 * stallKt(s, landingFlap(s))) / ktPerUnit(unit));
    const range = (key: string, name: string, min: number, max: number, step: number, u: string) =>
      ({ key, label: name, kind: 'range', min, max, step, unit: u }) as const;
    return [
      range('speed', 'Speed over the ground', 10, most, 1, unit),
      { ...range('xw', 'Crosswind', -25, 25, 1, 'kt'), signed: true },
      range('swerve', 'Swerve at the start', 0.5, 10, 0.5, '\u00b0'),
      range('foot', 'First foot after', 0, 3, 0.1, 's'),
      range('delay', 'Foot behind the eye', 0.1, 1, 0.1, 's'),
      {
        key: 'feet',
        label: 'Feet',
        kind: 'choice',
        options: [
          ['strokes', 'short, firm'],
          ['continuous', 'continuous'],
          ['none', 'none'],
        ],
      },
      ...(tail
        ? ([
            {
              key: 'tail',
              label: 'Tail',
              kind: 'choice',
              options: [
                ['down', 'down'],
                ['up', 'up'],
              ],
            },
          ] as const)
        : []),
      ...(s.gear.steerDeg
        ? ([
            {
              key: 'steering',
              label: tail ? 'Tailwheel' : 'Nosewheel',
              kind: 'choice',
              options: [
                ['steered', 'steers'],
                ['free', 'casters free'],
              ],
            },
          ] as const)
        : []),
      {
        key: 'surface',
        label: 'Surface',
        kind: 'choice',
        options: SURFACE_CHOICES,
      },
      { ...range('gust', 'Gust from 1 to 2.5 s', -15, 15, 1, 'kt'), signed: true },
      range('brake', 'Brakes, both', 0, 100, 10, '%'),
      {
        key: 'toe',
        label: 'Brakes for direction',
        kind: 'choice',
        options: [
          ['no', 'no'],
          ['yes', 'yes'],
        ],
      },
      {
        key: 'load',
        label: 'Centre of gravity',
        kind: 'choice',
        options: [
          ['usual', 'usual'],
          ['aft', '15 cm aft'],
        ],
      },
    ];
  },
  compute: (sheet, s, day, old) => {
    const i = rollInput(sheet, s, day);
    const run = groundRun(i);
    const speed = { value: numberOf(s, 'speed'), unit: sheet.dial.unit };
    const { answer, tone } = answerOf(run, i, speed);
    // The type that is known, the same disturbance, no foot at all.
    const known =
      old && old.name !== sheet.name && lacking(old, GROUND_NEEDS).length === 0 && old.surface !== 'sea'
        ? groundRun({
            ...rollInput(old, { ...s, feet: 'none', tail: 'down', steering: 'steered' }, day),
            groundSpeedMs: i.groundSpeedMs,
          })
        : null;
    const v = runView(run, known, i.halfWidthM);
    const half = i.halfWidthM;
    const wind = numberOf(s, 'xw');
    const tones = RUN_TONES;
    const figure = runwayFigure(v, half, wind, {
      shapes: [
        ...(known ? [line(pathOf(known, v), 'ink', { width: 2.5, dashed: true })] : []),
        line(pathOf(run, v), tones[tone], { width: 4 }),
      ],
      texts: known && old ? [label(RUNWAY.w - 12, 22, `dotted: ${old.name}, no foot at all`, 'soft', 'end')] : [],
    });
    const frames = runFrames(sheet, run, v, tones[tone]);
    return {
      page: 'ground',
      answer,
      tone,
      why: whyOf(sheet, i, run, day),
      figure,
      frames,
      facts: [
        ...factsOf(sheet, GROUND_NEEDS),
        { name: 'track', value: `${fixed(sheet.gear.trackM.value, 2)} m`, source: sheet.gear.trackM },
        { name: 'wheelbase', value: `${fixed(sheet.gear.wheelbaseM.value, 2)} m`, source: sheet.gear.wheelbaseM },
      ],
      table: {
        name: 'The roll, every half second',
        head: ['time, s', 'nose, °', 'off the line, m', `speed, ${sheet.dial.unit}`, 'foot'],
        rows: run.states
          .filter((_, n) => n % 25 === 0)
          .map((x) => [
            fixed(x.tS, 1),
            `${fixed(Math.abs(x.headingDeg), 1)} ${Math.abs(x.headingDeg) < 0.05 ? '' : x.headingDeg > 0 ? 'right' : 'left'}`.trim(),
            `${fixed(Math.abs(x.yM), 1)} ${Math.abs(x.yM) < 0.05 ? '' : x.yM > 0 ? 'right' : 'left'}`.trim(),
            fixed(x.speedMs / MS_PER_KT / ktPerUnit(sheet.dial.unit)),
            Math.abs(x.pedal) < 0.02
              ? 'neutral'
              : `${fixed(Math.abs(x.pedal) * 100)} % ${x.pedal > 0 ? 'right' : 'left'}`,
          ]),
      },
      assumed: [
        said('run-assumed-planar'),
        said('run-assumed-wash'),
        said('run-assumed-feet'),
        said('run-assumed-lift'),
      ],
    };
  },
};

/** Speed just after the touch, in the unit of the dial: where a swing begins. */
export const rollOutSpeed = (s: LabSheetData): number =>
  Math.round((ROLL_OUT * stallKt(s, landingFlap(s))) / ktPerUnit(s.dial.unit));

/**
 * The first foot that lets a swerve grow to a swing that was measured, from the settings of the page.
 * @param swingDeg measured in the roll-out
 * @returns seconds, to a tenth; null when none within 3 s does, or even the earliest foot swings so far
 * @example footForSwing(urze, groundModel.start(urze, day), day, 14)
 */
export function footForSwing(sheet: LabSheetData, s: Settings, day: LabDay, swingDeg: number): number | null {
  for (let tenths = 0; tenths <= 30; tenths++) {
    const run = groundRun(rollInput(sheet, { ...s, foot: tenths / 10 }, day));
    if (run.greatestHeadingDeg >= Math.abs(swingDeg)) return tenths === 0 ? null : tenths / 10;
  }
  return null;
}
