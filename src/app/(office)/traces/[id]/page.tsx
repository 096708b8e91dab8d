import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { runwayCorners } from '@/core/trace';
import { dateText, list } from '@/core/format';
import { LIMIT_NAME } from '@/domain/words';
import { currentUser, denyUnless, requireUser } from '@/server/floor/auth/session';
import { traceById, traceList } from '@/server/traces/queries/traces';
import { Outranked } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { FlightStrip } from '@/ui/shared/strip';
import { Limits } from '@/ui/traces/limits';
import { Recordings } from '@/ui/traces/recordings';
import { Replay } from '@/ui/traces/replay';
import { joinRecordingsAction, releaseExceedanceAction } from '../../../actions';
import { checkoutPage } from '../../../checkout-page';

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> {
  const user = await currentUser();
  const trace = user ? await traceById(user, (await params).id) : null;
  return { title: trace ? `Replay: ${trace.pilotName}, lesson ${trace.lesson}` : 'Replay' };
}
const FORMATS = [
  ['gpx', 'GPX'],
  ['kml', 'KML'],
  ['geojson', 'GeoJSON'],
  ['csv', 'results, CSV'],
  ['json', 'results, JSON'],
  ['file', 'original file'],
] as const;

export default async function TracePage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ landing?: string; beside?: string }>;
}) {
  const user = await requireUser();
  const trace = await traceById(user, (await params).id);
  denyUnless(trace !== null);
  const open = trace.limits.filter((l) => !l.released);
  const exceeded = list([...new Set(open.map((l) => LIMIT_NAME[l.channel]))]);
  const { strip } = await checkoutPage(Promise.resolve({ id: trace.checkoutId }));
  const joined = await trace.join();
  const others = (await traceList(user, trace.checkoutId)).filter(
    (t) => t.sortieId === trace.sortieId && t.id !== trace.id,
  );
  const speed = joined.standard.criteria.find((c) => c.id === 'speed')?.measured ?? null;
  const numbers = Object.fromEntries(
    joined.landings.flatMap((l) => (l.landing && l.foundIndex !== null ? [[l.foundIndex, l.landing.number]] : [])),
  );
  const asked = await searchParams;
  const eventOf = (number: string | undefined): number | null =>
    joined.landings.find((l) => l.landing && l.foundIndex !== null && String(l.landing.number) === number)
      ?.foundIndex ?? null;
  const waiting = trace.limits.filter((l) => !l.released).length;
  return (
    <>
      <FlightStrip facts={strip} at="debrief" />
      <main id="main">
        <div className="column">
          <Title
            long
            title={`Lesson ${trace.lesson} as recorded`}
            line={`${trace.pilotName} on ${trace.registration}, ${dateText(trace.flownOn)}, at ${trace.context.aerodrome.name}. ${trace.name}, added by ${trace.uploader}.`}
          >
            <Link
              className="btn btn-outline-primary"
              href={`/checkouts/${trace.checkoutId}/debrief?lesson=${trace.lesson}`}
            >
              Back to debrief
            </Link>
            <Link className="btn btn-primary" href={`/traces/${trace.id}/join`}>
              {trace.runs ? 'Compare with taps' : 'With taps'}
            </Link>
          </Title>
          {trace.limits.length > 0 ? (
            <details
              className={`mb-3 ${waiting > 0 ? 'trouble' : 'panel'}`}
              open={trace.limits.some((l) => l.releases)}
            >
              <summary>
                <strong>
                  {waiting > 0 ? `${trace.registration} is grounded: ${exceeded} exceeded` : 'Exceedances, released'}
                </strong>
              </summary>
              <div className="mt-2">
                <Limits limits={trace.limits} release={releaseExceedanceAction} />
              </div>
            </details>
          ) : null}
          <Replay
            start={{ chosen: eventOf(asked.landing), beside: eventOf(asked.beside) }}
            traceId={trace.id}
            startUtc={trace.startUtc}
            analysis={trace.analysis}
            context={trace.context}
            strips={runwayCorners(trace.context)}
            tolerance={speed}
            numbers={numbers}
            unit={joined.unit}
          />
          <Recordings
            traceId={trace.id}
            name={trace.name}
            others={others.map(({ id, name, joinedOf }) => ({ id, name, joinedOf }))}
            joined={trace.analysis.source.joined}
            runs={trace.runs}
            join={joinRecordingsAction}
          />
          <p className="mt-3 mb-2">
            Download:{' '}
            {FORMATS.map(([as, name], i) => (
              <span key={as}>
                {i > 0 ? ' \u00b7 ' : ''}
                <a href={`/api/traces/${trace.id}/export?as=${as}`} download>
                  {name}
                </a>
              </span>
            ))}
          </p>
          <Outranked extra="A recorder shows what its sensors saw." />
        </div>
      </main>
    </>
  );
}
