/**
 * What happened where the screen says stop: the record keeps it, and it is no evidence of a safety item. Pure, and the
 * same on the device and on the server. Feet, knots, seconds.
 */
import type { AirworkDetail, CapturedLanding, GearChecked } from '@/domain/capture';
import type { Stop, StopRules } from '@/domain/stops';
import { SLACK } from '../constants';
import { besideLimit, fixed, list } from '../format';
import { needNumbers } from '../guard';
import { gearSurface } from '../water';
import { WIND_GOOD_FOR_MIN, components } from '../wind';
import { simulatedFailureAllowed } from './simulated';

/** The last check of the wheels before a landing, and what happened since. */
export interface GearBefore {
  at: string;
  check: Pick<GearChecked, 'surface' | 'lamps' | 'seen' | 'spoken' | 'onFinal'>;
  since: readonly string[];
}

const TOUCHES: ReadonlySet<string> = new Set(['full-stop', 'touch-and-go']);
/** Real limits: what may stop a flight. A demonstrated value and a pilot's step in dual flight are none. */
const REAL: readonly string[] = ['limitation', 'airframe', 'house', 'instructor'];

/**
 * Stops of one landing: the wind against every real limit, and the wheels of an amphibian against the surface touched.
 * A wind that was not logged, or not within ten minutes, is not known and stops nothing; it proves nothing either.
 * @param touchedAt ISO instant at which it stopped or climbed away
 * @returns one entry a check at stop that was flown past
 * @throws BadNumber when a number handed in is none
 * @example landingStops(onWater, '2026-11-24T10:00:00Z', amphibianRules, null)[0]?.code // 'wheels'
 */
export function landingStops(
  landing: Pick<CapturedLanding, 'kind' | 'runwayEnd' | 'wind'> & Partial<Pick<CapturedLanding, 'wheelsRepeated'>>,
  touchedAt: string,
  rules: StopRules,
  gear: GearBefore | null,
): Stop[] {
  needNumbers('landingStops', { wind: landing.wind, rules });
  if (!TOUCHES.has(landing.kind)) return [];
  const runway = rules.runways.find((r) => r.ident === landing.runwayEnd);
  return [
    ...(runway ? windStops(landing, touchedAt, rules, runway.magneticDeg) : []),
    ...wheelStops(runway, touchedAt, rules, gear, landing.wheelsRepeated === 'said'),
  ];
}

function windStops(
  { wind }: Pick<CapturedLanding, 'wind'>,
  touchedAt: string,
  rules: StopRules,
  runwayDeg: number,
): Stop[] {
  if (!wind) return [];
  const ageMin = Math.abs(Date.parse(touchedAt) - Date.parse(wind.at)) / 60_000;
  if (!(ageMin <= WIND_GOOD_FOR_MIN)) return [];
  const w = components(wind.fromDegMag, wind.kt, wind.gustKt, runwayDeg);
  const acrossKt = Math.max(Math.abs(w.crosswindKt), Math.abs(w.gustCrosswindKt ?? 0));
  const tailKt = Math.max(-w.headwindKt, -(w.gustHeadwindKt ?? w.headwindKt), 0);
  const spreadKt = wind.gustKt === null ? 0 : wind.gustKt - wind.kt;
  const passes = (kind: string) => REAL.includes(kind) && !(rules.schoolOverridden && kind === 'house');
  const stops: Stop[] = rules.limits
    .filter((l) => passes(l.kind) && acrossKt > l.valueKt + SLACK)
    .sort((a, b) => REAL.indexOf(a.kind) - REAL.indexOf(b.kind))
    .slice(0, 1)
    .map((l) => ({
      code: 'wind',
      facts: { of: 'crosswind', kind: l.kind, source: l.source, limitKt: l.valueKt, kt: acrossKt },
    }));
  const { tailwind } = rules;
  if (tailwind && passes(tailwind.kind) && tailKt > tailwind.valueKt + SLACK)
    stops.push({
      code: 'wind',
      facts: { of: 'tailwind', kind: tailwind.kind, source: tailwind.source, limitKt: tailwind.valueKt, kt: tailKt },
    });
  if (rules.gustSpreadKt !== null && passes('house') && spreadKt > rules.gustSpreadKt + SLACK)
    stops.push({
      code: 'wind',
      facts: { of: 'gust spread', kind: 'house', source: 'house rules', limitKt: rules.gustSpreadKt, kt: spreadKt },
    });
  return stops;
}

function wheelStops(
  runway: { surface: string } | undefined,
  touchedAt: string,
  rules: StopRules,
  gear: GearBefore | null,
  repeated: boolean,
): Stop[] {
  if (!rules.lamps) return [];
  const surface = runway ? (runway.surface === 'water' ? 'water' : 'land') : null;
  const stop = (why: string, reasons: readonly string[]): Stop[] => [
    { code: 'wheels', facts: { surface, why, reasons } },
  ];
  if (!gear) return stop('not-made', []);
  if (gear.check.surface !== surface) return stop('other-surface', [gear.check.surface ?? 'not stated']);
  const answer = gearSurface({
    ...gear.check,
    lampMeaning: rules.lamps,
    ageS: (Date.parse(touchedAt) - Date.parse(gear.at)) / 1000,
    eventsSince: gear.since,
    onFinal: true,
    // Spoken on final and entered once stopped; it mends nothing else that the check stopped for.
    madeOnFinal: gear.check.onFinal || repeated,
  });
  return answer.decision === 'agree' ? [] : stop('stop', answer.reasons);
}

/**
 * Stops of one item of airwork: below its floor, or a simulated failure outside its rules. A height that nobody noted
 * is not known, and a failure without one is outside its rules.
 * @returns one entry a check at stop that was flown past
 * @throws BadNumber when a number handed in is none
 * @example itemStops({ form: 'asymmetric', item: 'control-speed', heightFt: 3200, … }, { elevationFt: 1345, … })[0]?.code // 'below-floor'
 */
export function itemStops(detail: AirworkDetail | null, rules: StopRules): Stop[] {
  needNumbers('itemStops', { detail, rules });
  if (!detail) return [];
  const below = (heightFt: number | null, aboveGroundFt: number): Stop[] => {
    const floorFt = rules.elevationFt + aboveGroundFt;
    return heightFt !== null && heightFt < floorFt - SLACK
      ? [{ code: 'below-floor', facts: { heightFt, floorFt, aboveGroundFt } }]
      : [];
  };
  switch (detail.form) {
    case 'energy': {
      const heights = [detail.entry.heightFt, detail.exit.heightFt].filter((h): h is number => h !== null);
      return below(heights.length === 0 ? null : Math.min(...heights), rules.energyFloorFt);
    }
    case 'asymmetric': {
      const said: Stop[] =
        detail.saidSimulated === false
          ? [{ code: 'failure-rules', facts: { reasons: ['word-not-said'], floorFt: null } }]
          : [];
      if (detail.item === 'control-speed' && detail.heightFt !== null)
        return [...below(detail.heightFt, rules.demonstrationFt), ...said];
      return [...failureStops(detail.heightFt === null ? null : detail.heightFt - rules.elevationFt, rules), ...said];
    }
    case 'surprise':
      return failureStops(detail.heightFt, rules);
    case 'numbers':
    case 'stall':
    case 'steps':
    case 'exchange':
    case 'handling':
      return [];
  }
}

/** Against the floor alone: the speed of a failure is not captured, and is the instructor's. */
function failureStops(heightAglFt: number | null, rules: StopRules): Stop[] {
  const { reasons, floorFt } = simulatedFailureAllowed({
    heightAglFt,
    houseFloorFt: rules.failureFloorFt,
    twin: null,
    speed: null,
    airborne: true,
    realFeather: false,
  });
  return reasons.length === 0 ? [] : [{ code: 'failure-rules', facts: { reasons, floorFt, heightFt: heightAglFt } }];
}

const WIND_LIMIT: Partial<Record<string, string>> = {
  limitation: 'the limitation of the flight manual',
  airframe: 'the limit of this airframe',
  house: 'the school\u2019s limit',
  instructor: 'the instructor\u2019s own limit',
};
const RULE_WORDS: Record<string, string> = {
  'height-not-known': 'no height noted',
  'below-the-floor': 'below the floor',
  'limit-not-known': 'the floor is not known',
  'word-not-said': 'the word \u201csimulated\u201d was not said',
};

/**
 * A stop in a sentence without its full stop.
 * @example
 * stopWords({ code: 'below-floor', facts: { heightFt: 2800, floorFt: 2845, aboveGroundFt: 1500 } })
 * // 'at 2800 ft, below 2845 ft on QNH (1500 ft above the aerodrome)'
 */
export function stopWords({ code, facts }: Stop): string {
  const n = (key: string) => (typeof facts[key] === 'number' ? facts[key] : null);
  const text = (key: string) => (typeof facts[key] === 'string' ? facts[key] : '');
  const many = (key: string): string[] => (Array.isArray(facts[key]) ? [...(facts[key] as string[])] : []);
  switch (code) {
    case 'wind': {
      const [limit = '', kt = ''] = besideLimit(n('limitKt') ?? 0, n('kt') ?? 0);
      return `${text('of')} ${kt}\u00a0kt, beyond ${WIND_LIMIT[text('kind')] ?? 'a limit'} of ${limit}\u00a0kt (${text('source')})`;
    }
    case 'wheels':
      return `landed on ${text('surface') || 'a surface not known'} ${
        text('why') === 'not-made'
          ? 'with no check of the wheels'
          : text('why') === 'other-surface'
            ? `and the wheels were checked for ${many('reasons')[0] ?? 'another surface'}`
            : 'while the check of the wheels stood at stop'
      }`;
    case 'below-floor':
      return `at ${fixed(n('heightFt') ?? 0)}\u00a0ft, below ${fixed(n('floorFt') ?? 0)}\u00a0ft on QNH (${fixed(n('aboveGroundFt') ?? 0)}\u00a0ft above the aerodrome)`;
    case 'failure-rules': {
      const height = n('heightFt');
      const floor = n('floorFt');
      return `${list(many('reasons').map((r) => RULE_WORDS[r] ?? r))}${height === null ? '' : `, ${fixed(height)}\u00a0ft above the aerodrome`}${floor === null ? '' : `, floor ${fixed(floor)}\u00a0ft`}`;
    }
    case 'grounded':
      return `${text('registration')} was grounded: ${text('why')}`;
    case 'instructor':
      return `${text('name')}: ${list(many('reasons'))}`;
  }
}
