import { GO_AROUND_ASPECTS } from '@/domain/airwork';
import { SLACK } from '../constants';
import { isNumber, needNumbers } from '../guard';
import type {
  BounceEye,
  CriterionForm,
  CriterionVerdict,
  EyeValue,
  GoAroundDecision,
  GoAroundExecution,
  GoAroundWord,
  LandingClass,
  LandingStandard,
  StandardRow,
  TriggerWord,
} from '@/domain/assess-words';

export interface CriterionInput {
  standardRow: StandardRow;
  /** Deviation from the target in the row's unit, or null. */
  measured: number | null;
  /** What was seen; null = not looked at. */
  eye: EyeValue | null;
  /** True when the clean tap stands for this landing. */
  clean: boolean;
  intended: string | null;
  edgeShare: number;
}
export interface CriterionResult {
  verdict: CriterionVerdict;
  form: CriterionForm | null;
  group: 'control' | 'precision';
}

/** Criteria that one *clean* tap asserts as none; never firmness, speed or place. */
export const CLEAN_ASSERTS = ['drift', 'crab', 'swing', 'bounce'] as const;

/**
 * One criterion of a landing. A measured value beats the eye, the eye beats an assertion, and what nobody saw stays
 * *not seen*. A push in a bounce is outside whatever was measured. Limits are inclusive; the last `edgeShare` of each
 * side is edge. A measure that is no number is one nobody made.
 * Source: the criteria of the standard the checkout runs under, with their citations.
 * @returns verdict, the value judged, whether it was measured, seen or asserted, and why
 * @throws BadNumber when a limit of the standard is no number
 */
export function assessCriterion(input: CriterionInput): CriterionResult {
  const { standardRow: row, measured, eye } = input;
  needNumbers('assessCriterion', { measured: row.measured, eye: row.eye, edgeShare: input.edgeShare });
  const result = (verdict: CriterionVerdict, form: CriterionForm | null): CriterionResult => ({
    verdict,
    form,
    group: row.group,
  });
  if (row.eye?.kind === 'bounce' && isBounce(eye) && eye.handling === 'pushed' && eye.count > 0)
    return result('outside', 'eye');
  if (isNumber(measured) && row.measured)
    return result(judgeMeasured(measured, row.measured, input.edgeShare), 'measured');
  if (eye !== null && row.eye) {
    const verdict = judgeEye(eye, row.eye, input.intended);
    return result(verdict, verdict === 'not-seen' ? null : 'eye');
  }
  if (input.clean && row.eye && (CLEAN_ASSERTS as readonly string[]).includes(row.id)) {
    const none: EyeValue = row.eye.kind === 'bounce' ? { count: 0, handling: 'held' } : { band: 'none', side: null };
    return result(judgeEye(none, row.eye, input.intended), 'asserted');
  }
  return result('not-seen', null);
}

function judgeMeasured(x: number, { low, high }: { low: number; high: number }, edgeShare: number): CriterionVerdict {
  if (x < low - SLACK || x > high + SLACK) return 'outside';
  const inner = 1 - edgeShare;
  return x >= low * inner - SLACK && x <= high * inner + SLACK ? 'within' : 'edge';
}

const isBounce = (eye: EyeValue | null): eye is BounceEye => typeof eye === 'object' && eye !== null && 'count' in eye;

function judgeEye(eye: EyeValue, form: NonNullable<StandardRow['eye']>, intended: string | null): CriterionVerdict {
  if (form.kind === 'bounce') {
    if (!isBounce(eye) || !isNumber(eye.count)) return 'not-seen';
    return eye.count <= form.withinCount ? 'within' : eye.count <= form.edgeCount ? 'edge' : 'outside';
  }
  if (isBounce(eye)) return 'not-seen';
  const word = typeof eye === 'string' ? eye : eye.band;
  if (form.kind === 'attitude') {
    if (intended === null) return 'not-seen';
    return word === intended ? 'within' : (form.edgeFor[intended] ?? []).includes(word) ? 'edge' : 'outside';
  }
  return form.within.includes(word) ? 'within' : form.edge.includes(word) ? 'edge' : 'outside';
}

export interface LandingInput {
  standard: LandingStandard;
  landing: {
    source: 'trace' | 'eye' | 'both';
    intended: string | null;
    measured: Readonly<Record<string, number | null | undefined>>;
    eye: Readonly<Record<string, EyeValue | null | undefined>>;
    cleanTap: string | null;
    intervention: number | null;
    instructorCorrection: boolean;
    demonstration: boolean;
    trigger: TriggerWord | null;
  };
}
export interface LandingResult {
  verdicts: Record<string, CriterionVerdict>;
  forms: Record<string, CriterionForm | null>;
  controlOutside: string[];
  precisionOutside: string[];
  missingRequired: string[];
  landingClass: LandingClass;
  triggerContinued: boolean;
}

/**
 * A whole landing against a standard. The class is the first that applies: demonstration; outside (a control criterion,
 * or a trigger met and continued by the pilot); assisted; not judged (a required criterion not seen: never assumed
 * good); prompted; own, off target; own.
 * Source: the criteria of the standard the checkout runs under, with their citations.
 * @returns class, whether it is in standard, and each criterion with its verdict
 */
export function assessLanding({ standard, landing }: LandingInput): LandingResult {
  const clean = landing.cleanTap === 'stopped' || landing.cleanTap === 'climbing-away';
  const verdicts: Record<string, CriterionVerdict> = {};
  const forms: Record<string, CriterionForm | null> = {};
  const controlOutside: string[] = [];
  const precisionOutside: string[] = [];
  const missingRequired: string[] = [];
  for (const row of standard.criteria) {
    const judged = assessCriterion({
      standardRow: row,
      measured: landing.measured[row.id] ?? null,
      eye: landing.eye[row.id] ?? null,
      clean,
      intended: landing.intended,
      edgeShare: standard.edgeShare,
    });
    verdicts[row.id] = judged.verdict;
    forms[row.id] = judged.form;
    if (judged.verdict === 'outside') (row.group === 'control' ? controlOutside : precisionOutside).push(row.id);
    const required = row.required.some((r) => r === landing.source || landing.source === 'both');
    if (required && judged.verdict === 'not-seen') missingRequired.push(row.id);
  }
  const triggerContinued = landing.trigger === 'met-and-continued';
  return {
    verdicts,
    forms,
    controlOutside,
    precisionOutside,
    missingRequired,
    landingClass: classOf({ ...landing, controlOutside, precisionOutside, missingRequired, triggerContinued }),
    triggerContinued,
  };
}

/**
 * The class of a landing from what is outside, what is missing and whose it was; the first that applies.
 * @returns such as `single-engine-land`
 */
export function classOf(
  l: Pick<LandingInput['landing'], 'demonstration' | 'intervention' | 'instructorCorrection'> &
    Pick<LandingResult, 'controlOutside' | 'precisionOutside' | 'missingRequired' | 'triggerContinued'>,
): LandingClass {
  if (l.demonstration) return 'demonstration';
  if (l.controlOutside.length > 0 || l.triggerContinued) return 'outside';
  if ((l.intervention ?? 0) >= 2 || l.instructorCorrection) return 'assisted';
  if (!isNumber(l.intervention) || l.missingRequired.length > 0) return 'not-judged';
  if (l.intervention === 1) return 'prompted';
  return l.precisionOutside.length > 0 ? 'own-off-target' : 'own';
}

export interface GoAroundInput {
  word: GoAroundWord | null;
  triggerS: number | null;
  goAroundS: number | null;
  execution: Readonly<Partial<Record<(typeof GO_AROUND_ASPECTS)[number], CriterionVerdict>>>;
  intervention: number | null;
  demonstration: boolean;
}
export interface GoAroundResult {
  word: GoAroundWord | null;
  decision: GoAroundDecision;
  execution: GoAroundExecution;
  decisionEvidence: boolean;
  executionEvidence: boolean;
  breaksRun: false;
}

/** Seconds after the trigger that still count as *at* it. */
const AT_TRIGGER_S = 2;

/**
 * A go-around: decision and execution apart. Neither ever breaks a run of own landings.
 * Source: the criteria of the standard the checkout runs under, with their citations.
 * @returns verdicts of the decision and the execution, each with its reason
 * @throws BadNumber when a number handed in is none
 * @example
 * assessGoAround({ word: 'before', triggerS: null, goAroundS: null, execution: { configurationOrder: 'outside' },
 * intervention: 0, demonstration: false })
 * // { word: 'before', decision: 'sound', execution: 'outside', decisionEvidence: true, executionEvidence: false,
 * // breaksRun: false }
 */
export function assessGoAround(input: GoAroundInput): GoAroundResult {
  needNumbers('assessGoAround', { trigger: input.triggerS, goAround: input.goAroundS });
  const word = input.word ?? wordFromTimes(input.triggerS, input.goAroundS);
  const decision: GoAroundDecision = input.demonstration
    ? 'demonstration'
    : word === null
      ? 'not-judged'
      : word === 'before' || word === 'at'
        ? 'sound'
        : word === 'late'
          ? 'late'
          : word === 'told-for-safety'
            ? 'told'
            : 'neutral';
  const execution = input.demonstration ? 'demonstration' : judgeExecution(input);
  return {
    word,
    decision,
    execution,
    decisionEvidence: decision === 'sound',
    executionEvidence: execution === 'good',
    breaksRun: false,
  };
}

function wordFromTimes(triggerS: number | null, goAroundS: number | null): GoAroundWord | null {
  if (goAroundS === null) return null;
  if (triggerS === null || goAroundS < triggerS - SLACK) return 'before';
  return goAroundS <= triggerS + AT_TRIGGER_S + SLACK ? 'at' : 'late';
}

function judgeExecution({ execution, intervention }: GoAroundInput): GoAroundExecution {
  const seen = GO_AROUND_ASPECTS.map((id) => execution[id] ?? 'not-seen');
  if (seen.includes('outside')) return 'outside';
  if ((intervention ?? 0) >= 2) return 'assisted';
  if (!isNumber(intervention) || seen.includes('not-seen')) return 'not-judged';
  return intervention === 1 ? 'prompted' : 'good';
}
