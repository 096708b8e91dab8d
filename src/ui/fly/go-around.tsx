'use client';
import { GO_AROUND_WORDS } from '@/domain/assess-words';
import { ANNOUNCED, GO_AROUND_FROM, GO_AROUND_WHY, LANDING_KINDS, say } from '@/domain/words';
import type { Draft, Setter } from './draft';
import { Words } from './parts';

/** Answers to a trigger. */
const IN_TIME = ['before', 'at', 'late'] as const;
const CHECKS: [keyof Draft['goAroundExecution'] & string, string][] = [
  ['power', 'power'],
  ['attitude', 'attitude'],
  ['speed', 'speed'],
  ['configurationOrder', 'flap and gear order'],
  ['tracking', 'tracking'],
  ['secondContact', 'no second contact'],
];

/** A go-around: what was announced, when it came, from where and why, and how it was flown. */
export function GoAround({ draft, set }: { draft: Draft; set: Setter }) {
  const all = CHECKS.every(([id]) => draft.goAroundExecution[id] === 'within');
  return (
    <div className="wide" style={{ display: 'grid', gap: 14 }}>
      <Words
        title="Kind"
        options={LANDING_KINDS}
        now={draft.kind}
        choose={(v) => set({ kind: v ?? 'full-stop' })}
        columns={4}
      />
      <Words
        title="Trigger announced by you"
        options={ANNOUNCED}
        now={draft.announced}
        choose={(v) =>
          set({
            announced: v,
            // Announced, it is judged by when it was answered.
            ...(v !== null && !IN_TIME.some((w) => w === draft.goAroundWord) ? { goAroundWord: null } : {}),
          })
        }
        columns={3}
      />
      <Words
        title={draft.announced ? 'Announced. The go-around came' : 'Went around: a decision, recorded as one. When?'}
        options={draft.announced ? IN_TIME : GO_AROUND_WORDS}
        now={draft.goAroundWord as never}
        choose={(v) => set({ goAroundWord: v })}
        columns={3}
        name={(w) => (w === 'before' ? 'before the trigger' : w === 'late' ? 'after the trigger' : say(w))}
      />
      <div className="pair">
        <Words
          title="From where"
          options={GO_AROUND_FROM}
          now={draft.goAroundFrom}
          choose={(v) => set({ goAroundFrom: v })}
          columns={3}
        />
        <Words
          title="Why"
          options={GO_AROUND_WHY}
          now={draft.goAroundWhy}
          choose={(v) => set({ goAroundWhy: v })}
          columns={4}
        />
      </div>
      <div>
        <h2>How it was flown</h2>
        <button
          type="button"
          className="tap mb-2"
          aria-pressed={all}
          onClick={() =>
            set({
              goAroundExecution: all
                ? {}
                : (Object.fromEntries(CHECKS.map(([id]) => [id, 'within'])) as Draft['goAroundExecution']),
            })
          }
        >
          All six seen, all good
        </button>
        <div className="taps checks">
          {CHECKS.map(([id, title]) => (
            <Words
              key={id}
              title={title}
              options={['within', 'edge', 'outside'] as const}
              now={(draft.goAroundExecution[id] ?? null) as 'within' | null}
              choose={(v) => {
                const { [id]: _old, ...others } = draft.goAroundExecution;
                set({ goAroundExecution: v ? { ...others, [id]: v } : others });
              }}
              columns={3}
              name={(v) => (v === 'within' ? 'good' : v)}
            />
          ))}
        </div>
      </div>
    </div>
  );
}
