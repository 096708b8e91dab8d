/** The catalogue of a chief's week: what was set aside, refused, flown past or exceeded. */
import { fixed } from '@/core/format';
import { type Coded, coder, sentence } from '@/domain/coded';
import { meant } from '@/domain/words';

interface Said {
  what: string;
  reason: string;
}
const with_ = (reason: string): string => (reason === '' ? '' : `: ${reason}`);
export const WEEK_WORDS = {
  'override-asked': ({ what, reason }: Said) => `Override of ${what} asked for${with_(reason)}`,
  'override-approved': ({ what, reason }: Said) => `Override of ${what} approved${with_(reason)}`,
  'override-declined': ({ what, reason }: Said) => `Override of ${what} declined${with_(reason)}`,
  'override-withdrawn': ({ what, reason }: Said) => `Override of ${what} withdrawn${with_(reason)}`,
  'not-yet': ({ what }: Said) => `Signature refused, further training in ${what}`,
  overruled: ({ what, reason }: Said) =>
    `Verdict of ${what === 'class' ? 'a landing' : what === 'item' ? 'an item' : meant(what)} overruled${with_(reason)}`,
  'limit-overridden': ({ reason }: Said) => `A limit of the school set aside for one flight${with_(reason)}`,
  'item-waived': ({ what, reason }: Said) => `${what} waived${with_(reason)}`,
  stop: ({ words, explained }: { words: string; explained: string | null }) =>
    `Flown past a stop: ${words}. ${explained ? `Explained: ${explained}` : 'No reason is given yet.'}`,
  exceeded: (l: { limit: string; measured: { limit: number; peak: number; unit: string } | null; released: boolean }) =>
    `${l.limit} exceeded${l.measured ? `: ${fixed(l.measured.peak, 1)} ${l.measured.unit}, limit ${fixed(l.measured.limit)} ${l.measured.unit}` : ', seen by eye'}; ` +
    (l.released ? 'released' : 'not released'),
} as const;
export type WeekSaid = Coded<typeof WEEK_WORDS>;
export const weekSaid = coder(WEEK_WORDS);
export const weekText = (said: WeekSaid): string => sentence(WEEK_WORDS, said);
