/** What this room's commands say, by code. */
import { SHARED_WORDS, teller } from '../floor/sentences';

export const RUNNING_WORDS = {
  ...SHARED_WORDS,
  'link-used': () =>
    'This set-up link was used, or a newer one was made. Sign in, or make another with npm run school.',
  'too-many-tries': ({ seconds }: { seconds: number }) => `Too many tries. Wait ${seconds} s, then try again.`,
  'chief-sets-up': () => 'The chief instructor sets up the school.',
  'aerodrome-known': ({ ident }: { ident: string }) => `${ident} is entered already. Change it in Settings.`,
  'set-up-already': () => 'The aerodrome is set up. Change it in Settings.',
  'no-variation': () => 'The magnetic model does not hold here. Type the variation of the chart.',
  'other-end': () => 'Two runways have this end. Name them apart, such as 04L and 04R.',
  'bearing-far': ({ ident, magnetic }: { ident: string; magnetic: number }) =>
    `This is ${magnetic}\u00b0 magnetic, too far from a runway painted ${ident}. Check bearing, variation and name.`,
  'both-elevations': () => 'Give the elevation of both ends, or of neither.',
  'time-zone': () => 'This is not a time zone. Write it like Europe/Lisbon.',
};
export const told = teller(RUNNING_WORDS);
