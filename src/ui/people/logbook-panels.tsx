import { TableHead } from '../shared/table-head';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import Button from 'react-bootstrap/Button';
import { dateText, plural } from '@/core/format';
import { type RowRefusal, rowWords } from '@/core/logbook';
import {
  LOGBOOK_FIELDS,
  LOGBOOK_FIELD_NAME,
  type LogbookField,
  type LogbookMapping,
  type WrittenType,
} from '@/domain/people';
import { Panel } from '../shared/parts';

export interface Look {
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

const OTHER: [string, Omit<WrittenType, 'typeCode'>][] = [
  ['another single-engine, nosewheel', { engines: 1, tailwheel: false, surface: 'land' }],
  ['another single-engine, tailwheel', { engines: 1, tailwheel: true, surface: 'land' }],
  ['another twin, nosewheel', { engines: 2, tailwheel: false, surface: 'land' }],
  ['another single-engine, on water', { engines: 1, tailwheel: false, surface: 'water' }],
  ['another twin, on water', { engines: 2, tailwheel: false, surface: 'water' }],
];

interface Corrected {
  look: Look;
  /** Asks for the look again under another mapping. */
  change: (next: LogbookMapping) => void;
}

/** Which column is what, how dates and times are written, and the first rows as they stand. */
export function ColumnsPanel({ look, change }: Corrected) {
  const column = (f: LogbookField, label: string) => {
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
  return (
    <Panel title={look.remembered ? 'Columns, as in the last file of this form' : 'Columns, as their names suggest'}>
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
          <FormLabel htmlFor="time">A plain number of time is</FormLabel>
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
        <table aria-label="Columns of the file" className="plain">
          <thead>
            <tr>
              {look.header.map((h) => (
                <th scope="col" key={h}>
                  {h}
                </th>
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
  );
}

/** What each type written in the file is. */
export function TypesPanel({
  look,
  change,
  types,
}: Corrected & { types: readonly { code: string; name: string; water: boolean }[] }) {
  const typeValue = (w: string): string => {
    const t = look.mapping.types[w];
    if (!t) return '';
    if (t.typeCode) return `hangar:${t.typeCode}:${t.surface}`;
    const i = OTHER.findIndex(
      ([, o]) => o.engines === Math.min(2, t.engines) && o.tailwheel === t.tailwheel && o.surface === t.surface,
    );
    return i < 0 ? '' : `other:${i}`;
  };
  const setType = (w: string, v: string) => {
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
    <Panel title="Types in the file">
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
  );
}

/** Import preview, what is known already, and what is refused with why. */
export function FreshPanel({
  look,
  change,
  name,
  busy,
  read,
}: Corrected & { name: string; busy: boolean; read: () => void }) {
  const untold = look.mapping.columns.fullStops === undefined;
  return (
    <Panel title="Import preview">
      <p role="status">
        <b className="num">{look.fresh}</b> new {look.fresh === 1 ? 'flight' : 'flights'},{' '}
        <span className="num">{look.hours}</span> h; <span className="num">{look.doubled.length}</span> already on
        record; <span className="num">{look.refused.length}</span> refused.
      </p>
      {untold ? (
        <p className="mb-2">
          No column gives full stops, so none is counted. Tick each flight whose landings were all full stops; a touch
          and go is not one.
        </p>
      ) : null}
      <div className="grid g-1-1">
        <FreshFlights look={look} change={change} untold={untold} />
        <LeftOut look={look} />
      </div>
      <Button variant="primary" disabled={busy || look.fresh === 0} onClick={read}>
        Import {plural(look.fresh, 'flight')} for {name}
      </Button>
    </Panel>
  );
}

/** Flights that are new; where no column tells full stops, each is ticked. */
function FreshFlights({ look, change, untold }: Corrected & { untold: boolean }) {
  const lines = new Set(look.doubled.map((d) => d.line));
  const shown = untold ? 60 : 12;
  return (
    <div className="scroll-x">
      <table aria-label="Import preview" className="plain">
        <TableHead
          columns={[{ right: 'Line' }, 'Day', 'Type', { right: 'Hours' }, { right: 'Landings' }, { right: 'Stops' }]}
        />
        <tbody>
          {look.flights
            .filter((f) => !lines.has(f.line))
            // Where full stops are ticked one by one, the newest: those are what recency looks at.
            .sort((a, b) => (untold ? (a.flownOn < b.flownOn ? 1 : a.flownOn > b.flownOn ? -1 : b.line - a.line) : 0))
            .slice(0, shown)
            .map((f) => (
              <tr key={f.line}>
                <td className="r mono">{f.line}</td>
                <td className="date">{dateText(f.flownOn)}</td>
                <td>
                  {f.typeWritten} <span className="code-face">{f.registration}</span>
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
                      aria-label={`Line ${f.line}, ${dateText(f.flownOn)}: all full stops`}
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
  );
}

function LeftOut({ look }: Pick<Corrected, 'look'>) {
  return (
    <div>
      {look.doubled.length > 0 ? (
        <>
          <h3 className="group">Already on record</h3>
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
  );
}
