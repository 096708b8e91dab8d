import { define } from './definition';

/** Something that ends an agreement of wheels and surface: the lever moved, another surface chosen. */
export const gearEvent = define('gear-event', {
  affects: ['gear'],
  said: 'cockpit',
  ends: ({ kind }) => [kind],
});
