import { define } from './definition';

/** Why a flight ended before its lesson did; the newest word stands. */
export const cutShort = define('cut-short', {
  affects: ['told'],
  said: 'desk',
  always: ({ cutShort: of }, event) => {
    const { reason } = event.payload;
    if (reason === null) delete of[event.sortieId];
    else of[event.sortieId] = reason;
  },
});
