'use client';
import { usePathname } from 'next/navigation';
import { openHelp } from '../shared/events';
import { Marked } from './marked';
import { hintsFrom, hintsOff, keepSeen } from './hint-cookie';
import { screenOf } from './screens';

/**
 * What a screen is for, the first time somebody is on it with this device; put away for good, or all of them at once.
 * @param kept the cookie as it stands
 */
export function Hint({ kept, staff }: { kept: string | undefined; staff: boolean }) {
  const screen = screenOf(usePathname(), staff);
  const { off, seen } = hintsFrom(kept);
  if (off || seen.has(screen.key)) return null;
  return (
    <aside className="hint" aria-label="Hint">
      <p className="mb-0">
        <b>{screen.title}.</b> <Marked text={screen.lines[0]} />
      </p>
      <div className="d-flex gap-3 flex-wrap">
        <button type="button" onClick={() => keepSeen(new Set([...seen, screen.key]))}>
          Got it
        </button>
        <button type="button" onClick={openHelp}>
          More
        </button>
        <button type="button" onClick={hintsOff}>
          Turn hints off
        </button>
      </div>
    </aside>
  );
}
