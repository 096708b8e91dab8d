'use client';
import { useState } from 'react';
import FormCheck from 'react-bootstrap/FormCheck';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import FormCheckLabel from 'react-bootstrap/FormCheckLabel';
import { shortcutsOff } from '../shared/events';
import { hintsOff, hintsOn, keptHints } from './hint-cookie';

const hintsAreOff = (): boolean => keptHints() === 'off';

/** What of keys and hints this device wants. Drawn in the browser alone: a server knows neither. */
export function Switches() {
  const [keys, setKeys] = useState(shortcutsOff);
  const [hints, setHints] = useState(hintsAreOff);
  return (
    <div className="my-3">
      <Switch
        id="keys-off"
        label="Turn single-key shortcuts off"
        on={keys}
        set={(on) => {
          localStorage.setItem('jeito-shortcuts', on ? 'off' : 'on');
          setKeys(on);
        }}
      />
      <Switch
        id="hints-off"
        label="Turn first-visit hints off"
        on={hints}
        set={(on) => {
          (on ? hintsOff : hintsOn)();
          setHints(on);
        }}
      />
    </div>
  );
}

function Switch({ id, label, on, set }: { id: string; label: string; on: boolean; set: (on: boolean) => void }) {
  return (
    <FormCheck>
      <FormCheckInput id={id} type="checkbox" checked={on} onChange={(e) => set(e.target.checked)} />
      <FormCheckLabel htmlFor={id}>{label}</FormCheckLabel>
    </FormCheck>
  );
}
