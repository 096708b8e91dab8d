/**
 * Which channel a column is: by the words of its header, by its unit, and by what stands in it. Each answer says how
 * sure it is.
 */
import type { Channel } from './trace';
import { type Header, type Scale, headerWords, scalesOf, sortOf, unitNamed } from './tokens';

export type TimeRole = 'instant' | 'date' | 'clock' | 'offset' | 'elapsed' | 'epoch';
export type Role = { time: TimeRole } | { channel: Channel; /** Null = the unit is not said. */ unit: string | null };
/** How a role was recognised. */
export type RoleBy = 'name' | 'name-part' | 'values' | 'said';
export interface Recognised {
  role: Role;
  by: RoleBy;
  /** 0 to 1. */
  confidence: number;
}

interface Entry {
  channel: Channel;
  /** Of each group one word must be there. */
  needs: readonly (readonly string[])[];
  /** Stands alone, or with words that only refer. */
  never?: readonly string[];
}
const set = (s: string): string[] => s.split(' ');
const ALTITUDE = set('alt altitude height hgt ele elev elevation altimeter');
const SPEED = set('speed spd velocity vel');
const ACC = set('ac acc accel acceleration');
/** Named on an instrument and flown by nobody: what is set, not what is. */
const SET = set(
  'bug selected select target sel desired commanded cmd fd ref reference limit max min warn warning error dev',
);
/** The most telling first: the first that fits is taken. */
const ENTRIES: readonly Entry[] = [
  { channel: 'nz', needs: [set('nz normac')], never: [] },
  { channel: 'nz', needs: [set('norm normal vertical vert z'), [...ACC, 'g']], never: set('lat lateral long x y') },
  { channel: 'nz', needs: [['load'], ['factor']] },
  { channel: 'nz', needs: [['g'], set('load force meter')] },
  { channel: 'ias', needs: [set('ias cas kias kcas asi')] },
  { channel: 'tas', needs: [set('tas ktas')] },
  { channel: 'tas', needs: [['true'], set('airspeed aspd')] },
  { channel: 'tas', needs: [['true'], ['air'], SPEED] },
  { channel: 'ias', needs: [set('airspeed aspd')], never: set('true wind') },
  { channel: 'ias', needs: [['air'], SPEED], never: set('true wind') },
  { channel: 'ias', needs: [set('indicated ind calibrated'), SPEED] },
  { channel: 'vs', needs: [set('vs vsi vspd vario vvi roc')] },
  { channel: 'vs', needs: [set('vertical vert v'), [...SPEED, 'rate']] },
  { channel: 'vs', needs: [['climb'], ['rate', ...SPEED]] },
  { channel: 'vs', needs: [['rate'], ['climb']] },
  { channel: 'track', needs: [set('course'), ['over'], ['ground']] },
  { channel: 'gs', needs: [set('gs sog groundspeed gspd')] },
  { channel: 'gs', needs: [set('ground gnd'), SPEED] },
  { channel: 'gs', needs: [set('gps gnss'), SPEED] },
  { channel: 'track', needs: [set('track trk cog')], never: set('cross xtk') },
  { channel: 'track', needs: [['course']], never: ['nav'] },
  { channel: 'headingTrue', needs: [set('heading hdg'), ['true']] },
  { channel: 'headingMag', needs: [set('heading hdg compass')] },
  { channel: 'oilTemp', needs: [['oil'], set('temp temperature t')] },
  { channel: 'oilPress', needs: [['oil'], set('press pressure p')] },
  { channel: 'cht', needs: [['cht']] },
  { channel: 'cht', needs: [set('cyl cylinder'), set('head temp temperature')] },
  { channel: 'egt', needs: [['egt']] },
  { channel: 'egt', needs: [['exhaust']] },
  { channel: 'fuelFlow', needs: [set('ff fflow fuelflow')] },
  { channel: 'fuelFlow', needs: [set('fuel f'), ['flow']] },
  { channel: 'map', needs: [set('map manifold mp')] },
  { channel: 'map', needs: [['man'], set('press pressure')] },
  { channel: 'rpm', needs: [['rpm']], never: ['rotor'] },
  { channel: 'altEllipsoid', needs: [ALTITUDE, set('wgs wgs84 ellipsoid ellipsoidal hae')] },
  { channel: 'altEllipsoid', needs: [['hae']] },
  { channel: 'altPressure', needs: [ALTITUDE, set('pressure press std standard qne')], never: ['gps'] },
  { channel: 'altPressure', needs: [set('pa qne')] },
  { channel: 'altGps', needs: [[...ALTITUDE, 'msl'], set('gps gnss sat geo geometric')] },
  {
    channel: 'altMsl',
    needs: [[...ALTITUDE, 'msl', 'altb']],
    never: set('agl radar radio density decision accel acc'),
  },
  { channel: 'pitch', needs: [set('pitch theta')], never: set('rate trim prop') },
  { channel: 'bank', needs: [set('roll bank phi')], never: set('rate trim') },
  { channel: 'lat', needs: [set('lat latitude')], never: [...ACC, 'g', 'dev'] },
  { channel: 'lon', needs: [set('lon lng long longitude')], never: [...ACC, 'g'] },
  { channel: 'flap', needs: [set('flap flaps')], never: SPEED },
  { channel: 'gear', needs: [set('gear undercarriage')], never: [...SPEED, 'pump'] },
  { channel: 'volts', needs: [set('volt volts voltage')] },
  { channel: 'amps', needs: [set('amp amps')] },
  { channel: 'gs', needs: [SPEED], never: set('wind engine prop rotor vertical indicated true mach') },
  { channel: 'nz', needs: [set('g accel')], never: set('lat lateral long x y') },
];
const ENGINES: Partial<Record<Channel, Channel>> = { rpm: 'rpm2', map: 'map2', fuelFlow: 'fuelFlow2' };

/** Is it the second engine's? `E2 RPM`, `right rpm`, `rpm 2`. */
const second = (all: readonly string[]): boolean =>
  all.some((w) => w === 'right' || w === 'r' || w === 'rh') || all.includes('2');

/** Time by its words alone; which shape it has is told by what stands in it. */
function timeByName({ words, unit, aside }: Header): TimeRole | null {
  const all = [...words, ...aside];
  const has = (s: string) => set(s).some((w) => all.includes(w));
  if (
    has('utcofst tz timezone') ||
    (has('offset ofst') && has('utc time zone tz local')) ||
    (has('zone') && words.length < 3) ||
    (has('offset') && words.length === 1)
  )
    return 'offset';
  if (has('epoch unix posix')) return 'epoch';
  if (has('elapsed uptime') || (has('since rel relative session') && (has('time start') || unit !== null)))
    return 'elapsed';
  if (has('timestamp datetime instant iso iso8601') || (has('date day') && has('time'))) return 'instant';
  if (has('date day') && !has('time')) return 'date';
  if (has('tod clock') || (has('time') && has('day'))) return 'clock';
  if (unit === 's' && (has('time t') || words.length === 0)) return 'elapsed';
  if (words.length === 1 && has('t seconds secs sec')) return 'elapsed';
  if (has('time utc zulu gmt') || (has('recorded') && has('at')))
    return has('time') && !has('gps utc zulu gmt local lcl') ? 'instant' : 'clock';
  return null;
}

/** What a column is by its header and the cell of a units row; null when its words say nothing. */
export function recognise(header: string, unitCell: string | null): Recognised | null {
  const h = headerWords(header);
  const all = [...h.words, ...h.aside];
  const unit = (unitCell === null ? null : unitNamed(unitCell)) ?? h.unit;
  // A word in the units row that refers: `deg true`, `ft wgs84`.
  if (unitCell !== null) all.push(...headerWords(`(${unitCell})`).aside);
  const unknown = h.words.filter((w) => sortOf(w) === null).length;
  const sure = Math.max(0.5, 0.97 - 0.16 * unknown);
  const by: RoleBy = unknown > 0 ? 'name-part' : 'name';
  // `E1 CHT` of a name that is only a unit: `rpm`, `g`.
  const named =
    h.words.length === 0 && h.unit !== null
      ? [h.unit, ...all]
      : h.unit === 'rpm'
        ? [...all, 'rpm']
        : h.unit === 'g'
          ? [...all, 'g']
          : all;
  if (!SET.some((w) => h.words.includes(w)))
    for (const e of ENTRIES) {
      if (!e.needs.every((group) => group.some((w) => named.includes(w)))) continue;
      if (e.never?.some((w) => named.includes(w))) continue;
      const other = ENGINES[e.channel];
      const channel = other && second(all) ? other : e.channel;
      // `acceleration (g)` says its unit; so does nothing else that is a bare g.
      return { role: { channel, unit: inChannel(channel, unit) }, by, confidence: unknown > 2 ? 0.4 : sure };
    }
  const time = timeByName({ ...h, unit });
  if (time === null || unknown > 2) return null;
  return { role: { time }, by, confidence: sure };
}
/** A unit only where the channel may come in it. */
const inChannel = (channel: Channel, said: string | null): string | null => {
  const table = scalesOf(channel);
  // `ms` of a speed is no time.
  const unit = said === 'ms' && table?.['m/s'] ? 'm/s' : said;
  return unit !== null && (table === null || table[unit] !== undefined) ? unit : null;
};

/** Does the cell look like a unit rather than a value? */
export const looksLikeUnit = (cell: string): boolean => {
  const t = cell.trim().replace(/^#+\s*/, '');
  return t === '' || unitNamed(t) !== null || /^(date|time|rpm|volts|amps|utc)$/i.test(t);
};

/** Factor and offset from a unit to the channel's own; not known when the unit is none of the channel's or not said. */
export function conversion(channel: Channel, unit: string | null): { factor: number; offset: number; known: boolean } {
  const table: Record<string, Scale> | null = scalesOf(channel);
  if (!table) return { factor: 1, offset: 0, known: true };
  const found = unit === null ? undefined : table[unitNamed(unit) ?? unit];
  return found
    ? { factor: found[0], offset: found[1], known: true }
    : { factor: 1, offset: 0, known: channelIsAngle(channel) };
}
const channelIsAngle = (channel: Channel): boolean => scalesOf(channel)?.deg !== undefined;
/** What a header is called on a screen: its words. */
export const spokenHeader = (header: string): string => headerWords(header).words.join(' ');
