/**
 * A trace as other programs read it: GPX 1.1, KML, GeoJSON; and its results as a table. Heights above the sea, metres,
 * from the calibrated height.
 */
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import { M_PER_FT, MS_PER_KT } from '../constants';
import type { Placed } from './find/frame';

const xml = (s: string): string => s.replace(/[<>&"']/g, (c) => `&#${c.charCodeAt(0)};`);
const num = (x: number | null | undefined, digits: number): string =>
  x === null || x === undefined || !Number.isFinite(x) ? '' : x.toFixed(digits);
interface Point {
  lat: number;
  lon: number;
  eleM: number | null;
  utc: string | null;
  gsMs: number;
  track: number;
}
function points(p: Placed, context: TraceContext): Point[] {
  const { lat, lon } = p.trace.channels;
  const out: Point[] = [];
  for (let i = 0; i < p.n; i++) {
    const a = lat?.[i] ?? Number.NaN;
    const o = lon?.[i] ?? Number.NaN;
    if (a !== a || o !== o) continue;
    const h = p.heightFt?.[i];
    out.push({
      lat: a,
      lon: o,
      eleM: h === undefined || Number.isNaN(h) ? null : (h + context.aerodrome.elevationFt) * M_PER_FT,
      utc: p.trace.startUtcMs === null ? null : new Date(p.trace.startUtcMs + (p.tS[i] ?? 0) * 1000).toISOString(),
      gsMs: (p.gsKt[i] ?? Number.NaN) * MS_PER_KT,
      track: p.trackDeg[i] ?? Number.NaN,
    });
  }
  return out;
}
const momentOf = (e: TraceAnalysis['events'][number]): number =>
  e.touchdown?.tS ?? e.lowestS ?? e.liftoff?.tS ?? e.startS;
function marks(p: Placed, a: TraceAnalysis): { name: string; lat: number; lon: number }[] {
  return a.events.flatMap((e) => {
    let i = 0;
    while (i < p.n - 1 && (p.tS[i] ?? 0) < momentOf(e)) i++;
    const lat = p.trace.channels.lat?.[i] ?? Number.NaN;
    const lon = p.trace.channels.lon?.[i] ?? Number.NaN;
    return Number.isNaN(lat) || Number.isNaN(lon) ? [] : [{ name: `${e.kind} ${e.runway ?? ''}`.trim(), lat, lon }];
  });
}

/**
 * GPX 1.1: the track with speed and course in extensions, and a waypoint for each event.
 * @returns the file's text
 */
export function traceGpx(p: Placed, a: TraceAnalysis, context: TraceContext, name: string): string {
  const way = marks(p, a).map(
    (m) => `<wpt lat="${m.lat.toFixed(8)}" lon="${m.lon.toFixed(8)}"><name>${xml(m.name)}</name></wpt>`,
  );
  const pts = points(p, context).map(
    (q) =>
      `<trkpt lat="${q.lat.toFixed(8)}" lon="${q.lon.toFixed(8)}">${q.eleM === null ? '' : `<ele>${q.eleM.toFixed(2)}</ele>`}${q.utc ? `<time>${q.utc}</time>` : ''}<extensions>${Number.isFinite(q.gsMs) ? `<speed>${q.gsMs.toFixed(2)}</speed>` : ''}${Number.isFinite(q.track) ? `<course>${q.track.toFixed(1)}</course>` : ''}</extensions></trkpt>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Jeito" xmlns="http://www.topografix.com/GPX/1/1">\n${way.join('\n')}\n<trk><name>${xml(name)}</name><trkseg>\n${pts.join('\n')}\n</trkseg></trk>\n</gpx>\n`;
}
/**
 * KML 2.2: the path at its height, and a placemark for each event.
 * @returns the file's text
 */
export function traceKml(p: Placed, a: TraceAnalysis, context: TraceContext, name: string): string {
  const line = points(p, context)
    .map((q) => `${q.lon.toFixed(7)},${q.lat.toFixed(7)},${num(q.eleM ?? 0, 1)}`)
    .join(' ');
  return `<?xml version="1.0" encoding="UTF-8"?>\n<kml xmlns="http://www.opengis.net/kml/2.2"><Document><name>${xml(name)}</name>\n<Placemark><name>${xml(name)}</name><LineString><altitudeMode>absolute</altitudeMode><coordinates>${line}</coordinates></LineString></Placemark>\n${marks(
    p,
    a,
  )
    .map(
      (m) =>
        `<Placemark><name>${xml(m.name)}</name><Point><coordinates>${m.lon.toFixed(7)},${m.lat.toFixed(7)}</coordinates></Point></Placemark>`,
    )
    .join('\n')}\n</Document></kml>\n`;
}
/**
 * GeoJSON: one line with the times of its points, one point for each event with its measures.
 * @returns the file's text
 */
export function traceGeoJson(p: Placed, a: TraceAnalysis, context: TraceContext, name: string): string {
  const pts = points(p, context);
  const where = marks(p, a);
  return JSON.stringify({
    type: 'FeatureCollection',
    features: [
      {
        type: 'Feature',
        properties: { name, times: pts.map((q) => q.utc) },
        geometry: {
          type: 'LineString',
          coordinates: pts.map((q) => [
            Number(q.lon.toFixed(8)),
            Number(q.lat.toFixed(8)),
            ...(q.eleM === null ? [] : [Number(q.eleM.toFixed(2))]),
          ]),
        },
      },
      ...a.events.flatMap((e, i) => {
        const m = where[i];
        return m ? [{ type: 'Feature', properties: e, geometry: { type: 'Point', coordinates: [m.lon, m.lat] } }] : [];
      }),
    ],
  });
}

/**
 * Rows of the results, with units in the header: one for each event, then one for each item of airwork.
 * @returns cells as text
 */
export function resultRows(a: TraceAnalysis): string[][] {
  const head = [
    'kind',
    'runway',
    'start (s)',
    'end (s)',
    'touch (s)',
    'along (m)',
    'lateral (m)',
    'IAS (kt)',
    'ground speed (kt)',
    'sink (fpm)',
    'crab (deg)',
    'drift (kt)',
    'bounces',
    'peak (g)',
    'swing (deg)',
    'lowest (ft)',
    'direction',
    'bank (deg)',
    'height min (ft)',
    'height max (ft)',
    'roll-out error (deg)',
    'height lost (ft)',
    'confidence',
  ];
  return [
    head,
    ...a.events.map((e) => {
      const t = e.touchdown;
      return [
        e.kind,
        e.runway ?? '',
        num(e.startS, 1),
        num(e.endS, 1),
        num(t?.tS ?? e.liftoff?.tS, 2),
        num(t?.alongM ?? e.liftoff?.alongM, 1),
        num(t?.lateralM ?? e.liftoff?.lateralM, 2),
        num(t?.iasKt ?? e.liftoff?.iasKt, 1),
        num(t?.gsKt ?? e.liftoff?.gsKt, 1),
        num(t?.sinkFpm, 0),
        num(t?.crabDeg, 1),
        num(t?.driftKt, 1),
        num(t?.bounces, 0),
        num(t?.peakG, 2),
        num(e.rollout?.swingDeg, 1),
        num(e.lowestHeightFt, 0),
        '',
        '',
        '',
        '',
        '',
        '',
        num(e.confidence, 2),
      ];
    }),
    ...a.airwork.map((w) => [
      w.kind,
      '',
      num(w.startS, 1),
      num(w.endS, 1),
      '',
      '',
      '',
      '',
      '',
      '',
      '',
      '',
      '',
      num(w.peakG, 2),
      '',
      '',
      w.direction ?? '',
      num(w.maxBankDeg, 1),
      num(w.heightDeviationFt.min, 0),
      num(w.heightDeviationFt.max, 0),
      num(w.rolloutErrorDeg, 1),
      num(w.heightLossFt, 0),
      num(w.confidence, 2),
    ]),
  ];
}
