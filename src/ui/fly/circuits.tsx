'use client';
import { lazy, Suspense, useCallback, useEffect, useRef, useState } from 'react';
import type { LoggedWind } from '@/domain/capture';
import { HELP_CONTROLS } from '@/domain/airwork';
import type { SERIOUS } from '@/domain/words';
import {
  ALONG_BANDS,
  type Attitude,
  FIRMNESS_WORDS,
  KEPT_WORDS,
  LANDING_KINDS,
  LATERAL_BANDS,
  MEANT,
  SIDED_BANDS,
  SWING_BANDS,
  meant,
  packWords,
  say,
} from '@/domain/words';
import { BOUNCE_HANDLING, TRIGGER_WORDS } from '@/domain/assess-words';
import type { Folded, FoldedLanding, SortiePack } from '@/offline/protocol';
import { onControl, shortcutsOff } from '../shared/events';
import type { SaveEvent } from './view';
import {
  type Draft,
  type Setter,
  cleanOffered,
  cleanTap,
  contradiction,
  freshDraft,
  movePlace,
  nextSided,
  savesNow,
  toCaptured,
} from './draft';
import { Stepper, Whose, Words } from './parts';

const GoAround = lazy(async () => ({ default: (await import('./go-around')).GoAround }));
const SoFar = lazy(async () => ({ default: (await import('./so-far')).SoFar }));
const More = lazy(async () => ({ default: (await import('./more')).More }));

type Ended = 'stopped' | 'climbing-away' | null;
const DOUBLE_TAP_MS = 600;
interface Props {
  pack: SortiePack;
  folded: Folded;
  wind: LoggedWind | null;
  runwayEnd: string;
  record: SaveEvent;
  counts: string;
  say: (line: string) => void;
  askWind: () => void;
  toPaper: () => void;
}

/** The pilot of this checkout, where two share the flight. */
const MAIN = 'main';
const touchName = (w: string) => (w === 'mains-first' ? 'mains first' : say(w));

/**
 * Landing capture. One landing on one screen; an untouched row means *not seen*. Eyes are out from base turn until
 * stopped or climbing away.
 */
export function Circuits({ pack, folded, wind, runwayEnd, record, counts, say: tell, askWind, toPaper }: Props) {
  const newest = Object.keys(folded.drafts).at(-1);
  const [subject, setSubject] = useState(() => newest ?? crypto.randomUUID());
  const [draft, setDraft] = useState<Draft>(() => ({
    ...freshDraft(pack),
    ...(newest ? (folded.drafts[newest] as Partial<Draft>) : {}),
  }));
  const [eyesOut, setEyesOut] = useState(false);
  const [ended, setEnded] = useState<Ended>(() =>
    newest ? ((folded.drafts[newest]?.ended as Ended | undefined) ?? null) : null,
  );
  /** The saved landing that is being put right: it keeps its place and its number. */
  const [correcting, setCorrecting] = useState<FoldedLanding | null>(null);
  // Who flew the landing that is put right; null = the pilot of this checkout.
  const [flownBy, setFlownBy] = useState<string | null>(null);
  const [between, setBetween] = useState(newest === undefined && folded.landings.length > 0);
  const [more, setMore] = useState(false);
  const busy = useRef(false);
  /** Tapped while the last landing was still being saved: it belongs to the next one. */
  const early = useRef<{ change: Partial<Draft>; ended: Ended }>({ change: {}, ended: null });
  const savedAt = useRef(-Infinity);
  const replaced = draft.replaces === null ? undefined : folded.changes.find((c) => c.subject === draft.replaces);
  const number = correcting ? correcting.number : (replaced?.number ?? (folded.numbered[pack.sortieId] ?? 0) + 1);
  const words = packWords(pack.pack);
  const flying = folded.flying[pack.sortieId] ?? pack.pilotId ?? null;
  const whose = flying === null || flying === pack.pilotId ? null : flying;

  const set = useCallback(
    (change: Partial<Draft>) => {
      if (busy.current) {
        early.current.change = { ...early.current.change, ...change };
        return;
      }
      setDraft((d) => ({ ...d, ...change }));
      setBetween(false);
      // A correction is one event when it is saved; the landing itself stands until then.
      if (!correcting)
        for (const [field, value] of Object.entries(change))
          record('field-set', subject, { field, value }).catch(() => undefined);
    },
    [correcting, record, subject],
  );

  const fresh = useCallback(() => {
    const { change, ended: how } = early.current;
    early.current = { change: {}, ended: null };
    const id = crypto.randomUUID();
    setSubject(id);
    setDraft({ ...freshDraft(pack), ...change });
    setEnded(how);
    setCorrecting(null);
    setMore(false);
    setBetween(Object.keys(change).length === 0);
    for (const [field, value] of Object.entries({ ...change, ...(how ? { ended: how } : {}) }))
      record('field-set', id, { field, value }).catch(() => undefined);
    window.scrollTo(0, 0);
  }, [pack, record]);

  const out = () => {
    setBetween(false);
    setEyesOut(true);
  };
  const end = (how: Exclude<Ended, null>) => {
    setEyesOut(false);
    if (busy.current) early.current.ended = how;
    else setEnded(how);
    set({
      endedAt: new Date().toISOString(),
      ...(how === 'climbing-away' && draft.kind === 'full-stop' ? { kind: 'touch-and-go' as const } : {}),
    });
    if (!busy.current) record('field-set', subject, { field: 'ended', value: how }).catch(() => undefined);
  };

  /** The second half of a double tap that saved: no word about the next landing, of which nothing is tapped yet. */
  const secondHalf = useCallback(() => between && performance.now() - savedAt.current < DOUBLE_TAP_MS, [between]);

  const save = useCallback(
    async (with_: Partial<Draft> = {}) => {
      if (busy.current || secondHalf()) return;
      const full = { ...draft, ...with_ };
      if (
        full.kind !== 'go-around' &&
        full.kind !== 'low-pass' &&
        full.touched === null &&
        full.intervention === null &&
        full.along === null &&
        full.cleanTap === null
      ) {
        tell('Nothing is tapped yet. Tap what you saw, then save.');
        return;
      }
      const asked = contradiction(full);
      if (asked) {
        setDraft(full);
        tell(asked);
        return;
      }
      busy.current = true;
      let kept = false;
      try {
        if (correcting)
          await record('corrected', correcting.id, {
            ...toCaptured(full, correcting.landing.wind, correcting.landing.runwayEnd, flownBy),
            fromPaper: correcting.landing.fromPaper,
            replaces: correcting.landing.replaces,
          });
        else
          await record('landing-saved', subject, {
            ...toCaptured(full, wind, runwayEnd, whose),
            replaces: full.replaces,
          });
        tell(
          `${full.kind === 'go-around' ? 'Go-around' : 'Landing'} ${number} ${correcting ? 'put right and saved' : 'saved'} on this device.`,
        );
        kept = true;
      } catch {
        // The shell has said that nothing was kept; the draft stays on the screen.
      } finally {
        busy.current = false;
      }
      if (kept) {
        savedAt.current = performance.now();
        return fresh();
      }
      // Not saved: what was tapped meanwhile was about this landing after all.
      const { change, ended: how } = early.current;
      early.current = { change: {}, ended: null };
      if (how) setEnded(how);
      set(change);
    },
    [correcting, draft, flownBy, fresh, number, record, runwayEnd, secondHalf, set, subject, tell, whose, wind],
  );

  const undo = useCallback(async () => {
    if (correcting) return fresh();
    const last = folded.landings.at(-1);
    if (!last || busy.current) return tell('Nothing to undo.');
    busy.current = true;
    try {
      await record('undone', last.id, {});
      const id = crypto.randomUUID();
      const { wind: _wind, runwayEnd: _runway, pilotId: _pilot, fromPaper: _paper, ...was } = last.landing;
      // Saved again it stands for the one taken back, and keeps its number.
      const back = { ...was, replaces: last.id };
      setSubject(id);
      setDraft(back);
      setEnded(back.cleanTap ?? null);
      setBetween(false);
      for (const [field, value] of Object.entries(back))
        record('field-set', id, { field, value }).catch(() => undefined);
      tell(`Landing ${last.number} undone; the debrief shows it. It is a draft here again.`);
    } catch {
      // Said by the shell.
    } finally {
      busy.current = false;
    }
  }, [correcting, folded.landings, fresh, record, tell]);

  const correct = (landing: FoldedLanding) => {
    const { wind: _wind, runwayEnd: _runway, pilotId: _pilot, fromPaper: _paper, ...back } = landing.landing;
    setCorrecting(landing);
    setFlownBy(landing.landing.pilotId);
    setDraft(back);
    setEnded(back.cleanTap ?? 'stopped');
    setBetween(false);
    window.scrollTo(0, 0);
  };

  /** Whose it was; in the common case it is the third tap, and saves. */
  const choose = useCallback(
    (level: number) => {
      if (busy.current || secondHalf()) return;
      if (!correcting && savesNow(draft, level)) return void save({ intervention: level });
      set({ intervention: draft.intervention === level ? null : level });
    },
    [correcting, draft, save, secondHalf, set],
  );

  const clean = useCallback(
    (touched: Attitude | null) => {
      if (!cleanOffered(draft, ended) || ended === null)
        return tell('Clean is offered once you are stopped or climbing away.');
      set(cleanTap(draft, ended, touched ?? draft.intended ?? pack.intended));
    },
    [draft, ended, pack.intended, set, tell],
  );

  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      const control = onControl(e.target) && !(e.target as Element).closest('[data-drawing]');
      if (e.ctrlKey || e.metaKey || e.altKey || control || shortcutsOff() || more) return;
      const k = e.key.toLowerCase();
      if (eyesOut) {
        if (k === 's') end('stopped');
        else if (k === 'c') end('climbing-away');
        return;
      }
      if (k === 'n') out();
      else if (k === 'g') set({ kind: 'go-around' });
      else if (k >= '1' && k <= '4') choose(Number(k) - 1);
      else if (k === 'c') clean(null);
      else if (k === 'u') void undo();
      else if (k === 'm') setMore(true);
      else if (k === 'enter') void save();
      else if (k === 'arrowup') set(movePlace(draft, 1, 0));
      else if (k === 'arrowdown') set(movePlace(draft, -1, 0));
      else if (k === 'arrowleft') set(movePlace(draft, 0, -1));
      else if (k === 'arrowright') set(movePlace(draft, 0, 1));
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  });

  if (eyesOut) {
    return (
      <div className="eyes" role="dialog" aria-label="Eyes out">
        <div className="word">eyes out</div>
        <div className="taps t2">
          {/* eslint-disable-next-line jsx-a11y/no-autofocus -- a dialog takes the focus, and nothing else is on this screen */}
          <button type="button" className="tap" autoFocus onClick={() => end('stopped')}>
            Stopped
          </button>
          <button type="button" className="tap" onClick={() => end('climbing-away')}>
            Climbing away
          </button>
        </div>
      </div>
    );
  }
  const goAround = draft.kind === 'go-around';
  const cleans: Attitude[] = pack.tailwheel ? ['three-point', 'mains-first'] : ['mains-first'];
  const helped = (draft.intervention ?? 0) >= 2;
  return (
    <section aria-label={`Landing ${number}`}>
      <div className="head">
        <h1>
          {goAround ? 'Go-around' : 'Landing'} {number}
          {correcting ? ', put right' : ''}
        </h1>
        <span className={between ? 'focus' : undefined}>{pack.focus ? `Now: ${pack.focus}` : ''}</span>
        <span className="status">{counts}</span>
      </div>
      {between && !correcting ? (
        <Suspense fallback={null}>
          <SoFar pack={pack} folded={folded} correct={correct} toPaper={toPaper} />
        </Suspense>
      ) : null}
      {!wind ? (
        <p className="mb-2" style={{ fontSize: 17 }}>
          No wind logged yet:{' '}
          <button type="button" className="tap" style={{ width: 'auto', display: 'inline-block' }} onClick={askWind}>
            log the wind
          </button>{' '}
          so that the landing counts for wind.
        </p>
      ) : null}
      <div className="cap">
        {goAround ? (
          <Suspense fallback={null}>
            <GoAround draft={draft} set={set} />
          </Suspense>
        ) : (
          <Landing draft={draft} set={set} pack={pack} runwayEnd={correcting?.landing.runwayEnd ?? runwayEnd} />
        )}
        <div className="wide rest" style={{ display: 'grid', gap: 10 }}>
          {goAround ? null : <Rest draft={draft} set={set} pack={pack} />}
          {correcting && pack.second ? (
            <Words
              title="Who flew it"
              options={[MAIN, pack.second.pilotId]}
              now={flownBy ?? MAIN}
              choose={(v) => setFlownBy(v === null || v === MAIN ? null : v)}
              columns={2}
              name={(v) => (v === MAIN ? pack.pilotName : (pack.second?.name ?? v))}
            />
          ) : null}
          <Whose
            title={`Whose ${goAround ? 'go-around' : 'landing'} was it`}
            now={draft.intervention}
            choose={choose}
          />
          {helped || draft.helpedOn.length > 0 ? (
            <div>
              <h2>Helped on</h2>
              <div className="taps of6" role="group" aria-label="Helped on">
                {HELP_CONTROLS.map((c) => (
                  <button
                    key={c}
                    type="button"
                    className="tap"
                    aria-pressed={draft.helpedOn.includes(c)}
                    onClick={() =>
                      set({
                        helpedOn: draft.helpedOn.includes(c)
                          ? draft.helpedOn.filter((x) => x !== c)
                          : [...draft.helpedOn, c],
                      })
                    }
                  >
                    {say(c)}
                  </button>
                ))}
              </div>
            </div>
          ) : null}
          <div className="taps ends">
            <button
              type="button"
              className="tap"
              aria-pressed={draft.demonstration}
              onClick={() => set({ demonstration: !draft.demonstration })}
            >
              My demonstration
            </button>
            <button type="button" className="tap" aria-pressed={ended === 'stopped'} onClick={() => end('stopped')}>
              Stopped<small>device may be touched</small>
            </button>
            <button
              type="button"
              className="tap"
              aria-pressed={ended === 'climbing-away'}
              onClick={() => end('climbing-away')}
            >
              Climbing away<small>climb established</small>
            </button>
            <button type="button" className="tap" aria-haspopup="dialog" onClick={() => setMore(true)}>
              More<small>gates, roll-out, note</small>
            </button>
          </div>
        </div>
        <div className={`wide foot taps ${cleans.length > 1 ? 'two' : ''}`}>
          <button type="button" className="tap big" onClick={() => void undo()}>
            {correcting ? 'Leave it' : 'Undo'}
          </button>
          {cleans.map((a) => (
            <button
              key={a}
              type="button"
              className="tap big"
              aria-pressed={draft.cleanTap !== null && draft.touched === a}
              disabled={!cleanOffered(draft, ended)}
              onClick={() => clean(a)}
            >
              Clean, <span className="nb">{touchName(a)}</span>
              <small>no drift, crab, swing, bounce</small>
            </button>
          ))}
          <button type="button" className="tap big" disabled={correcting !== null} onClick={out}>
            Eyes out<small>turning base, {words.circuit}</small>
          </button>
          <button type="button" className="tap big go" onClick={() => void save()}>
            Save {goAround ? 'go-around' : 'landing'}
          </button>
        </div>
        <p className="wide mb-0" style={{ fontSize: 15 }}>
          Help early; the record forgives it. Untouched rows are <em>not seen</em>, never assumed good. Place, clean,
          whose: the third tap saves.
        </p>
      </div>
      {more ? (
        <Suspense fallback={null}>
          <More pack={pack} draft={draft} set={set} close={() => setMore(false)} />
        </Suspense>
      ) : null}
    </section>
  );
}

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

function Landing({ draft, set, pack, runwayEnd }: { draft: Draft; set: Setter; pack: SortiePack; runwayEnd: string }) {
  const meanings = pack.tailwheel ? MEANT : (['mains-first'] as const);
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
        <Words
          title="Meant"
          options={meanings}
          now={draft.intended as never}
          choose={(v) => set({ intended: v ?? meant(pack.intended) })}
          columns={pack.tailwheel ? 2 : 1}
        />
        <Words
          title="Touched"
          options={touched}
          now={draft.touched as never}
          choose={(v) => set({ touched: v })}
          columns={2}
          name={touchName}
        />
        <Fence draft={draft} set={set} pack={pack} />
      </div>
      <Runway draft={draft} set={set} pack={pack} runwayEnd={runwayEnd} />
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
        <Sided title="Nose, crab" field="crab" draft={draft} set={set} bands={SIDED_BANDS} left="left" right="right" />
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

/** Outside whatever else was seen, in one tap; `with_` is what it says beside it. */
function Serious({
  of,
  draft,
  set,
  with_,
}: {
  of: (typeof SERIOUS)[number];
  draft: Draft;
  set: Setter;
  with_: Partial<Draft>;
}) {
  const on = draft.serious.includes(of);
  return (
    <button
      type="button"
      className="tap"
      aria-pressed={on}
      onClick={() =>
        set(on ? { serious: draft.serious.filter((x) => x !== of) } : { serious: [...draft.serious, of], ...with_ })
      }
    >
      {say(of)}
    </button>
  );
}

/** The speed over the threshold as read; it starts at the briefed target but counts only once touched. */
function Fence({ draft, set, pack }: { draft: Draft; set: Setter; pack: SortiePack }) {
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

/**
 * The runway: five places across, four along, tapped as one. Earlier landings and the standard's box stay hidden, so
 * that they do not pull the tap.
 */
function Runway({ draft, set, pack, runwayEnd }: { draft: Draft; set: Setter; pack: SortiePack; runwayEnd: string }) {
  const along = [...ALONG_BANDS].reverse();
  const { box } = pack;
  const from = pack.touchdownM ?? pack.aimPointM;
  const metres: Record<string, string> = {
    short: `${from - box.before}`,
    'in-the-box': `${from + box.past}`,
    long: `${from + 2 * box.past}`,
    'very-long': 'm',
  };
  const reach: Record<string, string> = {
    short: `before ${from - box.before} m`,
    'in-the-box': `${from - box.before} to ${from + box.past} m`,
    long: `${from + box.past} to ${from + 2 * box.past} m`,
    'very-long': `beyond ${from + 2 * box.past} m`,
  };
  return (
    <div className="runway" data-drawing role="group" aria-label="Where the wheels touched">
      <div className="scale" aria-hidden>
        {along.map((a) => (
          <span key={a} style={{ alignSelf: 'start', transform: a === 'very-long' ? 'none' : 'translateY(-10px)' }}>
            {metres[a]}
          </span>
        ))}
      </div>
      <div className="cells">
        <div className="line" aria-hidden />
        {along.flatMap((a) =>
          LATERAL_BANDS.map((l) => (
            <button
              key={`${a}${l}`}
              type="button"
              aria-pressed={draft.along === a && draft.lateral === l}
              aria-label={`${say(a)}, ${say(l)}`}
              onClick={() =>
                set(
                  draft.along === a && draft.lateral === l ? { along: null, lateral: null } : { along: a, lateral: l },
                )
              }
            />
          )),
        )}
      </div>
      <div className="thr" aria-hidden />
      <div className="under" aria-hidden>
        <span>runway {runwayEnd}</span>
        <span>
          {draft.along && draft.lateral ? `${reach[draft.along]}, ${say(draft.lateral)}` : 'tap where it touched'}
        </span>
      </div>
      <div className="beyond taps t2" role="group" aria-label="Beyond the runway: outside in one tap">
        <Serious of="short-of-threshold" draft={draft} set={set} with_={{ along: 'short' }} />
        <Serious of="off-surface" draft={draft} set={set} with_={{}} />
      </div>
    </div>
  );
}

function Rest({ draft, set, pack }: { draft: Draft; set: Setter; pack: SortiePack }) {
  // In the place of the bounce, which nobody handled where there was none: the rows below do not move.
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
        {tail !== null && (draft.bounce?.count ?? 0) === 0 ? null : (
          <Words
            title="Bounce handled by"
            options={BOUNCE_HANDLING}
            now={draft.bounce?.handling ?? null}
            choose={(v) => set({ bounce: { count: draft.bounce?.count ?? 1, handling: v } })}
            columns={4}
            off={(draft.bounce?.count ?? 0) === 0}
          />
        )}
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
            options={['right', 'late', 'wrong'] as const}
            now={draft.configuration}
            choose={(v) => set({ configuration: v })}
            columns={3}
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
