import type { ItemEvidence, Observation, RecordedLanding } from '@/core/assess';
import { VerdictMark } from '../shared/verdict';

/** Programme items against their evidence: the mark, what there is, what is missing, and the landings it rests on. */
export function ItemList({ items, landings, observations }: { items: readonly ItemEvidence[]; landings: readonly RecordedLanding[]; observations: readonly Observation[] }) {
  const name = (id: string): string => {
    const landing = landings.find((l) => l.id === id);
    if (landing) return `${landing.lesson}.${landing.number}`;
    const seen = observations.find((o) => o.id === id);
    return seen ? `lesson ${seen.lesson}` : '';
  };
  return (
    <div role="list">
      {items.map(({ item, met, progress, have, missing, evidence, waived }) => (
        <div role="listitem" key={item.id} className="linkrow" style={{ gridTemplateColumns: '20px minmax(0, 1fr)', alignItems: 'start' }}>
          <span style={{ paddingTop: 3 }}><VerdictMark verdict={met ? 'within' : progress > 0 ? 'edge' : 'not-seen'} label={met ? 'met' : 'not met'} /></span>
          <div>
            <div><strong><span className="mono">{item.id}</span> {item.title}</strong>{item.safety ? <span className="soft"> · safety</span> : null} <span className="soft" style={{ fontSize: 13 }}>· {item.citation}</span></div>
            <div style={{ fontSize: 14 }}>{waived ? `Waived: ${waived}` : have}{missing.length > 0 ? <>; <strong>missing:</strong> {missing.join('; ')}</> : null}.</div>
            {evidence.length > 0 ? <div className="soft" style={{ fontSize: 13 }}>Rests on {[...new Set(evidence.map(name).filter(Boolean))].join(', ')}</div> : null}
          </div>
        </div>
      ))}
    </div>
  );
}
