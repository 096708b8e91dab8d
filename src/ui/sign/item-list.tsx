import { type ItemEvidence, type Observation, type RecordedLanding, haveWords, missingLine } from '@/core/assess';
import { VerdictMark } from '../shared/verdict';

/** What an item rests on, lesson by lesson: `lesson 3: landings 8, 10`. */
function restsOn(
  evidence: readonly string[],
  landings: readonly RecordedLanding[],
  observations: readonly Observation[],
): string[] {
  const lessons = new Map<number, number[]>();
  for (const id of evidence) {
    const landing = landings.find((l) => l.id === id);
    const lesson = landing?.lesson ?? observations.find((o) => o.id === id)?.lesson;
    if (lesson === undefined) continue;
    lessons.set(lesson, [...(lessons.get(lesson) ?? []), ...(landing ? [landing.number] : [])]);
  }
  return [...lessons].map(([lesson, numbers]) =>
    numbers.length === 0
      ? `lesson ${lesson}`
      : `lesson ${lesson}: ${numbers.length === 1 ? 'landing' : 'landings'} ${[...new Set(numbers)].join(', ')}`,
  );
}

/** Programme items against their evidence: the mark, what there is, what is missing, and the landings it rests on. */
export function ItemList({
  items,
  landings,
  observations,
}: {
  items: readonly ItemEvidence[];
  landings: readonly RecordedLanding[];
  observations: readonly Observation[];
}) {
  const open = items.filter((i) => !i.met);
  const met = items.filter((i) => i.met);
  const group = (title: string, shown: readonly ItemEvidence[]) =>
    shown.length === 0 ? null : (
      <>
        <h3 className="group">{title}</h3>
        <div role="list">
          {shown.map((entry) => (
            <Item key={entry.item.id} entry={entry} rests={restsOn(entry.evidence, landings, observations)} />
          ))}
        </div>
      </>
    );
  return (
    <>
      {group(`Still open, ${open.length}`, open)}
      {group(`Met, ${met.length}`, met)}
    </>
  );
}

/** An open item says what is missing; a met one takes a line and says what it rests on. */
function Item({ entry, rests }: { entry: ItemEvidence; rests: string[] }) {
  const { item, met, progress, have, missing, waived } = entry;
  return (
    <div role="listitem" className={`evidence${met ? ' met' : ''}`}>
      <VerdictMark
        verdict={met ? 'within' : progress > 0 ? 'edge' : 'not-seen'}
        label={`${item.id} ${met ? 'met' : progress > 0 ? 'begun' : 'not met'}`}
        plain
      />
      <div>
        <div>
          <strong>
            <span className="mono">{item.id}</span> {item.title}
          </strong>
          {item.safety ? ' · safety' : ''} <span className="soft small">{item.citation}</span>
        </div>
        {missing.length > 0 ? <div className="need">{missingLine(missing)}</div> : null}
        <div className="soft small">
          {waived ? `Waived: ${waived}` : haveWords(have)}
          {rests.length > 0 ? ` · ${rests.join('; ')}` : ''}
        </div>
      </div>
    </div>
  );
}
