import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { TAPPED_AS, itemMeasures } from '@/core/trace';
import { dateText } from '@/core/format';
import { FORM_NAME } from '@/domain/airwork';
import { currentUser, denyUnless, requireUser } from '@/server/floor/auth/session';
import { traceById } from '@/server/traces/queries/traces';
import { Title } from '@/ui/shared/title';
import { FlightStrip } from '@/ui/shared/strip';
import { Join } from '@/ui/traces/join';
import { acceptMeasuresAction } from '../../../../actions';
import { checkoutPage } from '../../../../checkout-page';

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> {
  const user = await currentUser();
  const trace = user ? await traceById(user, (await params).id) : null;
  return { title: trace ? `Recording and taps: ${trace.pilotName}, lesson ${trace.lesson}` : 'Recording and taps' };
}

export default async function JoinPage({ params }: { params: Promise<{ id: string }> }) {
  const user = await requireUser();
  const trace = await traceById(user, (await params).id);
  denyUnless(trace !== null);
  const { strip } = await checkoutPage(Promise.resolve({ id: trace.checkoutId }));
  const joined = await trace.join();
  return (
    <>
      <FlightStrip facts={strip} at="debrief" />
      <main id="main">
        <div className="column">
          <Title
            title="Recording and taps"
            line={`Lesson ${trace.lesson}, ${dateText(trace.flownOn)}, ${trace.name}. What you accept counts as measured and overrides the eye; the eye${'\u2019'}s word stays in the record.`}
          >
            <Link className="btn btn-outline-primary" href={`/traces/${trace.id}`}>
              Back to replay
            </Link>
            <Link
              className="btn btn-outline-primary"
              href={`/checkouts/${trace.checkoutId}/debrief?lesson=${trace.lesson}`}
            >
              Back to debrief
            </Link>
          </Title>
          <Join
            traceId={trace.id}
            startUtc={trace.startUtc}
            open={trace.runs && trace.status === 'open'}
            unit={joined.unit}
            accept={acceptMeasuresAction}
            landings={joined.landings.map((l, i) => ({
              key: l.landing?.id ?? `found-${i}`,
              found: l.found,
              foundIndex: l.foundIndex,
              tapped: l.landing ? { id: l.landing.id, number: l.landing.number, kind: l.landing.kind } : null,
              apartS: l.apartS,
              measures: l.measures,
              accepted: l.landing?.measured?.traceId === trace.id ? Object.keys(l.landing.measured.values) : [],
            }))}
            items={joined.items.map((i, k) => {
              const kind = TAPPED_AS[i.found.kind];
              return {
                key: String(k),
                found: i.found,
                foundIndex: i.foundIndex,
                measurable: Object.keys(itemMeasures(i.found, null)).join(', '),
                tapped: i.tapped
                  ? {
                      id: i.tapped.id,
                      name: kind ? FORM_NAME[kind].toLowerCase() : i.tapped.itemId,
                      verdict: i.tapped.verdict,
                      measured: i.tapped.measured.length > 0,
                    }
                  : null,
              };
            })}
          />
        </div>
      </main>
    </>
  );
}
