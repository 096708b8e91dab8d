import { define } from './definition';

/** The runway in use, changed in flight. */
export const runwaySet = define('runway-set', {
  affects: ['runway'],
  said: 'cockpit',
  always: ({ runways }, event) => {
    runways[event.sortieId] = event.payload.runwayEnd;
  },
});
