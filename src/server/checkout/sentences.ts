/** What this room's commands say, by code. */
import { dateText, downTo } from '@/core/format';
import { SHARED_WORDS, teller } from '../floor/sentences';

export const CHECKOUT_WORDS = {
  ...SHARED_WORDS,
  'own-checkout': () => 'You cannot open a checkout for yourself: another instructor opens it.',
  'pilot-unknown': () => 'This pilot is not on record. Choose another.',
  'aeroplane-unknown': () => 'This aeroplane is not in the hangar. Choose another.',
  samples: ({ count }: { count: number }) =>
    `${count === 1 ? '1 entry' : `${count} entries`} of its type sheet ${count === 1 ? 'is a sample' : 'are samples'} nobody has confirmed. ` +
    `The chief instructor confirms each from the flight manual in the hangar.`,
  'standard-unknown': () => 'This standard is not set up. Choose another.',
  'no-programme': ({ goals }: { goals: string }) =>
    `There is no programme yet for ${goals} under these rules. Leave it out here until the chief instructor has added one.`,
  'goal-not-here': ({ goals, registration }: { goals: string; registration: string }) =>
    `${goals} cannot be flown in ${registration}: leave it out here.`,
  'rating-not-on-record': ({ rating, citation }: { rating: string; citation: string }) =>
    `The law requires ${rating} to teach this (${citation}), and it is not on your record.`,
  'instructor-lacks': ({ kinds }: { kinds: string }) =>
    `This aeroplane requires what you do not hold: ${kinds}. Another instructor briefs it.`,
  'model-hours': (h: { have: number; needed: number; inCommand: boolean; within: string; citation: string }) =>
    `You have ${downTo(h.have, 1)} h ${h.inCommand ? 'known to be in command ' : ''}in this ${h.within}; ` +
    `${h.needed} h are required to teach it (${h.citation}).`,
  'not-open': () => 'This checkout is signed, or waits for its examiner. Open a new one to go on.',
  'brief-too-early': () => 'Brief at most two weeks ahead.',
  'aerodrome-unknown': () => 'Choose an aerodrome of the school; others are added in Settings.',
  'runway-unknown': () => 'Choose a runway of this aerodrome.',
  'fuel-over-tanks': ({ usableL }: { usableL: number }) => `The tanks hold ${usableL} L usable. Give at most that.`,
  'before-last-lesson': ({ lesson, flownOn }: { lesson: number; flownOn: string }) =>
    `Lesson ${lesson} was flown on ${flownOn}: the next cannot be before it.`,
  'brief-saved-meanwhile': (b: { by: string; lesson: number; flownOn: string; runwayEnd: string; fuelL: number }) =>
    `${b.by} saved a brief of lesson ${b.lesson} meanwhile: ${dateText(b.flownOn)}, runway ${b.runwayEnd}, ` +
    `${b.fuelL} L. Save again to replace it with yours.`,
  'recorded-meanwhile': ({ lesson }: { lesson: number }) =>
    `Something of lesson ${lesson} was recorded meanwhile. Save again to brief the next lesson.`,
  'flown-meanwhile': ({ lesson }: { lesson: number }) =>
    `Lesson ${lesson} has been flown: its brief is no longer acknowledged. Read its debrief.`,
  'chief-sets-order': () => 'The chief instructor sets the school order.',
  'newer-version': () => 'There is a newer version than the one shown. Reload the page and read the differences.',
  'flown-already': ({ registration }: { registration: string }) => `It is flown in ${registration} already.`,
  'other-type': ({ registration, type }: { registration: string; type: string }) =>
    `${registration} is no ${type}. Open a checkout for it.`,
  'chief-adds-items': () => 'The chief instructor adds items to a programme.',
  'programme-meanwhile': ({ version }: { version: number }) =>
    `Version ${version} of this programme was saved meanwhile. Reload the page and add the item to it.`,
  'item-there': ({ title }: { title: string }) => `The programme has “${title}” already. Give this one another name.`,
  'newest-already': () => 'This checkout already runs under the newest versions.',
};
export const told = teller(CHECKOUT_WORDS);
