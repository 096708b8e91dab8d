'use client';
import { Field } from '../shared/field';

export interface ColumnsSeen {
  headers: string[];
  known: (string | null)[];
  rows: string[][];
}
export type Mapping = Record<string, { channel: string; unit: string | null }>;

const ROLES: [group: string, options: [value: string, name: string][]][] = [
  [
    'Time',
    [
      ['time:instant', 'date and time in one'],
      ['time:date', 'date'],
      ['time:clock', 'time of day'],
      ['time:offset', 'offset from UTC'],
      ['time:elapsed', 'seconds since the start'],
      ['time:epoch', 'seconds or ms since 1970'],
    ],
  ],
  [
    'Place',
    [
      ['lat', 'latitude'],
      ['lon', 'longitude'],
      ['altGps', 'height, satellite'],
      ['altMsl', 'height above the sea'],
      ['altPressure', 'height, pressure'],
    ],
  ],
  [
    'Air and movement',
    [
      ['ias', 'indicated airspeed'],
      ['gs', 'speed over the ground'],
      ['track', 'track over the ground'],
      ['headingMag', 'heading, magnetic'],
      ['headingTrue', 'heading, true'],
      ['vs', 'vertical speed'],
      ['pitch', 'pitch'],
      ['bank', 'bank'],
      ['nz', 'load factor'],
    ],
  ],
  [
    'Engine and configuration',
    [
      ['rpm', 'engine speed'],
      ['map', 'manifold pressure'],
      ['cht', 'cylinder temperature'],
      ['egt', 'exhaust temperature'],
      ['fuelFlow', 'fuel flow'],
      ['flap', 'flap'],
      ['gear', 'gear'],
    ],
  ],
];
const UNITS: Record<string, string[]> = {
  altGps: ['ft', 'm'],
  altMsl: ['ft', 'm'],
  altPressure: ['ft', 'm'],
  ias: ['kt', 'mph', 'km/h', 'm/s'],
  gs: ['kt', 'mph', 'km/h', 'm/s'],
  vs: ['fpm', 'm/s'],
  nz: ['g', 'm/s2'],
  map: ['inhg', 'hpa'],
  cht: ['c', 'f'],
  egt: ['c', 'f'],
};
const UNIT_NAME: Record<string, string> = {
  inhg: 'inHg',
  hpa: 'hPa',
  c: '\u00b0C',
  f: '\u00b0F',
  fpm: 'ft/min',
  m: 'm',
};

/** Which column is what, with the file's own first rows below; asked once for each recorder and kept on this device. */
export function MappingTable({
  seen,
  mapping,
  onChange,
}: {
  seen: ColumnsSeen;
  mapping: Mapping;
  onChange: (m: Mapping) => void;
}) {
  const set = (header: string, channel: string, unit: string | null) => {
    const next = { ...mapping };
    if (channel === '') delete next[header];
    else next[header] = { channel, unit: UNITS[channel]?.includes(unit ?? '') ? unit : (UNITS[channel]?.[0] ?? null) };
    onChange(next);
  };
  return (
    <div className="scroll-x" tabIndex={0} role="group" aria-label="Columns of the file">
      <table aria-label="Columns of the file" className="plain mapping">
        <thead>
          <tr>
            {seen.headers.map((h, i) => (
              <th key={`${h}-${i}`} scope="col">
                {h || `column ${i + 1}`}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            {seen.headers.map((h, i) => {
              const said = mapping[h];
              const value = said?.channel ?? seen.known[i] ?? '';
              return (
                <td key={`${h}-${i}`}>
                  <Field label="is" id={`col-${i}`}>
                    <select
                      value={value}
                      aria-label={`What ${h || `column ${i + 1}`} is`}
                      onChange={(e) => set(h, e.target.value, said?.unit ?? null)}
                    >
                      <option value="">not used</option>
                      {ROLES.map(([g, options]) => (
                        <optgroup key={g} label={g}>
                          {options.map(([v, n]) => (
                            <option key={v} value={v}>
                              {n}
                            </option>
                          ))}
                        </optgroup>
                      ))}
                      {value !== '' && !ROLES.some(([, o]) => o.some(([v]) => v === value)) ? (
                        <option value={value}>{value}</option>
                      ) : null}
                    </select>
                  </Field>
                  {said && UNITS[said.channel] ? (
                    <Field label="in" id={`unit-${i}`}>
                      <select
                        value={said.unit ?? ''}
                        aria-label={`Unit of ${h || `column ${i + 1}`}`}
                        onChange={(e) => set(h, said.channel, e.target.value)}
                      >
                        {UNITS[said.channel]?.map((u) => (
                          <option key={u} value={u}>
                            {UNIT_NAME[u] ?? u}
                          </option>
                        ))}
                      </select>
                    </Field>
                  ) : null}
                </td>
              );
            })}
          </tr>
          {seen.rows.map((r, k) => (
            <tr key={k}>
              {seen.headers.map((_, i) => (
                <td key={i} className="code-face small">
                  {r[i] ?? ''}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
