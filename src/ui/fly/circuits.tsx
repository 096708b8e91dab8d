'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { LoggedWind } from '@/domain/capture';
import { ALONG_BANDS, FIRMNESS_WORDS, INTERVENTIONS, KEPT_WORDS, LATERAL_BANDS, SIDED_BANDS, SWING_BANDS, packWords, say } from '@/domain/words';
import { BOUNCE_HANDLING, GO_AROUND_WORDS, TRIGGER_WORDS } from '@/domain/assess-words';
import type { Folded, SortiePack } from '@/offline/protocol';
import { onControl, shortcutsOff } from '../shared/events';
import type { Record_ } from './cockpit';
import { type Draft, cleanOffered, freshDraft, movePlace, nextSided, toCaptured } from './draft';

type Ended = 'stopped' | 'climbing-away' | null;
interface Props { pack: SortiePack; folded: Folded; wind: LoggedWind | null; record: Record_; counts: string; say: (line: string) => void; askWind: () => void }

const CHECKS: [keyof Draft['goAroundExecution'] & string, string][] = [['power', 'power'], ['attitude', 'attitude'], ['speed', 'speed'], ['configurationOrder', 'flap and gear order'], ['tracking', 'tracking'], ['secondContact', 'no second contact']];
const KINDS = ['full-stop', 'touch-and-go', 'go-around', 'low-pass'] as const;

/** Landing capture. One landing on one screen; an untouched row means *not seen*. Eyes are out from base turn until stopped or climbing away. */
export function Circuits({ pack, folded, wind, record, counts, say: tell, askWind }: Props) {
  const newest = Object.keys(folded.drafts).at(-1);
  const [subject, setSubject] = useState(() => newest ?? crypto.randomUUID());
  const [draft, setDraft] = useState<Draft>(() => ({ ...freshDraft(pack), ...(newest ? (folded.drafts[newest] as Partial<Draft>) : {}) }));
  const [eyesOut, setEyesOut] = useState(false);
  const [ended, setEnded] = useState<Ended>(() => (newest ? ((folded.drafts[newest]?.ended as Ended | undefined) ?? null) : null));
  const busy = useRef(false);
  const number = folded.landings.length + 1;
  const words = packWords(pack.pack);

  const set = useCallback((change: Partial<Draft>) => {
    setDraft((d) => ({ ...d, ...change }));
    for (const [field, value] of Object.entries(change)) record('field-set', subject, { field, value }).catch(() => undefined);
  }, [record, subject]);

  const end = (how: Exclude<Ended, null>) => {
    setEyesOut(false);
    setEnded(how);
    set({ endedAt: new Date().toISOString(), ...(how === 'climbing-away' && draft.kind === 'full-stop' ? { kind: 'touch-and-go' as const } : {}) });
    record('field-set', subject, { field: 'ended', value: how }).catch(() => undefined);
  };

  const save = useCallback(async () => {
    if (busy.current) return;
    if (draft.kind !== 'go-around' && draft.kind !== 'low-pass' && draft.touched === null && draft.intervention === null && draft.along === null && draft.cleanTap === null) {
      tell('Nothing is tapped yet. Tap what you saw, then save.');
      return;
    }
    busy.current = true;
    try {
      await record('landing-saved', subject, toCaptured(draft, wind, pack.runwayEnd));
      tell(`${draft.kind === 'go-around' ? 'Go-around' : 'Landing'} ${number} saved on this device.`);
      setSubject(crypto.randomUUID());
      setDraft(freshDraft(pack));
      setEnded(null);
      window.scrollTo(0, 0);
    } catch {
      // The shell has said that nothing was kept; the draft stays on the screen.
    } finally {
      busy.current = false;
    }
  }, [draft, number, pack, record, subject, tell, wind]);

  const undo = useCallback(async () => {
    const last = folded.landings.at(-1);
    if (!last || busy.current) return tell('Nothing to undo.');
    busy.current = true;
    try {
      await record('undone', last.id, {});
      const id = crypto.randomUUID();
      const { wind: _wind, runwayEnd: _runway, ...back } = last.landing;
      setSubject(id);
      setDraft(back);
      setEnded(back.cleanTap ?? null);
      for (const [field, value] of Object.entries(back)) record('field-set', id, { field, value }).catch(() => undefined);
      tell(`Landing ${folded.landings.length} taken back. It stands here again as a draft.`);
    } finally {
      busy.current = false;
    }
  }, [folded.landings, record, tell]);

  const clean = useCallback(() => {
    if (cleanOffered(draft, ended)) set({ cleanTap: draft.cleanTap ? null : ended });
    else tell('Clean is offered once you are stopped or climbing away.');
  }, [draft, ended, set, tell]);

  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      const control = onControl(e.target) && !(e.target as Element).closest('[data-drawing]');
      if (e.ctrlKey || e.metaKey || e.altKey || control || shortcutsOff()) return;
      const k = e.key.toLowerCase();
      if (eyesOut) {
        if (k === 's') end('stopped');
        else if (k === 'c') end('climbing-away');
        return;
      }
      if (k === 'n') setEyesOut(true);
      else if (k === 'g') set({ kind: 'go-around' });
      else if (k >= '1' && k <= '4') set({ intervention: Number(k) - 1 });
      else if (k === 'c') clean();
      else if (k === 'u') void undo();
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
          <button type="button" className="tap" autoFocus onClick={() => end('stopped')}>Stopped</button>
          <button type="button" className="tap" onClick={() => end('climbing-away')}>Climbing away</button>
        </div>
      </div>
    );
  }
  const goAround = draft.kind === 'go-around';
  return (
    <section aria-label={`Landing ${number}`}>
      <div className="head">
        <h1>{goAround ? 'Go-around' : 'Landing'} {number}</h1>
        <span>{pack.focus}</span>
        <span className="status">{counts}</span>
      </div>
      {!wind ? <p className="mb-2" style={{ fontSize: 17 }}>No wind logged yet: <button type="button" className="tap" style={{ width: 'auto', display: 'inline-block' }} onClick={askWind}>log the wind</button> so that the landing counts for wind.</p> : null}
      <div className="cap">
        {goAround ? <GoAround draft={draft} set={set} /> : <Landing draft={draft} set={set} pack={pack} />}
        <div className="wide rest" style={{ display: 'grid', gap: 10 }}>
          {goAround ? null : <Rest draft={draft} set={set} pack={pack} />}
          <div><h2>Whose {goAround ? 'go-around' : 'landing'} was it</h2>
            <div className="taps t4" role="group" aria-label="Whose landing was it">{INTERVENTIONS.map((i) => <button key={i.level} type="button" className="tap" aria-pressed={draft.intervention === i.level} onClick={() => set({ intervention: draft.intervention === i.level ? null : i.level })}>{i.word}<small>{i.hint}</small></button>)}</div>
          </div>
          <div className="taps" style={{ gridTemplateColumns: '1fr 1.25fr 1.25fr' }}>
            <button type="button" className="tap" aria-pressed={draft.demonstration} onClick={() => set({ demonstration: !draft.demonstration })}>My demonstration</button>
            <button type="button" className="tap" aria-pressed={ended === 'stopped'} onClick={() => end('stopped')}>Stopped<small>device may be touched</small></button>
            <button type="button" className="tap" aria-pressed={ended === 'climbing-away'} onClick={() => end('climbing-away')}>Climbing away<small>climb established</small></button>
          </div>
        </div>
        <div className="wide foot taps" style={{ gridTemplateColumns: '1fr 1.1fr 1.1fr 1.8fr' }}>
          <button type="button" className="tap big" onClick={() => void undo()}>Undo</button>
          <button type="button" className="tap big" aria-pressed={draft.cleanTap !== null} disabled={!cleanOffered(draft, ended)} onClick={clean}>Clean<small>no drift, crab, swing, bounce</small></button>
          <button type="button" className="tap big" onClick={() => setEyesOut(true)}>Eyes out<small>turning base, {words.circuit}</small></button>
          <button type="button" className="tap big go" onClick={() => void save()}>Save {goAround ? 'go-around' : 'landing'}</button>
        </div>
        <p className="wide mb-0" style={{ fontSize: 15 }}>Help early; the record forgives it. Untouched rows are <em>not seen</em>, never assumed good.</p>
      </div>
    </section>
  );
}

type Setter = (change: Partial<Draft>) => void;

/** One row of words; the chosen one again takes it back to *not seen*. */
function Words<T extends string>({ title, options, now, choose, columns, name = say, off = false }: { title: string; options: readonly T[]; now: T | null; choose: (v: T | null) => void; columns: number; name?: (v: string) => string; off?: boolean }) {
  return <div><h2>{title}</h2><div className={`taps t${columns}`} role="group" aria-label={title}>{options.map((o) => <button key={o} type="button" className="tap" aria-pressed={now === o} disabled={off} onClick={() => choose(now === o ? null : o)}>{name(o)}</button>)}</div></div>;
}

function Sided<K extends 'drift' | 'crab' | 'swing'>({ title, field, draft, set, bands, left, right }: { title: string; field: K; draft: Draft; set: Setter; bands: readonly string[]; left: string; right: string }) {
  const now = draft[field];
  const tap = (side: 'left' | 'right') => set({ [field]: nextSided(now, side, bands) } as Partial<Draft>);
  const band = (side: 'left' | 'right') => (now?.side === side ? <small>{say(now.band)}</small> : null);
  return (
    <div><h2>{title}</h2><div className="taps t3" role="group" aria-label={title}>
      <button type="button" className="tap" aria-pressed={now?.side === 'left'} onClick={() => tap('left')}>{left}{band('left')}</button>
      <button type="button" className="tap" aria-pressed={now?.band === 'none'} onClick={() => set({ [field]: now?.band === 'none' ? null : { band: 'none', side: null } } as Partial<Draft>)}>none</button>
      <button type="button" className="tap" aria-pressed={now?.side === 'right'} onClick={() => tap('right')}>{right}{band('right')}</button>
    </div></div>
  );
}

function Landing({ draft, set, pack }: { draft: Draft; set: Setter; pack: SortiePack }) {
  const meant = pack.tailwheel ? (['three-point', 'mains-first'] as const) : (['mains-first'] as const);
  const touched = pack.tailwheel ? (['three-point', 'mains-first', 'tail-first', 'flat'] as const) : (['mains-first', 'flat', 'nose-first'] as const);
  const touchName = (w: string) => (w === 'mains-first' ? 'mains first' : say(w));
  return (
    <>
      <div className="col">
        <Words title="Kind" options={KINDS} now={draft.kind} choose={(v) => set({ kind: v ?? 'full-stop' })} columns={2} />
        <Words title="Meant" options={meant} now={draft.intended as never} choose={(v) => set({ intended: v ?? pack.intended })} columns={pack.tailwheel ? 2 : 1} />
        <Words title="Touched" options={touched} now={draft.touched as never} choose={(v) => set({ touched: v })} columns={2} name={touchName} />
        <Fence draft={draft} set={set} pack={pack} />
      </div>
      <Runway draft={draft} set={set} pack={pack} />
      <div className="col">
        <Sided title="Drift at touchdown" field="drift" draft={draft} set={set} bands={SIDED_BANDS} left="left" right="right" />
        <Sided title="Nose, crab" field="crab" draft={draft} set={set} bands={SIDED_BANDS} left="left" right="right" />
        <Sided title="Swing in the roll-out" field="swing" draft={draft} set={set} bands={SWING_BANDS} left="left" right="right" />
        <Words title="Bounces" options={['0', '1', '2', '3'] as const} now={draft.bounce === null ? null : (String(Math.min(3, draft.bounce.count)) as '0')} choose={(v) => set({ bounce: v === null ? null : { count: Number(v), handling: v === '0' ? null : (draft.bounce?.handling ?? null) } })} columns={2} name={(v) => (v === '3' ? '3+' : v)} />
      </div>
    </>
  );
}

/** The speed over the threshold as read; it starts at the briefed target but counts only once touched. */
function Fence({ draft, set, pack }: { draft: Draft; set: Setter; pack: SortiePack }) {
  const from = draft.fenceSpeed ?? pack.fenceTarget ?? 60;
  return (
    <div><h2>At the fence{pack.fenceTarget === null ? '' : `, target ${pack.fenceTarget}`}</h2>
      <div className="stepper">
        <button type="button" className="tap" aria-label="Speed at the fence less" onClick={() => set({ fenceSpeed: draft.fenceSpeed === null ? from : from - 1 })}>–</button>
        <button type="button" className="tap num" aria-label={draft.fenceSpeed === null ? 'Speed not seen' : `${draft.fenceSpeed} ${pack.unit}, take back`} onClick={() => set({ fenceSpeed: draft.fenceSpeed === null ? from : null })}>{draft.fenceSpeed === null ? <small>not seen</small> : <>{draft.fenceSpeed}<small>{pack.unit}</small></>}</button>
        <button type="button" className="tap" aria-label="Speed at the fence more" onClick={() => set({ fenceSpeed: draft.fenceSpeed === null ? from : from + 1 })}>+</button>
      </div>
    </div>
  );
}

/** The runway: five places across, four along, tapped as one. Earlier landings and the standard's box stay hidden, so that they do not pull the tap. */
function Runway({ draft, set, pack }: { draft: Draft; set: Setter; pack: SortiePack }) {
  const along = [...ALONG_BANDS].reverse();
  const { aimPointM: aim, box } = pack;
  const metres: Record<string, string> = { short: `${aim - box.before}`, 'in-the-box': `${aim + box.past}`, long: `${aim + 2 * box.past}`, 'very-long': 'm' };
  const reach: Record<string, string> = { short: `before ${aim - box.before} m`, 'in-the-box': `${aim - box.before} to ${aim + box.past} m`, long: `${aim + box.past} to ${aim + 2 * box.past} m`, 'very-long': `beyond ${aim + 2 * box.past} m` };
  return (
    <div className="runway" data-drawing role="group" aria-label="Where the wheels touched">
      <div className="scale" aria-hidden>{along.map((a) => <span key={a} style={{ alignSelf: 'start', transform: a === 'very-long' ? 'none' : 'translateY(-10px)' }}>{metres[a]}</span>)}</div>
      <div className="cells">
        <div className="line" aria-hidden />
        {along.flatMap((a) => LATERAL_BANDS.map((l) => (
          <button key={`${a}${l}`} type="button" aria-pressed={draft.along === a && draft.lateral === l} aria-label={`${say(a)}, ${say(l)}`} 
            onClick={() => set(draft.along === a && draft.lateral === l ? { along: null, lateral: null } : { along: a, lateral: l })} />
        )))}
      </div>
      <div className="thr" aria-hidden />
      <div className="under" aria-hidden><span>runway {pack.runwayEnd}</span><span>{draft.along && draft.lateral ? `${reach[draft.along]}, ${say(draft.lateral)}` : 'tap where it touched'}</span></div>
    </div>
  );
}

function Rest({ draft, set, pack }: { draft: Draft; set: Setter; pack: SortiePack }) {
  return (
    <>
      <div className="pair">
        <Words title="Into-wind aileron" options={KEPT_WORDS} now={draft.aileron} choose={(v) => set({ aileron: v })} columns={3} />
        {pack.tailwheel ? <Words title="Stick back" options={KEPT_WORDS} now={draft.stick} choose={(v) => set({ stick: v })} columns={3} /> : null}
        <Words title="Bounce handled by" options={BOUNCE_HANDLING} now={draft.bounce?.handling ?? null} choose={(v) => set({ bounce: { count: draft.bounce?.count ?? 1, handling: v } })} columns={4} off={(draft.bounce?.count ?? 0) === 0} />
        <Words title="Firmness" options={FIRMNESS_WORDS} now={draft.firmness} choose={(v) => set({ firmness: v })} columns={4} />
        {pack.hasFlapOrGear ? <Words title="Configuration" options={['right', 'late', 'wrong'] as const} now={draft.configuration} choose={(v) => set({ configuration: v })} columns={3} /> : null}
      </div>
      <Words title="Go-around trigger" options={TRIGGER_WORDS} now={draft.trigger} choose={(v) => set({ trigger: v })} columns={4} />
    </>
  );
}

function GoAround({ draft, set }: { draft: Draft; set: Setter }) {
  const all = CHECKS.every(([id]) => draft.goAroundExecution[id] === 'within');
  return (
    <div className="wide" style={{ display: 'grid', gap: 14 }}>
      <Words title="Kind" options={KINDS} now={draft.kind} choose={(v) => set({ kind: v ?? 'full-stop' })} columns={4} />
      <Words title="Went around: a decision, recorded as one. When?" options={GO_AROUND_WORDS} now={draft.goAroundWord} choose={(v) => set({ goAroundWord: v })} columns={3} name={(w) => (w === 'before' ? 'before the trigger' : w === 'late' ? 'after the trigger' : say(w))} />
      <div><h2>How it was flown</h2>
        <button type="button" className="tap mb-2" aria-pressed={all} onClick={() => set({ goAroundExecution: all ? {} : Object.fromEntries(CHECKS.map(([id]) => [id, 'within'])) as Draft['goAroundExecution'] })}>All six seen, all good</button>
        <div className="taps" style={{ gridTemplateColumns: 'repeat(2, 1fr)' }}>
          {CHECKS.map(([id, title]) => <Words key={id} title={title} options={['within', 'edge', 'outside'] as const} now={(draft.goAroundExecution[id] ?? null) as 'within' | null} choose={(v) => { const { [id]: _old, ...others } = draft.goAroundExecution; set({ goAroundExecution: v ? { ...others, [id]: v } : others }); }} columns={3} name={(v) => (v === 'within' ? 'good' : v)} />)}
        </div>
      </div>
    </div>
  );
}
