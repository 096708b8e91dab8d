import { define } from './definition';
import { rowOf } from './state';

/** One approach to a make-believe ground at height. */
export const trialFlown = define('trial-flown', {
  affects: ['trials'],
  said: 'cockpit',
  fold: ({ trials }, event) => {
    trials.set(event.subjectId, rowOf(event));
  },
});
