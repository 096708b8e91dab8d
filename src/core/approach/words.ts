import { say } from '@/domain/words';
import { ageText, besideLimit, upTo } from '../format';
import type { BriefResult } from './brief';

/** How a governing limit is named inside a sentence. */
const LIMIT_NAME: Record<string, string> = {
  limitation: 'flight-manual limitation',
  airframe: 'limit of this airframe',
  house: 'house limit',
  instructor: 'instructor\u2019s own limit',
  pilotStep: 'pilot\u2019s step',
};

/** The sentence that answers: how the crosswind on the chosen runway stands, and which limit governs. */
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
  if (crosswind.reason === 'no-limit')
    return {
      lead,
      verdict: crosswind.aboveDemonstrated
        ? 'Above the demonstrated value, and no limit known: no verdict. The flight manual and you decide.'
        : 'No limit is known for this aeroplane, so there is no verdict.',
    };
  const governs = `${LIMIT_NAME[crosswind.governingKind ?? ''] ?? 'limit'} of ${limitText} kt governs (${crosswind.governingSource ?? ''})`;
  const parts: string[] = [];
  if (crosswind.meanVerdict === 'outside') parts.push('the mean is beyond the governing limit');
  else if (crosswind.gustVerdict === 'outside') parts.push('the gusts pass a limit');
  else if (crosswind.meanVerdict === 'edge' || crosswind.gustVerdict === 'edge')
    parts.push(crosswind.aboveDemonstrated ? 'above the demonstrated value' : 'close to the limit');
  if (crosswind.tailwindVerdict && crosswind.tailwindVerdict !== 'within')
    parts.push(`tailwind ${crosswind.tailwindVerdict === 'outside' ? 'beyond' : 'near'} its limit`);
  if (crosswind.gustSpreadVerdict === 'outside') parts.push('the gust spread is beyond the house\u2019s');
  const why = parts.length > 0 ? `: ${parts.join('; ')}` : '';
  const word = say(crosswind.verdict ?? 'not-seen');
  const step = crosswind.abovePilotStep ? ` Above ${pilotFirstName}\u2019s step; your limit governs.` : '';
  return { lead, verdict: `${word.charAt(0).toUpperCase()}${word.slice(1)}${why}. The ${governs}.${step}` };
}

/** How a gate is configured, in words; says so where no flap setting is given. */
export function gateConfiguration(
  gate: Pick<BriefResult['gates'][number], 'flapDeg' | 'flapWithheld' | 'gear'>,
  hasFlap: boolean,
): string {
  const flap = !hasFlap ? 'no flap' : gate.flapWithheld ? 'no flap setting' : `flap ${gate.flapDeg}\u00b0`;
  return gate.gear === 'fixed' ? flap : `${flap}, gear ${gate.gear}`;
}
