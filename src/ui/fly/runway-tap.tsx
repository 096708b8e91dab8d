import { useEffect, useRef } from 'react';
import { ALONG_BANDS, LATERAL_BANDS, type SERIOUS, say } from '@/domain/words';
import type { SortiePack } from '@/offline/protocol';
import type { Draft, Setter } from './draft';
import { type Place, touchName } from './place';

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
 * The runway: five places across, four along, one of them chosen; tapped again it is not seen. Earlier landings and the standard's box stay hidden, so
 * that they do not pull the tap.
 */
export function RunwayTap({
  draft,
  set,
  pack,
  runwayEnd,
  place,
}: {
  draft: Draft;
  set: Setter;
  pack: SortiePack;
  runwayEnd: string;
  place: Place;
}) {
  const box_ = useRef<HTMLDivElement>(null);
  // The place moved by the arrows takes the focus along.
  useEffect(() => {
    const at = box_.current;
    if (at?.contains(document.activeElement)) at.querySelector<HTMLInputElement>('input:checked')?.focus();
  }, [draft.along, draft.lateral]);
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
    <div
      ref={box_}
      className="runway"
      data-drawing
      role="radiogroup"
      aria-label={place.water ? 'Where it touched' : 'Where the wheels touched'}
    >
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
            <input
              key={`${a}${l}`}
              type="radio"
              name="touched-at"
              checked={draft.along === a && draft.lateral === l}
              aria-label={`${say(a)}, ${touchName(l, place.water)}`}
              onChange={() => set({ along: a, lateral: l })}
              onClick={() => {
                if (draft.along === a && draft.lateral === l) set({ along: null, lateral: null });
              }}
            />
          )),
        )}
      </div>
      <div className="thr" aria-hidden />
      <div className="under" aria-hidden>
        <span>
          {place.water ? 'lane' : 'runway'} {runwayEnd}
        </span>
        <span>
          {draft.along && draft.lateral
            ? `${reach[draft.along]}, ${touchName(draft.lateral, place.water)}`
            : 'tap where it touched'}
        </span>
      </div>
      {place.water ? null : (
        <div className="beyond taps t2" role="group" aria-label="Beyond the runway: outside in one tap">
          <Serious of="short-of-threshold" draft={draft} set={set} with_={{ along: 'short' }} />
          <Serious of="off-surface" draft={draft} set={set} with_={{}} />
        </div>
      )}
    </div>
  );
}
