/**
 * The recorder's sensors: positions that wander, heights off by a constant and drifting, a dial that lags; and the
 * files it writes.
 */
import { MS_PER_KT, M_PER_DEG, M_PER_FT, cosDeg, norm180, sinDeg } from '../constants';
import type { Flown, FlownSample, RecorderRunway } from './fly';

export interface Sensors {
  rateHz: number;
  /** Slow wander and white noise of a position, metres. */
  wanderM: number;
  noiseM: number;
  /** Constant error of the recorded height, feet; and its wander. */
  heightErrorFt: number;
  heightNoiseFt: number;
  iasNoiseKt: number;
  iasLagS: number;
  nzNoise: number;
  /** Seconds of the flight of which nothing was recorded. */
  missing: readonly { fromS: number; toS: number }[];
}
export const GOOD_SENSORS: Sensors = {
  rateHz: 5,
  wanderM: 1,
  noiseM: 0.15,
  heightErrorFt: 35,
  heightNoiseFt: 2,
  iasNoiseKt: 0.5,
  iasLagS: 0.4,
  nzNoise: 0.02,
  missing: [],
};
export interface Sensed {
  tS: number;
  lat: number;
  lon: number;
  altFt: number;
  iasKt: number;
  gsKt: number;
  trackDeg: number;
  headingDeg: number;
  vsFpm: number;
  bankDeg: number;
  pitchDeg: number;
  nz: number;
  rpm: number;
  flapDeg: number;
  gearDown: boolean;
}

/**
 * A point of the runway's frame on the earth, flat about the threshold: exact to millimetres within a few kilometres.
 * @returns degrees, WGS 84
 * @example
 * onEarth({ ident: '22', thresholdLat: 41.5, thresholdLon: -6.7, trueBearingDeg: 218, lengthM: 900,
 * elevationFt: 1345 }, 900, 0)
 * // { lat: 41.494, lon: -6.7066 }
 */
export function onEarth(
  runway: Pick<RecorderRunway, 'thresholdLat' | 'thresholdLon' | 'trueBearingDeg'>,
  alongM: number,
  lateralM: number,
): { lat: number; lon: number } {
  const north = alongM * cosDeg(runway.trueBearingDeg) - lateralM * sinDeg(runway.trueBearingDeg);
  const east = alongM * sinDeg(runway.trueBearingDeg) + lateralM * cosDeg(runway.trueBearingDeg);
  return {
    lat: runway.thresholdLat + north / M_PER_DEG,
    lon: norm180(runway.thresholdLon + east / (M_PER_DEG * cosDeg(runway.thresholdLat))),
  };
}

/**
 * What the sensors made of a flight. @param random uniform numbers from 0 to 1
 * @returns samples as a device writes them
 */
export function sense(flown: Flown, runway: RecorderRunway, sensors: Sensors, random: () => number): Sensed[] {
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const keep = Math.exp(-1 / (sensors.rateHz * 60));
  const wander = { x: sensors.wanderM * normal(), y: sensors.wanderM * normal(), h: sensors.heightNoiseFt * normal() };
  const walk = (v: number, sigma: number) => v * keep + sigma * Math.sqrt(1 - keep * keep) * normal();
  const out: Sensed[] = [];
  let dial = flown.samples[0]?.iasKt ?? 0;
  let at = -1;
  const step = 1 / sensors.rateHz;
  let before: FlownSample | undefined;
  for (const s of flown.samples) {
    if (before) dial += (s.iasKt - dial) * Math.min(1, (s.tS - before.tS) / Math.max(0.01, sensors.iasLagS));
    before = s;
    // The greatest load since the last row is what an accelerometer keeps.
    const k = Math.floor(s.tS / step + 1e-6);
    if (k === at) {
      const last = out[out.length - 1];
      if (last && s.nz > last.nz + 0.05) last.nz = s.nz;
      continue;
    }
    at = k;
    wander.x = walk(wander.x, sensors.wanderM);
    wander.y = walk(wander.y, sensors.wanderM);
    wander.h = walk(wander.h, sensors.heightNoiseFt);
    if (sensors.missing.some((g) => s.tS > g.fromS && s.tS < g.toS)) continue;
    const place = onEarth(
      runway,
      s.alongM + wander.x + sensors.noiseM * normal(),
      s.lateralM + wander.y + sensors.noiseM * normal(),
    );
    out.push({
      tS: s.tS,
      ...place,
      altFt:
        runway.elevationFt +
        (runway.riseFt ?? 0) * Math.max(0, Math.min(1, s.alongM / runway.lengthM)) +
        s.heightFt +
        sensors.heightErrorFt +
        wander.h +
        0.5 * normal(),
      iasKt: Math.max(0, dial + sensors.iasNoiseKt * normal()),
      gsKt: Math.max(0, s.gsKt + 0.2 * normal()),
      trackDeg: s.trackDeg,
      headingDeg: (s.headingDeg + 0.5 * normal() + 360) % 360,
      vsFpm: s.vsFpm,
      bankDeg: s.bankDeg + 0.3 * normal(),
      pitchDeg: s.pitchDeg + 0.3 * normal(),
      nz: s.nz + sensors.nzNoise * normal(),
      rpm: s.rpm + 8 * normal(),
      flapDeg: s.flapDeg,
      gearDown: s.gearDown,
    });
  }
  return out;
}

const iso = (ms: number): string => new Date(ms).toISOString();

/**
 * How a table is written: plain; metric with semicolons and decimal commas; panel with comments, a units row and local
 * time beside its offset.
 */
export type TableStyle = 'plain' | 'metric' | 'panel';
interface Column {
  head: string;
  unit: string;
  value: (r: Sensed) => string;
}
const fix =
  (digits: number, of: (r: Sensed) => number) =>
  (r: Sensed): string =>
    of(r).toFixed(digits);

function columnsOf(style: TableStyle, airData: boolean): Column[] {
  const metric = style === 'metric';
  const position: Column[] = [
    { head: 'Latitude', unit: 'deg', value: fix(8, (r) => r.lat) },
    { head: 'Longitude', unit: 'deg', value: fix(8, (r) => r.lon) },
    metric
      ? { head: 'Alt GPS', unit: 'm', value: fix(2, (r) => r.altFt * M_PER_FT) }
      : { head: style === 'panel' ? 'GPS Alt' : 'AltGPS', unit: 'ft', value: fix(1, (r) => r.altFt) },
  ];
  if (!airData) return position;
  return [
    ...position,
    metric
      ? { head: 'Airspeed', unit: 'km/h', value: fix(1, (r) => r.iasKt * 1.852) }
      : { head: 'IAS', unit: 'kt', value: fix(1, (r) => r.iasKt) },
    metric
      ? { head: 'Ground speed', unit: 'm/s', value: fix(2, (r) => r.gsKt * MS_PER_KT) }
      : { head: 'GndSpd', unit: 'kt', value: fix(1, (r) => r.gsKt) },
    { head: 'Track', unit: 'deg', value: fix(1, (r) => r.trackDeg) },
    { head: 'Heading', unit: 'deg true', value: fix(1, (r) => r.headingDeg) },
    { head: 'VSpd', unit: 'fpm', value: fix(0, (r) => r.vsFpm) },
    { head: 'Pitch', unit: 'deg', value: fix(1, (r) => r.pitchDeg) },
    { head: 'Roll', unit: 'deg', value: fix(1, (r) => r.bankDeg) },
    { head: 'NormAc', unit: 'g', value: fix(3, (r) => r.nz) },
    { head: 'RPM', unit: 'rpm', value: fix(0, (r) => r.rpm) },
    { head: 'Flap', unit: 'deg', value: fix(0, (r) => r.flapDeg) },
    { head: 'Gear', unit: '0/1', value: (r) => (r.gearDown ? '1' : '0') },
  ];
}

/**
 * A table: with air data, or position and height only.
 * @returns the file's text
 */
export function csvOf(
  rows: readonly Sensed[],
  startUtcMs: number,
  airData = true,
  style: TableStyle = 'plain',
): string {
  const columns = columnsOf(style, airData);
  if (style === 'plain')
    return [
      [
        'UTC Time',
        ...columns.map((c) => (c.unit === 'deg' && /L(at|ong)itude/.test(c.head) ? c.head : `${c.head} (${c.unit})`)),
      ].join(','),
      ...rows.map((r) => [iso(startUtcMs + r.tS * 1000), ...columns.map((c) => c.value(r))].join(',')),
    ].join('\n');
  if (style === 'metric')
    return [
      ['Elapsed (s)', ...columns.map((c) => `${c.head} [${c.unit}]`)].join(';'),
      ...rows.map((r) => [r.tS.toFixed(2), ...columns.map((c) => c.value(r))].join(';').replaceAll('.', ',')),
    ].join('\r\n');
  const local = (r: Sensed) => iso(startUtcMs + r.tS * 1000 + LOCAL_OFFSET_MIN * 60_000);
  return [
    '#simulated panel log, invented flight',
    ['Lcl Date', 'Lcl Time', 'UTCOfst', ...columns.map((c) => c.head)].join(', '),
    ['#yyyy-mm-dd', 'hh:mm:ss', 'hh:mm', ...columns.map((c) => c.unit)].join(', '),
    ...rows.map((r) =>
      [local(r).slice(0, 10), local(r).slice(11, 23), '+01:00', ...columns.map((c) => c.value(r))].join(', '),
    ),
  ].join('\n');
}
const LOCAL_OFFSET_MIN = 60;

/**
 * GPX 1.1, speed and course in extensions.
 * @returns the file's text
 */
export function gpxOf(rows: readonly Sensed[], startUtcMs: number): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="simulated recorder" xmlns="http://www.topografix.com/GPX/1/1"><trk><name>simulated flight</name><trkseg>\n${rows.map((r) => `<trkpt lat="${r.lat.toFixed(8)}" lon="${r.lon.toFixed(8)}"><ele>${(r.altFt * M_PER_FT).toFixed(2)}</ele><time>${iso(startUtcMs + r.tS * 1000)}</time><extensions><speed>${(r.gsKt * MS_PER_KT).toFixed(3)}</speed><course>${r.trackDeg.toFixed(1)}</course></extensions></trkpt>`).join('\n')}\n</trkseg></trk></gpx>\n`;
}

const digits = (x: number, n: number): string => String(Math.max(0, Math.round(x))).padStart(n, '0');
const minutes = (x: number, n: number): string => {
  const total = Math.round(Math.abs(x) * 60_000);
  return digits(Math.floor(total / 60_000), n) + digits(total % 60_000, 5);
};

/**
 * IGC with thousandths of a minute (about two metres), tenths of a second and airspeed as extensions.
 * @returns the file's text
 */
export function igcOf(rows: readonly Sensed[], startUtcMs: number): string {
  const d = new Date(startUtcMs);
  const date = digits(d.getUTCDate(), 2) + digits(d.getUTCMonth() + 1, 2) + digits(d.getUTCFullYear() % 100, 2);
  return [
    'AXSIM001',
    `HFDTE${date}`,
    'I023638IAS3940TDS',
    ...rows.map((r) => {
      const t = new Date(Math.round((startUtcMs + r.tS * 1000) / 10) * 10);
      const m = r.altFt * M_PER_FT;
      return `B${digits(t.getUTCHours(), 2)}${digits(t.getUTCMinutes(), 2)}${digits(t.getUTCSeconds(), 2)}${minutes(r.lat, 2)}${r.lat < 0 ? 'S' : 'N'}${minutes(r.lon, 3)}${r.lon < 0 ? 'W' : 'E'}A${digits(m, 5)}${digits(m + 52, 5)}${digits(r.iasKt * 1.852, 3)}${digits(t.getUTCMilliseconds() / 10, 2)}`;
    }),
  ].join('\r\n');
}
