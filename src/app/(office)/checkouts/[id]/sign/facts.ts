import { itemEvidenceWords, itemRecordWords, recordsOf } from '@/core/assess';
import { validThrough } from '@/core/recency';
import type { CheckoutRecord } from '@/server/checkout/queries/record';
import type { Override, SigningView } from '@/server/ledger/commands/sign';

/** Each item with its state, its evidence and the records behind it; an override that stands shows as one. */
export function matrixRows(record: CheckoutRecord, overrides: readonly Override[]) {
  return record.items.map((i) => {
    const o = overrides.find((x) => x.itemId === i.item.id);
    const said = itemEvidenceWords(i);
    return {
      id: i.item.id,
      title: i.item.title,
      citation: i.item.citation,
      safety: i.item.safety,
      legal: i.item.legal,
      confirm: i.item.confirm,
      house: i.item.source === 'house',
      state: !i.met && o?.approved ? ('overridden' as const) : i.state,
      ...said,
      note: i.waived ?? said.credited ?? (o ? `${o.reason} ${o.approved ? '' : '(waits for the chief)'}` : null),
      records: recordsOf(i, record.evidence).map((r) => ({ ...r, words: itemRecordWords(r.shown) })),
    };
  });
}

/** Where a checkout stands, in one line. */
export function headline({ head, items }: CheckoutRecord, state: SigningView | null): string {
  if (head.status === 'signed') return 'Signed';
  if (head.status === 'recommended') return 'Recommended: the examiner decides';
  if (state?.problems.length === 0) return 'Everything is there to sign';
  return `${items.filter((i) => i.met).length} of ${items.length} items met`;
}

/** The months the law of the pack gives from the first flight of a course to its test; null = no such time runs. */
export function courseOf({ head, pack, sorties }: CheckoutRecord) {
  const rule = pack.goals.find((g) => head.goals.includes(g.goal) && g.recommendation?.courseMonths)?.recommendation;
  const from = sorties[0]?.flownOn;
  if (!rule?.courseMonths || !from) return null;
  const until = validThrough(from, { days: null, months: rule.courseMonths, monthEnd: false });
  return until === null ? null : { from, until, confirm: rule.confirm };
}
