'use client';
import { Suspense, lazy, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { fold } from '@/offline/protocol';
import type { Folded, SortiePack } from '@/offline/protocol';
import type * as Client from '@/offline/client';
import type { StoredEvent } from '@/offline/client';
import type { LoggedWind } from '@/domain/capture';
import { plural } from '@/core/format';
import { onControl, shortcutsOff } from '../shared/events';
import { Circuits } from './circuits';
import type { Ashore } from './before';
import type { SheetName } from './sheets';
import { type SaveEvent, windFigures } from './view';
import { answered, ofAnother, otherAccount } from './who';

const views = () => import('./views');
const Airwork = lazy(async () => ({ default: (await views()).Airwork }));
const Ground = lazy(async () => ({ default: (await views()).Ground }));
const GearCheck = lazy(async () => ({ default: (await views()).GearCheck }));
const ClockChip = lazy(async () => ({ default: (await import('./clock-chip')).ClockChip }));
const Stopped = lazy(async () => ({ default: (await import('./stopped')).Stopped }));
const NotPrepared = lazy(async () => ({ default: (await import('./before')).NotPrepared }));
const WhoRecords = lazy(async () => ({ default: (await import('./before')).WhoRecords }));
const OpenSheet = lazy(() => import('./sheets'));
const Paper = lazy(async () => ({ default: (await views()).Paper }));

type State =
  | { kind: 'reading' }
  | ({ kind: 'not-prepared' } & Ashore)
  | { kind: 'ready'; pack: SortiePack; events: StoredEvent[] };
const VIEWS = ['circuits', 'airwork', 'ground', 'wheels', 'paper'] as const;
type View = (typeof VIEWS)[number];
const VIEW_NAME: Record<View, string> = {
  circuits: 'Landings',
  airwork: 'Airwork',
  ground: 'Ground',
  wheels: 'Wheels',
  paper: 'From paper',
};

/** What was last said of a tap, and beside it what there is to say of the network. */
interface Line {
  said: string;
  network: string;
  /** Something was not kept. */
  lost: boolean;
}
const SILENT: Line = { said: '', network: '', lost: false };
const lineText = ({ said, network }: Line): string => [said, network].filter((x) => x !== '').join(' ');

/** The cockpit shell. The flight comes from the address and from this device only; the network is never waited for. */
export function Cockpit() {
  const [state, setState] = useState<State>({ kind: 'reading' });
  const [view, setView] = useState<View>('circuits');
  const [line, setLine] = useState<Line>(SILENT);
  const tell = useCallback((said: string) => setLine({ ...SILENT, said }), []);
  const [waiting, setWaiting] = useState(0);
  const [other, setOther] = useState<string | null>(null);
  const [open, setOpen] = useState<SheetName | null>(null);
  const later = useRef<ReturnType<typeof setTimeout> | null>(null);
  const sendSoon = useRef<(ms: number) => void>(() => undefined);
  const client = useRef<typeof Client | null>(null);

  useEffect(() => {
    const q = new URLSearchParams(window.location.search);
    const asked = VIEWS.find((v) => v === q.get('view'));
    if (asked) setView(asked);
    const sortieId = q.get('sortie');
    void (async () => {
      client.current = await import('@/offline/client');
      const { store } = client.current;
      const pack = sortieId ? await store().packs.get(sortieId) : undefined;
      if (!pack) {
        const here = (await store().packs.toArray())
          .filter((p) => !ofAnother(p))
          .sort((a, b) => (a.preparedAt < b.preparedAt ? 1 : -1))
          .map(({ sortieId: id, pilotName, registration, lesson, flownOn }) => ({
            sortieId: id,
            pilotName,
            registration,
            lesson,
            flownOn,
          }));
        return setState({ kind: 'not-prepared', sortieId, here });
      }
      const events = await store().events.where('sortieId').equals(pack.sortieId).toArray();
      setOther(otherAccount(pack));
      setState({ kind: 'ready', pack, events });
    })().catch(() =>
      setLine({ ...SILENT, said: 'This browser cannot keep anything here. Use paper, and enter it afterwards.' }),
    );
  }, []);

  const go = (next: View) => {
    setView(next);
    const q = new URLSearchParams(window.location.search);
    q.set('view', next);
    window.history.replaceState(null, '', `?${q.toString()}`);
    window.scrollTo(0, 0);
  };

  const send = useCallback(async () => {
    const { flush, waitingCount, store } = await import('@/offline/client');
    const result = await flush();
    setWaiting(await waitingCount());
    const sortieId = new URLSearchParams(window.location.search).get('sortie') ?? '';
    const kept = await store().events.where('sortieId').equals(sortieId).toArray();
    const known = new Set(kept.map((e) => e.eventId));
    // An event recorded while this was read is not in it yet: keep it.
    setState((s) =>
      s.kind === 'ready' ? { ...s, events: [...kept, ...s.events.filter((e) => !known.has(e.eventId))] } : s,
    );
    // Another tab is sending, or this one was: look again for what came in meanwhile.
    if (result.state === 'busy') sendSoon.current(1000);
    // What was just confirmed stays readable beside the news of the network.
    if (result.message || result.state === 'sent') setLine((l) => ({ ...l, network: result.message }));
  }, []);

  useEffect(() => {
    sendSoon.current = (ms) => {
      if (later.current) clearTimeout(later.current);
      later.current = setTimeout(() => void send(), ms);
    };
    return () => {
      if (later.current) clearTimeout(later.current);
    };
  }, [send]);

  useEffect(() => {
    if (state.kind !== 'ready') return;
    void send();
    const again = () => void send();
    const timer = setInterval(again, 15_000);
    window.addEventListener('online', again);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', again);
    };
  }, [state.kind, send]);

  const pack = state.kind === 'ready' ? state.pack : null;
  const saveEvent: SaveEvent = useCallback(
    async (type, subjectId, payload) => {
      if (!pack) return;
      client.current ??= await import('@/offline/client');
      try {
        const event = await client.current.storeEvent(pack, type, subjectId, payload, new Date());
        setState((s) => (s.kind === 'ready' ? { ...s, events: [...s.events, event] } : s));
        setWaiting((n) => n + 1);
      } catch (error) {
        setLine({
          ...SILENT,
          said: 'NOT SAVED: this device did not store it (full, or private browsing). Write it on paper now.',
          lost: true,
        });
        throw error;
      }
      // First the answer to the tap, then the network.
      sendSoon.current(type === 'field-set' ? 2000 : 300);
    },
    [pack],
  );

  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if (e.key === '?' && !onControl(e.target) && !shortcutsOff()) setOpen('help');
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  }, []);

  const folded = useMemo(() => (state.kind === 'ready' ? fold(state.events) : null), [state]);

  if (state.kind === 'reading')
    return (
      <main className="fly" id="main">
        <p role="status" style={{ paddingTop: 40 }}>
          Reading what is on this device …
        </p>
        {line.said ? <p role="alert">{line.said}</p> : null}
      </main>
    );
  if (state.kind === 'not-prepared' || !folded || other)
    return (
      <main className="fly" id="main" style={{ paddingTop: 60, maxWidth: 640 }}>
        <Suspense fallback={null}>
          {state.kind === 'not-prepared' || !other ? (
            <NotPrepared of={state.kind === 'not-prepared' ? state : { sortieId: null, here: [] }} />
          ) : (
            <WhoRecords
              author={state.pack.authorName}
              other={other}
              go={() => setOther(answered(state.pack.sortieId))}
            />
          )}
        </Suspense>
      </main>
    );
  const { events } = state;
  const wind = folded.winds[state.pack.sortieId] ?? null;
  const runwayEnd = folded.runways[state.pack.sortieId] ?? state.pack.runwayEnd;
  const saved = folded.landings.length;
  const sentLandings = folded.landings.filter((l) =>
    events.some((e) => e.subjectId === l.id && e.type === 'landing-saved' && e.sent === 1),
  ).length;
  const refused = events.filter((e) => e.sent === 2);
  const shown = VIEWS.filter(
    (v) =>
      v === 'circuits' ||
      v === 'airwork' ||
      v === 'ground' ||
      (v === 'wheels' && state.pack.gearLamps) ||
      (v === 'paper' && view === 'paper'),
  );
  const counts = `${saved} on this device, ${sentLandings} sent${waiting > 0 ? `, ${plural(waiting, 'tap')} to send` : ''}`;
  const props = { pack: state.pack, folded, saveEvent, say: tell };
  return (
    <main className="fly" id="main">
      <header>
        <Flying pack={state.pack} folded={folded} saveEvent={saveEvent} seats={() => setOpen('seats')} />
        <span className="code-face">{state.pack.registration}</span>
        <button type="button" onClick={() => setOpen('runway')} aria-label={`Runway ${runwayEnd}. Change it`}>
          {runwayEnd}
        </button>
        <button
          type="button"
          onClick={() => setOpen('wind')}
          aria-label={wind ? `Wind ${windWords(wind)}. Log the wind` : 'No wind. Log the wind'}
        >
          {windWords(wind)}
        </button>
        {state.pack.clock ? (
          <Suspense fallback={null}>
            <ClockChip pack={state.pack} clock={state.pack.clock} folded={folded} saveEvent={saveEvent} />
          </Suspense>
        ) : null}
        <nav className="push" aria-label="Views of the flight">
          {shown.map((v) => (
            <button key={v} type="button" aria-current={view === v ? 'page' : undefined} onClick={() => go(v)}>
              {VIEW_NAME[v]}
            </button>
          ))}
          <a
            href={`/checkouts/${state.pack.checkoutId}/debrief`}
            onClick={(e) => {
              if (!navigator.onLine) {
                e.preventDefault();
                setLine((l) => ({
                  ...l,
                  network: 'No network: the debrief is on the server. Everything is saved on this device.',
                }));
              }
            }}
          >
            Debrief
          </a>
          <button type="button" aria-label="Help" onClick={() => setOpen('help')}>
            ?
          </button>
        </nav>
      </header>
      <p
        className="said mb-0"
        role={line.lost ? 'alert' : 'status'}
        style={lineText(line) ? undefined : { minHeight: 0 }}
      >
        {lineText(line)}
      </p>
      <Suspense fallback={null}>
        <Stopped pack={state.pack} folded={folded} />
      </Suspense>
      {refused.length > 0 ? (
        <p className="mb-2">
          <button type="button" className="tap" style={{ width: 'auto' }} onClick={() => setOpen('refused')}>
            {refused.length} not accepted by the server: see why
          </button>
        </p>
      ) : null}
      {view === 'circuits' ? (
        <Circuits
          {...props}
          runwayEnd={runwayEnd}
          wind={wind}
          counts={counts}
          ask={setOpen}
          toPaper={() => go('paper')}
        />
      ) : (
        <>
          <p className="status mb-0 counts">{counts}</p>
          <Suspense fallback={<p role="status">One moment …</p>}>
            {view === 'wheels' && state.pack.gearLamps ? (
              <GearCheck pack={state.pack} lamps={state.pack.gearLamps} folded={folded} saveEvent={saveEvent} />
            ) : view === 'ground' ? (
              <Ground {...props} runwayEnd={runwayEnd} wind={wind} />
            ) : view === 'paper' ? (
              <Paper {...props} runwayEnd={runwayEnd} done={() => go('circuits')} />
            ) : (
              <Airwork {...props} runwayEnd={runwayEnd} wind={wind} limit={() => setOpen('limit')} />
            )}
          </Suspense>
        </>
      )}
      <Suspense fallback={null}>
        {open ? (
          <OpenSheet
            open={open}
            pack={state.pack}
            runwayEnd={runwayEnd}
            wind={wind}
            refused={refused}
            view={view}
            saveEvent={saveEvent}
            say={tell}
            changed={(next) => setState((s) => (s.kind === 'ready' ? { ...s, pack: next } : s))}
            close={() => setOpen(null)}
          />
        ) : null}
      </Suspense>
    </main>
  );
}

/** Who flies now. Two pilots sharing the flight change over by one tap; each landing keeps its own. */
function Flying({
  pack,
  folded,
  saveEvent,
  seats,
}: {
  pack: SortiePack;
  folded: Folded;
  saveEvent: SaveEvent;
  seats: () => void;
}) {
  const { second, pilotId } = pack;
  const first = pack.pilotName.split(' ')[0] ?? pack.pilotName;
  if (!second || !pilotId)
    return (
      <button type="button" className="who" aria-label={`${first} flies. Second pilot`} onClick={seats}>
        {first}
      </button>
    );
  const now = folded.flying[pack.sortieId] ?? pilotId;
  const names = { [pilotId]: first, [second.pilotId]: second.name.split(' ')[0] ?? second.name };
  return (
    <span className="flying" role="group" aria-label="Who flies now">
      {[pilotId, second.pilotId].map((id) => (
        <button
          key={id}
          type="button"
          aria-pressed={now === id}
          onClick={() =>
            now !== id && void saveEvent('pilot-swapped', crypto.randomUUID(), { pilotId: id }).catch(() => undefined)
          }
        >
          {names[id]}
        </button>
      ))}
      <button type="button" aria-label="Second pilot on this flight" onClick={seats}>
        2nd
      </button>
    </span>
  );
}

function windWords(wind: LoggedWind | null): string {
  if (!wind) return 'log the wind';
  const minutes = Math.floor((Date.now() - Date.parse(wind.at)) / 60_000);
  return `${windFigures(wind)} · ${minutes < 1 ? 'now' : `${minutes} min`}`;
}
