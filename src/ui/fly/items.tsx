'use client';
import { useState } from 'react';
import { INTERVENTIONS, say } from '@/domain/words';
import type { FoldedItem, SortiePack } from '@/offline/protocol';
import type { Record_ } from './cockpit';

/** Ground and airwork items: how it went and whose it was, two taps each. */
export function Items({ pack, items, waivers, record, say: tell }: { pack: SortiePack; items: FoldedItem[]; waivers: { itemId: string }[]; record: Record_; say: (line: string) => void }) {
  const [open, setOpen] = useState<string | null>(null);
  const [verdict, setVerdict] = useState<'within' | 'edge' | 'outside' | null>(null);
  const [busy, setBusy] = useState(false);
  const choose = (id: string) => { setOpen(open === id ? null : id); setVerdict(null); };
  const keep = async (itemId: string, intervention: number) => {
    if (!verdict || busy) return;
    setBusy(true);
    await record('item-observed', crypto.randomUUID(), { itemId, verdict, intervention, note: '' }).then(() => { tell(`${itemId} saved: ${say(verdict)}.`); choose(itemId); }, () => undefined);
    setBusy(false);
  };
  return (
    <section aria-label="Items" className="rows" style={{ paddingTop: 12 }}>
      <h1>Items of this lesson</h1>
      <Cues pack={pack} />
      {pack.items.map((item) => {
        const seen = items.filter((i) => i.data.itemId === item.id);
        const last = seen[seen.length - 1];
        return (
          <div className="rowline" key={item.id}>
            <button type="button" className="tap" style={{ textAlign: 'left' }} aria-expanded={open === item.id} onClick={() => choose(item.id)}>
              <span className="mono">{item.id}</span> {item.title}
              <small>{waivers.some((w) => w.itemId === item.id) ? 'waived' : last ? `this lesson: ${say(last.data.verdict)}, ${INTERVENTIONS[last.data.intervention]?.word ?? ''}${seen.length > 1 ? `, ${seen.length} times` : ''}` : item.text}</small>
            </button>
            {open === item.id ? (
              <>
                <div className="taps t3" role="group" aria-label={`${item.id} how it went`}>{(['within', 'edge', 'outside'] as const).map((v) => <button key={v} type="button" className="tap" aria-pressed={verdict === v} onClick={() => setVerdict(v)}>{v === 'within' ? 'in standard' : v === 'edge' ? 'just' : 'outside'}</button>)}</div>
                <div className="taps t4" role="group" aria-label={`${item.id} whose it was`}>{INTERVENTIONS.map((i) => <button key={i.level} type="button" className="tap" disabled={!verdict || busy} onClick={() => void keep(item.id, i.level)}>{i.word}<small>{i.hint}</small></button>)}</div>
              </>
            ) : null}
          </div>
        );
      })}
    </section>
  );
}

/** The old habits of this pilot, as short commands: read before start-up, not in the air. */
function Cues({ pack }: { pack: SortiePack }) {
  const cues = pack.cues ?? [];
  if (cues.length === 0) return null;
  return (
    <section aria-label="Habits to watch" className="cues">
      {(['ground', 'flight'] as const).map((where) => {
        const here = cues.filter((c) => c.where === where);
        return here.length === 0 ? null : <div key={where}><h2>{where === 'ground' ? 'Watch on the ground' : 'Watch in the air'}</h2><ul>{here.map((c) => <li key={c.name}><strong>{c.opposite ? 'Opposite' : c.action === 'drop' ? 'Drop' : 'Add'}: {c.name}.</strong> {c.cue}</li>)}</ul></div>;
      })}
    </section>
  );
}
