import Papa from 'papaparse';
import { resultRows, traceGeoJson, traceGpx, traceKml } from '@/core/trace';
import { door, fileAnswer } from '@/server/door/route';
import { traceById } from '@/server/traces/queries/traces';
import { placedAgain } from '@/server/traces/again';
import { keptFile } from '@/server/traces/files';

const TYPES: ReadonlyMap<string, string> = new Map([
  ['gpx', 'application/gpx+xml'],
  ['kml', 'application/vnd.google-earth.kml+xml'],
  ['geojson', 'application/geo+json'],
  ['csv', 'text/csv; charset=utf-8'],
  ['json', 'application/json'],
  ['file', 'application/octet-stream'],
]);

/** A recording in another format: `?as=gpx|kml|geojson` the track, `csv|json` the results, `file` as it came. */
export const GET = door<'signed-in', { id: string }>(
  { who: 'signed-in', heavy: 'analysis' },
  async ({ user, params, query }) => {
    const trace = await traceById(user, params.id);
    const as = query.get('as') ?? '';
    const type = TYPES.get(as);
    if (!trace || !type) return null;
    const name = `${trace.registration}-${trace.flownOn}-lesson-${trace.lesson}`;
    if (as === 'file') return fileAnswer(await keptFile(trace.hash), { type, name: trace.name.replace(/\.gz$/, '') });
    if (as === 'json') {
      const { registration, flownOn, startUtc, context, analysis } = trace;
      return fileAnswer(
        JSON.stringify({ trace: { name: trace.name, registration, flownOn, startUtc }, context, analysis }, null, 2),
        { type, name: `${name}.json` },
      );
    }
    if (as === 'csv')
      return fileAnswer(Papa.unparse(resultRows(trace.analysis), { escapeFormulae: true }), {
        type,
        name: `${name}.csv`,
      });
    const placed = await placedAgain(trace);
    if (!placed) return null;
    const draw = as === 'gpx' ? traceGpx : as === 'kml' ? traceKml : traceGeoJson;
    return fileAnswer(draw(placed, trace.analysis, trace.context, `${trace.registration} ${trace.flownOn}`), {
      type,
      name: `${name}.${as}`,
    });
  },
);
