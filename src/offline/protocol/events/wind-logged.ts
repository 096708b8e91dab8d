import { define } from './definition';

/** The wind as logged in flight; the newest stands. */
export const windLogged = define('wind-logged', {
  affects: ['wind'],
  said: 'cockpit',
  always: ({ winds }, event) => {
    winds[event.sortieId] = event.payload;
  },
});
