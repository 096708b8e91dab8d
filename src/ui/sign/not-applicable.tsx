import { list } from '@/core/format';
import { NEED_WORDS } from '@/domain/assess-words';
import type { CheckoutHead } from '@/server/checkout/queries/head';
import type { CheckoutRecord } from '@/server/checkout/queries/record';

/** Items the aeroplane cannot be asked, with what it has not. */
export function NotApplicable({ head, record }: { head: CheckoutHead; record: CheckoutRecord }) {
  return (
    <p className="soft small mb-0 mt-2">
      Not applicable to {head.registration}:{' '}
      {record.notAsked
        .map((n) => `${n.id} ${n.title} (no ${list(n.needs.map((x) => NEED_WORDS[x].replace(/^an? /, '')))})`)
        .join('; ')}
      .
    </p>
  );
}
