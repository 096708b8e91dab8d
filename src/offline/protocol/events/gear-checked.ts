import { define } from './definition';

/** Wheels against surface, said and seen. */
export const gearChecked = define('gear-checked', {
  affects: ['gear'],
  said: 'cockpit',
  fold: (state, event) => {
    state.gear = { at: event.deviceTime, check: event.payload, since: [] };
  },
});
