import { define } from './definition';
import { rowOf } from './state';

/** A power setting noted in flight. */
export const powerFound = define('power-found', {
  affects: ['powers'],
  said: 'cockpit',
  fold: ({ powers }, event) => {
    powers.set(event.subjectId, rowOf(event));
  },
});
