/**
 * KML with times: tracks of instants and coordinates, or placemarks that each have a time and a point. A line without
 * times is no recording. Coordinates are longitude, latitude, metres.
 */
import { XMLParser } from 'fast-xml-parser';
import { instant } from './time';
import { type Channel, type ReadResult, Warnings, assemble, problem } from './trace';
import { odd, unreadable } from '../read-words';

type Node = Record<string, unknown>;
const M_TO_FT = 1 / 0.3048;
const isNode = (x: unknown): x is Node => typeof x === 'object' && x !== null;
const textOf = (x: unknown): string => (typeof x === 'string' || typeof x === 'number' ? String(x) : '');
const list = (x: unknown): unknown[] => (Array.isArray(x) ? x : x === undefined ? [] : [x]);

interface Fix {
  when: string;
  place: string;
}
/** Every track and every timed point of a tree, in the order they stand. */
function collect(node: unknown, out: Fix[], lines: { n: number }, depth = 0): void {
  if (!isNode(node) || depth > 60) return;
  const whens = list(node.when);
  const coords = list(node.coord);
  if (whens.length > 0 && coords.length > 0)
    for (let i = 0; i < Math.min(whens.length, coords.length); i++)
      out.push({ when: textOf(whens[i]), place: textOf(coords[i]) });
  const stamp = isNode(node.TimeStamp) ? node.TimeStamp.when : isNode(node.TimeSpan) ? node.TimeSpan.begin : undefined;
  if (stamp !== undefined && isNode(node.Point))
    out.push({ when: textOf(stamp), place: textOf(node.Point.coordinates) });
  if (node.LineString !== undefined) lines.n++;
  for (const value of Object.values(node)) for (const child of list(value)) collect(child, out, lines, depth + 1);
}

export function readKml(text: string): ReadResult {
  if (/<!\s*(DOCTYPE|ENTITY)/i.test(text)) return problem('dangerous', unreadable('document-types'));
  let tree: unknown;
  try {
    tree = new XMLParser({
      ignoreAttributes: true,
      removeNSPrefix: true,
      processEntities: false,
      parseTagValue: false,
    }).parse(text);
  } catch (error) {
    return problem(
      'not-a-trace',
      unreadable('kml-broken', { detail: error instanceof Error ? error.message : 'it cannot be parsed' }),
    );
  }
  const fixes: Fix[] = [];
  const lines = { n: 0 };
  collect(tree, fixes, lines);
  if (fixes.length === 0)
    return lines.n > 0
      ? problem('no-time', unreadable('kml-no-times'))
      : problem('empty', unreadable('no-track-points'));
  const warnings = new Warnings();
  const n = fixes.length;
  const ms = new Float64Array(n).fill(Number.NaN);
  const lat = new Float64Array(n).fill(Number.NaN);
  const lon = new Float64Array(n).fill(Number.NaN);
  const alt = new Float64Array(n).fill(Number.NaN);
  let bad = 0;
  fixes.forEach((f, i) => {
    const t = instant(f.when);
    const [o, a, h] = f.place
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    if (!t?.dated || o === undefined || a === undefined || !Number.isFinite(o) || !Number.isFinite(a)) {
      bad++;
      return;
    }
    ms[i] = t.ms;
    lat[i] = a;
    lon[i] = o;
    if (h !== undefined && Number.isFinite(h)) alt[i] = h * M_TO_FT;
  });
  if (bad > 0) warnings.add(odd('record-broken'), bad);
  const columns: Partial<Record<Channel, Float64Array>> = { lat, lon, altMsl: alt };
  return assemble('kml', ms, columns, true, warnings);
}
