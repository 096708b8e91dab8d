import { FACETS, define } from './definition';

/** Whatever was recorded of its subject no longer counts. */
export const undone = define('undone', {
  affects: FACETS,
  said: 'cockpit',
  changes: true,
  always: (state, event) => state.numbering.changed(event, null),
});
