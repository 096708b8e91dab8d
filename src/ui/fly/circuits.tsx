'use client';
import { lazy, Suspense } from 'react';
import type { LoggedWind } from '@/domain/capture';
import type { Folded, SortiePack } from '@/offline/protocol';
import type { SaveEvent } from './view';
import { LANDING_KINDS, MEANT, OWN_WORDS, REPEATED, meant } from '@/domain/words';
import { placeOf } from './place';
import { RunwayTap } from './runway-tap';
import { useCaptureKeys } from './capture-keys';
import { useCapture } from './use-capture';
import { useKept } from './kept';
import { Words } from './parts';
import { CaptureFoot, Ends, WhoseAndHelp } from './capture-foot';

const rare = () => import('./rare');
const GoAround = lazy(async () => ({ default: (await rare()).GoAround }));
const SoFar = lazy(async () => ({ default: (await rare()).SoFar }));
const LandingPanel = lazy(async () => ({ default: (await rare()).LandingPanel }));
const More = lazy(async () => ({ default: (await rare()).More }));

interface Props {
  pack: SortiePack;
  folded: Folded;
  wind: LoggedWind | null;
  runwayEnd: string;
  saveEvent: SaveEvent;
  counts: string;
  say: (line: string) => void;
  ask: (sheet: 'wind' | 'limit') => void;
  toPaper: () => void;
}

/** The pilot of this checkout, where two share the flight. */
const MAIN = 'main';

/**
 * Landing capture. One landing on one screen; an untouched row means *not seen*. Eyes are out from base turn until
 * stopped or climbing away.
 */
export function Circuits({ pack, folded, wind, runwayEnd, saveEvent, counts, say: tell, ask, toPaper }: Props) {
  const capture = useCapture({ pack, folded, wind, runwayEnd, saveEvent, tell });
  useCaptureKeys(capture);
  const { number, set, end } = capture;
  const [asksFirst, setAsksFirst] = useKept('own-word-first', false);
  const { draft, eyesOut, ended, correcting, flownBy, between, more } = capture.state;
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
  const end_ = correcting?.landing.runwayEnd ?? runwayEnd;
  const place = placeOf(pack, end_, correcting ? correcting.landing.wind : wind);
  return (
    <section aria-label={`Landing ${number}`}>
      <div className="head">
        <h1>
          {goAround ? 'Go-around' : 'Landing'} {number}
          {correcting ? ', correction' : ''}
        </h1>
        <span className={between ? 'focus' : undefined}>
          {draft.cue ? `Cue: ${draft.cue}` : pack.focus ? `Now: ${pack.focus}` : ''}
        </span>
        <span className="status">{counts}</span>
      </div>
      {between && !correcting ? (
        <Suspense fallback={null}>
          <SoFar
            pack={pack}
            folded={folded}
            correct={capture.correct}
            cue={draft.cue}
            set={(cue) => set({ cue })}
            asksFirst={asksFirst}
            toggle={() => setAsksFirst(!asksFirst)}
            toPaper={toPaper}
          />
        </Suspense>
      ) : null}
      {!wind ? (
        <p className="mb-2" style={{ fontSize: 17 }}>
          No wind logged yet:{' '}
          <button
            type="button"
            className="tap"
            style={{ width: 'auto', display: 'inline-block' }}
            onClick={() => ask('wind')}
          >
            log the wind
          </button>{' '}
          so that the landing counts towards the crosswind limit.
        </p>
      ) : null}
      {asksFirst && ended !== null && !goAround && draft.ownWord === null ? (
        <Words
          title="Pilot’s own word, before anybody else’s"
          options={OWN_WORDS}
          now={draft.ownWord}
          choose={(v) => set({ ownWord: v })}
          columns={3}
        />
      ) : null}
      <div className="cap">
        {goAround ? (
          <Suspense fallback={null}>
            <GoAround draft={draft} set={set} />
          </Suspense>
        ) : (
          <>
            <div className="col">
              <Words
                title="Kind"
                options={LANDING_KINDS}
                now={draft.kind}
                choose={(v) => set({ kind: v ?? 'full-stop' })}
                columns={2}
              />
              {place.tailwheel ? (
                <Words
                  title="Intended"
                  options={MEANT}
                  now={draft.intended as never}
                  choose={(v) => set({ intended: v ?? meant(pack.intended) })}
                  columns={2}
                />
              ) : null}
              <Ends capture={capture} limit={() => ask('limit')} />
            </div>
            <RunwayTap draft={draft} set={set} pack={pack} runwayEnd={end_} place={place} />
          </>
        )}
        <div className="wide rest">
          {correcting && pack.second ? (
            <Words
              title="Who flew it"
              options={[MAIN, pack.second.pilotId]}
              now={flownBy ?? MAIN}
              choose={(v) => capture.flownBy(v === null || v === MAIN ? null : v)}
              columns={2}
              name={(v) => (v === MAIN ? pack.pilotName : (pack.second?.name ?? v))}
            />
          ) : null}
          {pack.gearLamps && !goAround ? (
            <Words
              title="Wheels said again on final"
              options={REPEATED}
              now={draft.wheelsRepeated}
              choose={(v) => set({ wheelsRepeated: v })}
              columns={2}
            />
          ) : null}
          <WhoseAndHelp capture={capture} />
          {goAround ? (
            <Ends capture={capture} limit={() => ask('limit')} />
          ) : (
            <Suspense fallback={null}>
              <LandingPanel capture={capture} pack={pack} place={place} />
            </Suspense>
          )}
        </div>
        <CaptureFoot capture={capture} place={place} />
        <p className="wide mb-0" style={{ fontSize: 15 }}>
          Help early; it costs nothing in the record. Untouched rows are <em>not seen</em>, never assumed good. Place,
          clean, who flew it: the third tap saves.
        </p>
      </div>
      {more ? (
        <Suspense fallback={null}>
          <More pack={pack} draft={draft} set={set} place={place} close={() => capture.more(false)} />
        </Suspense>
      ) : null}
    </section>
  );
}
