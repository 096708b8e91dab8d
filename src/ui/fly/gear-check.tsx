'use client';
import { useState } from 'react';
import { AGREEMENT_S, FAILED_LAMP, type GearAnswer, type StopReason, type Surface, gearSurface } from '@/core/water';
import type { Folded, SortiePack } from '@/offline/protocol';
import type { SaveEvent } from './view';
import { useTime } from './parts';

type Lamps = NonNullable<SortiePack['gearLamps']>;
const WHY: Record<StopReason, string> = {
  'surface-not-stated': 'where it lands is not said',
  'no-wheels': 'the sheet has no lamps',
  'lamp-missing': 'a lamp was not read',
  'lamp-failed': 'a lamp has failed',
  'lamp-unmapped': 'a lamp shows what the sheet does not know',
  'lamp-in-transit': 'a wheel is moving',
  'lamp-wrong': 'a lamp says the wrong way for this surface',
  'lamps-disagree': 'the lamps do not agree',
  'wheel-not-seen': 'a wheel was not looked at',
  'wheel-seen-wrong': 'a wheel stands the wrong way for this surface',
  'word-missing': 'no word from the other seat',
  'word-wrong': 'the word does not fit the surface',
  expired: 'older than three minutes',
  'lever-moved': 'the lever has moved',
  'surface-changed': 'the surface was changed',
  'go-around': 'a go-around since',
  'touch-and-go': 'a touch-and-go since',
  'repeat-on-final': 'not repeated on final',
};

/** Wheels against surface: tapped after it is said and seen, never instead. It agrees or it says stop. */
export function GearCheck({
  pack,
  lamps,
  folded,
  saveEvent,
}: {
  pack: SortiePack;
  lamps: Lamps;
  folded: Folded;
  saveEvent: SaveEvent;
}) {
  const wheels = Object.keys(lamps);
  // What every lamp can show: one tap for all of them where they agree, and the one that differs alone.
  const common = Object.keys(lamps[wheels[0] ?? ''] ?? {}).filter((state) =>
    wheels.every((w) => state in (lamps[w] ?? {})),
  );
  const [surface, setSurface] = useState<Surface | null>(null);
  const [read, setRead] = useState<Record<string, string | null>>({});
  const [seen, setSeen] = useState<Record<string, 'up' | 'down' | null>>({});
  const [spoken, setSpoken] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const now = useTime();
  const last = folded.gear;
  const fresh = (): void => {
    setSurface(null);
    setRead({});
    setSeen({});
    setSpoken(null);
  };
  const answer = last
    ? gearSurface({
        surface: last.check.surface,
        lampMeaning: lamps,
        lamps: last.check.lamps,
        seen: last.check.seen,
        spoken: last.check.spoken,
        ageS: (now - Date.parse(last.at)) / 1000,
        eventsSince: last.since,
        onFinal: false,
        madeOnFinal: last.check.onFinal,
      })
    : null;
  const keep = async () => {
    if (busy) return;
    setBusy(true);
    const judged = gearSurface({
      surface,
      lampMeaning: lamps,
      lamps: read,
      seen,
      spoken,
      ageS: 0,
      eventsSince: [],
      onFinal: false,
      madeOnFinal: false,
    });
    await saveEvent('gear-checked', crypto.randomUUID(), {
      surface,
      lamps: read,
      seen,
      spoken,
      // On final it is said again and nothing is tapped: whether it was is entered with the landing.
      onFinal: false,
      decision: judged.decision,
      reasons: judged.reasons,
    }).then(fresh, () => undefined);
    setBusy(false);
  };
  const moved = (kind: 'lever-moved' | 'surface-changed') =>
    void saveEvent('gear-event', crypto.randomUUID(), { kind }).catch(() => undefined);
  const choice = (
    label: string,
    options: readonly (readonly [string, string])[],
    value: string | null,
    set: (v: string | null) => void,
  ) => (
    <div>
      <h2>{label}</h2>
      <div className={`taps t${options.length}`} role="group" aria-label={label}>
        {options.map(([key, name]) => (
          <button
            key={key}
            type="button"
            className="tap"
            aria-pressed={value === key}
            onClick={() => set(value === key ? null : key)}
          >
            {name}
          </button>
        ))}
      </div>
    </div>
  );
  return (
    <section aria-label="Wheels and surface" className="rows" style={{ paddingTop: 12 }}>
      <h1>Wheels and surface</h1>
      <p className="mb-0">
        Say it, look, hear the other seat. Then tap what was said and seen. {pack.registration}: an unlit lamp may be a
        wheel that is up; the sheet decides. On final say it and look again, hands off the screen: that it was said is
        entered with the landing.
      </p>
      <Decision answer={answer} leftS={last ? Math.max(0, AGREEMENT_S - (now - Date.parse(last.at)) / 1000) : 0} />
      <div className="taps t2">
        <button type="button" className="tap" disabled={!last} onClick={() => moved('lever-moved')}>
          Lever moved
        </button>
        <button type="button" className="tap" disabled={!last} onClick={() => moved('surface-changed')}>
          Other surface now
        </button>
      </div>
      {choice(
        'Where am I landing',
        [
          ['water', 'water'],
          ['land', 'land'],
        ],
        surface,
        (v) => setSurface(v as Surface | null),
      )}
      {wheels.length > 1
        ? choice(
            'All lamps',
            [...common.map((state) => [state, state] as const), [FAILED_LAMP, 'failed'] as const],
            same(wheels.map((w) => read[w] ?? null)),
            (v) => setRead(Object.fromEntries(wheels.map((w) => [w, v]))),
          )
        : null}
      {wheels.map((w) =>
        choice(
          `${w} lamp`,
          [...Object.keys(lamps[w] ?? {}).map((s) => [s, s] as const), [FAILED_LAMP, 'failed'] as const],
          read[w] ?? null,
          (v) => setRead((r) => ({ ...r, [w]: v })),
        ),
      )}
      {wheels.length > 1
        ? choice(
            'All wheels seen',
            [
              ['up', 'up'],
              ['down', 'down'],
            ],
            same(wheels.map((w) => seen[w] ?? null)),
            (v) => setSeen(Object.fromEntries(wheels.map((w) => [w, v as 'up' | 'down' | null]))),
          )
        : null}
      {wheels.map((w) =>
        choice(
          `${w} wheel seen`,
          [
            ['up', 'up'],
            ['down', 'down'],
          ],
          seen[w] ?? null,
          (v) => setSeen((r) => ({ ...r, [w]: v as 'up' | 'down' | null })),
        ),
      )}
      {choice(
        'Word from the other seat',
        [
          ['water-up', 'water, wheels up'],
          ['land-down', 'land, wheels down'],
          ['other', 'something else'],
        ],
        spoken,
        setSpoken,
      )}
      <button type="button" className="tap big" disabled={busy} onClick={() => void keep()}>
        Said and seen
      </button>
      <p className="mb-0" style={{ fontSize: 15 }}>
        After take-off from land: wheels up. A check of the screen is not a look at the wheels.
      </p>
    </section>
  );
}

/** What all of them are; null where they differ, or nothing is tapped. */
const same = (values: readonly (string | null)[]): string | null =>
  values.every((v) => v === values[0]) ? (values[0] ?? null) : null;

function Decision({ answer, leftS }: { answer: GearAnswer | null; leftS: number }) {
  if (!answer)
    return (
      <div className="decision stop" role="status">
        <strong>STOP</strong>
        <span>nothing is checked yet</span>
      </div>
    );
  if (answer.decision === 'agree')
    return (
      <div className="decision" role="status">
        <strong>{answer.words}</strong>
        <span>
          stands for {Math.floor(leftS / 60)}:{String(Math.floor(leftS % 60)).padStart(2, '0')}, or until the lever
          moves
        </span>
      </div>
    );
  return (
    <div className="decision stop" role="alert">
      <strong>STOP</strong>
      <span>
        {answer.reasons.map((r) => WHY[r]).join('; ')}
        {answer.next ? '. Do the abnormal check of the flight manual.' : ''}
      </span>
    </div>
  );
}
