import { flownWords } from '@/core/assess';
import { plural } from '@/core/format';
import type { EntryItem, SignOffBody } from '@/domain/ledger';

/** What was flown, each kind named; an entry of before names only the sum of all that was recorded. */
export const countsText = (c: SignOffBody['counts']): string => `${flownIn(c)} over ${plural(c.lessons, 'lesson')}`;
const flownIn = (c: SignOffBody['counts']): string =>
  c.fullStops === undefined
    ? `${c.landings} landings, go-arounds and passes`
    : flownWords({
        fullStops: c.fullStops,
        touchAndGos: c.touchAndGos ?? 0,
        goArounds: c.goArounds ?? 0,
        lowPasses: c.lowPasses ?? 0,
        demonstrations: c.demonstrations ?? 0,
      });

/** What stands against an item in an entry, whichever form the entry has. */
export function itemWords(i: EntryItem): { state: string; text: string } {
  if (i.overridden)
    return {
      state: 'overridden',
      text: `overridden: ${i.overridden.reason} Asked by ${i.overridden.askedBy}${i.overridden.approvedBy && i.overridden.approvedBy !== i.overridden.askedBy ? `, approved by ${i.overridden.approvedBy}` : ''}. Had: ${i.have}${i.missing && i.missing.length > 0 ? `; missing: ${i.missing.join('; ')}` : ''}`,
    };
  if (i.waived) return { state: 'waived', text: `waived: ${i.waived}` };
  return {
    state: i.state ?? 'met',
    text: `${i.have}${i.missing && i.missing.length > 0 && i.state !== 'met' ? `; missing: ${i.missing.join('; ')}` : ''}`,
  };
}
