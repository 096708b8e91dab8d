import { useCallback, useRef, useState } from 'react';
import type { CapturedLanding, LoggedWind } from '@/domain/capture';
import { type Attitude, packWords } from '@/domain/words';
import type { Folded, FoldedLanding, SortiePack } from '@/offline/protocol';
import { type CaptureState, type CaptureStep, type Ended, captureStart, step } from './capture-state';
import { type Draft, cleanOffered, cleanTap, contradiction, nothingTapped, savesNow, toCaptured } from './draft';
import { countsFor } from './counts-for';
import type { SaveEvent } from './view';

const DOUBLE_TAP_MS = 600;
interface Facts {
  pack: SortiePack;
  folded: Folded;
  wind: LoggedWind | null;
  runwayEnd: string;
  saveEvent: SaveEvent;
  tell: (line: string) => void;
}

/** The state of a capture and everything that may be done to it; each change is on the device before it is shown as saved. */
export function useCapture({ pack, folded, wind, runwayEnd, saveEvent, tell }: Facts) {
  const [state, show] = useState(() => captureStart(pack, folded, crypto.randomUUID()));
  // Two taps in one frame see each other: what is true now stands here, what is drawn follows.
  const now = useRef(state);
  const savedAt = useRef(-Infinity);
  const run = useCallback(
    (by: CaptureStep): CaptureState => {
      const [next, keep] = step(now.current, by, pack);
      now.current = next;
      show(next);
      for (const k of keep)
        saveEvent('field-set', k.subject, { field: k.field, value: k.value }).catch(() => undefined);
      return next;
    },
    [pack, saveEvent],
  );
  const { draft, correcting } = state;
  const replaced = draft.replaces === null ? undefined : folded.changes.find((c) => c.subject === draft.replaces);
  const number = correcting?.number ?? replaced?.number ?? (folded.numbered[pack.sortieId] ?? 0) + 1;
  const flying = folded.flying[pack.sortieId] ?? pack.pilotId ?? null;
  const whose = flying === null || flying === pack.pilotId ? null : flying;

  const next = () => {
    run({ type: 'next', id: crypto.randomUUID() });
    window.scrollTo(0, 0);
  };
  /** The second half of a double tap that saved: no word about the next landing, of which nothing is tapped yet. */
  const secondHalf = () => now.current.between && performance.now() - savedAt.current < DOUBLE_TAP_MS;
  const set = (change: Partial<Draft>) => void run({ type: 'set', change });

  const save = async (with_: Partial<Draft> = {}): Promise<void> => {
    if (now.current.busy || secondHalf()) return;
    const full = { ...now.current.draft, ...with_ };
    if (nothingTapped(full)) return tell('Nothing is tapped yet. Tap what you saw, then save.');
    const asked = contradiction(full);
    if (asked) {
      run({ type: 'ask', draft: full });
      return tell(asked);
    }
    const { subject, correcting: was, flownBy } = run({ type: 'saving', draft: full });
    try {
      if (was) await saveEvent('corrected', was.id, correctedLanding(full, was, flownBy));
      else
        await saveEvent('landing-saved', subject, {
          ...toCaptured(full, wind, runwayEnd, whose),
          replaces: full.replaces,
        });
    } catch {
      // The shell has said that nothing was kept; the draft stays on the screen.
      run({ type: 'not-saved' });
      return;
    }
    const what = full.kind === 'go-around' ? 'Go-around' : 'Landing';
    const counted = countsFor(full, pack, was?.landing.runwayEnd ?? runwayEnd);
    tell(`${what} ${number} ${was ? 'corrected and saved' : 'saved'} on this device. ${counted}`);
    savedAt.current = performance.now();
    next();
  };

  const undo = async (): Promise<void> => {
    if (now.current.correcting) return next();
    const last = folded.landings.at(-1);
    if (!last || now.current.busy) return tell('Nothing to undo.');
    run({ type: 'undoing' });
    try {
      await saveEvent('undone', last.id, {});
    } catch {
      // Said by the shell.
      run({ type: 'not-saved' });
      return;
    }
    run({ type: 'undone', landing: last, id: crypto.randomUUID() });
    tell(`Landing ${last.number} undone; the debrief shows it. It is a draft here again.`);
  };

  return {
    state,
    number,
    circuit: packWords(pack.pack).circuit,
    set,
    save,
    undo,
    out: () => void run({ type: 'eyes-out' }),
    end: (how: Exclude<Ended, null>) => void run({ type: 'end', how, at: new Date().toISOString() }),
    correct: (landing: FoldedLanding) => {
      run({ type: 'correct', landing });
      window.scrollTo(0, 0);
    },
    flownBy: (pilotId: string | null) => void run({ type: 'flown-by', pilotId }),
    more: (open: boolean) => void run({ type: 'more', open }),
    /** Whose it was; in the common case it is the third tap, and saves. */
    choose: (level: number) => {
      const { busy, correcting: was, draft: d } = now.current;
      if (busy || secondHalf()) return;
      if (!was && savesNow(d, level, pack)) return void save({ intervention: level });
      set({ intervention: d.intervention === level ? null : level });
    },
    clean: (touched: Attitude | null) => {
      const { draft: d, ended } = now.current;
      if (!cleanOffered(d, ended) || ended === null)
        return tell('Clean is offered once you are stopped or climbing away.');
      set(cleanTap(d, ended, touched ?? d.intended ?? pack.intended));
    },
  };
}
export type Capture = ReturnType<typeof useCapture>;

/** A corrected landing keeps its own wind and runway, and where it came from. */
function correctedLanding(draft: Draft, { landing }: FoldedLanding, flownBy: string | null): CapturedLanding {
  return {
    ...toCaptured(draft, landing.wind, landing.runwayEnd, flownBy),
    fromPaper: landing.fromPaper,
    replaces: landing.replaces,
  };
}
