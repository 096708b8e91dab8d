import type { CriterionForm, CriterionVerdict, EyeValue, LandingClass, StandardRow } from '@/domain/assess-words';
import type { CapturedLanding } from '@/domain/capture';
import type { Standard } from '@/domain/programme';
import { say } from '@/domain/words';
import { fixed } from '../format';
import { assessGoAround, assessLanding, type GoAroundResult } from './landing';

export interface JudgeContext {
  standard: Standard;
  /** Target over the fence from the brief, in the dial's unit; null = none briefed. */
  fenceTarget: number | null;
  /** Knots in one unit of the dial. */
  ktPerUnit: number;
  unit: 'kt' | 'mph';
  /** Accepted from a trace, by criterion, in the standard's terms. A measured value beats the eye. */
  measured?: Readonly<Record<string, number>> | null;
}

export interface CriterionJudged {
  id: string;
  group: 'control' | 'precision';
  verdict: CriterionVerdict;
  form: CriterionForm | null;
  required: boolean;
  /** Why, in words: what was seen, and what the standard asks. */
  reason: string;
}
export interface JudgedLanding {
  landingClass: LandingClass | 'go-around' | 'low-pass';
  criteria: CriterionJudged[];
  controlOutside: string[];
  precisionOutside: string[];
  missingRequired: string[];
  triggerContinued: boolean;
  goAround: GoAroundResult | null;
  /** One sentence that says why the landing has its class. */
  reason: string;
}

const ACROSS: Record<NonNullable<CapturedLanding['lateral']>, EyeValue> = {
  'beyond-left': { band: 'beyond-a-track-width', side: 'left' },
  'wheel-left': { band: 'a-wheel-off', side: 'left' },
  line: { band: 'on-the-line', side: null },
  'wheel-right': { band: 'a-wheel-off', side: 'right' },
  'beyond-right': { band: 'beyond-a-track-width', side: 'right' },
};

/** Judges one captured landing, go-around or low pass against a standard, with the reason for each verdict. */
export function judgeCaptured(landing: CapturedLanding, context: JudgeContext): JudgedLanding {
  const empty = { criteria: [], controlOutside: [], precisionOutside: [], missingRequired: [], triggerContinued: false };
  if (landing.kind === 'low-pass') return { ...empty, landingClass: 'low-pass', goAround: null, reason: 'A low pass: practised, not judged.' };
  if (landing.kind === 'go-around') {
    const goAround = assessGoAround({ word: landing.goAroundWord, triggerS: null, goAroundS: null, execution: landing.goAroundExecution, intervention: landing.intervention, demonstration: landing.demonstration });
    return { ...empty, landingClass: 'go-around', goAround, reason: goAroundReason(goAround, landing) };
  }
  const fence = landing.fenceSpeed !== null && context.fenceTarget !== null ? (landing.fenceSpeed - context.fenceTarget) * context.ktPerUnit : null;
  const eye: Record<string, EyeValue | null> = {
    drift: landing.drift, crab: landing.crab, swing: landing.swing, bounce: landing.bounce, aileron: landing.aileron, stick: landing.stick, rollout: landing.rollout ?? null,
    configuration: landing.configuration, attitude: landing.touched, lateral: landing.lateral && ACROSS[landing.lateral],
    along: landing.along, firmness: landing.firmness,
  };
  const traced = context.measured ?? {};
  const measured: Record<string, number | null> = { speed: fence, ...traced };
  const result = assessLanding({
    standard: context.standard,
    landing: {
      source: 'eye', intended: landing.intended, measured, eye, cleanTap: landing.cleanTap, intervention: landing.intervention,
      instructorCorrection: false, demonstration: landing.demonstration, trigger: landing.trigger,
    },
  });
  const criteria = context.standard.criteria.map((row): CriterionJudged => ({
    id: row.id,
    group: row.group,
    verdict: result.verdicts[row.id] ?? 'not-seen',
    form: result.forms[row.id] ?? null,
    required: row.required.includes('eye'),
    reason: criterionReason(row, eye[row.id] ?? null, measured[row.id] ?? null, row.id in traced, result.forms[row.id] ?? null, landing.intended),
  }));
  const { controlOutside, precisionOutside, missingRequired, triggerContinued } = result;
  return { criteria, controlOutside, precisionOutside, missingRequired, triggerContinued, landingClass: result.landingClass, goAround: null, reason: classReason(result, landing.intervention) };
}

function criterionReason(row: StandardRow & { unit: string }, eye: EyeValue | null, measured: number | null, traced: boolean, form: CriterionForm | null, intended: string | null): string {
  if (form === null) return 'Nobody looked: not seen, and not assumed good.';
  if (form === 'measured' && measured !== null && row.measured) {
    const { low, high } = row.measured;
    if (row.id === 'speed') return `${traced ? 'Measured' : 'Read'} ${measured >= 0 ? '+' : ''}${fixed(measured)} ${row.unit} from the target; the standard allows ${fixed(low)} to +${fixed(high)} ${row.unit}.`;
    const digits = row.unit === 'count' || row.unit === 'fpm' ? 0 : 1;
    return `Measured ${low < 0 && measured >= 0 ? '+' : ''}${fixed(measured, digits)}${row.unit === 'count' ? '' : ` ${row.unit}`}; the standard allows ${fixed(low)} to ${low < 0 ? '+' : ''}${fixed(high)}${row.unit === 'count' ? '' : ` ${row.unit}`}.`;
  }
  const asked = standardAsks(row, intended);
  if (form === 'asserted') return `Asserted by the clean tap: none. ${asked}`;
  if (eye !== null && typeof eye === 'object' && 'count' in eye) {
    const handling = eye.handling ? `, ${say(eye.handling)}` : '';
    return eye.handling === 'pushed' && eye.count > 0 ? `${eye.count} \u00d7 ${handling.slice(2)}: a push in a bounce is outside at any count.` : `Seen ${eye.count}${handling}. ${asked}`;
  }
  const word = typeof eye === 'string' ? say(eye) : eye ? `${say(eye.band)}${eye.side ? ` ${eye.side}` : ''}` : 'not seen';
  return `Seen ${word}. ${asked}`;
}

function standardAsks(row: StandardRow, intended: string | null): string {
  if (!row.eye) return '';
  if (row.eye.kind === 'bounce') return `The standard asks ${row.eye.withinCount}; ${row.eye.edgeCount} is edge.`;
  if (row.eye.kind === 'attitude') return intended ? `Meant ${say(intended)}.` : '';
  const edge = row.eye.edge.length > 0 ? `; ${row.eye.edge.map(say).join(' or ')} is edge` : '';
  return `The standard asks ${row.eye.within.map(say).join(' or ')}${edge}.`;
}

function classReason(result: ReturnType<typeof assessLanding>, intervention: number | null): string {
  const names = (ids: string[]) => ids.map(say).join(', ');
  switch (result.landingClass) {
    case 'demonstration': return 'Flown by the instructor: not counted for the pilot.';
    case 'outside': return result.controlOutside.length > 0 ? `Outside in control: ${names(result.controlOutside)}.` : 'The go-around trigger was met and the approach continued.';
    case 'assisted': return intervention === 3 ? 'The instructor took control.' : 'Flown with help on the controls.';
    case 'not-judged': return intervention === null ? 'Whose landing it was is not recorded, so it is not judged.' : `Not judged: ${names(result.missingRequired)} not seen.`;
    case 'prompted': return 'Flown by the pilot after a word from the instructor.';
    case 'own-off-target': return `The pilot\u2019s own; off target: ${names(result.precisionOutside)}.`;
    case 'own': return 'The pilot\u2019s own and in standard.';
  }
}

function goAroundReason(result: GoAroundResult, landing: CapturedLanding): string {
  const decision: Record<GoAroundResult['decision'], string> = {
    sound: `A sound decision, ${say(landing.goAroundWord ?? 'before')}`, late: 'Decided late, and better than continued', told: 'Told to go, for safety',
    neutral: `Flown as ${landing.goAroundWord === 'traffic' ? 'the traffic asked' : 'an exercise'}`, 'not-judged': 'When it was decided is not recorded', demonstration: 'The instructor\u2019s demonstration',
  };
  const outside = Object.entries(landing.goAroundExecution).filter(([, v]) => v === 'outside').map(([k]) => say(k));
  const execution: Record<GoAroundResult['execution'], string> = {
    good: 'flown well', prompted: 'flown after a word', assisted: 'flown with help', outside: `outside in ${outside.join(', ')}`, 'not-judged': 'how it was flown was not all seen', demonstration: 'not counted',
  };
  return `${decision[result.decision]}; ${execution[result.execution]}.`;
}
