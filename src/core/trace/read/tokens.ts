/**
 * What a header says, word by word: split where its letters change case, at digits, marks and brackets; each word a
 * quantity, a reference (by satellite, indicated, true …), a unit, an engine's number, or not known.
 */
import type { Channel } from './trace';

const M_TO_FT = 1 / 0.3048;
/** Factor and offset of a unit to the channel's own. */
export type Scale = readonly [factor: number, offset: number];
type Measure = 'length' | 'speed' | 'rate' | 'load' | 'pressure' | 'temperature' | 'angle';
const LENGTH: Record<string, Scale> = { ft: [1, 0], m: [M_TO_FT, 0], km: [1000 * M_TO_FT, 0] };
const SPEED: Record<string, Scale> = {
  kt: [1, 0],
  mph: [0.868976, 0],
  'km/h': [1 / 1.852, 0],
  'm/s': [1 / 0.514444, 0],
};
const RATE: Record<string, Scale> = { fpm: [1, 0], 'm/s': [196.850394, 0], kt: [101.268591, 0] };
const LOAD: Record<string, Scale> = { g: [1, 0], 'm/s2': [1 / 9.80665, 0] };
const PRESSURE: Record<string, Scale> = {
  inhg: [1, 0],
  hpa: [1 / 33.8639, 0],
  kpa: [10 / 33.8639, 0],
  psi: [2.03602, 0],
};
const TEMPERATURE: Record<string, Scale> = { c: [1, 0], f: [5 / 9, -160 / 9], k: [1, -273.15] };
const ANGLE: Record<string, Scale> = { deg: [1, 0], rad: [180 / Math.PI, 0] };
const TABLES: Record<Measure, Record<string, Scale>> = {
  length: LENGTH,
  speed: SPEED,
  rate: RATE,
  load: LOAD,
  pressure: PRESSURE,
  temperature: TEMPERATURE,
  angle: ANGLE,
};
const MEASURE: Partial<Record<Channel, Measure>> = {
  altGps: 'length',
  altPressure: 'length',
  altEllipsoid: 'length',
  altMsl: 'length',
  ias: 'speed',
  tas: 'speed',
  gs: 'speed',
  vs: 'rate',
  nz: 'load',
  map: 'pressure',
  map2: 'pressure',
  cht: 'temperature',
  egt: 'temperature',
  oilTemp: 'temperature',
  pitch: 'angle',
  bank: 'angle',
  track: 'angle',
  headingMag: 'angle',
  headingTrue: 'angle',
};
/** The units a channel may come in, by their own names; null where it has only one. */
export const scalesOf = (channel: Channel): Record<string, Scale> | null => {
  const m = MEASURE[channel];
  return m ? TABLES[m] : null;
};
/** The unit a channel has when nothing says which. */
export const usualUnit = (channel: Channel): string | null => {
  const t = scalesOf(channel);
  return t ? (Object.keys(t)[0] ?? null) : null;
};

/** Ways a unit is written, by its name. */
const WRITTEN: Record<string, string> = Object.fromEntries(
  Object.entries({
    ft: 'ft feet foot fts',
    m: 'm metre metres meter meters mtr',
    km: 'km kilometres kilometers',
    kt: 'kt kts kn knot knots',
    mph: 'mph mi/h',
    'km/h': 'km/h kmh kph km/hr kmph',
    'm/s': 'm/s mps m/sec ms-1 m*s-1',
    fpm: 'fpm ft/min feet/min ft/mn',
    g: 'g gs g0',
    'm/s2': 'm/s2 m/s/2 m/s^2 m/s\u00b2 mps2 m/ss ms-2',
    inhg: 'inhg "hg in-hg inches',
    hpa: 'hpa mbar mb millibar',
    kpa: 'kpa',
    psi: 'psi',
    c: 'c degc \u00b0c celsius',
    f: 'f degf \u00b0f fahrenheit',
    k: 'k kelvin',
    deg: 'deg degs degree degrees \u00b0 dd degt degm \u00b0t \u00b0m',
    rad: 'rad radian radians',
    s: 's sec secs second seconds',
    ms: 'ms msec millisecond milliseconds millis',
    us: 'us usec \u00b5s microsecond microseconds micros',
    ns: 'ns nanoseconds',
    min: 'min mins minutes',
    rpm: 'rpm 1/min r/min rev/min',
    gph: 'gph gal/h gal/hr',
    'l/h': 'l/h lph l/hr',
    v: 'v volt',
    a: 'amp',
    '%': '% pct percent',
    bool: 'bool 0/1 on/off enum',
    hms: 'hh:mm:ss hh:mm:ss.sss hh:mm hhmmss hms hh:mm:ss.s',
    ymd: 'yyyy-mm-dd yyyy/mm/dd yyyymmdd dd/mm/yyyy mm/dd/yyyy dd.mm.yyyy iso8601',
    '-': '- 1',
  }).flatMap(([unit, ways]) => ways.split(' ').map((w) => [w, unit])),
);
/** A unit as somebody writes it, to its name: `ft/min`, `°C`, `deg true`, `ft msl`; null when it is none. */
export function unitNamed(text: string): string | null {
  const t = text
    .trim()
    .toLowerCase()
    .replace(/^[[(]|[\])]$/g, '')
    .replace(/\u00ba/g, '\u00b0')
    .trim();
  if (t === '') return null;
  const plain = WRITTEN[t] ?? WRITTEN[t.replace(/[\s._]+/g, '')];
  if (plain) return plain;
  // `ft baro`, `deg true`: the first word is the unit, what follows says by which reference.
  const [first, ...rest] = t.split(/\s+/);
  return rest.length > 0 && rest.every((w) => KNOWN.get(w) === 'reference') ? (WRITTEN[first ?? ''] ?? null) : null;
}

type Sort = 'quantity' | 'reference' | 'filler';
const KNOWN = new Map<string, Sort>();
const words = (sort: Sort, list: string) => {
  for (const w of list.split(/\s+/)) KNOWN.set(w, sort);
};
words(
  'quantity',
  `lat latitude lon lng long longitude alt altitude height hgt ele elev elevation altimeter ias cas asi kias kcas airspeed
  aspd tas ktas air speed spd velocity vel gs sog groundspeed gspd over ground gnd track trk course cog heading hdg compass
  vs vsi vspd vario vvi roc climb vertical vert rate v pitch theta roll bank phi nz norm normal ac acc accel acceleration
  load factor g normac rpm map manifold man press pressure mp fuel flow ff fflow cht cyl cylinder head egt exhaust gas flap
  flaps gear undercarriage oil temp temperature t volt volts voltage amp amps current date time timestamp datetime instant
  iso epoch unix posix elapsed since start session rel relative uptime offset ofst utcofst tz zone timezone clock tod day
  seconds secs sec`,
);
words(
  'reference',
  `gps gnss sat geo geometric baro barometric indicated ind true mag magnetic msl amsl qnh qne std standard wgs wgs84 hae
  ellipsoid ellipsoidal utc zulu z gmt local lcl calibrated`,
);
words(
  'filler',
  `pos position location y x of the angle attitude att value sensor raw filtered smoothed eng engine e left right l r lh rh
  down extended state landing wing w recorded at log logger data measured actual deg decimal dd north n east iso8601 ms`,
);
/** Sort of a word, null when it is none that is known. */
export const sortOf = (word: string): Sort | 'number' | null =>
  /^\d+$/.test(word) ? 'number' : (KNOWN.get(word) ?? null);

export interface Header {
  words: string[];
  /** The unit it names, in brackets or as its last word; null when it names none. */
  unit: string | null;
  /** What stands in brackets and is no unit. */
  aside: string[];
}
const splitWords = (text: string): string[] =>
  text
    .replace(/([a-z\d])([A-Z])/g, '$1 $2')
    .replace(/([A-Z]+)([A-Z][a-z])/g, '$1 $2')
    .replace(/([a-zA-Z])(\d)/g, (_, a: string, b: string) => (/[wW]/.test(a) ? a + b : `${a} ${b}`))
    .toLowerCase()
    .replace(/wgs[ _-]?84/g, 'wgs84')
    .split(/[^a-z\d%\u00b0]+/)
    .filter((w) => w !== '');

/**
 * A header in words: `GPS Ground Speed [km/h]`, `gps_ground_speed_kmh`, `gpsGroundSpeedKmh` and `GPS.GND.SPD (kph)` are
 * the same.
 */
export function headerWords(header: string): Header {
  const brackets = [...header.matchAll(/[([]([^\])]*)[\])]/g)].map((m) => m[1] ?? '');
  const bare = header.replace(/[([][^\])]*[\])]/g, ' ').replace(/["']/g, ' ');
  const list = splitWords(bare);
  let unit: string | null = null;
  const aside: string[] = [];
  for (const b of brackets) {
    const found = unitNamed(b);
    if (found !== null && unit === null) unit = found;
    // `(deg true)`: the unit, and what it refers to.
    aside.push(...splitWords(b).filter((w) => KNOWN.get(w) === 'reference'));
    if (found === null) aside.push(...splitWords(b));
  }
  // `alt_ft`, `vs ft min`: the unit as the last words. One word alone is a name, and `nz g` is one with its unit.
  if (unit === null)
    for (const n of [3, 2, 1]) {
      if (list.length <= n) continue;
      const tail = list.slice(-n);
      const found = WRITTEN[tail.join('/')] ?? (n === 1 ? WRITTEN[tail[0] ?? ''] : undefined);
      if (!found || (n === 1 && /^(a|v|-|1|k|min)$/.test(tail[0] ?? ''))) continue;
      unit = found;
      list.splice(-n);
      break;
    }
  return { words: list, unit, aside };
}
