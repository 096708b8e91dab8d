import type { CriterionForm, CriterionVerdict, EyeValue, LandingClass, StandardRow } from '@/domain/assess-words';
import type { CapturedLanding } from '@/domain/capture';
import { wordsSeen } from '@/domain/criteria';
import { touchSeen } from '@/domain/touch';
import type { Standard } from '@/domain/programme';
import { SERIOUS, type Serious, meant } from '@/domain/words';
import type { ComputedReason, CriterionReason, LandingReason } from './captured-words';
import { assessGoAround, assessLanding, classOf, type GoAroundResult, type LandingResult } from './landing';

export interface JudgeContext {
  standard: Standard;
  /** Target over the threshold from the brief, in the dial's unit; null = none briefed. */
  fenceTarget: number | null;
  /** Knots in one unit of the dial. */
  ktPerUnit: number;
  unit: 'kt' | 'mph';
  /** Accepted from a trace, by criterion, in the standard's terms. A measured value beats the eye. */
  measured?: Readonly<Record<string, number>> | null;
  /** Sides of the schools chosen on the checkout that change judging, and the gates briefed, for a falling schedule. */
  schools?: { bounce?: string | undefined; speed?: string | undefined; attitude?: string | undefined } | null;
  gates?: readonly { name: string; target: number | null }[];
  /** How far a measured touch may lie before a landing is outside whatever else was seen. */
  edges?: MeasuredEdges | null;
  /** What an instructor has overruled, by criterion, or `class` for the whole landing. */
  overruled?: Readonly<Record<string, Overruled>> | null;
}
/**
 * Metres from the declared touchdown point back to the threshold, and from the line to where a wheel leaves the
 * surface; sink from which an inspection is asked, ft/min. Null = not known.
 */
export interface MeasuredEdges {
  shortM: number | null;
  sideM: number | null;
  inspectFpm: number;
}
/** An instructor's word over a computed verdict: to what, why, who and when. */
export interface Overruled {
  to: string;
  reason: string;
  by: string;
  at: string;
}

export interface CriterionJudged {
  id: string;
  group: 'control' | 'precision';
  verdict: CriterionVerdict;
  form: CriterionForm | null;
  required: boolean;
  /** What was seen and what the standard allows, then what the technique of the checkout makes of it. */
  reasons: CriterionReason[];
  /** Set when an instructor overruled it; `computed` is what the standard gave and stays in sight. */
  overruled?: Overruled & { computed: CriterionVerdict };
}
export interface JudgedLanding {
  landingClass: LandingClass | 'go-around' | 'low-pass';
  criteria: CriterionJudged[];
  controlOutside: string[];
  precisionOutside: string[];
  missingRequired: string[];
  triggerContinued: boolean;
  /** Whose it was, 0 to 3; null or absent = not known, or contradicted by what was noted. */
  level?: number | null;
  goAround: GoAroundResult | null;
  /** Why the landing has its class. */
  reason: LandingReason;
  overruled?: Overruled & { computed: string };
}

const ACROSS: Record<NonNullable<CapturedLanding['lateral']>, EyeValue> = {
  'beyond-left': { band: 'beyond-a-track-width', side: 'left' },
  'wheel-left': { band: 'a-wheel-off', side: 'left' },
  line: { band: 'on-the-line', side: null },
  'wheel-right': { band: 'a-wheel-off', side: 'right' },
  'beyond-right': { band: 'beyond-a-track-width', side: 'right' },
};

/**
 * Judges one captured landing, go-around or low pass against a standard, with the reason for each verdict.
 * Source: the criteria of the standard the checkout runs under, with their citations.
 * @returns class, standard and criteria as assessLanding gives them, with what each rests on
 */
export function judgeCaptured(landing: CapturedLanding, context: JudgeContext): JudgedLanding {
  const empty = {
    criteria: [],
    controlOutside: [],
    precisionOutside: [],
    missingRequired: [],
    triggerContinued: false,
  };
  // A touch recorded as a low pass, as earlier versions let pass, is judged as the landing it was.
  if (landing.kind === 'low-pass' && !touchSeen(landing))
    return { ...empty, landingClass: 'low-pass', goAround: null, reason: { code: 'low-pass' } };
  if (landing.kind === 'go-around') {
    const goAround = assessGoAround({
      word: landing.goAroundWord,
      triggerS: null,
      goAroundS: null,
      execution: landing.goAroundExecution,
      intervention: landing.intervention,
      demonstration: landing.demonstration,
    });
    return { ...empty, landingClass: 'go-around', goAround, reason: goAroundReason(goAround, landing) };
  }
  const intended = meant(landing.intended);
  // *Own* and *helped on* contradict: until it is said which, it is nobody's.
  const contradicts = landing.intervention !== null && landing.intervention < 2 && landing.helpedOn.length > 0;
  const level = contradicts ? null : landing.intervention;
  // Where three-point or tail-low is taught, the tail first is what was meant.
  const tailLow =
    context.schools?.attitude === 'three-point' && intended === 'three-point' && landing.touched === 'tail-first';
  const fence =
    landing.fenceSpeed !== null && context.fenceTarget !== null
      ? (landing.fenceSpeed - context.fenceTarget) * context.ktPerUnit
      : null;
  const eye: Record<string, EyeValue | null> = {
    drift: landing.drift,
    crab: landing.crab,
    swing: landing.swing,
    bounce: landing.bounce,
    ...wordsSeen(landing),
    attitude: tailLow ? 'three-point' : landing.touched,
    lateral: landing.lateral && ACROSS[landing.lateral],
    along: landing.along,
  };
  const traced = context.measured ?? {};
  const measured: Record<string, number | null> = { speed: fence, ...traced };
  const result = assessLanding({
    standard: context.standard,
    landing: {
      source: 'eye',
      intended,
      measured,
      eye,
      cleanTap: landing.cleanTap,
      intervention: level,
      instructorCorrection: false,
      demonstration: landing.demonstration,
      trigger: landing.trigger,
    },
  });
  const criteria = context.standard.criteria.map((row): CriterionJudged => ({
    id: row.id,
    group: row.group,
    verdict: result.verdicts[row.id] ?? 'not-seen',
    form: result.forms[row.id] ?? null,
    required: row.required.includes('eye'),
    reasons: [
      criterionReason(
        row,
        eye[row.id] ?? null,
        measured[row.id] ?? null,
        row.id in traced,
        result.forms[row.id] ?? null,
        intended,
        context,
      ),
    ],
  }));
  const bySchool = criteria.map((c) => schoolWord(c, landing, context));
  const said = [
    ...bySchool.map((c) => overruledCriterion(c, context.overruled?.[c.id])),
    ...seriousOf(landing, traced, context.edges ?? null),
  ];
  const after: LandingResult = said.some((c, i) => c.verdict !== criteria[i]?.verdict)
    ? { ...result, ...regroup(said), landingClass: 'own' }
    : result;
  if (after !== result)
    after.landingClass = classOf({
      ...after,
      demonstration: landing.demonstration,
      intervention: level,
      instructorCorrection: false,
    });
  const { controlOutside, precisionOutside, missingRequired, triggerContinued } = after;
  const asked = context.overruled?.class;
  const whole =
    asked && mayOverrule(asked.to, { demonstration: landing.demonstration, intervention: level }) ? asked : null;
  const judged = {
    criteria: said,
    controlOutside,
    precisionOutside,
    missingRequired,
    triggerContinued,
    landingClass: after.landingClass,
    level,
    goAround: null,
    reason: contradicts
      ? {
          code: 'contradicts' as const,
          params: {
            level: landing.intervention === 1 ? ('prompted' as const) : ('own' as const),
            helpedOn: landing.helpedOn,
          },
        }
      : classReason(after, level),
  };
  return whole
    ? {
        ...judged,
        landingClass: whole.to as LandingClass,
        overruled: { ...whole, computed: judged.landingClass },
        reason: {
          code: 'overruled',
          params: { by: whole.by, to: whole.to, reason: whole.reason, computed: judged.reason },
        },
      }
    : judged;
}

/** What the pilot did not fly, or of which nobody said who flew it, is never made the pilot's own by a later word. */
const PILOTS_OWN: ReadonlySet<string> = new Set(['own', 'own-off-target', 'prompted']);
/**
 * May a landing be overruled to a class? A demonstration to none; one taken over, or of which nobody said whose it was,
 * to none of the pilot's own. Whose it was is changed by a correction, which stays in sight.
 * @returns true where it may
 * @example mayOverrule('own', { demonstration: false, intervention: 3 }) // false
 */
export const mayOverrule = (to: string, l: { demonstration: boolean; intervention: number | null }): boolean =>
  !l.demonstration && !((l.intervention === null || l.intervention === 3) && PILOTS_OWN.has(to));

/** What was measured and where the edge is. */
function measuredReason(id: Serious, traced: Readonly<Record<string, number>>, edges: MeasuredEdges): CriterionReason {
  const { along = 0, lateral = 0, firmness = 0 } = traced;
  switch (id) {
    case 'short-of-threshold':
      return { code: 'short', params: { beforeM: -along - (edges.shortM ?? 0) } };
    case 'off-surface':
      return { code: 'off-surface', params: { fromLineM: Math.abs(lateral), edgeM: edges.sideM ?? 0 } };
    case 'inspection-sink':
      return { code: 'hard', params: { sinkFpm: firmness, inspectFpm: edges.inspectFpm } };
  }
}
/** Outside whatever else was seen: tapped, or measured. */
function seriousOf(
  l: CapturedLanding,
  traced: Readonly<Record<string, number>>,
  edges: MeasuredEdges | null,
): CriterionJudged[] {
  const { along, lateral, firmness } = traced;
  const measured: Record<Serious, boolean> = {
    'short-of-threshold': along !== undefined && edges?.shortM != null && along < -edges.shortM,
    'off-surface': lateral !== undefined && edges?.sideM != null && Math.abs(lateral) > edges.sideM,
    'inspection-sink': firmness !== undefined && edges !== null && firmness >= edges.inspectFpm,
  };
  return SERIOUS.filter((id) => l.serious.includes(id) || measured[id]).map((id) => ({
    id,
    group: 'control',
    verdict: 'outside',
    form: measured[id] ? 'measured' : 'eye',
    required: false,
    reasons: [measured[id] && edges ? measuredReason(id, traced, edges) : { code: 'serious-seen', params: { id } }],
  }));
}

/** What the chosen school makes of a verdict: a second contact that was not left, a speed that stopped falling. */
function schoolWord(c: CriterionJudged, l: CapturedLanding, { schools, gates, unit }: JudgeContext): CriterionJudged {
  if (
    c.id === 'bounce' &&
    schools?.bounce === 'go' &&
    (l.bounce?.count ?? 0) > 0 &&
    l.bounce?.handling !== 'went-around' &&
    c.verdict !== 'outside'
  )
    return { ...c, verdict: 'outside', reasons: [...c.reasons, { code: 'second-contact' }] };
  if (
    c.id === 'attitude' &&
    schools?.attitude === 'three-point' &&
    l.touched === 'tail-first' &&
    l.intended === 'three-point'
  )
    return { ...c, reasons: [{ code: 'tail-low' }] };
  if (c.id === 'speed' && schools?.speed === 'reducing' && c.verdict !== 'outside') {
    const stood = plateauIn(l, gates ?? []);
    if (stood)
      return {
        ...c,
        verdict: 'outside',
        form: c.form ?? 'eye',
        reasons: [
          ...(c.form === null ? [] : c.reasons),
          { code: 'speed-stood', params: { between: stood.between, unit } },
        ],
      };
  }
  return c;
}

/**
 * A pair of gates between which the schedule falls and the speed read did not, or the note that says so. Speeds in the
 * unit of the dial.
 * @returns the two gates and the speeds read at them, or a note why it is not known
 * @example
 * plateauIn({ gateSpeeds: { Base: 70, Final: 70 }, fenceSpeed: 60, notes: [] }, [{ name: 'Base', target: 70 },
 * { name: 'Final', target: 65 }, { name: 'Threshold', target: 60 }])
 * // { between: { gates: ['Base', 'Final'], from: 70, to: 70 } }
 */
export function plateauIn(
  l: Pick<CapturedLanding, 'gateSpeeds' | 'fenceSpeed' | 'notes'>,
  gates: readonly { name: string; target: number | null }[],
): { between: { gates: string[]; from: number; to: number } | null } | null {
  const read = gates.map((g, i) => ({
    ...g,
    speed: i === gates.length - 1 ? l.fenceSpeed : (l.gateSpeeds[g.name] ?? null),
  }));
  for (let i = 1; i < read.length; i++) {
    const [a, b] = [read[i - 1], read[i]];
    if (a?.speed == null || b?.speed == null || a.target === null || b.target === null) continue;
    if (a.target - b.target >= 2 && a.speed - b.speed < STANDS_STILL && b.speed > b.target)
      return { between: { gates: [a.name, b.name], from: a.speed, to: b.speed } };
  }
  return l.notes.includes('speed-did-not-fall') ? { between: null } : null;
}
/** Falling by less than this between two gates is standing still, in the unit of the dial. */
const STANDS_STILL = 1.5;

function overruledCriterion(c: CriterionJudged, o: Overruled | undefined): CriterionJudged {
  return o ? { ...c, verdict: o.to as CriterionVerdict, overruled: { ...o, computed: c.verdict } } : c;
}
/** The same sorting as the standard's, over verdicts of which some were overruled. */
function regroup(
  criteria: readonly CriterionJudged[],
): Pick<LandingResult, 'controlOutside' | 'precisionOutside' | 'missingRequired'> {
  const outside = (group: string) =>
    criteria.filter((c) => c.group === group && c.verdict === 'outside').map((c) => c.id);
  return {
    controlOutside: outside('control'),
    precisionOutside: outside('precision'),
    missingRequired: criteria.filter((c) => c.required && c.verdict === 'not-seen').map((c) => c.id),
  };
}

function criterionReason(
  row: StandardRow & { unit: string },
  eye: EyeValue | null,
  measured: number | null,
  traced: boolean,
  form: CriterionForm | null,
  intended: string | null,
  dial: { ktPerUnit: number; unit: string },
): CriterionReason {
  if (form === null) return { code: 'not-seen' };
  if (form === 'measured' && measured !== null && row.measured) {
    const { low, high } = row.measured;
    const k = dial.ktPerUnit;
    return row.id === 'speed'
      ? {
          code: 'speed',
          params: {
            from: traced ? 'trace' : 'dial',
            off: measured / k,
            low: -low / k,
            high: high / k,
            unit: dial.unit,
          },
        }
      : { code: 'measured', params: { value: measured, low, high, unit: row.unit } };
  }
  const by = { row: { eye: row.eye }, intended };
  if (form === 'asserted') return { code: 'asserted', params: by };
  if (eye !== null && typeof eye === 'object' && 'count' in eye)
    return eye.handling === 'pushed' && eye.count > 0
      ? { code: 'pushed', params: { count: eye.count } }
      : { code: 'bounced', params: { ...by, count: eye.count, handling: eye.handling } };
  return { code: 'seen', params: { ...by, eye } };
}

function classReason(result: ReturnType<typeof assessLanding>, intervention: number | null): ComputedReason {
  switch (result.landingClass) {
    case 'demonstration':
      return { code: 'demonstration' };
    case 'outside':
      return result.controlOutside.length > 0
        ? { code: 'control', params: { outside: result.controlOutside } }
        : { code: 'trigger' };
    case 'assisted':
      return { code: intervention === 3 ? 'took-over' : 'assisted' };
    case 'not-judged':
      return intervention === null
        ? { code: 'nobody-named' }
        : { code: 'not-seen', params: { missing: result.missingRequired } };
    case 'prompted':
      return { code: 'prompted' };
    case 'own-off-target':
      return { code: 'off-target', params: { outside: result.precisionOutside } };
    case 'own':
      return { code: 'own' };
  }
}

const goAroundReason = ({ decision, execution }: GoAroundResult, landing: CapturedLanding): ComputedReason => ({
  code: 'go-around',
  params: {
    decision,
    execution,
    word: landing.goAroundWord,
    announced: landing.announced ?? null,
    from: landing.goAroundFrom ?? null,
    why: landing.goAroundWhy ?? null,
    outside: Object.entries(landing.goAroundExecution)
      .filter(([, v]) => v === 'outside')
      .map(([k]) => k),
  },
});
