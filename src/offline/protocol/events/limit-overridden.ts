import { define } from './definition';
import { reasonOf } from './state';

/** A limit of the school set aside for one flight. */
export const limitOverridden = define('limit-overridden', {
  affects: ['limits'],
  said: 'desk',
  always: ({ overrides }, event) => {
    overrides[event.sortieId] = reasonOf(event);
  },
});
