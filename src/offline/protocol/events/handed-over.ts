import { define } from './definition';

/** Three lines from who flew a lesson to who goes on; the newest stand. */
export const handedOver = define('handed-over', {
  affects: ['told'],
  said: 'desk',
  always: ({ handovers }, event) => {
    handovers[event.sortieId] = { ...event.payload, author: event.author, at: event.deviceTime };
  },
});
