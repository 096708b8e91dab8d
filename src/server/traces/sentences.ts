/** What this room's commands say, by code. */
import { SHARED_WORDS, teller } from '../floor/sentences';

export const TRACES_WORDS = {
  ...SHARED_WORDS,
  'file-unreadable': () => 'The file cannot be read.',
  'signed-already': () => 'This checkout is signed: what it is based on stays as it was signed.',
  'landing-and-stretch': () =>
    'This landing and this stretch of the recording do not belong together any more: reload the page.',
  'item-and-stretch': () =>
    'This item and this stretch of the recording do not belong together any more: reload the page.',
  'nothing-measured': ({ item }: { item: string }) =>
    `The recording measures nothing that the standard requires of ${item}.`,
  'joined-already': () => 'A joined recording is not joined again: choose one of those it was made of.',
  'same-recording': () => 'A recording is not joined with itself: choose another of the same flight.',
  'other-flight': () => 'The two recordings were added to different flights: join two of one flight.',
  'chief-releases': () => 'A chief who neither flew nor taught this flight releases it.',
  'released-meanwhile': ({ name }: { name: string }) => `This was released by ${name} meanwhile.`,
};
export const told = teller(TRACES_WORDS);
