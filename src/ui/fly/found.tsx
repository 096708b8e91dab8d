'use client';
import { useState } from 'react';
import { ARRESTED, VERTICALS } from '@/domain/airwork';
import { say } from '@/domain/words';
import type { ViewProps } from './view';
import { Stepper, Words } from './parts';
import { Typed } from './sheet';
import { YesNo } from './yes-no';
import { useKept } from './kept';

/** Power settings and what they gave. They wait for the chief before they stand on the sheet, as *measured*. */
export function PowerTable({ pack, folded, saveEvent, say: tell }: ViewProps) {
  const [open, setOpen] = useState(false);
  const [row, setRow] = useKept(`power-${pack.sortieId}`, {
    phase: '',
    setting: '',
    speed: null as number | null,
    vertical: 'level' as (typeof VERTICALS)[number],
  });
  const [round, setRound] = useState(0);
  const table = pack.reach?.sheet.powerTable ?? [];
  const missing = [
    row.phase.trim() === '' ? 'the phase' : '',
    row.setting.trim() === '' ? 'the power set' : '',
    row.speed === null ? 'the speed it gave' : '',
  ].filter(Boolean);
  const keep = async () => {
    if (missing.length > 0) return;
    await saveEvent('power-found', crypto.randomUUID(), {
      ...row,
      phase: row.phase.trim(),
      setting: row.setting.trim(),
    }).then(
      () => {
        tell(`Power for ${row.phase.trim()} saved.`);
        setRow({ phase: '', setting: '', speed: null, vertical: 'level' });
        setRound(round + 1);
      },
      () => undefined,
    );
  };
  return (
    <div className="rowline">
      <button type="button" className="tap left" aria-expanded={open} onClick={() => setOpen(!open)}>
        Power setting noted
        <small>
          {folded.powers.length === 0
            ? 'a setting and the speed it gives, for the sheet'
            : `${folded.powers.length} noted: ${folded.powers.map((p) => `${p.data.phase} ${p.data.speed} ${pack.unit}`).join(', ')}`}
        </small>
      </button>
      {open ? (
        <>
          {folded.powers.length > 0 ? (
            <table className="found">
              <caption className="visually-hidden">Power setting noted</caption>
              <thead>
                <tr>
                  <th scope="col">phase</th>
                  <th scope="col">set</th>
                  <th scope="col">speed</th>
                  <th scope="col">path</th>
                  <th scope="col">
                    <span className="visually-hidden">take back</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {folded.powers.map((p) => (
                  <tr key={p.id}>
                    <td>{p.data.phase}</td>
                    <td>{p.data.setting}</td>
                    <td className="mono">
                      {p.data.speed} {pack.unit}
                    </td>
                    <td>{p.data.vertical}</td>
                    <td>
                      <button
                        type="button"
                        className="tap"
                        onClick={() => void saveEvent('undone', p.id, {}).catch(() => undefined)}
                      >
                        Take back
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : null}
          {table.length > 0 ? (
            <div>
              <h2>Phase as on the sheet</h2>
              <div className="taps t4" role="group" aria-label="Phase as on the sheet">
                {table.map((p) => (
                  <button
                    key={p.phase}
                    type="button"
                    className="tap"
                    aria-pressed={row.phase === p.phase}
                    onClick={() => {
                      setRow({ ...row, phase: p.phase, setting: p.setting });
                      setRound(round + 1);
                    }}
                  >
                    {p.phase}
                    <small>
                      {p.setting}
                      {p.ias ? `, ${p.ias.value} ${pack.unit}` : ''}
                    </small>
                  </button>
                ))}
              </div>
            </div>
          ) : null}
          <div className="pair" key={round}>
            <Typed
              rows={1}
              label="Phase"
              value={row.phase}
              max={60}
              keep={(phase) => setRow((r) => ({ ...r, phase }))}
            />
            <Typed
              rows={1}
              label="Power set"
              value={row.setting}
              max={60}
              keep={(setting) => setRow((r) => ({ ...r, setting }))}
            />
          </div>
          <div className="pair">
            <Stepper
              title="Speed it gave"
              unit={pack.unit}
              start={Math.round(
                table.find((p) => p.phase === row.phase)?.ias?.value ?? pack.reach?.sheet.speeds.vy.value ?? 80,
              )}
              step={1}
              least={10}
              most={400}
              now={row.speed}
              set={(speed) => setRow({ ...row, speed })}
            />
            <Words
              title="Path"
              options={VERTICALS}
              now={row.vertical}
              choose={(v) => setRow({ ...row, vertical: v ?? 'level' })}
              columns={3}
            />
          </div>
          <button type="button" className="tap big" disabled={missing.length > 0} onClick={() => void keep()}>
            {missing.length > 0 ? `Missing: ${missing.join(', ')}` : 'Save this setting'}
          </button>
        </>
      ) : null}
    </div>
  );
}

/** Approaches to a make-believe ground at height: could the descent be arrested, and was there elevator left? */
export function Trials({ pack, folded, saveEvent, say: tell }: ViewProps) {
  const flaps = pack.flapSteps ?? [0];
  const blank = {
    flapDeg: flaps[flaps.length - 1] ?? 0,
    power: 'idle',
    idle: true,
    speed: null as number | null,
    sinkFpm: null as number | null,
    groundFt: null as number | null,
    arrested: null as (typeof ARRESTED)[number] | null,
    elevatorAtStop: null as boolean | null,
    heightErrorFt: null as number | null,
  };
  const [open, setOpen] = useState(false);
  const [row, setRow] = useKept(`trial-${pack.sortieId}`, blank);
  const [round, setRound] = useState(0);
  const missing = [
    row.speed === null ? 'the speed' : '',
    row.groundFt === null ? 'the reference height' : '',
    row.arrested === null ? 'descent arrested' : '',
  ].filter(Boolean);
  const keep = async () => {
    if (missing.length > 0) return;
    // The next trial starts from this one: flap, power and ground stay, what was seen does not.
    await saveEvent('trial-flown', crypto.randomUUID(), row).then(
      () => {
        tell(`Trial ${folded.trials.length + 1} saved.`);
        setRow({ ...row, sinkFpm: null, arrested: null, elevatorAtStop: null, heightErrorFt: null });
        setRound(round + 1);
      },
      () => undefined,
    );
  };
  const count = (a: string) => folded.trials.filter((t) => t.data.arrested === a).length;
  return (
    <div className="rowline">
      <button type="button" className="tap left" aria-expanded={open} onClick={() => setOpen(!open)}>
        Slow approach trials
        <small>
          {folded.trials.length === 0
            ? 'slow approaches at height: flap, power, speed, was it arrested'
            : `${folded.trials.length} flown: ${count('full')} fully, ${count('part')} partly, ${count('none')} not arrested`}
        </small>
      </button>
      {open ? (
        <>
          {folded.trials.length > 0 ? (
            <table className="found">
              <caption className="visually-hidden">Trials flown</caption>
              <thead>
                <tr>
                  <th scope="col">flap</th>
                  <th scope="col">power</th>
                  <th scope="col">speed</th>
                  <th scope="col">sink</th>
                  <th scope="col">arrested</th>
                  <th scope="col">elevator</th>
                  <th scope="col">height error</th>
                  <th scope="col">
                    <span className="visually-hidden">take back</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {folded.trials.map((t) => (
                  <tr key={t.id}>
                    <td className="mono">{t.data.flapDeg}°</td>
                    <td>{t.data.power}</td>
                    <td className="mono">
                      {t.data.speed} {pack.unit}
                    </td>
                    <td className="mono">{t.data.sinkFpm === null ? 'not seen' : `${t.data.sinkFpm} fpm`}</td>
                    <td>{t.data.arrested === 'none' ? 'not' : say(t.data.arrested)}</td>
                    <td>
                      {t.data.elevatorAtStop === null
                        ? 'not seen'
                        : t.data.elevatorAtStop
                          ? 'at the stop'
                          : 'some left'}
                    </td>
                    <td className="mono">
                      {t.data.heightErrorFt === null
                        ? 'not seen'
                        : `${t.data.heightErrorFt > 0 ? '+' : ''}${t.data.heightErrorFt} ft`}
                    </td>
                    <td>
                      <button
                        type="button"
                        className="tap"
                        onClick={() => void saveEvent('undone', t.id, {}).catch(() => undefined)}
                      >
                        Take back
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : null}
          <div className="pair">
            <Words
              title="Flap"
              options={flaps.map(String)}
              now={String(row.flapDeg)}
              choose={(v) => setRow({ ...row, flapDeg: Number(v ?? row.flapDeg) })}
              columns={Math.min(5, flaps.length)}
              name={(v) => `${v}°`}
            />
            <Words
              title="Power"
              options={['idle', 'a trickle', 'with power'] as const}
              now={row.power as 'idle'}
              choose={(v) => setRow({ ...row, power: v ?? 'idle', idle: (v ?? 'idle') === 'idle' })}
              columns={3}
            />
          </div>
          <div className="taps gates">
            <Stepper
              title="Speed"
              unit={pack.unit}
              start={pack.fenceTarget ?? 55}
              step={1}
              least={10}
              most={200}
              now={row.speed}
              set={(speed) => setRow({ ...row, speed })}
            />
            <Stepper
              title="Reference height, QNH"
              unit="ft"
              start={Math.ceil(((pack.reach?.elevationFt ?? 0) + 2500) / 100) * 100}
              step={100}
              least={0}
              most={20000}
              now={row.groundFt}
              set={(groundFt) => setRow({ ...row, groundFt })}
            />
            <Stepper
              title="Sink"
              unit="fpm"
              start={600}
              step={50}
              least={0}
              most={4000}
              now={row.sinkFpm}
              set={(sinkFpm) => setRow({ ...row, sinkFpm })}
            />
            <Stepper
              title="Height error"
              unit="ft"
              start={0}
              step={10}
              least={-500}
              most={500}
              now={row.heightErrorFt}
              set={(heightErrorFt) => setRow({ ...row, heightErrorFt })}
            />
          </div>
          <div className="pair">
            <Words
              title="Descent arrested"
              options={ARRESTED}
              now={row.arrested}
              choose={(arrested) => setRow({ ...row, arrested })}
              columns={3}
              name={(v) => (v === 'none' ? 'not' : say(v))}
            />
            <YesNo
              title="Elevator at the stop"
              now={row.elevatorAtStop}
              choose={(elevatorAtStop) => setRow({ ...row, elevatorAtStop })}
              yes="at the stop"
              no="some left"
            />
          </div>
          <button type="button" className="tap big" disabled={missing.length > 0} onClick={() => void keep()}>
            {missing.length > 0 ? `Missing: ${missing.join(', ')}` : 'Save this trial'}
          </button>
          <p className="mb-0" style={{ fontSize: 15 }}>
            At height, never near the ground. An engine that stops in a slow approach with power leaves less wash over
            the tail and more sink.
          </p>
        </>
      ) : null}
    </div>
  );
}
