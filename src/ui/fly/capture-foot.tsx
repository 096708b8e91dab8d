'use client';
import { HELP_CONTROLS } from '@/domain/airwork';
import { type Attitude, say } from '@/domain/words';
import { cleanOffered } from './draft';
import { type Place, touchName } from './place';
import { Whose } from './parts';
import type { Capture } from './use-capture';

/** Whose it was, and what the help was on. */
export function WhoseAndHelp({ capture }: { capture: Capture }) {
  const { set, choose } = capture;
  const { draft } = capture.state;
  const goAround = draft.kind === 'go-around';
  const helped = (draft.intervention ?? 0) >= 2;
  return (
    <>
      <Whose title={`Who flew the ${goAround ? 'go-around' : 'landing'}`} now={draft.intervention} choose={choose} />
      {helped || draft.helpedOn.length > 0 ? (
        <div>
          <h2>Assisted on</h2>
          <div className="taps of6" role="group" aria-label="Assisted on">
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
    </>
  );
}

/** That it has ended, and how; what is rarer stands behind *More*. */
export function Ends({ capture, limit }: { capture: Capture; limit: () => void }) {
  const { set, end } = capture;
  const { draft, ended } = capture.state;
  return (
    <div className="taps ends">
      <button
        type="button"
        className="tap"
        aria-pressed={draft.demonstration}
        onClick={() => set({ demonstration: !draft.demonstration })}
      >
        Demonstration
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
      <button type="button" className="tap" aria-haspopup="dialog" onClick={() => capture.more(true)}>
        More<small>gates, trigger, note</small>
      </button>
      <button type="button" className="tap" aria-haspopup="dialog" onClick={limit}>
        Limit exceeded
      </button>
    </div>
  );
}

/** What one reaches for without looking: undo, clean, eyes out, save. */
export function CaptureFoot({ capture, place }: { capture: Capture; place: Place }) {
  const { undo, clean, out, save } = capture;
  const { draft, ended, correcting } = capture.state;
  const cleans: Attitude[] = place.tailwheel ? ['three-point', 'mains-first'] : ['mains-first'];
  return (
    <div className={`wide foot taps ${cleans.length > 1 ? 'two' : ''}`}>
      <button type="button" className="tap big" onClick={() => void undo()}>
        {correcting ? 'Cancel' : 'Undo'}
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
          Clean, <span className="nb">{touchName(a, place.water)}</span>
          <small>no drift, crab, swing, bounce</small>
        </button>
      ))}
      <button type="button" className="tap big" disabled={correcting !== null} onClick={out}>
        Eyes out<small>turning base, {capture.circuit}</small>
      </button>
      <button type="button" className="tap big go" onClick={() => void save()}>
        {draft.kind === 'go-around' ? 'Save go-around' : 'Save landing'}
      </button>
    </div>
  );
}
