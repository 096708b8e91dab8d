import { type FlownCount, countFlown } from '@/core/assess';
import type { RowOf } from '../../floor/statement';
import * as ask from '../../floor/statements/checkout';

/** What was flown, counted by the one function that counts, by what the rows are of. */
function by(found: readonly RowOf<typeof ask.flownCounts>[]): Map<string, FlownCount> {
  const keys = [...new Set(found.map((f) => f.of ?? ''))];
  return new Map(
    keys.map((key) => [
      key,
      countFlown(
        found.filter((f) => (f.of ?? '') === key).map((f) => ({ kind: f.kind, demonstration: f.shown, times: f.n })),
      ),
    ]),
  );
}
/** By checkout, of one pilot or (null) of everybody. */
export const flownIn = async (pilotId: string | null): Promise<Map<string, FlownCount>> =>
  by(pilotId === null ? await ask.flownCounts.all() : await ask.flownCountsOf.all({ pilotId }));
/** Of everybody, between two days. */
export const flownBetween = async (from: string, to: string): Promise<FlownCount | undefined> =>
  by(await ask.flownCountsBetween.all({ from, to })).get('');
