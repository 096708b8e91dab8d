/**
 * Header words and units of a table, in any case: which channel a column is and what turns it into that channel's unit.
 */
import type { Channel } from './trace';

export type TimeRole = 'instant' | 'date' | 'clock' | 'offset' | 'elapsed' | 'epoch';
export type Role = { time: TimeRole } | { channel: Channel; /** Null = the unit is not said. */ unit: string | null };

const M_TO_FT = 1 / 0.3048;
const MS_TO_KT = 1 / 0.514444;
/** Units a channel may come in: factor and offset to its own. The first is its own. */
const UNITS: Partial<Record<Channel, Record<string, [number, number]>>> = {
  altGps: lengths(),
  altPressure: lengths(),
  altEllipsoid: lengths(),
  altMsl: lengths(),
  ias: speeds(),
  tas: speeds(),
  gs: speeds(),
  vs: { fpm: [1, 0], 'ft/min': [1, 0], 'm/s': [196.850394, 0], ms: [196.850394, 0], kt: [101.268591, 0] },
  nz: { g: [1, 0], 'm/s2': [1 / 9.80665, 0], 'm/s^2': [1 / 9.80665, 0], 'm/s\u00b2': [1 / 9.80665, 0] },
  map: {
    inhg: [1, 0],
    'in hg': [1, 0],
    '"hg': [1, 0],
    hpa: [1 / 33.8639, 0],
    mbar: [1 / 33.8639, 0],
    kpa: [10 / 33.8639, 0],
  },
  cht: temperatures(),
  egt: temperatures(),
  oilTemp: temperatures(),
};
function lengths(): Record<string, [number, number]> {
  return { ft: [1, 0], feet: [1, 0], m: [M_TO_FT, 0], metres: [M_TO_FT, 0], meters: [M_TO_FT, 0] };
}
function speeds(): Record<string, [number, number]> {
  return {
    kt: [1, 0],
    kts: [1, 0],
    kn: [1, 0],
    knots: [1, 0],
    mph: [0.868976, 0],
    'km/h': [1 / 1.852, 0],
    kmh: [1 / 1.852, 0],
    kph: [1 / 1.852, 0],
    'm/s': [MS_TO_KT, 0],
    ms: [MS_TO_KT, 0],
    mps: [MS_TO_KT, 0],
  };
}
function temperatures(): Record<string, [number, number]> {
  return {
    c: [1, 0],
    degc: [1, 0],
    '\u00b0c': [1, 0],
    f: [5 / 9, -160 / 9],
    degf: [5 / 9, -160 / 9],
    '\u00b0f': [5 / 9, -160 / 9],
  };
}

/** Words by which a column is known, longest idea first: the first that fits is taken. */
const WORDS: [RegExp, Role][] = [
  [/^(elapsed|elapsed time|time elapsed|seconds|secs?|t|time s|session time)$/, { time: 'elapsed' }],
  [/^(epoch|unix|unix time|timestamp ms|epoch ms|unixtime|posix)$/, { time: 'epoch' }],
  [/^(utc ?offset|utcofst|offset|tz offset|zone|time ?zone)$/, { time: 'offset' }],
  [/^(date|utc date|lcl date|local date|day)$/, { time: 'date' }],
  [/^(time of day|clock|lcl time|local time|utc time|time utc|gps time|utc)$/, { time: 'clock' }],
  [/^(time|timestamp|date ?time|instant|iso ?time|utc date ?time)$/, { time: 'instant' }],
  [/^(lat|latitude|gps lat|gps latitude|lat deg|position lat)$/, ch('lat')],
  [/^(lon|long|lng|longitude|gps lon|gps longitude|lon deg|position long?)$/, ch('lon')],
  [/^(gps alt|alt gps|altitude gps|gps altitude|gps height|altgps)$/, ch('altGps')],
  [/^(wgs84 alt|ellipsoid alt|ellipsoid height|hae|altitude ellipsoid)$/, ch('altEllipsoid')],
  [/^(press(ure)? alt(itude)?|alt pressure|pa|qne)$/, ch('altPressure')],
  [
    /^(alt|altitude|baro alt|altb|alt baro|alt ?msl|msl|indicated alt(itude)?|height|ele|elevation|baro altitude)$/,
    ch('altMsl'),
  ],
  [/^(ias|indicated airspeed|airspeed|cas|calibrated airspeed|air speed)$/, ch('ias')],
  [/^(tas|true airspeed)$/, ch('tas')],
  [/^(gs|gnd ?spd|ground ?speed|speed|gps speed|spd|sog|velocity)$/, ch('gs')],
  [/^(trk|track|course|cog|gps track|ground track|trk true|track true)$/, ch('track')],
  [/^(hdg true|heading true|true heading|true hdg)$/, ch('headingTrue')],
  [/^(hdg|heading|hdg mag|mag hdg|magnetic heading|heading mag(netic)?|compass)$/, ch('headingMag')],
  [/^(vs|vsi|vspd|vertical speed|vertspd|climb rate|roc|vario)$/, ch('vs')],
  [/^(pitch|pitch angle|theta)$/, ch('pitch')],
  [/^(roll|bank|bank angle|roll angle|phi)$/, ch('bank')],
  [/^(nz|g|normac|norm ac|normal accel(eration)?|accel|acc z|g load|load factor|vertical g|gz|accel z)$/, ch('nz')],
  [/^(rpm|e1 rpm|engine rpm|eng rpm|n1)$/, ch('rpm')],
  [/^(map|manifold|manifold pressure|e1 map|mp)$/, ch('map')],
  [/^(fuel flow|ff|e1 fflow|fflow|e1 ff)$/, ch('fuelFlow')],
  [/^(cht|cht ?[1-9]|e1 cht ?[1-9]|cyl(inder)? head( temp(erature)?)?( ?[1-9])?)$/, ch('cht')],
  [/^(egt|egt ?[1-9]|e1 egt ?[1-9]|exhaust( gas)?( temp(erature)?)?( ?[1-9])?)$/, ch('egt')],
  [/^(flaps?|flap pos(ition)?|flap deg|flap angle)$/, ch('flap')],
  [/^(gear|gear down|gear pos(ition)?|landing gear|undercarriage)$/, ch('gear')],
  [/^(oil temp(erature)?|e1 oilt|oilt)$/, ch('oilTemp')],
  [/^(oil press(ure)?|e1 oilp|oilp)$/, ch('oilPress')],
  [/^(volts?|volts? ?1|bus volts|voltage)$/, ch('volts')],
  [/^(amps?|amps? ?1|current)$/, ch('amps')],
];
function ch(channel: Channel): Role {
  return { channel, unit: null };
}

const UNIT_WORDS = new Set([
  ...Object.values(UNITS).flatMap((u) => Object.keys(u)),
  'deg',
  'degrees',
  '\u00b0',
  'deg true',
  'deg mag',
  'degt',
  'degm',
  'rpm',
  's',
  'sec',
  'ms',
  'gph',
  'l/h',
  'v',
  'a',
  'volts',
  'amps',
  'psi',
  'bar',
  'hh:mm:ss',
  'yyyy-mm-dd',
  'bool',
  '0/1',
  '-',
  '1',
  'ft msl',
  'ft baro',
  'ft wgs',
  'enum',
  'hh:mm',
  'date',
  'time',
  'percent',
  '%',
]);
/** Does the cell look like a unit rather than a value? */
export const looksLikeUnit = (cell: string): boolean => {
  const t = cell
    .trim()
    .replace(/^[[(]|[\])]$/g, '')
    .toLowerCase();
  return t === '' || UNIT_WORDS.has(t);
};

/** A header's words and its unit: `IAS (kt)`, `ias_kt`, `Altitude [ft]`, `AltGPS`. */
export function splitHeader(header: string): { words: string; unit: string | null } {
  const bracket = /[([]([^\])]*)[\])]/.exec(header);
  const spaced = header
    .replace(/[([][^\])]*[\])]/g, ' ')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/[_\-.#"']+/g, ' ')
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .trim();
  if (bracket) return { words: spaced, unit: (bracket[1] ?? '').trim().toLowerCase() };
  const parts = spaced.split(' ');
  const tail = parts[parts.length - 1] ?? '';
  // `ias kt` says its unit; `g` alone is a channel, and `nz g` a channel with its unit.
  return parts.length > 1 && UNIT_WORDS.has(tail) && !/^(a|v|1|-|time|date)$/.test(tail)
    ? { words: parts.slice(0, -1).join(' '), unit: tail }
    : { words: spaced, unit: null };
}

/** What a column is, by its header and the cell of a units row; null when it is not known. */
export function roleOf(header: string, unitCell: string | null): Role | null {
  const whole = header
    .replace(/[_\-.]+/g, ' ')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .trim();
  const { words, unit } = splitHeader(header);
  const said =
    unitCell
      ?.trim()
      .replace(/^[[(]|[\])]$/g, '')
      .toLowerCase() || unit;
  const found = WORDS.find(([re]) => re.test(words)) ?? WORDS.find(([re]) => re.test(whole));
  if (!found) return null;
  const role = found[1];
  if ('time' in role) {
    if (role.time === 'instant' && said !== null && /^(s|sec|seconds)$/.test(said)) return { time: 'elapsed' };
    if (role.time === 'instant' && said === 'ms') return { time: 'epoch' };
    return role;
  }
  if (role.channel === 'headingMag' && said !== null && /true|degt/.test(said))
    return { channel: 'headingTrue', unit: 'deg' };
  if (role.channel === 'altMsl' && said !== null && /wgs/.test(said)) return { channel: 'altEllipsoid', unit: 'ft' };
  return { channel: role.channel, unit: said === null ? null : said.replace(/^ft (msl|baro|wgs)$/, 'ft') };
}

/** Factor and offset from a unit to the channel's own. Null when the unit is not one of the channel's. */
export function conversion(channel: Channel, unit: string | null): { factor: number; offset: number; known: boolean } {
  const table = UNITS[channel];
  if (!table) return { factor: 1, offset: 0, known: true };
  const found = unit === null ? undefined : table[unit];
  return found ? { factor: found[0], offset: found[1], known: true } : { factor: 1, offset: 0, known: false };
}
