'use client';
import type { LoggedWind } from '@/domain/capture';
import { say } from '@/domain/words';
import type { StoredEvent } from '@/offline/client';
import type { SortiePack } from '@/offline/protocol';
import { HelpSheet } from './help-sheet';
import { LimitSheet } from './limit-sheet';
import { SeatSheet } from './seat-sheet';
import { Sheet } from './sheet';
import type { SaveEvent } from './view';
import { WindSheet } from './wind-sheet';

export type SheetName = 'wind' | 'runway' | 'refused' | 'help' | 'seats' | 'limit';

/** The sheet that is open over the cockpit. */
export default function OpenSheet({
  open,
  pack,
  runwayEnd,
  wind,
  refused,
  view,
  close,
  saveEvent,
  say: tell,
  changed,
}: {
  open: SheetName;
  pack: SortiePack;
  runwayEnd: string;
  wind: LoggedWind | null;
  refused: readonly StoredEvent[];
  view: string;
  close: () => void;
  saveEvent: SaveEvent;
  say: (line: string) => void;
  changed: (pack: SortiePack) => void;
}) {
  if (open === 'seats') return <SeatSheet pack={pack} changed={changed} close={close} />;
  if (open === 'limit') return <LimitSheet pack={pack} close={close} saveEvent={saveEvent} say={tell} />;
  if (open === 'help') return <HelpSheet view={view} close={close} />;
  if (open === 'refused') return <RefusedSheet refused={refused} close={close} />;
  if (open === 'runway') return <RunwaySheet pack={pack} runwayEnd={runwayEnd} close={close} saveEvent={saveEvent} />;
  const runwayDeg = pack.runways.find((r) => r.ident === runwayEnd)?.magneticDeg ?? 360;
  return <WindSheet pack={pack} runwayDeg={runwayDeg} wind={wind} close={close} saveEvent={saveEvent} />;
}

/** The runway in use, changed in flight. */
function RunwaySheet({
  pack,
  runwayEnd,
  close,
  saveEvent,
}: {
  pack: SortiePack;
  runwayEnd: string;
  close: () => void;
  saveEvent: SaveEvent;
}) {
  return (
    <Sheet title="Runway in use" close={close}>
      <p className="mb-0">
        Landings from now on are on it; those already saved keep theirs. The numbers of the brief were for{' '}
        {pack.runwayEnd}.
      </p>
      <div className="taps t4" role="group" aria-label="Runway in use">
        {pack.runways.map((r) => (
          <button
            key={r.ident}
            type="button"
            className="tap"
            aria-pressed={r.ident === runwayEnd}
            onClick={() =>
              void saveEvent('runway-set', crypto.randomUUID(), { runwayEnd: r.ident }).then(close, () => undefined)
            }
          >
            {r.ident}
            <small>{r.surface ?? ''}</small>
          </button>
        ))}
      </div>
    </Sheet>
  );
}

/** A device counts in its own zone; the aerodrome's is not known to a device without its flight. */
const clockHere = (iso: string): string =>
  new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

/** What the server refused, each with why. */
function RefusedSheet({ refused, close }: { refused: readonly StoredEvent[]; close: () => void }) {
  return (
    <Sheet title="Not accepted by the server" close={close}>
      <p className="mb-0">
        These stay on this device as they were recorded. Nothing was deleted. Write down what matters and tell the chief
        instructor.
      </p>
      <ul>
        {refused.map((e) => (
          <li key={e.eventId}>
            <strong>{say(e.type)}</strong> at {clockHere(e.deviceTime)} by this device: {e.refusal ?? 'no reason given'}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
