import { NextResponse } from 'next/server';
import Papa from 'papaparse';
import { resultRows, traceGeoJson, traceGpx, traceKml } from '@/core/trace';
import { currentUser } from '@/server/auth/session';
import { traceById } from '@/server/queries/traces';
import { placedAgain } from '@/server/traces/again';
import { keptFile } from '@/server/traces/files';
import { nothingHere } from '../../../v1/answer';

const TYPES: Record<string, string> = {
  gpx: 'application/gpx+xml',
  kml: 'application/vnd.google-earth.kml+xml',
  geojson: 'application/geo+json',
  csv: 'text/csv; charset=utf-8',
  json: 'application/json',
  file: 'application/octet-stream',
};

/** A recording in another format: `?as=gpx|kml|geojson` the track, `csv|json` the results, `file` as it came. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const user = await currentUser();
  const trace = user && (await traceById(user, (await params).id));
  const as = new URL(request.url).searchParams.get('as') ?? '';
  const type = TYPES[as];
  if (!trace || !type) return nothingHere();
  const name = `${trace.registration}-${trace.flownOn}-lesson-${trace.lesson}`;
  const answer = (body: string | Uint8Array, file: string) =>
    new NextResponse(typeof body === 'string' ? body : new Uint8Array(body), {
      headers: {
        'content-type': type,
        'content-disposition': `attachment; filename="${file.replace(/[^\w. -]/g, '_')}"`,
      },
    });
  if (as === 'file') return answer(await keptFile(trace.hash), trace.name.replace(/\.gz$/, ''));
  if (as === 'json')
    return answer(
      JSON.stringify(
        {
          trace: {
            name: trace.name,
            registration: trace.registration,
            flownOn: trace.flownOn,
            startUtc: trace.startUtc,
          },
          context: trace.context,
          analysis: trace.analysis,
        },
        null,
        2,
      ),
      `${name}.json`,
    );
  if (as === 'csv') return answer(Papa.unparse(resultRows(trace.analysis), { escapeFormulae: true }), `${name}.csv`);
  const placed = await placedAgain(trace);
  if (!placed) return nothingHere();
  return answer(
    (as === 'gpx' ? traceGpx : as === 'kml' ? traceKml : traceGeoJson)(
      placed,
      trace.analysis,
      trace.context,
      `${trace.registration} ${trace.flownOn}`,
    ),
    `${name}.${as}`,
  );
}
