import { define } from './definition';

/** Values an instructor has accepted from a recording; the newest of a subject stands, an empty one takes it back. */
export const measured = define('measured', {
  affects: ['landings', 'items'],
  said: 'office',
  changes: true,
  fold: (state, event) => {
    state.measured.set(event.subjectId, event.payload);
  },
  settle: ({ measured: all, landings, items }) => {
    for (const [id, m] of all) {
      const landing = landings.get(id);
      if (landing && Object.keys(m.values).length > 0) landings.set(id, { ...landing, measured: m });
      const item = items.get(id);
      if (item && m.item)
        items.set(id, {
          ...item,
          data: { ...item.data, verdict: m.item.verdict, detail: m.item.detail },
          measured: Object.keys(m.values),
        });
    }
  },
});
