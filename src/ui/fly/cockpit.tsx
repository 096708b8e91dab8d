'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { fold } from '@/offline/protocol';
import type { SortiePack } from '@/offline/protocol';
import type { StoredEvent } from '@/offline/client';
import type { EventType } from '@/domain/words';
import type { LoggedWind } from '@/domain/capture';
import { direction } from '@/core/format';
import { Circuits } from './circuits';
import { GearCheck } from './gear-check';
import { Items } from './items';

type State = { kind: 'reading' } | { kind: 'not-prepared'; sortieId: string | null; here: { sortieId: string; pilotName: string; registration: string; lesson: number; flownOn: string }[] } | { kind: 'ready'; pack: SortiePack; events: StoredEvent[] };
export type Record_ = (type: EventType, subjectId: string, payload: unknown) => Promise<void>;

/** The cockpit shell. The flight comes from the address and from this device only; the network is never waited for. */
export function Cockpit() {
  const [state, setState] = useState<State>({ kind: 'reading' });
  const [view, setView] = useState<'circuits' | 'items' | 'wheels'>('circuits');
  const [line, setLine] = useState('');
  const [waiting, setWaiting] = useState(0);
  const [windOpen, setWindOpen] = useState(false);
  const later = useRef<ReturnType<typeof setTimeout> | null>(null);
  const sendSoon = useRef<(ms: number) => void>(() => undefined);

  useEffect(() => {
    const q = new URLSearchParams(window.location.search);
    const asked = q.get('view');
    if (asked === 'items' || asked === 'wheels') setView(asked);
    const sortieId = q.get('sortie');
    void (async () => {
      const { store } = await import('@/offline/client');
      const pack = sortieId ? await store().packs.get(sortieId) : undefined;
      if (!pack) {
        const here = (await store().packs.toArray()).sort((a, b) => (a.preparedAt < b.preparedAt ? 1 : -1)).map(({ sortieId: id, pilotName, registration, lesson, flownOn }) => ({ sortieId: id, pilotName, registration, lesson, flownOn }));
        return setState({ kind: 'not-prepared', sortieId, here });
      }
      const events = await store().events.where('sortieId').equals(pack.sortieId).toArray();
      setState({ kind: 'ready', pack, events });
    })().catch(() => setLine('This browser cannot keep anything here. Use paper, and enter it afterwards.'));
  }, []);

  const send = useCallback(async () => {
    const { flush, waitingCount, store } = await import('@/offline/client');
    const result = await flush();
    setWaiting(await waitingCount());
    const sortieId = new URLSearchParams(window.location.search).get('sortie') ?? '';
    const kept = await store().events.where('sortieId').equals(sortieId).toArray();
    const known = new Set(kept.map((e) => e.eventId));
    // An event recorded while this was read is not in it yet: keep it.
    setState((s) => (s.kind === 'ready' ? { ...s, events: [...kept, ...s.events.filter((e) => !known.has(e.eventId))] } : s));
    // Another tab is sending, or this one was: look again for what came in meanwhile.
    if (result.state === 'busy') sendSoon.current(1000);
    // What was just confirmed stays readable beside the news of the network.
    if (result.message) setLine((l) => (/ saved/.test(l) && !l.includes(result.message) ? `${l} ${result.message}` : l.includes(result.message) ? l : result.message));
    else if (result.state === 'sent') setLine((l) => (/network|kept|field/i.test(l) ? '' : l));
  }, []);

  useEffect(() => {
    sendSoon.current = (ms) => {
      if (later.current) clearTimeout(later.current);
      later.current = setTimeout(() => void send(), ms);
    };
    return () => { if (later.current) clearTimeout(later.current); };
  }, [send]);

  useEffect(() => {
    if (state.kind !== 'ready') return;
    void send();
    const timer = setInterval(() => void send(), 15_000);
    window.addEventListener('online', send);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', send);
    };
  }, [state.kind, send]);

  const pack = state.kind === 'ready' ? state.pack : null;
  const record: Record_ = useCallback(async (type, subjectId, payload) => {
    if (!pack) return;
    const { record: keep } = await import('@/offline/client');
    try {
      const event = await keep(pack, type, subjectId, payload, new Date());
      setState((s) => (s.kind === 'ready' ? { ...s, events: [...s.events, event] } : s));
      setWaiting((n) => n + 1);
    } catch (error) {
      setLine('NOT SAVED: this device refused to keep it (full, or private browsing). Write it on paper now.');
      throw error;
    }
    if (type === 'field-set') sendSoon.current(2000);
    else void send();
  }, [pack, send]);

  const folded = useMemo(() => (state.kind === 'ready' ? fold(state.events) : null), [state]);

  if (state.kind === 'reading') return <main className="fly" id="main"><p role="status" style={{ paddingTop: 40 }}>Reading what is on this device …</p>{line ? <p role="alert">{line}</p> : null}</main>;
  if (state.kind === 'not-prepared' || !folded) {
    return (
      <main className="fly" id="main" style={{ paddingTop: 60, maxWidth: 640 }}>
        <h1>{state.kind === 'not-prepared' && state.sortieId === null ? 'Flights on this device' : 'Not prepared on this device'}</h1>
        {state.kind === 'not-prepared' && state.sortieId !== null ? <p>This flight was not taken along. On the ground, with the network, open the checkout, go to Fly and choose <em>Take this flight</em>.</p> : null}
        {state.kind === 'not-prepared' && state.here.length > 0
          ? <ul className="here" aria-label="Flights on this device">{state.here.map((p) => <li key={p.sortieId}><a className="tap" href={`/fly?sortie=${p.sortieId}&view=circuits`}>{p.pilotName}, lesson {p.lesson}<small>{p.registration}, {p.flownOn}</small></a></li>)}</ul>
          : <p>No flight is kept here yet.</p>}
        <p><a href="/board">To the board</a></p>
      </main>
    );
  }
  const { events } = state;
  const wind = folded.winds[state.pack.sortieId] ?? null;
  const saved = folded.landings.length;
  const sentLandings = folded.landings.filter((l) => events.some((e) => e.subjectId === l.id && e.type === 'landing-saved' && e.sent === 1)).length;
  return (
    <main className="fly" id="main">
      <header>
        <strong>{state.pack.pilotName.split(' ')[0]}</strong><span className="mono">{state.pack.registration}</span>
        <button type="button" onClick={() => setWindOpen(true)} aria-label={`Wind ${windWords(wind)}. Log the wind`}>{windWords(wind)}</button>
        <span className="push" />
        {state.pack.gearLamps ? <button type="button" aria-pressed={view === 'wheels'} onClick={() => setView(view === 'wheels' ? 'circuits' : 'wheels')}>{view === 'wheels' ? 'Landings' : 'Wheels'}</button> : null}
        <button type="button" aria-pressed={view === 'items'} onClick={() => setView(view === 'items' ? 'circuits' : 'items')}>{view === 'items' ? 'Landings' : 'Items'}</button>
        <a href={`/checkouts/${state.pack.checkoutId}/debrief`}>Debrief</a>
      </header>
      <p className="said mb-0" role={/NOT SAVED/.test(line) ? 'alert' : 'status'} style={line ? undefined : { minHeight: 0 }}>{line}</p>
      {view === 'circuits'
        ? <Circuits pack={state.pack} folded={folded} wind={wind} record={record} counts={`${saved} on this device, ${sentLandings} at the field${waiting > 0 ? `, ${waiting} taps to send` : ''}`} say={setLine} askWind={() => setWindOpen(true)} />
        : view === 'wheels' && state.pack.gearLamps
          ? <GearCheck pack={state.pack} lamps={state.pack.gearLamps} folded={folded} record={record} />
          : <Items pack={state.pack} items={folded.items} waivers={folded.waivers} record={record} say={setLine} />}
      {windOpen ? <WindSheet pack={state.pack} wind={wind} close={() => setWindOpen(false)} record={record} /> : null}
    </main>
  );
}

function windWords(wind: LoggedWind | null): string {
  if (!wind) return 'log the wind';
  const minutes = Math.floor((Date.now() - Date.parse(wind.at)) / 60_000);
  return `${direction(wind.fromDegMag)}/${String(wind.kt).padStart(2, '0')}${wind.gustKt ? ` G${wind.gustKt}` : ''} · ${minutes < 1 ? 'now' : `${minutes} min`}`;
}

/** Logs the wind as heard or seen, magnetic. A wind counts for a landing within ten minutes of it. */
function WindSheet({ pack, wind, close, record }: { pack: SortiePack; wind: LoggedWind | null; close: () => void; record: Record_ }) {
  const runway = pack.runways.find((r) => r.ident === pack.runwayEnd)?.magneticDeg ?? 360;
  const [from, setFrom] = useState(wind?.fromDegMag ?? Math.round(runway / 10) * 10);
  const [kt, setKt] = useState(wind?.kt ?? 0);
  const [gust, setGust] = useState<number | null>(wind?.gustKt ?? null);
  const step = (label: string, text: string, down: () => void, up: () => void) => (
    <div><h2>{label}</h2><div className="stepper"><button type="button" className="tap" aria-label={`${label} less`} onClick={down}>–</button><span className="num">{text}</span><button type="button" className="tap" aria-label={`${label} more`} onClick={up}>+</button></div></div>
  );
  const turn = (by: number) => setFrom((d) => { const next = (((d + by) % 360) + 360) % 360; return next === 0 ? 360 : next; });
  return (
    <div className="sheet" role="dialog" aria-label="Wind now" aria-modal="true" onKeyDown={(e) => e.key === 'Escape' && close()}>
      <div className="taps t3">
        {step('From, magnetic', `${direction(from)}°`, () => turn(-10), () => turn(10))}
        {step('Mean, kt', String(kt), () => setKt(Math.max(0, kt - 1)), () => setKt(kt + 1))}
        {step('Gust, kt', gust === null ? 'none' : String(gust), () => setGust(gust === null || gust - 1 <= kt ? null : gust - 1), () => setGust(gust === null ? kt + 3 : gust + 1))}
      </div>
      <div className="taps t2">
        <button type="button" className="tap" onClick={close}>Leave it</button>
        <button type="button" className="tap go" autoFocus onClick={() => void record('wind-logged', crypto.randomUUID(), { fromDegMag: from, kt, gustKt: gust !== null && gust > kt ? gust : null, at: new Date().toISOString() }).then(close)}>Log this wind</button>
      </div>
    </div>
  );
}
