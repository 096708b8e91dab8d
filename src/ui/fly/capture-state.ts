import type { Folded, FoldedLanding, SortiePack } from '@/offline/protocol';
import { type Draft, freshDraft } from './draft';

/**
 * One landing being taken, as a machine without a screen: `step` answers with the next state and with what is to be
 * kept on the device. While an event is being saved nothing tapped is lost and nothing of it joins the landing that is
 * saved: it waits in `early`.
 */
export type Ended = 'stopped' | 'climbing-away' | null;
export interface CaptureState {
  /** The landing on the screen. */
  subject: string;
  draft: Draft;
  eyesOut: boolean;
  ended: Ended;
  /** The saved landing that is being corrected: it keeps its place and its number. */
  correcting: FoldedLanding | null;
  /** Who flew the landing that is corrected; null = the pilot of this checkout. */
  flownBy: string | null;
  /** Nothing is tapped of this landing yet. */
  between: boolean;
  more: boolean;
  /** An event is being saved. */
  busy: boolean;
  /** Tapped while it was being saved. */
  early: { change: Partial<Draft>; ended: Ended };
}
export type CaptureStep =
  | { type: 'set'; change: Partial<Draft> }
  | { type: 'eyes-out' }
  | { type: 'end'; how: Exclude<Ended, null>; at: string }
  | { type: 'ask'; draft: Draft }
  | { type: 'saving'; draft: Draft }
  | { type: 'not-saved' }
  | { type: 'next'; id: string }
  | { type: 'undoing' }
  | { type: 'undone'; landing: FoldedLanding; id: string }
  | { type: 'correct'; landing: FoldedLanding }
  | { type: 'flown-by'; pilotId: string | null }
  | { type: 'more'; open: boolean };
/** A field of a draft, to be kept so that it comes back. */
export interface KeptField {
  subject: string;
  field: string;
  value: unknown;
}
type Stepped = [state: CaptureState, keep: KeptField[]];

const NOTHING_EARLY: CaptureState['early'] = { change: {}, ended: null };
const fieldsOf = (subject: string, change: object): KeptField[] =>
  Object.entries(change).map(([field, value]) => ({ subject, field, value }));

/** A saved landing as a draft again: its wind, runway and pilot stay with the landing. */
export function draftOf({ landing }: FoldedLanding): Draft {
  const { wind: _wind, runwayEnd: _runway, pilotId: _pilot, fromPaper: _paper, ...draft } = landing;
  return draft;
}

/** The draft this device has kept, or the next landing. */
export function captureStart(pack: SortiePack, folded: Folded, id: string): CaptureState {
  const newest = Object.keys(folded.drafts).at(-1);
  const kept = newest === undefined ? {} : (folded.drafts[newest] as Partial<Draft> & { ended?: Ended });
  return {
    subject: newest ?? id,
    draft: { ...freshDraft(pack), ...kept },
    eyesOut: false,
    ended: kept.ended ?? null,
    correcting: null,
    flownBy: null,
    between: newest === undefined && folded.landings.length > 0,
    more: false,
    busy: false,
    early: NOTHING_EARLY,
  };
}

function set(s: CaptureState, change: Partial<Draft>): Stepped {
  if (s.busy) return [{ ...s, early: { ...s.early, change: { ...s.early.change, ...change } } }, []];
  return [
    // A cue is given between two landings: what stands there stays.
    { ...s, draft: { ...s.draft, ...change }, between: s.between && Object.keys(change).every((k) => k === 'cue') },
    // A correction is one event when it is saved; the landing itself stands until then.
    s.correcting ? [] : fieldsOf(s.subject, change),
  ];
}

function end(s: CaptureState, how: Exclude<Ended, null>, at: string): Stepped {
  const away = how === 'climbing-away' && s.draft.kind === 'full-stop';
  const [next, keep] = set(
    { ...s, eyesOut: false, ...(s.busy ? { early: { ...s.early, ended: how } } : { ended: how }) },
    { endedAt: at, ...(away ? { kind: 'touch-and-go' as const } : {}) },
  );
  return [next, s.busy || s.correcting ? keep : [...keep, { subject: s.subject, field: 'ended', value: how }]];
}

/** The next landing, with what was tapped of it while the last one was being saved. */
function nextLanding(s: CaptureState, pack: SortiePack, id: string): Stepped {
  const { change, ended } = s.early;
  const next: CaptureState = {
    ...s,
    subject: id,
    draft: { ...freshDraft(pack), ...change },
    ended,
    correcting: null,
    more: false,
    between: Object.keys(change).length === 0,
    busy: false,
    early: NOTHING_EARLY,
  };
  return [next, fieldsOf(id, { ...change, ...(ended ? { ended } : {}) })];
}

/** What was tapped meanwhile was about this landing after all. */
function backToThis(s: CaptureState): Stepped {
  const { change, ended } = s.early;
  const free = { ...s, busy: false, early: NOTHING_EARLY, ended: ended ?? s.ended };
  return Object.keys(change).length === 0 ? [free, []] : set(free, change);
}

/**
 * The one place where the state of a capture changes.
 * @param pack what a next landing starts from
 */
export function step(s: CaptureState, by: CaptureStep, pack: SortiePack): Stepped {
  switch (by.type) {
    case 'set':
      return set(s, by.change);
    case 'eyes-out':
      return [{ ...s, eyesOut: true, between: false }, []];
    case 'end':
      return end(s, by.how, by.at);
    case 'ask':
      return [{ ...s, draft: by.draft }, []];
    case 'saving':
      return [{ ...s, draft: by.draft, busy: true }, []];
    case 'undoing':
      return [{ ...s, busy: true }, []];
    case 'not-saved':
      return backToThis(s);
    case 'next':
      return nextLanding(s, pack, by.id);
    case 'undone': {
      // Saved again it stands for the one taken back, and keeps its number.
      const draft = { ...draftOf(by.landing), replaces: by.landing.id };
      const back = { ...s, subject: by.id, draft, ended: draft.cleanTap ?? null, between: false };
      const [next, keep] = backToThis(back);
      return [next, [...fieldsOf(by.id, draft), ...keep]];
    }
    case 'correct': {
      const draft = draftOf(by.landing);
      const flownBy = by.landing.landing.pilotId;
      return [{ ...s, correcting: by.landing, flownBy, draft, ended: draft.cleanTap ?? 'stopped', between: false }, []];
    }
    case 'flown-by':
      return [{ ...s, flownBy: by.pilotId }, []];
    case 'more':
      return [{ ...s, more: by.open }, []];
  }
}
