import { dayHere } from '@/server/rules/today';
import { Link } from '@/ui/shared/link';
import { denyUnless } from '@/server/floor/auth/session';
import { debriefFacts, planOf } from '@/server/debrief/queries/debrief';
import { flownLessons } from '@/server/checkout/queries/stage';
import { planFacts } from '@/server/debrief/queries/plan';
import { PlanWorkbench } from '@/ui/debrief/plan';
import { groundings } from '@/server/hangar/queries/groundings';
import { Outranked } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { GroundedNote } from '@/ui/stops/grounded-note';
import { RefusedNote } from '@/ui/sign/refused-note';
import { FlightStrip } from '@/ui/shared/strip';
import { checkoutPage, titled } from '../../../../checkout-page';
import { savePlanAction } from '../../../../actions';

export const generateMetadata = titled('Next lesson');

export default async function PlanPage({ params }: { params: Promise<{ id: string }> }) {
  const day = await dayHere();
  const { record, strip, runs } = await checkoutPage(params);
  const { head, sorties } = record;
  denyUnless(runs);
  const latest = sorties[sorties.length - 1];
  const lesson = latest && !flownLessons(record).has(latest.lesson) ? latest.lesson : (latest?.lesson ?? 0) + 1;
  const facts = await planFacts(record, await debriefFacts(record));
  const saved = await planOf(head.id, lesson);
  const standsText = saved
    ? `A plan of lesson ${lesson} was saved ${day(saved.createdAt)} by ${saved.createdBy}.`
    : 'You decide: move, shorten, remove or add.';
  return (
    <>
      <FlightStrip facts={strip} at="debrief" />
      <main id="main">
        <div className="column">
          <GroundedNote
            registration={head.registration}
            groundings={await groundings({ openOnly: true })}
            pack={head.pack}
          />
          <Title
            title={`Next lesson: ${head.pilotName}`}
            line={`Proposed from open items, findings, proven crosswind and the time available. ${standsText}`}
          >
            <Link className="btn btn-outline-primary" href={`/checkouts/${head.id}/debrief`}>
              Back to debrief
            </Link>
            <Link className="btn btn-primary" href={`/checkouts/${head.id}/brief`}>
              Brief lesson {lesson}
            </Link>
          </Title>
          <RefusedNote items={record.items} base={`/checkouts/${head.id}`} />
          <PlanWorkbench
            key={saved?.version ?? 0}
            checkoutId={head.id}
            lesson={lesson}
            {...facts}
            saved={
              saved
                ? {
                    version: saved.version,
                    by: saved.createdBy,
                    at: saved.createdAt,
                    blocks: saved.blocks,
                    focus: saved.focus,
                  }
                : null
            }
            action={savePlanAction}
          />
          <div className="mt-3">
            <Outranked />
          </div>
        </div>
      </main>
    </>
  );
}
