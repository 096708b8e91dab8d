/** What this room's commands say, by code. */
import { SHARED_WORDS, teller } from '../floor/sentences';

export const DEBRIEF_WORDS = {
  ...SHARED_WORDS,
  'choose-verdict': () => 'Choose one of the verdicts.',
  'landing-gone': () => 'This landing is not there any more. Reload the page.',
  'go-around-decision': () => 'A go-around has no verdict of its own to overrule: correct its decision in the cockpit.',
  'your-demonstration': () =>
    'This was your demonstration: it is no landing of the pilot’s. If it was none, correct it in the cockpit.',
  'not-the-pilots': () =>
    'Who flew it is not recorded, or you took over: it cannot be overruled to unassisted. Correct who flew it in the cockpit.',
  'why-dismissed': () => 'Say why it is dismissed, in a few words: it is recorded.',
  'own-finding': () => 'Give it a title and say what you saw.',
  'finding-gone': () => 'This finding is not there any more. Reload the page.',
  'nothing-to-debrief': () => 'Nothing is recorded of this lesson yet: there is nothing to debrief.',
  'step-twice': () => 'A step is in the plan twice. Remove one.',
  'does-not-fit': ({ minutes, roomMin, limitedBy }: { minutes: number; roomMin: number; limitedBy: string }) =>
    `${minutes} min of flying do not fit in ${roomMin} min: the ${limitedBy} is the limit. Shorten a step or remove one.`,
};
export const told = teller(DEBRIEF_WORDS);
