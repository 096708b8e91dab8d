import { define } from './definition';

/** An item waived, with the reference that allows it. */
export const itemWaived = define('item-waived', {
  affects: ['waivers'],
  said: 'desk',
  fold: ({ waivers }, { subjectId, sortieId, payload }) => {
    waivers.set(subjectId, { id: subjectId, sortieId, ...payload });
  },
});
