import { define } from './definition';

/** Who flies from now on, where two pilots share a flight. */
export const pilotSwapped = define('pilot-swapped', {
  affects: ['seats'],
  said: 'cockpit',
  names: ({ pilotId }) => pilotId,
  always: ({ flying }, event) => {
    flying[event.sortieId] = event.payload.pilotId;
  },
});
