'use client';
import { judgeQuantity } from '@/core/assess';
import { LANDMARK_WORDS, notesFor } from '@/domain/airwork';
import { TRIGGER_WORDS } from '@/domain/assess-words';
import { WORD_CRITERIA, WORD_CRITERION_IDS, type WordCriterion, type WordCriterionRow } from '@/domain/criteria';
import type { SortiePack } from '@/offline/protocol';
import { VerdictMark } from '../shared/verdict';
import type { Draft, Setter } from './draft';
import { Bubble, Travel } from './handling-form';
import { Aileron } from './landing-rows';
import { windAcross } from './across';
import type { Place } from './place';
import { Sheet, Typed } from './sheet';
import { Stepper, Words } from './parts';

/**
 * What is recorded of a landing when there is time for it: speeds at the gates, the roll-out, a load, the landmark,
 * notes.
 */
export function More({
  pack,
  draft,
  set,
  place,
  close,
}: {
  pack: SortiePack;
  draft: Draft;
  set: Setter;
  place: Place;
  close: () => void;
}) {
  const gates = (pack.gates ?? []).slice(0, -1);
  const limit = pack.speedLimitKt ?? null;
  const mark = (value: number | undefined, target: number | null) => {
    if (value === undefined || target === null || !limit) return null;
    const off = value - target;
    const verdict = judgeQuantity(
      { quantity: 'speed', unit: 'kt', citation: '', ...limit },
      off * (pack.ktPerUnit ?? 1),
      pack.airwork?.edgeShare ?? 0.2,
    );
    return (
      <>
        <VerdictMark verdict={verdict} label="speed" /> {off >= 0 ? '+' : '–'}
        {Math.abs(Math.round(off))}
      </>
    );
  };
  const notes = notesFor({ tailwheel: place.tailwheel, water: place.water });
  const note = (n: Draft['notes'][number]) =>
    set({ notes: draft.notes.includes(n) ? draft.notes.filter((x) => x !== n) : [...draft.notes, n] });
  return (
    <Sheet title="More of this landing" close={close}>
      {gates.length > 0 ? (
        <div className="taps gates">
          {gates.map((g) => (
            <Stepper
              key={g.name}
              title={`${g.name}${g.target === null ? '' : `, target ${g.target}`}`}
              unit={pack.unit}
              start={g.target ?? 60}
              step={1}
              least={10}
              most={400}
              now={draft.gateSpeeds[g.name] ?? null}
              note={mark(draft.gateSpeeds[g.name], g.target)}
              set={(v) => {
                const { [g.name]: _old, ...others } = draft.gateSpeeds;
                set({ gateSpeeds: v === null ? others : { ...others, [g.name]: v } });
              }}
            />
          ))}
        </div>
      ) : null}
      {limit ? (
        <p className="mb-0" style={{ fontSize: 15 }}>
          Targets of today’s brief; the marks are the standard’s {limit.low < 0 ? '–' : ''}
          {Math.abs(limit.low)} to +{limit.high} kt. A dial read in the turn is a memory: leave out what you did not
          read.
        </p>
      ) : null}
      <div className="pair">
        {WORD_CRITERION_IDS.map((id) => (
          <CriterionRow key={id} id={id} draft={draft} set={set} tailwheel={place.tailwheel} />
        ))}
        {windAcross(pack, place) ? null : <Aileron draft={draft} set={set} />}
        <Stepper
          title="Greatest load"
          unit="g"
          start={1.5}
          step={0.1}
          digits={1}
          least={0.5}
          most={9}
          now={draft.peakG}
          set={(v) => set({ peakG: v })}
        />
        {(pack.asks ?? []).includes('roll-out') ? (
          <Stepper
            title="Rolled out in"
            unit="s"
            start={15}
            step={1}
            least={1}
            most={120}
            usual={[8, 12, 15, 20, 30]}
            now={draft.rollOutS}
            set={(v) => set({ rollOutS: v })}
          />
        ) : null}
        {(pack.asks ?? []).includes('travel') ? <Travel now={draft.travel} choose={(v) => set({ travel: v })} /> : null}
        {(pack.asks ?? []).includes('bubble') ? <Bubble now={draft.bubble} choose={(v) => set({ bubble: v })} /> : null}
        {pack.landmark ? (
          <Words
            title={`Landmark: ${pack.landmark.name}, ${pack.landmark.alongM} m`}
            options={LANDMARK_WORDS}
            now={draft.landmark}
            choose={(v) => set({ landmark: v })}
            columns={2}
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
      <div>
        <h2>Also seen</h2>
        <div className="taps t4" role="group" aria-label="Also seen">
          {notes.map((n) => (
            <button
              key={n}
              type="button"
              className="tap"
              aria-pressed={draft.notes.includes(n)}
              onClick={() => note(n)}
            >
              {n.replaceAll('-', ' ')}
            </button>
          ))}
        </div>
      </div>
      <Typed label="Note" value={draft.note} max={500} keep={(text) => set({ note: text })} />
    </Sheet>
  );
}

/** A criterion told with one word, where it has no place on the first screen. */
function CriterionRow({
  id,
  draft,
  set,
  tailwheel,
}: {
  id: WordCriterion;
  draft: Draft;
  set: Setter;
  tailwheel: boolean;
}) {
  const { words, more }: WordCriterionRow = WORD_CRITERIA[id];
  if (more === null || (more.tailwheelOnly && !tailwheel)) return null;
  return (
    <Words
      title={more.title}
      options={words}
      now={draft[id]}
      choose={(v) => set({ [id]: v } as Partial<Draft>)}
      columns={words.length > 3 ? 4 : 3}
    />
  );
}
