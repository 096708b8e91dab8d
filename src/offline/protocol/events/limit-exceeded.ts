import { define } from './definition';
import { rowOf } from './state';

/** A limit of the aeroplane passed, seen by eye. It is never taken back: it is released. */
export const limitExceeded = define('limit-exceeded', {
  affects: ['exceedances'],
  said: 'cockpit',
  always: ({ exceeded }, event) => {
    exceeded.set(event.subjectId, rowOf(event));
  },
});
