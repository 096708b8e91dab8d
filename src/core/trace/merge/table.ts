/** A recording as a plain table that reads back as it was: every column with its unit, times in UTC or elapsed. */
import { type Channel, CHANNELS, type Trace } from '../read';

/** Header and decimals of each channel. */
const COLUMN: Record<Channel, readonly [header: string, decimals: number]> = {
  lat: ['latitude (deg)', 8],
  lon: ['longitude (deg)', 8],
  altGps: ['gps altitude (ft)', 2],
  altPressure: ['pressure altitude (ft)', 2],
  altEllipsoid: ['ellipsoid altitude (ft)', 2],
  altMsl: ['altitude msl (ft)', 2],
  ias: ['ias (kt)', 3],
  tas: ['tas (kt)', 3],
  gs: ['ground speed (kt)', 3],
  track: ['track (deg)', 2],
  headingMag: ['magnetic heading (deg)', 2],
  headingTrue: ['true heading (deg)', 2],
  vs: ['vertical speed (fpm)', 1],
  pitch: ['pitch (deg)', 2],
  bank: ['bank (deg)', 2],
  nz: ['nz (g)', 4],
  rpm: ['engine 1 rpm', 1],
  rpm2: ['engine 2 rpm', 1],
  map: ['engine 1 manifold pressure (inhg)', 2],
  map2: ['engine 2 manifold pressure (inhg)', 2],
  fuelFlow: ['engine 1 fuel flow', 2],
  fuelFlow2: ['engine 2 fuel flow', 2],
  cht: ['cht (c)', 1],
  egt: ['egt (c)', 1],
  flap: ['flap (deg)', 2],
  gear: ['gear', 0],
  oilTemp: ['oil temperature (c)', 1],
  oilPress: ['oil pressure', 1],
  volts: ['volts', 2],
  amps: ['amps', 2],
};

/**
 * @returns text of the table, one row a sample; empty cells where nothing was recorded
 * @example
 * traceTable(trace).split('\n')[0]
 * // 'time (utc),latitude (deg),longitude (deg),...'
 */
export function traceTable(t: Trace): string {
  const used = CHANNELS.filter((c) => t.channels[c]);
  const lines = [[t.startUtcMs === null ? 'elapsed (s)' : 'time (utc)', ...used.map((c) => COLUMN[c][0])].join(',')];
  for (let i = 0; i < t.rows; i++) {
    const s = t.tS[i] ?? 0;
    const cells = [t.startUtcMs === null ? s.toFixed(3) : new Date(t.startUtcMs + s * 1000).toISOString()];
    for (const c of used) {
      const v = t.channels[c]?.[i] ?? Number.NaN;
      cells.push(v === v ? v.toFixed(COLUMN[c][1]) : '');
    }
    lines.push(cells.join(','));
  }
  return lines.join('\n');
}
