import { define } from './definition';
import { landingOf } from './state';

/** A landing corrected: what it was stays in the list of changes. */
export const corrected = define('corrected', {
  affects: ['landings', 'captured'],
  said: 'cockpit',
  changes: true,
  names: ({ pilotId }) => pilotId ?? null,
  always: (state, event) => state.numbering.changed(event, landingOf(event.payload)),
  fold: ({ landings }, event) => {
    const before = landings.get(event.subjectId);
    if (before) landings.set(event.subjectId, { ...before, landing: landingOf(event.payload) });
  },
});
