import { define } from './definition';
import { landingOf } from './state';

/** A landing, go-around or low pass saved. A second one of the same subject is passed over. */
export const landingSaved = define('landing-saved', {
  affects: ['landings', 'captured'],
  said: 'cockpit',
  names: ({ pilotId }) => pilotId ?? null,
  ends: ({ kind }) => (kind === 'go-around' || kind === 'touch-and-go' ? [kind] : []),
  always: (state, event) => state.numbering.saved(event),
  fold: ({ landings, numbering }, event) => {
    if (landings.has(event.subjectId)) return;
    landings.set(event.subjectId, {
      id: event.subjectId,
      number: numbering.numberOf(event.subjectId),
      first: false,
      sortieId: event.sortieId,
      author: event.author,
      savedAt: event.deviceTime,
      landing: landingOf(event.payload),
      measured: null,
      overruled: {},
    });
  },
});
