'use client';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import FormControl from 'react-bootstrap/FormControl';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import Button from 'react-bootstrap/Button';
import { Link } from '../shared/link';
import { type ChangeEvent, useState } from 'react';
import { plural } from '@/core/format';
import { type RowRefusal, rowWords } from '@/core/logbook';
import {
  LOGBOOK_FIELDS,
  LOGBOOK_FIELD_NAME,
  type LogbookField,
  type LogbookMapping,
  type WrittenType,
} from '@/domain/people';
import type { ActionProblem } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';

interface Look {
  header: string[];
  sample: string[][];
  mapping: LogbookMapping;
  remembered: boolean;
  flights: {
    line: number;
    flownOn: string;
    typeWritten: string;
    registration: string;
    hours: number;
    landingsDay: number;
    landingsNight: number;
    fullStopsDay: number;
    fullStopsNight: number;
  }[];
  refused: { line: number; why: RowRefusal }[];
  typesWritten: { name: string; flights: number }[];
  doubled: { line: number; what: string }[];
  fresh: number;
  hours: number;
}
type Answer<T> = ({ ok: true } & T) | { ok: false; problems: ActionProblem[] };
const OTHER: [string, Omit<WrittenType, 'typeCode'>][] = [
  ['another single-engine, nosewheel', { engines: 1, tailwheel: false, surface: 'land' }],
  ['another single-engine, tailwheel', { engines: 1, tailwheel: true, surface: 'land' }],
  ['another twin, nosewheel', { engines: 2, tailwheel: false, surface: 'land' }],
  ['another single-engine, on water', { engines: 1, tailwheel: false, surface: 'water' }],
  ['another twin, on water', { engines: 2, tailwheel: false, surface: 'water' }],
];

/**
 * A logbook file looked at under a mapping, corrected, and read in. The mapping is remembered for files of the same
 * form.
 */
export function LogbookImport({
  pilotId,
  name,
  types,
}: {
  pilotId: string;
  name: string;
  types: readonly { code: string; name: string; water: boolean }[];
}) {
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [look, setLook] = useState<Look | null>(null);
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState<{ added: number; doubled: number; refused: number } | null>(null);
  const [requestId, setRequestId] = useState('');
  async function send<T>(body: object): Promise<Answer<T>> {
    setBusy(true);
    try {
      const r = await fetch(`/api/people/${pilotId}/import`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
      return (await r.json()) as Answer<T>;
    } catch {
      return {
        ok: false,
        problems: [
          {
            path: '',
            message: 'The server could not be reached. Check the network and try again: the file stays chosen.',
          },
        ],
      };
    } finally {
      setBusy(false);
    }
  }
  const ask = async (f: { name: string; text: string }, mapping: LogbookMapping | null) => {
    const answer = await send<{ look: Look }>({ text: f.text, fileName: f.name, mapping, requestId: null });
    if (!answer.ok) {
      if (mapping === null) setLook(null);
      return setProblems(answer.problems);
    }
    setProblems([]);
    setLook(answer.look);
  };
  const choose = async (chosen: File | undefined) => {
    if (!chosen) return;
    setDone(null);
    const f = { name: chosen.name, text: await chosen.text() };
    setFile(f);
    setRequestId(crypto.randomUUID());
    await ask(f, null);
  };
  const change = (next: LogbookMapping) => {
    if (look && file) {
      setLook({ ...look, mapping: next });
      void ask(file, next);
    }
  };
  const read = async () => {
    if (!file || !look) return;
    const answer = await send<{ added: number; doubled: number; refused: number }>({
      text: file.text,
      fileName: file.name,
      mapping: look.mapping,
      requestId,
    });
    if (!answer.ok) return setProblems(answer.problems);
    setProblems([]);
    setDone(answer);
  };
  if (done)
    return (
      <div className="note-good" role="status">
        <p>
          <b>{plural(done.added, 'flight')} read in</b>, {done.doubled} known before, {done.refused} refused.
        </p>
        <Link className="btn btn-primary" href={`/people/${pilotId}`}>
          See what holds now
        </Link>
      </div>
    );
  const column = (f: LogbookField, label: string) => {
    if (!look) return null;
    return (
      <div key={f}>
        <FormLabel htmlFor={`col-${f}`}>{label}</FormLabel>
        <FormSelect
          id={`col-${f}`}
          size="sm"
          value={look.mapping.columns[f] ?? ''}
          onChange={(e) => {
            const columns = { ...look.mapping.columns };
            if (e.target.value === '') delete columns[f];
            else columns[f] = e.target.value;
            change({ ...look.mapping, columns });
          }}
        >
          <option value="">not in the file</option>
          {look.header.map((h) => (
            <option key={h} value={h}>
              {h}
            </option>
          ))}
        </FormSelect>
      </div>
    );
  };
  const lines = new Set(look?.doubled.map((d) => d.line));
  const untold = look !== null && look.mapping.columns.fullStops === undefined;
  const shown = untold ? 60 : 12;
  const typeValue = (w: string): string => {
    const t = look?.mapping.types[w];
    if (!t) return '';
    if (t.typeCode) return `hangar:${t.typeCode}:${t.surface}`;
    const i = OTHER.findIndex(
      ([, o]) => o.engines === Math.min(2, t.engines) && o.tailwheel === t.tailwheel && o.surface === t.surface,
    );
    return i < 0 ? '' : `other:${i}`;
  };
  const setType = (w: string, v: string) => {
    if (!look) return;
    const all = { ...look.mapping.types };
    const [kind, code, surface] = v.split(':');
    if (kind === 'hangar' && code)
      all[w] = { typeCode: code, engines: 1, tailwheel: false, surface: surface === 'water' ? 'water' : 'land' };
    else if (kind === 'other') {
      const o = OTHER[Number(code)]?.[1];
      if (o) all[w] = { typeCode: null, ...o };
    } else delete all[w];
    change({ ...look.mapping, types: all });
  };
  return (
    <div className="grid">
      <Panel title="The file">
        <FormLabel htmlFor="logbook-file">Logbook as CSV, at most 4 MB</FormLabel>
        <FormControl
          id="logbook-file"
          type="file"
          accept=".csv,.txt,text/csv"
          style={{ maxWidth: 480 }}
          onChange={(e: ChangeEvent<HTMLInputElement>) => void choose(e.target.files?.[0])}
        />
        <Problems problems={problems} title="Not read" />
        {busy ? (
          <p role="status" className="soft mb-0 mt-2">
            Reading …
          </p>
        ) : null}
      </Panel>
      {look ? (
        <>
          <Panel
            title={
              look.remembered ? 'Columns, as the last file of this form was read' : 'Columns, as their names suggest'
            }
          >
            <div className="fields">
              {LOGBOOK_FIELDS.map((f) => column(f, LOGBOOK_FIELD_NAME[f]))}
              <div>
                <FormLabel htmlFor="dates">Dates are written</FormLabel>
                <FormSelect
                  id="dates"
                  size="sm"
                  value={look.mapping.dates}
                  onChange={(e) => change({ ...look.mapping, dates: e.target.value as LogbookMapping['dates'] })}
                >
                  <option value="ymd">year, month, day</option>
                  <option value="dmy">day, month, year</option>
                  <option value="mdy">month, day, year</option>
                </FormSelect>
              </div>
              <div>
                <FormLabel htmlFor="time">A bare number of time is</FormLabel>
                <FormSelect
                  id="time"
                  size="sm"
                  value={look.mapping.time}
                  onChange={(e) => change({ ...look.mapping, time: e.target.value as 'hours' | 'minutes' })}
                >
                  <option value="hours">hours</option>
                  <option value="minutes">minutes</option>
                </FormSelect>
              </div>
            </div>
            <div className="scroll-x mt-3">
              <table className="plain">
                <thead>
                  <tr>
                    {look.header.map((h) => (
                      <th key={h}>{h}</th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {look.sample.map((r, i) => (
                    <tr key={i}>
                      {look.header.map((h, j) => (
                        <td key={h} className="small">
                          {r[j] ?? ''}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </Panel>
          <Panel title="Types, as they are written">
            <div className="fields">
              {look.typesWritten.map((w) => (
                <div key={w.name}>
                  <FormLabel htmlFor={`type-${w.name}`}>
                    {w.name} <span className="soft">({plural(w.flights, 'flight')})</span>
                  </FormLabel>
                  <FormSelect
                    id={`type-${w.name}`}
                    size="sm"
                    value={typeValue(w.name)}
                    onChange={(e) => setType(w.name, e.target.value)}
                  >
                    <option value="">leave out</option>
                    {types.map((t) => (
                      <option key={t.code} value={`hangar:${t.code}:${t.water ? 'water' : 'land'}`}>
                        {t.name}
                      </option>
                    ))}
                    {OTHER.map(([n], i) => (
                      <option key={n} value={`other:${i}`}>
                        {n}
                      </option>
                    ))}
                  </FormSelect>
                </div>
              ))}
            </div>
          </Panel>
          <Panel title="What would be read in">
            <p role="status">
              <b className="num">{look.fresh}</b> new flights, <span className="num">{look.hours}</span> h;{' '}
              <span className="num">{look.doubled.length}</span> in the record already;{' '}
              <span className="num">{look.refused.length}</span> refused.
            </p>
            {untold ? (
              <p className="mb-2">
                No column tells full stops, so none is counted. Tick each flight whose landings were all full stops: a
                touch and go is not one.
              </p>
            ) : null}
            <div className="grid g-1-1">
              <div className="scroll-x">
                <table className="plain">
                  <thead>
                    <tr>
                      <th className="r">Line</th>
                      <th>Day</th>
                      <th>Type</th>
                      <th className="r">Hours</th>
                      <th className="r">Landings</th>
                      <th className="r">Stops</th>
                    </tr>
                  </thead>
                  <tbody>
                    {look.flights
                      .filter((f) => !lines.has(f.line))
                      // Where full stops are ticked one by one, the newest: those are what recency looks at.
                      .sort((a, b) =>
                        untold ? (a.flownOn < b.flownOn ? 1 : a.flownOn > b.flownOn ? -1 : b.line - a.line) : 0,
                      )
                      .slice(0, shown)
                      .map((f) => (
                        <tr key={f.line}>
                          <td className="r mono">{f.line}</td>
                          <td className="date">{f.flownOn}</td>
                          <td>
                            {f.typeWritten} <span className="mono">{f.registration}</span>
                          </td>
                          <td className="r mono">{f.hours.toFixed(2)} h</td>
                          <td className="r mono">
                            {f.landingsDay + f.landingsNight}
                            {f.landingsNight > 0 ? `, ${f.landingsNight} by night` : ''}
                          </td>
                          <td className="r mono">
                            {untold && f.landingsDay + f.landingsNight > 0 ? (
                              <FormCheckInput
                                type="checkbox"
                                aria-label={`Line ${f.line}, ${f.flownOn}: all full stops`}
                                checked={look.mapping.stopLines.includes(f.line)}
                                onChange={(e) =>
                                  change({
                                    ...look.mapping,
                                    stopLines: e.target.checked
                                      ? [...look.mapping.stopLines, f.line]
                                      : look.mapping.stopLines.filter((n) => n !== f.line),
                                  })
                                }
                              />
                            ) : (
                              f.fullStopsDay + f.fullStopsNight
                            )}
                          </td>
                        </tr>
                      ))}
                  </tbody>
                </table>
                {look.fresh > shown ? <p className="soft small">and {look.fresh - shown} more.</p> : null}
              </div>
              <div>
                {look.doubled.length > 0 ? (
                  <>
                    <h3 className="group">In the record already</h3>
                    <ul className="small">
                      {look.doubled.slice(0, 10).map((d) => (
                        <li key={d.line}>
                          line {d.line}: {d.what}
                        </li>
                      ))}
                      {look.doubled.length > 10 ? <li>and {look.doubled.length - 10} more</li> : null}
                    </ul>
                  </>
                ) : null}
                {look.refused.length > 0 ? (
                  <>
                    <h3 className="group">Refused, and why</h3>
                    <ul className="small">
                      {look.refused.slice(0, 12).map((d) => (
                        <li key={d.line}>
                          line {d.line}: {rowWords(d.why)}
                        </li>
                      ))}
                      {look.refused.length > 12 ? <li>and {look.refused.length - 12} more</li> : null}
                    </ul>
                  </>
                ) : null}
              </div>
            </div>
            <Button variant="primary" disabled={busy || look.fresh === 0} onClick={() => void read()}>
              Read {plural(look.fresh, 'flight')} in for {name}
            </Button>
          </Panel>
        </>
      ) : null}
    </div>
  );
}
