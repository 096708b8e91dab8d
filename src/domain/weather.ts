/** Why there is no report, or not a good one: `unreadable` = text came and no report was in it. */
export const WEATHER_SAID = {
  waiting: 'The weather address has not answered yet.',
  'no-address': 'The weather address in Settings cannot be read as an address.',
  'not-allowed': 'The weather address leads to a private or local address, which is not allowed.',
  down: 'The weather address cannot be reached.',
  slow: 'The weather address did not answer within 5 s.',
  'too-large': 'The weather address sent more than 64 kB, which is no report.',
  refused: 'The weather address answered with an error, or led to another address.',
  unreadable: 'The weather address sent no report that can be read.',
  stale: 'The newest report is more than 75 min old.',
} as const;
export type WeatherProblem = keyof typeof WEATHER_SAID;

/** What is known of the weather at home, and by whom; nothing known is an answer too. */
export interface Weather<Wind> {
  source: 'address' | 'simulated' | 'none';
  report: { text: string; wind: Wind; observedAt: string } | null;
  forecast: string | null;
  problem: WeatherProblem | null;
}
