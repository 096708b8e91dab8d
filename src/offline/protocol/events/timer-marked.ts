import { define } from './definition';

/** Off blocks, take-off, landing, on blocks: a mark of the flight's clock. */
export const timerMarked = define('timer-marked', {
  affects: ['clock'],
  said: 'cockpit',
  fold: ({ marks }, event) => {
    marks.set(event.subjectId, event.payload);
  },
});
