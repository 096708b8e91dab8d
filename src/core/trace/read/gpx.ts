/**
 * GPX 1.1 and 1.0 tracks, with the speed, course and air-data extensions that loggers add. Entities and document types
 * are refused before anything is read.
 */
import { XMLParser } from 'fast-xml-parser';
import { instant } from './time';
import { type Channel, type ReadResult, Warnings, assemble, problem } from './trace';
import { unreadable } from '../read-words';
import { conversion, recognise } from './columns';

type Point = Record<string, unknown>;

/** Leaves of a point's extensions, by their name without its space. */
function leaves(node: unknown, found: Map<string, number>): void {
  if (node === null || typeof node !== 'object') return;
  for (const [key, value] of Object.entries(node as Record<string, unknown>)) {
    const name = key.includes(':') ? key.slice(key.indexOf(':') + 1) : key;
    if (typeof value === 'number') found.set(name.toLowerCase(), value);
    else if (typeof value === 'string') {
      const x = Number(value);
      if (value.trim() !== '' && Number.isFinite(x)) found.set(name.toLowerCase(), x);
    } else leaves(value, found);
  }
}

/** GPX speeds are metres a second by the format; courses are true degrees. */
const BY_FORMAT: Record<string, { channel: Channel; factor: number }> = {
  speed: { channel: 'gs', factor: 1 / 0.514444 },
  course: { channel: 'track', factor: 1 },
};

export function readGpx(text: string): ReadResult {
  if (/<!\s*(DOCTYPE|ENTITY)/i.test(text)) return problem('dangerous', unreadable('document-types'));
  let tree: unknown;
  try {
    tree = new XMLParser({
      ignoreAttributes: false,
      attributeNamePrefix: '@',
      processEntities: false,
      parseTagValue: false,
      parseAttributeValue: false,
      isArray: (name) => name === 'trk' || name === 'trkseg' || name === 'trkpt',
    }).parse(text);
  } catch (error) {
    const detail = error instanceof Error ? error.message : 'it cannot be parsed';
    return problem('not-a-trace', unreadable('gpx-broken', { detail }));
  }
  const gpx = (tree as { gpx?: { trk?: { trkseg?: { trkpt?: Point[] }[] }[] } } | null)?.gpx;
  if (!gpx || typeof gpx !== 'object') return problem('not-a-trace', unreadable('not-gpx'));
  const points = (Array.isArray(gpx.trk) ? gpx.trk : []).flatMap((t) =>
    (Array.isArray(t?.trkseg) ? t.trkseg : []).flatMap((s) => (Array.isArray(s?.trkpt) ? s.trkpt : [])),
  );
  if (points.length === 0) return problem('empty', unreadable('no-track-points'));
  const warnings = new Warnings();
  const n = points.length;
  const nan = () => new Float64Array(n).fill(Number.NaN);
  const ms = nan();
  const columns: Partial<Record<Channel, Float64Array>> = { lat: nan(), lon: nan() };
  const put = (channel: Channel, i: number, value: number) => {
    (columns[channel] ??= nan())[i] = value;
  };
  points.forEach((p, i) => {
    if (p === null || typeof p !== 'object') return;
    const num = (v: unknown): number => (typeof v === 'string' && v.trim() !== '' ? Number(v) : Number.NaN);
    put('lat', i, num(p['@lat']));
    put('lon', i, num(p['@lon']));
    const ele = num(p.ele);
    if (!Number.isNaN(ele)) put('altMsl', i, ele / 0.3048);
    const t = typeof p.time === 'string' ? instant(p.time) : null;
    if (t?.dated) ms[i] = t.ms;
    const extra = new Map<string, number>();
    leaves({ speed: p.speed, course: p.course, extensions: p.extensions }, extra);
    for (const [name, value] of extra) {
      const fixed = BY_FORMAT[name];
      if (fixed) {
        put(fixed.channel, i, value * fixed.factor);
        continue;
      }
      const role = recognise(name, null)?.role ?? null;
      if (role && 'channel' in role && role.channel !== 'lat' && role.channel !== 'lon') {
        const c = conversion(role.channel, role.unit);
        put(role.channel, i, value * c.factor + c.offset);
      }
    }
  });
  return assemble('gpx', ms, columns, true, warnings);
}
