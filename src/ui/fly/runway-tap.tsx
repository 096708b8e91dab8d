import { ALONG_BANDS, LATERAL_BANDS, type SERIOUS, say } from '@/domain/words';
import type { SortiePack } from '@/offline/protocol';
import type { Draft, Setter } from './draft';

/** Outside whatever else was seen, in one tap; `with_` is what it says beside it. */
export function Serious({
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

/**
 * The runway: five places across, four along, tapped as one. Earlier landings and the standard's box stay hidden, so
 * that they do not pull the tap.
 */
export function RunwayTap({
  draft,
  set,
  pack,
  runwayEnd,
}: {
  draft: Draft;
  set: Setter;
  pack: SortiePack;
  runwayEnd: string;
}) {
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
