'use client';
import type { Dispatch, SetStateAction } from 'react';
import Button from 'react-bootstrap/Button';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import {
  AIRWORK_TOLD,
  ARRIVAL_KINDS,
  ERROR_NAME,
  PILOT_ERRORS,
  type PilotError,
  type RecorderChoices,
  SENSOR_SETS,
  type SensorSet,
} from '@/core/recorder';
import { say } from '@/domain/words';
import { Range } from '../lab/range';
import { Field } from '../shared/field';
import { FOUND_NAME } from './words';

const SENSOR_NAME: Record<SensorSet, string> = {
  panel: 'panel, with air data',
  tablet: 'tablet, position only',
  poor: 'panel with poor sensors',
};
type Arrival = RecorderChoices['arrivals'][number];
export type Choices = Omit<RecorderChoices, 'runwayEnd'>;
export type Format = 'csv' | 'gpx' | 'igc';
type Set<T> = Dispatch<SetStateAction<T>>;

const toggle = <T extends string>(list: readonly T[], x: T): T[] =>
  list.includes(x) ? list.filter((y) => y !== x) : [...list, x];

/** What is to be flown, with what pilot and what recorder. */
export function RecorderForm({
  crafts,
  ends,
  value: { craft, end, choices, format, seed },
  set: { setCraft, setRunway, setChoices, setFormat, setSeed },
  busy,
  problem,
  fly,
}: {
  crafts: readonly { key: string; name: string }[];
  ends: readonly string[];
  value: { craft: string; end: string; choices: Choices; format: Format; seed: number };
  set: {
    setCraft: Set<string>;
    setRunway: Set<string>;
    setChoices: Set<Choices>;
    setFormat: Set<Format>;
    setSeed: Set<number>;
  };
  busy: boolean;
  problem: string;
  fly: () => void;
}) {
  return (
    <section className="panel" aria-label="What is flown">
      <div className="two">
        <Field label="Aeroplane" id="rec-craft">
          <select value={craft} onChange={(e) => setCraft(e.target.value)}>
            {crafts.map((c) => (
              <option key={c.key} value={c.key}>
                {c.name}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Runway" id="rec-runway">
          <select value={end} onChange={(e) => setRunway(e.target.value)}>
            {ends.map((e) => (
              <option key={e}>{e}</option>
            ))}
          </select>
        </Field>
      </div>
      <Range
        label="Wind from, true"
        id="rec-wdir"
        value={choices.windFromDeg}
        min={10}
        max={360}
        step={10}
        unit={'\u00b0'}
        onChange={(windFromDeg) => setChoices({ ...choices, windFromDeg })}
      />
      <Range
        label="Wind"
        id="rec-wkt"
        value={choices.windKt}
        min={0}
        max={20}
        unit="kt"
        onChange={(windKt) => setChoices({ ...choices, windKt })}
      />
      <Ticks choices={choices} setChoices={setChoices} />
      <Arrivals choices={choices} setChoices={setChoices} />
      <Device choices={choices} setChoices={setChoices} value={{ format, seed }} set={{ setFormat, setSeed }} />
      <Button variant="primary" className="mt-3" disabled={busy} onClick={fly}>
        {busy ? 'Flying \u2026' : 'Fly and record'}
      </Button>
      {problem ? (
        <p className="trouble mt-2" role="alert">
          {problem}
        </p>
      ) : null}
    </section>
  );
}

/** Faults of the pilot, and airwork. */
function Ticks({ choices, setChoices }: { choices: Choices; setChoices: (next: Choices) => void }) {
  return (
    <>
      <fieldset className="mt-2">
        <legend>Pilot</legend>
        <div className="ticks">
          {PILOT_ERRORS.map((e: PilotError) => (
            <label key={e}>
              <FormCheckInput
                type="checkbox"
                checked={choices.errors.includes(e)}
                onChange={() => setChoices({ ...choices, errors: toggle(choices.errors, e) })}
              />{' '}
              {ERROR_NAME[e]}
            </label>
          ))}
        </div>
      </fieldset>
      <fieldset className="mt-2">
        <legend>Airwork</legend>
        <div className="ticks">
          {AIRWORK_TOLD.map((e) => (
            <label key={e}>
              <FormCheckInput
                type="checkbox"
                checked={choices.airwork.includes(e)}
                onChange={() =>
                  setChoices({
                    ...choices,
                    airwork: AIRWORK_TOLD.filter((x) => (x === e) !== choices.airwork.includes(x)),
                  })
                }
              />{' '}
              {FOUND_NAME[e].toLowerCase()}
            </label>
          ))}
        </div>
      </fieldset>
    </>
  );
}
function Arrivals({ choices, setChoices }: { choices: Choices; setChoices: (next: Choices) => void }) {
  return (
    <fieldset className="mt-2">
      <legend>Arrivals, then a full stop</legend>
      <ol className="small mb-1">
        {choices.arrivals
          .filter((a) => a !== 'full-stop')
          .map((a, i) => (
            <li key={i}>
              {say(a)}{' '}
              <Button
                variant="link"
                size="sm"
                className="p-0"
                aria-label={`Leave out arrival ${i + 1}`}
                onClick={() => setChoices({ ...choices, arrivals: choices.arrivals.filter((_, k) => k !== i) })}
              >
                leave out
              </Button>
            </li>
          ))}
      </ol>
      <div className="d-flex gap-1 flex-wrap">
        {ARRIVAL_KINDS.filter((k) => k !== 'full-stop').map((k: Arrival) => (
          <Button
            key={k}
            variant="outline-primary"
            size="sm"
            disabled={choices.arrivals.length > 11}
            onClick={() =>
              setChoices({
                ...choices,
                arrivals: [...choices.arrivals.filter((a) => a !== 'full-stop'), k, 'full-stop'],
              })
            }
          >
            + {say(k)}
          </Button>
        ))}
      </div>
    </fieldset>
  );
}
/** What records, how fast, into which file, and which flight of the same choices. */
function Device({
  choices,
  setChoices,
  value: { format, seed },
  set: { setFormat, setSeed },
}: {
  choices: Choices;
  setChoices: (next: Choices) => void;
  value: { format: Format; seed: number };
  set: { setFormat: (f: Format) => void; setSeed: (n: number) => void };
}) {
  return (
    <div className="two mt-2">
      <Field label="Sensors" id="rec-sensors">
        <select
          value={choices.sensors}
          onChange={(e) => setChoices({ ...choices, sensors: e.target.value as SensorSet })}
        >
          {SENSOR_SETS.map((x) => (
            <option key={x} value={x}>
              {SENSOR_NAME[x]}
            </option>
          ))}
        </select>
      </Field>
      <Field label="Rows a second" id="rec-rate">
        <select value={choices.rateHz} onChange={(e) => setChoices({ ...choices, rateHz: Number(e.target.value) })}>
          {[1, 2, 4, 5, 10].map((x) => (
            <option key={x}>{x}</option>
          ))}
        </select>
      </Field>
      <Field label="File" id="rec-format">
        <select value={format} onChange={(e) => setFormat(e.target.value as Format)}>
          <option value="csv">CSV</option>
          <option value="gpx">GPX 1.1</option>
          <option value="igc">IGC</option>
        </select>
      </Field>
      <Field label="Flight number" id="rec-seed" hint="The same number flies the same flight.">
        <input type="number" min={1} max={9999} value={seed} onChange={(e) => setSeed(Number(e.target.value) || 1)} />
      </Field>
    </div>
  );
}
