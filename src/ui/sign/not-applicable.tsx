import { list } from '@/core/format';
import { NEED_WORDS } from '@/domain/assess-words';
import type { Need } from '@/domain/assess-words';

/** Items the aeroplane cannot be asked, with what it has not. */
export function NotApplicable({
  registration,
  notAsked,
}: {
  registration: string;
  notAsked: readonly { id: string; title: string; needs: readonly Need[] }[];
}) {
  return (
    <p className="soft small mb-0 mt-2">
      Not applicable to {registration}:{' '}
      {notAsked
        .map((n) => `${n.id} ${n.title} (no ${list(n.needs.map((x) => NEED_WORDS[x].replace(/^an? /, '')))})`)
        .join('; ')}
      .
    </p>
  );
}
