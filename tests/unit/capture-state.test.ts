import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { UNSEEN } from '@/domain/unseen';
import type { Folded, FoldedLanding, SortiePack } from '@/offline/protocol';
import { type CaptureState, type CaptureStep, captureStart, step } from '@/ui/fly/capture-state';

const pack = { sortieId: 's', intended: 'three-point', tailwheel: true } as SortiePack;
const empty = { drafts: {}, landings: [], changes: [], numbered: {}, flying: {} } as unknown as Folded;
const start = captureStart(pack, empty, 'one');
const saved: FoldedLanding = {
  id: 'L1',
  number: 1,
  landing: { ...UNSEEN, kind: 'full-stop', runwayEnd: '22', touched: 'three-point', cleanTap: 'stopped' },
} as unknown as FoldedLanding;

/** Steps in a row: where they end, and everything kept on the way. */
function all(from: CaptureState, ...steps: CaptureStep[]) {
  return steps.reduce(
    ({ state, keep }, by) => {
      const [next, more] = step(state, by, pack);
      return { state: next, keep: [...keep, ...more] };
    },
    { state: from, keep: [] as { subject: string; field: string; value: unknown }[] },
  );
}

describe('a landing being taken', () => {
  it('keeps every tap as it is made, under the landing it belongs to', () => {
    const { state, keep } = all(
      start,
      { type: 'set', change: { along: 'short', lateral: 'line' } },
      { type: 'end', how: 'climbing-away', at: '2026-11-24T14:30:00Z' },
    );
    expect(keep).toEqual([
      { subject: 'one', field: 'along', value: 'short' },
      { subject: 'one', field: 'lateral', value: 'line' },
      { subject: 'one', field: 'endedAt', value: '2026-11-24T14:30:00Z' },
      { subject: 'one', field: 'kind', value: 'touch-and-go' },
      { subject: 'one', field: 'ended', value: 'climbing-away' },
    ]);
    expect(state.draft).toMatchObject({ along: 'short', lateral: 'line', kind: 'touch-and-go' });
  });
  it('comes back from what was kept, with how it ended', () => {
    const drafts = { was: { along: 'long', ended: 'stopped' } };
    const back = captureStart(pack, { ...empty, drafts }, 'one');
    expect(back).toMatchObject({ subject: 'was', ended: 'stopped', between: false, draft: { along: 'long' } });
  });
  it('what is tapped while it is being saved is the next landing’s', () => {
    const { state, keep } = all(
      start,
      { type: 'saving', draft: { ...start.draft, touched: 'flat' } },
      { type: 'set', change: { along: 'short' } },
      { type: 'end', how: 'stopped', at: 'T' },
      { type: 'next', id: 'two' },
    );
    expect(state).toMatchObject({ subject: 'two', ended: 'stopped', busy: false, between: false });
    expect(state.draft).toMatchObject({ along: 'short', touched: null, endedAt: 'T' });
    expect(keep.map((k) => `${k.subject} ${k.field}`)).toEqual(['two along', 'two endedAt', 'two ended']);
  });
  it('not saved, it was about this landing after all, and whose it was stays chosen', () => {
    const { state, keep } = all(
      start,
      { type: 'saving', draft: { ...start.draft, intervention: 0 } },
      { type: 'set', change: { along: 'short' } },
      { type: 'end', how: 'stopped', at: 'T' },
      { type: 'not-saved' },
    );
    expect(state).toMatchObject({ subject: 'one', ended: 'stopped', busy: false });
    expect(state.draft).toMatchObject({ along: 'short', intervention: 0 });
    expect(keep.every((k) => k.subject === 'one')).toBe(true);
  });
  it('undone, it is a draft that stands for the one taken back, with what was tapped meanwhile', () => {
    const { state, keep } = all(
      start,
      { type: 'undoing' },
      { type: 'set', change: { firmness: 'firm' } },
      { type: 'undone', landing: saved, id: 'two' },
    );
    expect(state).toMatchObject({ subject: 'two', ended: 'stopped', busy: false });
    expect(state.draft).toMatchObject({ replaces: 'L1', touched: 'three-point', firmness: 'firm' });
    expect(keep).toContainEqual({ subject: 'two', field: 'replaces', value: 'L1' });
    expect(keep.map((k) => k.field)).not.toContain('runwayEnd');
  });
  it('a correction keeps nothing until it is saved, not even how it ended', () => {
    const { state, keep } = all(
      start,
      { type: 'correct', landing: saved },
      { type: 'set', change: { along: 'long' } },
      { type: 'end', how: 'stopped', at: 'T' },
      { type: 'flown-by', pilotId: 'other' },
    );
    expect(keep).toEqual([]);
    expect(state).toMatchObject({ flownBy: 'other', correcting: { id: 'L1' }, draft: { along: 'long' } });
  });
  it('whatever is tapped in whatever order, the last value of each field kept is the one on the screen', () => {
    const tap = fc.oneof(
      fc.constantFrom('short', 'long', null).map((along) => ({ type: 'set' as const, change: { along } })),
      fc.constantFrom('flat', null).map((touched) => ({ type: 'set' as const, change: { touched } as const })),
      fc.constant({ type: 'eyes-out' as const }),
      fc.constantFrom('stopped', 'climbing-away').map((how) => ({ type: 'end' as const, how, at: 'T' })),
      fc.constant({ type: 'saving' as const, draft: start.draft }),
      fc.constant({ type: 'not-saved' as const }),
    );
    fc.assert(
      fc.property(fc.array(tap, { maxLength: 25 }), (taps) => {
        // A draft handed to `saving` is the one on the screen, as the caller hands it.
        let now = { state: start, keep: [] as { subject: string; field: string; value: unknown }[] };
        for (const by of [...taps, { type: 'not-saved' as const }]) {
          const given = by.type === 'saving' ? { ...by, draft: now.state.draft } : by;
          const { state, keep } = all(now.state, given as CaptureStep);
          now = { state, keep: [...now.keep, ...keep] };
        }
        for (const field of ['along', 'touched', 'kind'] as const) {
          const last = now.keep.filter((k) => k.field === field).at(-1);
          if (last) expect(now.state.draft[field]).toBe(last.value);
        }
      }),
    );
  });
});
