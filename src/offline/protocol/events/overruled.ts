import type { ItemObserved } from '@/domain/capture';
import { define } from './definition';

/** An instructor's later word over a computed verdict; `to` null takes it back. */
export const overruled = define('overruled', {
  affects: ['landings', 'items'],
  said: 'office',
  changes: true,
  fold: ({ overruled: all }, { subjectId, author, deviceTime: at, payload: { what, to, reason } }) => {
    const rest = Object.fromEntries(Object.entries(all.get(subjectId) ?? {}).filter(([k]) => k !== what));
    all.set(subjectId, to === null ? rest : { ...rest, [what]: { to, reason, author, at } });
  },
  settle: ({ overruled: all, landings, items }) => {
    for (const [id, by] of all) {
      const landing = landings.get(id);
      if (landing) landings.set(id, { ...landing, overruled: by });
      const item = items.get(id);
      if (item && by.item)
        items.set(id, {
          ...item,
          overruled: { ...by.item, computed: item.data.verdict },
          data: { ...item.data, verdict: by.item.to as ItemObserved['verdict'] },
        });
    }
  },
});
