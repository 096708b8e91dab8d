import type { House } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { say } from '@/domain/words';
import { iasToCas } from '../air';
import { ageText, besideLimit, downTo, fixed, list, metresUp, upTo, withUnit } from '../format';
import type { BriefResult } from './brief';
import type { OneEngineToday } from './one-engine';

/** How a governing limit is named inside a sentence. */
const LIMIT_NAME: Record<string, string> = {
  limitation: 'flight-manual limitation',
  airframe: 'limit of this airframe',
  house: 'school limit',
  instructor: 'instructor\u2019s own limit',
  pilotStep: 'pilot\u2019s step',
};

/**
 * The sentence that answers: how the crosswind on the chosen runway stands, and which limit governs.
 * @returns two sentences: how the wind stands, and which limit governs
 */
export function crosswindSentences(
  result: BriefResult,
  runwayEnd: string,
  pilotFirstName: string,
): { lead: string; verdict: string } {
  const used = result.runways.find((r) => r.ident === runwayEnd);
  const { crosswind } = result;
  if (!used || result.windAgeMin === null)
    return { lead: 'No wind is known.', verdict: 'No verdict: paste a report or type the wind you see.' };
  const side = used.crosswindKt > 0 ? 'right' : 'left';
  const [meanKt, gustKt] = [Math.abs(used.crosswindKt), Math.abs(used.gustCrosswindKt ?? 0)];
  const [limitText = '', mean = '', inGusts = ''] =
    crosswind.governingKt === null
      ? ['', upTo(meanKt), upTo(gustKt)]
      : besideLimit(crosswind.governingKt, meanKt, gustKt);
  const gust = used.gustCrosswindKt === null ? '' : `, ${inGusts} in gusts`;
  const lead = Number(mean) === 0 && !gust ? 'No crosswind.' : `Crosswind ${mean} kt from the ${side}${gust}.`;
  if (crosswind.reason === 'no-recent-wind') {
    return {
      lead,
      verdict:
        result.windAgeMin < -5
          ? 'No verdict: this wind is timed in the future.'
          : `No verdict: this wind is ${ageText(result.windAgeMin)} old, more than 10 min. Type the wind you see now.`,
    };
  }
  if (crosswind.reason === 'not-a-number')
    return { lead, verdict: 'No verdict: a wind or a limit here is not a number. Look at the sheet and the wind.' };
  if (crosswind.reason === 'not-proven')
    return {
      lead,
      verdict: `No verdict without an instructor: no crosswind is on record for ${pilotFirstName} in this group. With an instructor first.`,
    };
  if (crosswind.reason === 'no-limit')
    return {
      lead,
      verdict: crosswind.aboveDemonstrated
        ? 'Above the demonstrated value, and no limit known: no verdict. The flight manual and you decide.'
        : 'No limit is known for this aeroplane, so there is no verdict.',
    };
  const limit = LIMIT_NAME[crosswind.governingKind ?? ''] ?? 'limit';
  const source = crosswind.governingSource ?? '';
  // The source is not said twice where the name of the limit says it.
  const governs = `${limit} of ${limitText} kt governs${source.endsWith(limit) ? '' : ` (${source})`}`;
  const parts: string[] = [];
  if (crosswind.meanVerdict === 'outside') parts.push('the mean is beyond the governing limit');
  else if (crosswind.gustVerdict === 'outside') parts.push('the gusts pass a limit');
  else if (crosswind.meanVerdict === 'edge' || crosswind.gustVerdict === 'edge')
    parts.push(crosswind.aboveDemonstrated ? 'above the demonstrated value' : 'close to the limit');
  // The first thing to know of a runway that is the wrong way round.
  if (crosswind.tailwindVerdict && crosswind.tailwindVerdict !== 'within')
    parts.unshift(tailwindPart(result, used, crosswind.tailwindVerdict === 'outside'));
  if (crosswind.gustSpreadVerdict === 'outside') parts.push('the gust spread is beyond the school limit');
  const why = parts.length > 0 ? `: ${parts.join('; ')}` : '';
  const word = say(crosswind.verdict ?? 'not-seen');
  const step = crosswind.abovePilotStep ? ` Above ${pilotFirstName}\u2019s personal limit; your limit governs.` : '';
  return { lead, verdict: `${word.charAt(0).toUpperCase()}${word.slice(1)}${why}. The ${governs}.${step}` };
}

/** A tailwind at or beyond its limit, with both and whose limit it is. */
function tailwindPart(result: BriefResult, used: BriefResult['runways'][number], beyond: boolean): string {
  const where = beyond ? 'beyond' : 'near';
  const limit = result.tailwindLimit;
  if (!limit) return `tailwind ${where} its limit`;
  const [limitText = '', mean = '', inGusts = ''] = besideLimit(limit.kt, used.tailwindKt, used.gustTailwindKt ?? 0);
  const gust = (used.gustTailwindKt ?? 0) > used.tailwindKt ? `, ${inGusts} in gusts` : '';
  const whose = limit.of === 'sheet' ? 'flight manual\u2019s' : 'school\u2019s';
  return `tailwind ${mean} kt${gust}, ${where} the ${whose} tailwind limit of ${limitText} kt`;
}

/**
 * How a gate is configured, in words; says so where no flap setting is given, and nothing of what the aeroplane has not.
 * @returns flap and gear, such as `flap 30°, gear down`; empty without flap and with a fixed gear
 * @example gateConfiguration({ flapDeg: 40, flapWithheld: true, gear: 'fixed' }, true) // 'no flap setting'
 */
export function gateConfiguration(
  gate: Pick<BriefResult['gates'][number], 'flapDeg' | 'flapWithheld' | 'gear'>,
  hasFlap: boolean,
): string {
  return [
    ...(hasFlap ? [gate.flapWithheld ? 'no flap setting' : `flap ${gate.flapDeg}\u00b0`] : []),
    ...(gate.gear === 'fixed' ? [] : [`gear ${gate.gear}`]),
  ].join(', ');
}

/** A trigger that names the speed at the threshold; a school's own rules may still say fence. */
const AT_THRESHOLD = /threshold|fence/;

/**
 * When to go around today: the school's triggers with the numbers of the day, the stabilised gate, and the lost view
 * where the nose hides the runway.
 * @returns one sentence a trigger, the stabilised gate first
 */
export function goAroundTriggers(
  result: Pick<BriefResult, 'gates' | 'landmark' | 'stabilised' | 'unit'>,
  house: Pick<House, 'triggers'>,
  sheet: Pick<TypeSheet, 'attributes'>,
): string[] {
  const last = result.gates[result.gates.length - 1];
  const view = sheet.attributes.find((a) => a.key === 'over-nose')?.value;
  return [
    ...house.triggers.map((t) =>
      AT_THRESHOLD.test(t) && last?.target
        ? `${t} (${withUnit(last.target, result.unit)})`
        : t.includes('landmark') && result.landmark
          ? `${t}: the ${result.landmark.name}, ${withUnit(result.landmark.alongM, 'm')}`
          : t,
    ),
    ...(view !== undefined && view !== 'clear' ? ['runway lost from sight'] : []),
    `not stabilised at ${withUnit(result.stabilised.heightFt, 'ft')}, ${result.stabilised.altimeterFt} QNH`,
  ];
}

/**
 * What the instructor's seat does not reach, or only sees; empty when it reaches everything on the sheet.
 * @returns one phrase a control or instrument
 * @example
 * seatLacks({ instructorSeat: [{ control: 'brakes', reach: 'not reached', note: '' }] })
 * // ['Not reached: brakes']
 */
export function seatLacks(sheet: Pick<TypeSheet, 'instructorSeat'>): string[] {
  const of = (reach: 'not reached' | 'seen only') =>
    sheet.instructorSeat.filter((s) => s.reach === reach).map((s) => (s.note ? `${s.control} (${s.note})` : s.control));
  return (['not reached', 'seen only'] as const).flatMap((reach) =>
    of(reach).length === 0 ? [] : [`${reach === 'not reached' ? 'Not reached' : 'Seen only'}: ${list(of(reach))}`],
  );
}

/** From this on the dial's own error is said beside the speeds, in its unit. */
const ERROR_SAID = 3;

/**
 * The greatest known error of the dial at the speeds of this page, in words; null below 3 of its unit.
 * @returns a sentence, or null
 */
export function dialError(
  result: Pick<BriefResult, 'gates' | 'vsToday' | 'unit'>,
  sheet: Pick<TypeSheet, 'dial'>,
): string | null {
  const readings = [...result.gates.map((g) => g.target), ...result.vsToday.map((v) => v.dial)].filter(
    (r): r is number => r !== null,
  );
  const worst = readings
    .map((reading) => ({ reading, error: iasToCas(reading, sheet.dial.table).cas - reading }))
    .sort((a, b) => Math.abs(b.error) - Math.abs(a.error))[0];
  if (!worst || Math.abs(worst.error) < ERROR_SAID) return null;
  const much = `${fixed(Math.abs(worst.error), 1)}\u00a0${result.unit}`;
  return `This dial reads ${much} ${worst.error < 0 ? 'more' : 'less'} than the aeroplane flies at ${fixed(worst.reading)}\u00a0${result.unit} (${sheet.dial.ref}). The speeds here are readings of this dial.`;
}

const WHERE: Record<OneEngineToday['at'][number]['where'], string> = {
  field: 'At aerodrome elevation',
  circuit: 'At circuit height',
  demonstration: 'At demonstration height',
};
const rate = (fpm: number): string =>
  fpm >= 0 ? `climbs ${downTo(fpm)}\u00a0ft/min` : `descends ${upTo(-fpm)}\u00a0ft/min`;

/**
 * One engine stopped, in sentences: the same on the screen and on the card.
 * @returns one sentence a line
 */
export function oneEngineLines(o: OneEngineToday, runwayEnd: string): string[] {
  const lines: string[] = [];
  if (o.missing.length > 0) lines.push(`${list(o.missing)} not known: no one-engine climb is given`);
  // The conditions of the number are said once, with the first.
  const said = ({ where, climb }: OneEngineToday['at'][number]): string =>
    climb.words === null || climb.gradientFtPerNm === null
      ? ''
      : where === 'field'
        ? `, ${climb.words}`
        : climb.gradientFtPerNm >= 0
          ? `, ${downTo(climb.gradientFtPerNm)}\u00a0ft per NM`
          : `, ${upTo(-climb.gradientFtPerNm)}\u00a0ft per NM down`;
  for (const at of o.at) {
    if (at.climb.rocFpm === null) continue;
    lines.push(`${WHERE[at.where]}, ${withUnit(Math.round(at.altitudeFt), 'ft')}: ${rate(at.climb.rocFpm)}${said(at)}`);
  }
  if (o.absoluteCeilingFt !== null)
    lines.push(
      `Ceiling on one engine today ${downTo(o.absoluteCeilingFt / 100)}00\u00a0ft${o.serviceCeilingFt === null ? '' : `; 50\u00a0ft/min are left at ${downTo(o.serviceCeilingFt / 100)}00\u00a0ft`}`,
    );
  if (o.drift && o.drift.timeMin > 0)
    lines.push(
      `From ${fixed(o.drift.fromAltitudeFt / 100)}00\u00a0ft it drifts down at ${upTo(o.drift.initialSinkFpm)}\u00a0ft/min at first; ${downTo(o.drift.timeMin)}\u00a0min and ${downTo(o.drift.distanceNm)}\u00a0NM to ${downTo(o.drift.endAltitudeFt / 100)}00\u00a0ft, still air`,
    );
  if (o.stop)
    lines.push(
      o.stop.neededM === null
        ? `Accelerate and stop: ${o.stop.words ?? 'not known'}`
        : `Accelerate and stop ${metresUp(o.stop.neededM)}${o.stop.edge ? ' (table\u2019s edge used)' : ''}, ${
            (o.stop.marginM ?? 0) >= 0
              ? `${metresUp(Math.floor(o.stop.marginM ?? 0))} in hand`
              : `${metresUp(-(o.stop.marginM ?? 0))} too short`
          }${o.stop.abortM === null ? '' : `; abort point ${downTo(o.stop.abortM / 10)}0\u00a0m from the start, then it no longer stops`}`,
    );
  if (o.obstacle)
    lines.push(
      `${o.obstacle.name}, ${withUnit(o.obstacle.heightFt, 'ft')}, ${withUnit(o.obstacle.pastEndM, 'm')} past the end of ${runwayEnd}: ${
        o.obstacle.neededFtPerNm === null
          ? 'no climb clears it'
          : `asks ${upTo(o.obstacle.neededFtPerNm)}\u00a0ft per NM from 50\u00a0ft over the end`
      }, ${o.obstacle.verdict === 'clears' ? 'less than it has' : o.obstacle.verdict === null ? 'not known whether it clears' : 'more than it has on one engine'}`,
    );
  lines.push(`On one engine no go-around below ${withUnit(o.noGoAroundBelowFt, 'ft')}`);
  return lines;
}
