/** The catalogue of the forecast: why it tells nothing. */
import { type Coded, sentence } from '@/domain/coded';

export const FORECAST_WORDS = {
  'too-few': ({ landings, least }: { landings: number; least: number }) =>
    `Not enough to tell yet: ${landings} judged ${landings === 1 ? 'landing' : 'landings'}, at least ${least} are needed.`,
  'run-there': () => 'The run is complete.',
  'too-wide': ({ in100, within }: { in100: number; within: number }) =>
    `Not enough to tell yet: in ${in100} of 100 trials it takes more than ${within} landings.`,
} as const;
export type ForecastSilence = Coded<typeof FORECAST_WORDS>;
/** Why the forecast tells nothing, as a sentence. */
export const forecastWords = (why: ForecastSilence): string => sentence(FORECAST_WORDS, why);
