import { BOUNCE_HANDLING } from '@/domain/assess-words';
import { SIDED_BANDS, SWING_BANDS, say } from '@/domain/words';
import { CONFIGURATION_WORDS, FIRMNESS_WORDS, KEPT_WORDS } from '@/domain/criteria';
import type { SortiePack } from '@/offline/protocol';
import { type Draft, type Setter, nextSided } from './draft';
import { Stepper, Words } from './parts';
import { Serious } from './runway-tap';
import { windAcross } from './across';
import { type Place, touchName } from './place';

function Sided<K extends 'drift' | 'crab' | 'swing'>({
  title,
  field,
  draft,
  set,
  bands,
  left,
  right,
}: {
  title: string;
  field: K;
  draft: Draft;
  set: Setter;
  bands: readonly string[];
  left: string;
  right: string;
}) {
  const now = draft[field];
  const tap = (side: 'left' | 'right') => set({ [field]: nextSided(now, side, bands) } as Partial<Draft>);
  const band = (side: 'left' | 'right') => (now?.side === side ? <small>{say(now.band)}</small> : null);
  return (
    <div>
      <h2>{title}</h2>
      <div className="taps t3" role="group" aria-label={title}>
        <button type="button" className="tap" aria-pressed={now?.side === 'left'} onClick={() => tap('left')}>
          {left}
          {band('left')}
        </button>
        <button
          type="button"
          className="tap"
          aria-pressed={now?.band === 'none'}
          onClick={() => set({ [field]: now?.band === 'none' ? null : { band: 'none', side: null } } as Partial<Draft>)}
        >
          none
        </button>
        <button type="button" className="tap" aria-pressed={now?.side === 'right'} onClick={() => tap('right')}>
          {right}
          {band('right')}
        </button>
      </div>
    </div>
  );
}

interface RowsProps {
  draft: Draft;
  set: Setter;
  pack: SortiePack;
  place: Place;
}

/** How it touched: what only its own touch can show. *Clean* has answered four of them. */
export function TouchdownRows({ draft, set, place }: Omit<RowsProps, 'pack'>) {
  const touched = place.tailwheel
    ? (['three-point', 'mains-first', 'tail-first', 'flat'] as const)
    : place.water
      ? (['mains-first', 'tail-first', 'nose-first', 'flat'] as const)
      : (['mains-first', 'flat', 'nose-first'] as const);
  const sides = { draft, set, left: 'left', right: 'right' };
  return (
    <div className="pair">
      <Words
        title="Touched down"
        options={touched}
        now={draft.touched as never}
        choose={(v) => set({ touched: v })}
        columns={2}
        name={(w) => touchName(w, place.water)}
      />
      {draft.cleanTap === null ? (
        <>
          <Sided title="Drift at touchdown" field="drift" bands={SIDED_BANDS} {...sides} />
          <Sided title="Crab at touchdown" field="crab" bands={SIDED_BANDS} {...sides} />
          <Sided title={place.swing} field="swing" bands={SWING_BANDS} {...sides} />
          <Words
            title="Bounces"
            options={['0', '1', '2', '3'] as const}
            now={draft.bounce === null ? null : (String(Math.min(3, draft.bounce.count)) as '0')}
            choose={(v) =>
              set({
                bounce:
                  v === null
                    ? null
                    : { count: Number(v), handling: v === '0' ? null : (draft.bounce?.handling ?? null) },
              })
            }
            columns={4}
            name={(v) => (v === '3' ? '3+' : v)}
          />
        </>
      ) : (
        <p className="mb-0">
          <strong>Clean:</strong> no drift, crab, swing or bounce. Tap clean again to say otherwise.
        </p>
      )}
      {(draft.bounce?.count ?? 0) > 0 ? (
        <Words
          title="Bounce handled by"
          options={BOUNCE_HANDLING}
          now={draft.bounce?.handling ?? null}
          choose={(v) => set({ bounce: { count: draft.bounce?.count ?? 1, handling: v } })}
          columns={4}
        />
      ) : null}
      <div className="taps" style={{ alignSelf: 'end' }}>
        <Serious of="inspection-sink" draft={draft} set={set} with_={{ firmness: 'hard' }} />
      </div>
    </div>
  );
}

/** The speed it was flown at and what was held until it stopped. */
export function RollOutRows({ draft, set, pack, place }: RowsProps) {
  return (
    <div className="pair">
      <ThresholdSpeed draft={draft} set={set} pack={pack} place={place} />
      <Words
        title="Firmness"
        options={FIRMNESS_WORDS}
        now={draft.firmness}
        choose={(v) => set({ firmness: v })}
        columns={4}
      />
      {windAcross(pack, place) ? <Aileron draft={draft} set={set} /> : null}
      {place.tailwheel ? (
        <Words
          title="Stick back"
          options={KEPT_WORDS}
          now={draft.stick}
          choose={(v) => set({ stick: v })}
          columns={3}
        />
      ) : null}
      {place.tailwheel && draft.touched === 'mains-first' ? (
        <Words
          title="Tail lowered, roll-out in sequence"
          options={KEPT_WORDS}
          now={draft.rollout}
          choose={(v) => set({ rollout: v })}
          columns={3}
          name={(v) => (v === 'kept' ? 'in sequence' : v === 'released-early' ? 'too early or late' : 'not lowered')}
        />
      ) : null}
      {pack.hasFlapOrGear ? (
        <Words
          title="Configuration"
          options={CONFIGURATION_WORDS}
          now={draft.configuration}
          choose={(v) => set({ configuration: v })}
          columns={3}
        />
      ) : null}
    </div>
  );
}

/** Without wind across there is nothing to hold, and it stands behind *More*. */
export const Aileron = ({ draft, set }: Pick<RowsProps, 'draft' | 'set'>) => (
  <Words
    title="Into-wind aileron"
    options={KEPT_WORDS}
    now={draft.aileron}
    choose={(v) => set({ aileron: v })}
    columns={3}
  />
);

/** The speed over the threshold as read; it starts at the briefed target but counts only once touched. */
function ThresholdSpeed({ draft, set, pack, place }: RowsProps) {
  return (
    <Stepper
      title={`${place.threshold}${pack.fenceTarget === null ? '' : `, target ${pack.fenceTarget}`}`}
      name={place.water ? 'Speed at the round-out' : 'Speed at the threshold'}
      unit={pack.unit}
      start={pack.fenceTarget ?? 60}
      step={1}
      least={10}
      most={400}
      now={draft.fenceSpeed}
      set={(fenceSpeed) => set({ fenceSpeed })}
    />
  );
}
