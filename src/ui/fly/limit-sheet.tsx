'use client';
import { LIMIT_NAME, type LimitChannel } from '@/domain/words';
import type { SortiePack } from '@/offline/protocol';
import { Sheet } from './sheet';
import type { SaveEvent } from './view';

/** What the eye can read off a dial in passing, in the order it happens. */
function limitsOf(pack: SortiePack): LimitChannel[] {
  const sheet = pack.reach?.sheet;
  return [
    ...((sheet?.flapSteps ?? pack.flapSteps ?? []).some((f) => f > 0) || !sheet ? (['vfe'] as const) : []),
    ...(!sheet || sheet.gear.retractable ? (['gear'] as const) : []),
    ...(['vne', 'g+', 'g-', 'cht', 'rpm', 'map'] as const),
  ];
}

/** A limit of the aeroplane passed, seen by eye: the second tap enters it. */
export function LimitSheet({
  pack,
  close,
  saveEvent,
  say,
}: {
  pack: SortiePack;
  close: () => void;
  saveEvent: SaveEvent;
  say: (line: string) => void;
}) {
  const save = (channel: LimitChannel) =>
    void saveEvent('limit-exceeded', crypto.randomUUID(), { channel }).then(
      () => {
        say(
          `${LIMIT_NAME[channel]} exceeded: saved. ${pack.registration} is grounded after this flight until its release is entered.`,
        );
        close();
      },
      () => undefined,
    );
  return (
    <Sheet title="Limit exceeded" close={close}>
      <p className="mb-0">
        Which one did you see passed? The tap enters it, as a recording would: the aeroplane is grounded after this
        flight, the board says what the sheet asks to be done, and only a release ends it. Fly the aeroplane first; land
        as soon as the handbook says.
      </p>
      <div className="taps t4" role="group" aria-label="Limit exceeded">
        {limitsOf(pack).map((c) => (
          <button key={c} type="button" className="tap big" onClick={() => save(c)}>
            {LIMIT_NAME[c]}
          </button>
        ))}
      </div>
    </Sheet>
  );
}
