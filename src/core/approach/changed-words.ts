/** The catalogue of what changed from one brief to the next, as a pilot is told it. */
import { type Coded, coder, sentence } from '@/domain/coded';
import { say } from '@/domain/words';

export const CHANGED_WORDS = {
  aerodrome: ({ to }: { to: string }) => `flown at ${to}`,
  runway: ({ to }: { to: string }) => `runway ${to}`,
  'wind-none': () => 'no wind briefed yet',
  calm: () => 'no crosswind',
  wind: ({ kt, side }: { kt: number; side: 'left' | 'right' }) => `crosswind ${kt} kt from the ${side}`,
  flap: ({ deg }: { deg: number }) => (deg === 0 ? 'flap up' : `flap ${deg}°`),
  speed: ({ to, unit }: { to: number; unit: 'kt' | 'mph' }) => `${to} ${unit} over the threshold`,
  intended: ({ to }: { to: string }) => `${say(to)} landings`,
  night: ({ night }: { night: boolean }) => (night ? 'at night' : 'by day'),
} as const;
export type BriefChange = Coded<typeof CHANGED_WORDS>;
export const briefChange = coder(CHANGED_WORDS);
/** One change, to stand in a list. */
export const changeWords = (c: BriefChange): string => sentence(CHANGED_WORDS, c);
