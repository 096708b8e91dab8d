import type { CriterionForm, CriterionVerdict, EyeValue, LandingClass, StandardRow } from '@/domain/assess-words';
import type { CapturedLanding } from '@/domain/capture';
import { touchSeen } from '@/domain/touch';
import type { Standard } from '@/domain/programme';
import { SERIOUS, type Serious, meant, say } from '@/domain/words';
import { besideLimit, downTo, fixed } from '../format';
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
/** Sink at the touch from which the aeroplane is inspected, ft/min, where the type has no number of its own. */
export const INSPECT_FPM = 600;
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
  /** Why, in words: what was seen, and what the standard asks. */
  reason: string;
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
  /** One sentence that says why the landing has its class. */
  reason: string;
  overruled?: Overruled & { computed: string };
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
  const empty = {
    criteria: [],
    controlOutside: [],
    precisionOutside: [],
    missingRequired: [],
    triggerContinued: false,
  };
  // A touch recorded as a low pass, as earlier versions let pass, is judged as the landing it was.
  if (landing.kind === 'low-pass' && !touchSeen(landing))
    return { ...empty, landingClass: 'low-pass', goAround: null, reason: 'A low pass: practised, not judged.' };
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
    aileron: landing.aileron,
    stick: landing.stick,
    rollout: landing.rollout ?? null,
    configuration: landing.configuration,
    attitude: tailLow ? 'three-point' : landing.touched,
    lateral: landing.lateral && ACROSS[landing.lateral],
    along: landing.along,
    firmness: landing.firmness,
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
    reason: criterionReason(
      row,
      eye[row.id] ?? null,
      measured[row.id] ?? null,
      row.id in traced,
      result.forms[row.id] ?? null,
      intended,
      context,
    ),
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
      ? `Not judged: ${say(landing.intervention === 1 ? 'prompted' : 'own')} and helped on ${landing.helpedOn.map(say).join(', ')} contradict. Say which it was.`
      : classReason(after, level),
  };
  return whole
    ? {
        ...judged,
        landingClass: whole.to as LandingClass,
        overruled: { ...whole, computed: judged.landingClass },
        reason: `${whole.by} says ${say(whole.to)}: ${whole.reason}. Computed: ${judged.reason}`,
      }
    : judged;
}

/** What the pilot did not fly, or of which nobody said who flew it, is never made the pilot's own by a later word. */
const PILOTS_OWN: ReadonlySet<string> = new Set(['own', 'own-off-target', 'prompted']);
/**
 * May a landing be overruled to a class? A demonstration to none; one taken over, or of which nobody said whose it was,
 * to none of the pilot's own. Whose it was is put right by a correction, which stays in sight.
 */
export const mayOverrule = (to: string, l: { demonstration: boolean; intervention: number | null }): boolean =>
  !l.demonstration && !((l.intervention === null || l.intervention === 3) && PILOTS_OWN.has(to));

const SERIOUS_REASON: Record<Serious, string> = {
  'short-of-threshold': 'Touched before the threshold',
  'off-surface': 'A wheel left the surface',
  'inspection-sink': 'Hard enough to inspect the aeroplane',
};
/** What was measured and where the edge is, each with its unit. */
function measuredWords(id: Serious, traced: Readonly<Record<string, number>>, edges: MeasuredEdges): string {
  const { along = 0, lateral = 0, firmness = 0 } = traced;
  switch (id) {
    case 'short-of-threshold':
      return `measured ${fixed(-along - (edges.shortM ?? 0), 1)} m before it`;
    case 'off-surface':
      return `measured ${fixed(Math.abs(lateral), 1)} m from the line, the edge for a wheel is at ${fixed(edges.sideM ?? 0, 1)} m`;
    case 'inspection-sink':
      return `measured ${fixed(firmness)} ft/min, an inspection is due from ${fixed(edges.inspectFpm)} ft/min`;
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
    reason: `${SERIOUS_REASON[id]}${measured[id] && edges ? ` (${measuredWords(id, traced, edges)})` : ''}: outside whatever else was seen.`,
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
    return {
      ...c,
      verdict: 'outside',
      reason: `${c.reason} In the school of this checkout any second contact is a go-around.`,
    };
  if (
    c.id === 'attitude' &&
    schools?.attitude === 'three-point' &&
    l.touched === 'tail-first' &&
    l.intended === 'three-point'
  )
    return {
      ...c,
      reason: 'Seen tail first. Meant three-point; tail-low counts as meant in the school of this checkout.',
    };
  if (c.id === 'speed' && schools?.speed === 'reducing' && c.verdict !== 'outside') {
    const stood = plateauIn(l, gates ?? []);
    if (stood)
      return {
        ...c,
        verdict: 'outside',
        form: c.form ?? 'eye',
        reason: `${c.form === null ? '' : `${c.reason} `}The speed stopped falling${stood.between ? ` between ${stood.between} (${fixed(stood.from ?? 0)} to ${fixed(stood.to ?? 0)} ${unit})` : ', as noted'}: on a falling schedule that is the fault.`,
      };
  }
  return c;
}

/**
 * A pair of gates between which the schedule falls and the speed read did not, or the note that says so. Speeds in the
 * unit of the dial.
 */
export function plateauIn(
  l: Pick<CapturedLanding, 'gateSpeeds' | 'fenceSpeed' | 'notes'>,
  gates: readonly { name: string; target: number | null }[],
): { between: string | null; from: number | null; to: number | null } | null {
  const read = gates.map((g, i) => ({
    ...g,
    speed: i === gates.length - 1 ? l.fenceSpeed : (l.gateSpeeds[g.name] ?? null),
  }));
  for (let i = 1; i < read.length; i++) {
    const [a, b] = [read[i - 1], read[i]];
    if (a?.speed == null || b?.speed == null || a.target === null || b.target === null) continue;
    if (a.target - b.target >= 2 && a.speed - b.speed < STANDS_STILL && b.speed > b.target)
      return { between: `${a.name.toLowerCase()} and ${b.name.toLowerCase()}`, from: a.speed, to: b.speed };
  }
  return l.notes.includes('speed-did-not-fall') ? { between: null, from: null, to: null } : null;
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

/** A speed about its target in the unit of the dial: the tolerance rounded down, no figure against the verdict. */
function speedReason(
  how: string,
  offKt: number,
  lowKt: number,
  highKt: number,
  { ktPerUnit, unit }: { ktPerUnit: number; unit: string },
): string {
  const [off, low, high] = [offKt / ktPerUnit, -lowKt / ktPerUnit, highKt / ktPerUnit];
  const [limit = '', seen = ''] = off >= 0 ? besideLimit(high, off) : besideLimit(low, -off);
  const allows = off >= 0 ? [downTo(low), limit] : [limit, downTo(high)];
  return `${how} ${off >= 0 ? '+' : '-'}${seen} ${unit} from the target; the standard allows -${allows[0] ?? ''} to +${allows[1] ?? ''} ${unit}.`;
}

function criterionReason(
  row: StandardRow & { unit: string },
  eye: EyeValue | null,
  measured: number | null,
  traced: boolean,
  form: CriterionForm | null,
  intended: string | null,
  dial: { ktPerUnit: number; unit: string },
): string {
  if (form === null) return 'Nobody looked: not seen, and not assumed good.';
  if (form === 'measured' && measured !== null && row.measured) {
    const { low, high } = row.measured;
    if (row.id === 'speed') return speedReason(traced ? 'Measured' : 'Read', measured, low, high, dial);
    const digits = row.unit === 'count' || row.unit === 'fpm' ? 0 : 1;
    return `Measured ${low < 0 && measured >= 0 ? '+' : ''}${fixed(measured, digits)}${row.unit === 'count' ? '' : ` ${row.unit}`}; the standard allows ${fixed(low)} to ${low < 0 ? '+' : ''}${fixed(high)}${row.unit === 'count' ? '' : ` ${row.unit}`}.`;
  }
  const asked = standardAsks(row, intended);
  if (form === 'asserted') return `Asserted by the clean tap: none. ${asked}`;
  if (eye !== null && typeof eye === 'object' && 'count' in eye) {
    const handling = eye.handling ? `, ${say(eye.handling)}` : '';
    return eye.handling === 'pushed' && eye.count > 0
      ? `${eye.count} \u00d7 ${handling.slice(2)}: a push in a bounce is outside at any count.`
      : `Seen ${eye.count}${handling}. ${asked}`;
  }
  const word =
    typeof eye === 'string' ? say(eye) : eye ? `${say(eye.band)}${eye.side ? ` ${eye.side}` : ''}` : 'not seen';
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
    case 'demonstration':
      return 'Flown by the instructor: not counted for the pilot.';
    case 'outside':
      return result.controlOutside.length > 0
        ? `Outside in control: ${names(result.controlOutside)}.`
        : 'The go-around trigger was met and the approach continued.';
    case 'assisted':
      return intervention === 3 ? 'The instructor took control.' : 'Flown with help on the controls.';
    case 'not-judged':
      return intervention === null
        ? 'Whose landing it was is not recorded, so it is not judged.'
        : `Not judged: ${names(result.missingRequired)} not seen.`;
    case 'prompted':
      return 'Flown by the pilot after a word from the instructor.';
    case 'own-off-target':
      return `The pilot\u2019s own; off target: ${names(result.precisionOutside)}.`;
    case 'own':
      return 'The pilot\u2019s own and in standard.';
  }
}

function goAroundReason(result: GoAroundResult, landing: CapturedLanding): string {
  const decision: Record<GoAroundResult['decision'], string> = {
    sound: `A sound decision, ${say(landing.goAroundWord ?? 'before')}${landing.announced ? ` announced: ${say(landing.announced)}` : ''}`,
    late: 'Decided late, and better than continued',
    told: 'Told to go, for safety',
    neutral: `Flown as ${landing.goAroundWord === 'traffic' ? 'the traffic asked' : 'an exercise'}`,
    'not-judged': 'When it was decided is not recorded',
    demonstration: 'The instructor\u2019s demonstration',
  };
  const outside = Object.entries(landing.goAroundExecution)
    .filter(([, v]) => v === 'outside')
    .map(([k]) => say(k));
  const execution: Record<GoAroundResult['execution'], string> = {
    good: 'flown well',
    prompted: 'flown after a word',
    assisted: 'flown with help',
    outside: `outside in ${outside.join(', ')}`,
    'not-judged': 'how it was flown was not all seen',
    demonstration: 'not counted',
  };
  const began = [
    ...(landing.goAroundFrom ? [`from the ${say(landing.goAroundFrom)}`] : []),
    ...(landing.goAroundWhy ? [say(landing.goAroundWhy)] : []),
  ];
  return `${[decision[result.decision], ...began].join(', ')}; ${execution[result.execution]}.`;
}
