import { define } from './definition';
import { itemOf } from './state';

/** An item of the programme seen, or time spent on it. */
export const itemObserved = define('item-observed', {
  affects: ['items', 'captured'],
  said: 'cockpit',
  names: ({ pilotId }) => pilotId ?? null,
  always: (state, event) => state.numbering.item(event.subjectId, itemOf(event.payload)),
  fold: ({ items }, event) => {
    items.set(event.subjectId, {
      id: event.subjectId,
      sortieId: event.sortieId,
      at: event.deviceTime,
      data: itemOf(event.payload),
      measured: [],
      overruled: null,
    });
  },
});
