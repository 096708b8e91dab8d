import { Link } from '@/ui/shared/link';
import { missingLine } from '@/core/assess';
import { touchdownPoint } from '@/core/sheet';
import { INTERVENTIONS, say } from '@/domain/words';
import { aerodromeAt } from '@/server/rules/content';
import { checkoutRecord } from '@/server/checkout/queries/record';
import { checkoutHead } from '@/server/checkout/queries/head';
import { debriefLandings, mediansOf } from '@/server/debrief/queries/debrief';
import { Progress } from '@/ui/debrief/progress';
import type { ProgressLanding } from '@/ui/debrief/progress-filter';
import { type ItemSeen, ItemsByLesson } from '@/ui/debrief/items-by-lesson';
import { Empty, Outranked, Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { FlightStrip } from '@/ui/shared/strip';
import { checkoutPage, titled } from '../../../../checkout-page';
import { Checkouts } from '@/server/checkout/tables';
import { Op } from 'sequelize';

export const generateMetadata = titled('All lessons');

export default async function ProgressPage({ params }: { params: Promise<{ id: string }> }) {
  const { record, strip, runs } = await checkoutPage(params);
  const { head, standard, items } = record;
  const base = `/checkouts/${head.id}`;
  const here = await debriefLandings(record);
  const titles = new Map(record.programmes.flatMap((p) => p.items).map((i) => [i.id, `${i.id} ${i.title}`]));
  const seen = record.evidence.observations.map((o): ItemSeen => ({
    id: o.id,
    name: titles.get(o.data.itemId) ?? say(o.data.itemId.split(':')[1] ?? o.data.itemId),
    lesson: o.lesson,
    verdict: (o.unseen?.length ?? 0) > 0 && !o.overruled && o.data.verdict !== 'outside' ? 'not-seen' : o.data.verdict,
    whose: INTERVENTIONS[o.data.intervention]?.word ?? '',
  }));
  const airwork =
    seen.length === 0 ? null : (
      <div className="mt-3">
        <Panel title="Ground and airwork, lesson by lesson">
          <ItemsByLesson seen={seen} base={base} />
        </Panel>
      </div>
    );
  if (here.length === 0) {
    return (
      <>
        <FlightStrip facts={strip} at="debrief" />
        <main id="main">
          <div className="column">
            <Title title={`All lessons: ${head.pilotName}`}>
              {runs && head.status === 'open' && airwork ? (
                <Link className="btn btn-primary" href={`${base}/plan`}>
                  Plan the next lesson
                </Link>
              ) : null}
            </Title>
            {airwork}
            {airwork ? (
              <p className="mt-3 mb-0">No landing is recorded yet: places, speeds and trends follow with the first.</p>
            ) : (
              <Empty
                title="Nothing recorded yet"
                text="When landings are recorded, their places, speeds, trends and whose they were stand here."
                {...(runs ? { href: `${base}/fly`, action: 'Go to Fly' } : {})}
              />
            )}
          </div>
        </main>
      </>
    );
  }
  // The pilot's own history: checkouts before this one, on whatever type.
  const earlier = await Checkouts.find({
    where: { pilotId: head.pilotId, id: { [Op.ne]: head.id } },
    pick: ['id'],
    order: ['createdAt'],
  });
  const landings: ProgressLanding[] = here.map((l) => ({ ...l, checkoutId: head.id, typeName: head.typeName }));
  const types: string[] = [];
  for (const { id } of earlier) {
    const other = await checkoutHead(id);
    if (!other) continue;
    const of = await debriefLandings(await checkoutRecord(other));
    if (of.length > 0 && !types.includes(other.typeName)) types.push(other.typeName);
    landings.push(...of.map((l) => ({ ...l, checkoutId: id, typeName: other.typeName })));
  }
  // The reasons stand on the debrief of each lesson; here they would only be weight.
  const light = landings.map((l) => ({
    ...l,
    judged: { ...l.judged, criteria: l.judged.criteria.map((c) => ({ ...c, reason: '' })) },
  }));
  const runItem = items.find((i) => !i.met && i.item.evidence.kind === 'run');
  const rule = runItem?.item.evidence.kind === 'run' ? runItem.item.evidence : null;
  // The item's own count: passes, go-arounds and what it leaves out included.
  const current = rule ? (runItem?.evidence.length ?? 0) : 0;
  const latest = record.sorties[record.sorties.length - 1];
  const runway = (await aerodromeAt(latest?.aerodrome)).runways.find((r) =>
    r.ends.some((e) => e.ident === (latest?.brief?.choices.runwayEnd ?? '')),
  );
  return (
    <>
      <FlightStrip facts={strip} at="debrief" />
      <main id="main">
        <div className="column">
          <Title
            long
            title={`All lessons: ${head.pilotName}`}
            line={`Every landing of this checkout${types.length > 0 ? `, and ${head.pilotName.split(' ')[0] ?? 'the pilot'}\u2019s own history on ${types.join(', ')}` : ''}. Judged by the standard ${standard.name}.`}
          >
            <Link className="btn btn-outline-primary" href={`${base}/debrief`}>
              Back to debrief
            </Link>
            {runs && head.status === 'open' ? (
              <Link className="btn btn-primary" href={`${base}/plan`}>
                Plan the next lesson
              </Link>
            ) : null}
          </Title>
          <Progress
            checkoutId={head.id}
            landings={light}
            here={head.typeName}
            types={types}
            touchdownM={touchdownPoint(head.sheet)}
            trackM={head.sheet.gear.trackM.value}
            widthM={runway?.widthM ?? 18}
            box={standard.boxM}
            criteria={standard.criteria.map((c) => ({ id: c.id, unit: c.unit, measured: c.measured }))}
            run={
              rule
                ? {
                    needed: rule.needed,
                    current,
                    attitude: rule.attitude,
                    accuracy: rule.accuracy,
                    missing: missingLine(runItem?.missing ?? []),
                    what: `${runItem?.item.id ?? ''} ${rule.attitude ? say(rule.attitude) : ''} landings`.replace(
                      /\s+/g,
                      ' ',
                    ),
                  }
                : null
            }
            medians={await mediansOf(head.typeCode)}
            fileName={`jeito-${head.pilotName.split(' ')[0]?.toLowerCase() ?? 'pilot'}-${head.registration}.csv`}
          />
          {airwork}
          <div className="mt-3">
            <Outranked extra="Statistics say what was flown; the instructor says what it means." />
          </div>
        </div>
      </main>
    </>
  );
}
