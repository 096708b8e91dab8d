import { define } from './definition';
import { reasonOf } from './state';

/** Why something was flown past a stop; asked once, on the ground. It makes no evidence of it. */
export const stopExplained = define('stop-explained', {
  affects: ['reasons'],
  said: 'desk',
  fold: ({ explained }, event) => {
    explained[event.subjectId] = reasonOf(event);
  },
});
