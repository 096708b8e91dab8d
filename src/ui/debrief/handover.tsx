import type { HandedOver } from '@/domain/capture';
import { Panel } from '../shared/parts';
import { Day } from '../shared/zone';

/** What another instructor hands over, as it was written. */
export function Handover({ lesson, of }: { lesson: number; of: HandedOver & { by: string; at: string } }) {
  return (
    <Panel title={`Handover after lesson ${lesson}, from ${of.by}`}>
      <dl className="stats mb-0">
        {(['done', 'next', 'watch'] as const).map((k) => (
          <div key={k}>
            <dt>{k === 'done' ? 'Done' : k === 'next' ? 'Next' : 'Watch'}</dt>
            <dd>{of[k]}</dd>
          </div>
        ))}
      </dl>
      <p className="soft small mb-0">
        <Day at={of.at} />
      </p>
    </Panel>
  );
}
