'use client';
import type { ColumnTold } from '@/core/trace';

export interface ColumnsSeen {
  headers: string[];
  columns: ColumnTold[];
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
      ['altEllipsoid', 'height, ellipsoid'],
    ],
  ],
  [
    'Air and movement',
    [
      ['ias', 'indicated airspeed'],
      ['tas', 'true airspeed'],
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
      ['rpm2', 'engine speed, second engine'],
      ['map', 'manifold pressure'],
      ['map2', 'manifold pressure, second engine'],
      ['cht', 'cylinder temperature'],
      ['egt', 'exhaust temperature'],
      ['fuelFlow', 'fuel flow'],
      ['fuelFlow2', 'fuel flow, second engine'],
      ['oilTemp', 'oil temperature'],
      ['oilPress', 'oil pressure'],
      ['volts', 'volts'],
      ['amps', 'amperes'],
      ['flap', 'flap'],
      ['gear', 'gear'],
    ],
  ],
];
const NAMES = new Map(ROLES.flatMap(([, options]) => options));
/** What a quantity of a recording is called. */
export const channelName = (channel: string): string => NAMES.get(channel) ?? channel;
const UNITS: Record<string, string[]> = {
  altGps: ['ft', 'm'],
  altMsl: ['ft', 'm'],
  altPressure: ['ft', 'm'],
  altEllipsoid: ['ft', 'm'],
  ias: ['kt', 'mph', 'km/h', 'm/s'],
  gs: ['kt', 'mph', 'km/h', 'm/s'],
  vs: ['fpm', 'm/s'],
  nz: ['g', 'm/s2'],
  map: ['inhg', 'hpa'],
  map2: ['inhg', 'hpa'],
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

const BY: Record<NonNullable<ColumnTold['by']>, string> = {
  name: 'by its name',
  'name-part': 'by part of its name',
  values: 'by its values',
  said: 'as you said',
};
const UNIT_BY: Record<NonNullable<ColumnTold['unitBy']>, string> = {
  header: '',
  values: 'unit by its values',
  assumed: 'unit assumed',
  said: '',
};
/** A rank in words: it is weighed, not counted, and no share of anything. */
const SURE = [
  { from: 0.9, word: 'sure' },
  { from: 0.7, word: 'likely' },
  { from: 0.5, word: 'perhaps' },
];
/** Below this a column asks to be looked at. */
export const DOUBTFUL = 0.5;
/** How sure a column is, in words: of what is not used, nothing. */
export function certainty(c: ColumnTold): string {
  if (c.as === null || c.by === null) return '';
  const sure =
    c.by === 'said' || c.confidence === null
      ? ''
      : `, ${SURE.find((s) => (c.confidence ?? 0) >= s.from)?.word ?? 'a guess'}`;
  const unit = c.unitBy === null ? '' : UNIT_BY[c.unitBy];
  return `${BY[c.by]}${sure}${unit === '' ? '' : `; ${unit}`}`;
}

/**
 * Which column is what, one row each with the file's own values beside it, and how sure that is; asked once for each
 * recorder and kept on this device.
 */
export function MappingTable({
  seen,
  mapping,
  onChange,
}: {
  seen: ColumnsSeen;
  mapping: Mapping;
  onChange: (m: Mapping) => void;
}) {
  const set = (header: string, channel: string, unit: string | null) =>
    onChange({
      ...mapping,
      [header]: { channel, unit: UNITS[channel]?.includes(unit ?? '') ? unit : (UNITS[channel]?.[0] ?? null) },
    });
  return (
    <div className="scroll-x" tabIndex={0} role="group" aria-label="Columns of the file">
      <table aria-label="Columns of the file" className="plain mapping">
        <thead>
          <tr>
            <th scope="col">Column</th>
            <th scope="col">First values</th>
            <th scope="col">Is</th>
            <th scope="col">In</th>
            <th scope="col">How sure</th>
          </tr>
        </thead>
        <tbody>
          {seen.headers.map((h, i) => {
            const name = h || `column ${i + 1}`;
            const told = seen.columns[i];
            const said = mapping[h];
            const is = said ? said.channel : (told?.as ?? 'none');
            const unit = said ? said.unit : (told?.unit ?? null);
            const doubt = !said && told?.as && (told.confidence ?? 1) < DOUBTFUL;
            return (
              <tr key={`${h}-${i}`}>
                <th scope="row">{name}</th>
                <td className="code-face small">
                  {seen.rows
                    .slice(0, 3)
                    .map((r) => r[i] ?? '')
                    .filter((v) => v.trim() !== '')
                    .join(' \u00b7 ')}
                </td>
                <td>
                  <select value={is} aria-label={`What ${name} is`} onChange={(e) => set(h, e.target.value, unit)}>
                    <option value="none">not used</option>
                    {ROLES.map(([g, options]) => (
                      <optgroup key={g} label={g}>
                        {options.map(([v, n]) => (
                          <option key={v} value={v}>
                            {n}
                          </option>
                        ))}
                      </optgroup>
                    ))}
                    {is !== 'none' && !ROLES.some(([, o]) => o.some(([v]) => v === is)) ? (
                      <option value={is}>{is}</option>
                    ) : null}
                  </select>
                </td>
                <td>
                  {UNITS[is] ? (
                    <select
                      value={unit ?? UNITS[is]?.[0] ?? ''}
                      aria-label={`Unit of ${name}`}
                      onChange={(e) => set(h, is, e.target.value)}
                    >
                      {UNITS[is]?.map((u) => (
                        <option key={u} value={u}>
                          {UNIT_NAME[u] ?? u}
                        </option>
                      ))}
                    </select>
                  ) : null}
                </td>
                <td className={doubt ? 'small doubtful' : 'small'}>
                  {said ? (said.channel === 'none' ? '' : BY.said) : told ? certainty(told) : ''}
                  {doubt ? ': check it' : ''}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** What a recording lets be measured, and what is missing for the rest. */
const MEASURABLE: readonly { what: string; needs: readonly string[]; for: string }[] = [
  {
    what: 'where and when it touched, its sink, touch-and-goes that stayed fast, go-arounds and low passes',
    needs: ['altGps', 'altMsl', 'altPressure', 'altEllipsoid'],
    for: 'a height',
  },
  { what: 'speeds at the gates, slow flight, stalls, speed limits', needs: ['ias'], for: 'airspeed' },
  { what: 'crab, and the swing by the nose', needs: ['headingMag', 'headingTrue'], for: 'a heading' },
  { what: 'bounces and the load of a touch', needs: ['nz'], for: 'a load factor' },
  { what: 'loops and rolls', needs: ['bank'], for: 'bank' },
  {
    what: 'engine limits',
    needs: ['rpm', 'map', 'cht'],
    for: 'engine speed, manifold pressure or cylinder temperature',
  },
  { what: 'flap limits', needs: ['flap'], for: 'the flap' },
  { what: 'gear limits', needs: ['gear'], for: 'the gear' },
];
export function Measurable({ channels }: { channels: readonly string[] }) {
  const has = (m: (typeof MEASURABLE)[number]) => m.needs.some((c) => channels.includes(c));
  const [can, cannot] = [MEASURABLE.filter(has), MEASURABLE.filter((m) => !has(m))];
  return (
    <div className="small mb-2">
      <p className="mb-1">Measured: the track and speed over the ground{can.map((m) => `; ${m.what}`).join('')}.</p>
      {cannot.length > 0 ? (
        <p className="mb-0">Not measured: {cannot.map((m) => `${m.what} (no column for ${m.for})`).join('; ')}.</p>
      ) : null}
    </div>
  );
}
