'use client';
import { Sheet } from './sheet';

/** What each view of the cockpit is for, in five lines; on the device with the rest of it. */
const LINES: Record<string, { title: string; lines: readonly [string, string, string, string, string] }> = {
  circuits: {
    title: 'Landings',
    lines: [
      'Eyes out on base: the screen goes quiet. Tap it when you have stopped or climb away.',
      'Tap where the wheels touched, then Clean or what was seen, then who flew it. Save landing.',
      'Leave out what you did not see: it stays not seen and is not judged.',
      'More has speeds at the gates, the roll-out and a note. Undo takes the last one back.',
      'Keys: N eyes out, 1 to 4 who flew it, arrows the place, C clean, Enter save, U undo.',
    ],
  },
  airwork: {
    title: 'Airwork',
    lines: [
      'Items of the programme that are flown away from the circuit; open ones first.',
      'Tap the greatest deviation you saw. Each button has the mark it would give.',
      'Bars that were not watched stay not seen.',
      'Power settings and slow approach trials noted in flight can go onto the type sheet afterwards.',
      'Who flew it is tapped here, too.',
    ],
  },
  ground: {
    title: 'Ground',
    lines: [
      'What is shown and asked on the ground: items, checks and flows, procedures.',
      'A flow is tapped in its order; what was left out stays marked.',
      'The flight clock is at the top: off blocks, take-off, landing, on blocks.',
      'Counts of the flight so far are at the foot of a view.',
      'Everything is on this device first, and sent when there is a network.',
    ],
  },
  wheels: {
    title: 'Wheels',
    lines: [
      'The check of the wheels against the surface, before every landing.',
      'Say the surface; tap all lamps and all wheels in one, then a wheel that differs alone.',
      'When they do not agree the answer is stop: go around and sort it out.',
      'What is landed past a stop is kept, and is no evidence.',
      'The lamps of this aeroplane mean what its sheet says they mean.',
    ],
  },
  paper: {
    title: 'From paper',
    lines: [
      'Landings written on the tally of the card, entered afterwards.',
      'One line a landing, in the letters of the card; the box shows how each is read.',
      'A line that cannot be read is named, and nothing is entered before all are.',
      'What was not written down stays not seen.',
      'The time of entry is kept beside the day they were flown.',
    ],
  },
};
const FIRST = 'circuits';

export function HelpSheet({ view, close }: { view: string; close: () => void }) {
  const help = LINES[view] ?? LINES[FIRST];
  return (
    <Sheet title={`Help: ${help?.title ?? ''}`} close={close}>
      <ul className="mb-0" style={{ fontSize: 17 }}>
        {help?.lines.map((l) => (
          <li key={l} className="mb-2">
            {l}
          </li>
        ))}
      </ul>
      <p className="mb-0" style={{ fontSize: 15 }}>
        Fly first. This screen can wait, and the flight manual and the instructor outrank it.
      </p>
    </Sheet>
  );
}
