import { BOUNCE_HANDLING, TRIGGER_WORDS } from '@/domain/assess-words';
import { LANDING_KINDS, MEANT, SIDED_BANDS, SWING_BANDS, meant, say } from '@/domain/words';
import { CONFIGURATION_WORDS, FIRMNESS_WORDS, KEPT_WORDS } from '@/domain/criteria';
import type { SortiePack } from '@/offline/protocol';
import { type Draft, type Setter, nextSided } from './draft';
import { Stepper, Words } from './parts';
import { RunwayTap, Serious } from './runway-tap';

export const touchName = (w: string) => (w === 'mains-first' ? 'mains first' : say(w));

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

/** What is seen of every landing, in the order it is seen. */
export function LandingRows({
  draft,
  set,
  pack,
  runwayEnd,
}: {
  draft: Draft;
  set: Setter;
  pack: SortiePack;
  runwayEnd: string;
}) {
  const touched = pack.tailwheel
    ? (['three-point', 'mains-first', 'tail-first', 'flat'] as const)
    : (['mains-first', 'flat', 'nose-first'] as const);
  return (
    <>
      <div className="col">
        <Words
          title="Kind"
          options={LANDING_KINDS}
          now={draft.kind}
          choose={(v) => set({ kind: v ?? 'full-stop' })}
          columns={2}
        />
        {pack.tailwheel ? (
          <Words
            title="Intended"
            options={MEANT}
            now={draft.intended as never}
            choose={(v) => set({ intended: v ?? meant(pack.intended) })}
            columns={2}
          />
        ) : null}
        <Words
          title="Touched down"
          options={touched}
          now={draft.touched as never}
          choose={(v) => set({ touched: v })}
          columns={2}
          name={touchName}
        />
        <ThresholdSpeed draft={draft} set={set} pack={pack} />
      </div>
      <RunwayTap draft={draft} set={set} pack={pack} runwayEnd={runwayEnd} />
      <div className="col">
        <Sided
          title="Drift at touchdown"
          field="drift"
          draft={draft}
          set={set}
          bands={SIDED_BANDS}
          left="left"
          right="right"
        />
        <Sided
          title="Crab at touchdown"
          field="crab"
          draft={draft}
          set={set}
          bands={SIDED_BANDS}
          left="left"
          right="right"
        />
        <Sided
          title="Swing in the roll-out"
          field="swing"
          draft={draft}
          set={set}
          bands={SWING_BANDS}
          left="left"
          right="right"
        />
        <Words
          title="Bounces"
          options={['0', '1', '2', '3'] as const}
          now={draft.bounce === null ? null : (String(Math.min(3, draft.bounce.count)) as '0')}
          choose={(v) =>
            set({
              bounce:
                v === null ? null : { count: Number(v), handling: v === '0' ? null : (draft.bounce?.handling ?? null) },
            })
          }
          columns={2}
          name={(v) => (v === '3' ? '3+' : v)}
        />
        <div className="taps">
          <Serious of="inspection-sink" draft={draft} set={set} with_={{ firmness: 'hard' }} />
        </div>
      </div>
    </>
  );
}

/** The speed over the threshold as read; it starts at the briefed target but counts only once touched. */
function ThresholdSpeed({ draft, set, pack }: { draft: Draft; set: Setter; pack: SortiePack }) {
  return (
    <Stepper
      title={`At the threshold${pack.fenceTarget === null ? '' : `, target ${pack.fenceTarget}`}`}
      name="Speed at the threshold"
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

/** What is seen after it, and what led to a go-around. */
export function AfterRows({ draft, set, pack }: { draft: Draft; set: Setter; pack: SortiePack }) {
  // How a bounce was handled is asked after one, and last: what stands before it does not move.
  const tail =
    pack.tailwheel && draft.touched === 'mains-first' ? (
      <Words
        title="Tail lowered, roll-out in sequence"
        options={KEPT_WORDS}
        now={draft.rollout}
        choose={(v) => set({ rollout: v })}
        columns={3}
        name={(v) => (v === 'kept' ? 'in sequence' : v === 'released-early' ? 'too early or late' : 'not lowered')}
      />
    ) : null;
  return (
    <>
      <div className="pair">
        <Words
          title="Into-wind aileron"
          options={KEPT_WORDS}
          now={draft.aileron}
          choose={(v) => set({ aileron: v })}
          columns={3}
        />
        {pack.tailwheel ? (
          <Words
            title="Stick back"
            options={KEPT_WORDS}
            now={draft.stick}
            choose={(v) => set({ stick: v })}
            columns={3}
          />
        ) : null}
        {tail}
        <Words
          title="Firmness"
          options={FIRMNESS_WORDS}
          now={draft.firmness}
          choose={(v) => set({ firmness: v })}
          columns={4}
        />
        {pack.hasFlapOrGear ? (
          <Words
            title="Configuration"
            options={CONFIGURATION_WORDS}
            now={draft.configuration}
            choose={(v) => set({ configuration: v })}
            columns={3}
          />
        ) : null}
        {(draft.bounce?.count ?? 0) > 0 ? (
          <Words
            title="Bounce handled by"
            options={BOUNCE_HANDLING}
            now={draft.bounce?.handling ?? null}
            choose={(v) => set({ bounce: { count: draft.bounce?.count ?? 1, handling: v } })}
            columns={4}
          />
        ) : null}
      </div>
      <Words
        title="Go-around trigger"
        options={TRIGGER_WORDS}
        now={draft.trigger}
        choose={(v) => set({ trigger: v })}
        columns={4}
      />
    </>
  );
}
