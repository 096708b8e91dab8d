'use client';
import { useState } from 'react';
import { touchSeen } from '@/domain/touch';
import type { SortiePack } from '@/offline/protocol';
import { RollOutRows, TouchdownRows } from './landing-rows';
import type { Place } from './place';
import type { Capture } from './use-capture';

const GROUPS = [
  ['touchdown', 'Touchdown'],
  ['roll-out', 'Speed and roll-out'],
] as const;
type Group = (typeof GROUPS)[number][0];

/**
 * What is seen of a landing beside where it touched, in two groups. While it is flown neither is open; stopped, the
 * touch; once it was clean, the rest. Any tap of the strip chooses otherwise, for this landing.
 */
export function LandingPanel({ capture, pack, place }: { capture: Capture; pack: SortiePack; place: Place }) {
  const { draft, ended, subject } = capture.state;
  const stage = `${subject} ${ended ?? ''} ${draft.cleanTap ?? ''}`;
  const [picked, setPicked] = useState<{ stage: string; group: Group | null }>({ stage: '', group: null });
  const nothing = ended === null && !touchSeen(draft);
  const open = picked.stage === stage ? picked.group : nothing ? null : draft.cleanTap ? 'roll-out' : 'touchdown';
  const rows = { draft, set: capture.set, pack, place };
  return (
    <div className="asked">
      <div className="taps t2" role="group" aria-label="What was seen">
        {GROUPS.map(([id, title]) => (
          <button
            key={id}
            type="button"
            className="tap fold"
            aria-expanded={open === id}
            onClick={() => setPicked({ stage, group: open === id ? null : id })}
          >
            {title}
          </button>
        ))}
      </div>
      {open === 'touchdown' ? <TouchdownRows {...rows} /> : null}
      {open === 'roll-out' ? <RollOutRows {...rows} /> : null}
      {open === null ? <p className="mb-0">Opens when you are stopped or climbing away; a tap opens it now.</p> : null}
    </div>
  );
}
