import { define } from './definition';

/** A field tapped for a landing that is not saved yet. */
export const fieldSet = define('field-set', {
  affects: ['drafts'],
  said: 'cockpit',
  fold: ({ drafts }, { subjectId, payload: { field, value } }) => {
    drafts.set(subjectId, { ...drafts.get(subjectId), [field]: value });
  },
  settle: ({ drafts, landings }) => {
    for (const id of landings.keys()) drafts.delete(id);
  },
});
