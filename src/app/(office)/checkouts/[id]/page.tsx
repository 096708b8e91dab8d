import { flownLessons } from '@/server/checkout/queries/stage';
import { LessonLines } from '@/ui/debrief/lesson-lines';
import { namesOf } from '@/server/checkout/queries/lists';
import { dayHere } from '@/server/rules/today';
import { lateOf } from '@/server/ledger/queries/late';
import { LateNote } from '@/ui/sign/late-note';
import { Link } from '@/ui/shared/link';
import { list, plural } from '@/core/format';
import { say } from '@/domain/words';
import { homeZone, newestContent } from '@/server/rules/content';
import { bookingsOfLessons } from '@/server/schedule/queries/lessons';
import { clockText } from '@/core/schedule';
import { proposalInWords, proposeLesson, topicsFor } from '@/core/plan';
import { sheetDifferences } from '@/core/sheet';
import { debriefFacts, standing } from '@/server/debrief/queries/debrief';
import { planFacts } from '@/server/debrief/queries/plan';
import { newerProgrammes } from '@/server/checkout/queries/programmes';
import { ProgrammeForm } from '@/ui/open/programme-form';
import { newerVersions } from '@/server/checkout/commands/checkout';
import { nextButton } from '@/server/checkout/next-words';
import { nextAction } from '@/server/checkout/queries/stage';
import { pinnedSheets } from '@/server/checkout/queries/head';
import { differencesOf } from '@/server/people/queries/pilot';
import { nowIso } from '@/server/floor/clock';
import { LabLinks } from '@/ui/lab/lab-links';
import { MoveForm } from '@/ui/open/move-form';
import { Wheel } from '@/ui/board/wheel';
import { ItemList } from '@/ui/sign/item-list';
import { SchoolsForm } from '@/ui/open/schools-form';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { RefusedNote } from '@/ui/sign/refused-note';
import { FlightStrip } from '@/ui/shared/strip';
import { Verdict } from '@/ui/shared/verdict';
import { checkoutPage, titled } from '../../../checkout-page';
import { chooseSchoolsAction, moveCheckoutAction, takeProgrammeAction } from '../../../actions';

export const generateMetadata = titled('Checkout');

export default async function CheckoutPage({ params }: { params: Promise<{ id: string }> }) {
  const day = await dayHere();
  const { record, strip, runs } = await checkoutPage(params);
  const { head, items, pack } = record;
  const met = items.filter((i) => i.met).length;
  const facts = await debriefFacts(record);
  const found = standing(facts.findings)
    .filter((f) => !f.positive && (runs || f.forPilot))
    .slice(0, 4);
  const plan = runs && head.status === 'open' ? await planFacts(record, facts) : null;
  const proposal =
    plan &&
    proposalInWords(
      proposeLesson({
        ...plan.input,
        forecastKt: plan.slots.find((x) => x.key === plan.firstSlot)?.crosswindKt ?? null,
        bookingMin: plan.bookingMin,
        fuelMin: plan.fuelMin,
      }),
    );
  const zone = (await homeZone()) ?? 'UTC';
  const late = head.status === 'open' ? [] : await lateOf(head.id);
  const action = nextAction(record);
  const schools = await newestContent('schools', 'schools');
  const newer = runs && head.status === 'open' ? await newerVersions(head) : { type: null, airframe: null };
  const drops = (await differencesOf(head, nowIso())).rows.filter((r) => r.action === 'drop').slice(0, 3);
  const unit = head.sheet.dial.unit;
  const pinned = newer.type || newer.airframe ? await pinnedSheets(head.id) : null;
  const differences = pinned
    ? [
        ...(newer.type ? sheetDifferences(pinned.type, newer.type.sheet, unit) : []),
        ...(newer.airframe ? sheetDifferences(pinned.airframe, newer.airframe.sheet, unit) : []),
      ]
    : [];
  return (
    <>
      <FlightStrip facts={strip} at="open" />
      <main id="main">
        <div className="column">
          <Title
            long
            title={`${head.pilotName}, ${list(head.goals.map(say))}`}
            line={`Opened ${day(head.createdAt)} by ${head.instructorName} under ${pack.name}; standard: ${record.standard.name}; type sheet version ${head.typeVersion}, airframe version ${head.airframeVersion}.`}
          >
            {runs && head.status !== 'signed' ? (
              <Link className="btn btn-primary" href={action.href}>
                {nextButton(action)}
              </Link>
            ) : null}
          </Title>
          {head.status === 'open' ? <RefusedNote items={items} base={`/checkouts/${head.id}`} /> : null}
          {head.status === 'recommended' ? (
            <p className="note-good">
              Recommended in <Link href={`/ledger/${head.signedLedgerId ?? ''}`}>the ledger</Link>; the examiner
              decides. The result is entered under Sign.
            </p>
          ) : null}
          <LateNote late={late} entry={head.signedLedgerId} />
          {head.status === 'signed' ? (
            <p className="note-good">
              Signed. <Link href={`/ledger/${head.signedLedgerId ?? ''}`}>The entry in the ledger</Link> lists
              everything it is based on.
            </p>
          ) : null}
          {newer.type || newer.airframe ? (
            <div className="mb-3">
              <Panel title="A newer type sheet is available">
                <MoveForm
                  checkoutId={head.id}
                  typeVersion={newer.type?.version ?? null}
                  airframeVersion={newer.airframe?.version ?? null}
                  differences={differences}
                  action={moveCheckoutAction}
                />
              </Panel>
            </div>
          ) : null}
          {(runs && head.status === 'open' ? await newerProgrammes(head) : []).map((offer) => (
            <div key={offer.to} className="mb-3">
              <Panel title="The school has changed this programme">
                <ProgrammeForm checkoutId={head.id} offer={offer} action={takeProgrammeAction} />
              </Panel>
            </div>
          ))}
          <div className="grid g-3-2">
            <Panel title="Evidence, item by item">
              <ItemList items={items} landings={record.landings} observations={record.evidence.observations} />
            </Panel>
            <div className="grid" style={{ alignContent: 'start' }}>
              <Panel>
                <div className="scroll-x" style={{ textAlign: 'center' }}>
                  <Wheel
                    segments={items.map((i) => ({ progress: i.progress, met: i.met, label: i.item.id }))}
                    size={330}
                    names
                    centre={`${met}/${items.length}`}
                    label={`${met} of ${items.length} items met: ${
                      items
                        .filter((i) => !i.met)
                        .map((i) => i.item.id)
                        .join(', ') || 'all'
                    } ${met === items.length ? '' : 'open'}`}
                  />
                  <p className="mb-0">
                    {met === items.length ? 'All items have evidence.' : `${plural(items.length - met, 'item')} open.`}{' '}
                    <span className="soft">Dark is met, ochre is on the way.</span>
                  </p>
                </div>
              </Panel>
              {found.length > 0 ? (
                <Panel title="Open findings">
                  <ul className="mb-2 ps-3">
                    {found.map((f) => (
                      <li key={f.id}>
                        {f.title}: <span className="soft">{f.numbers[0]?.text}</span>
                      </li>
                    ))}
                  </ul>
                  <Link href={`/checkouts/${head.id}/debrief#findings`}>Show evidence</Link>
                </Panel>
              ) : null}
              {proposal && proposal.blocks.length > 0 ? (
                <Panel title="The next lesson, proposed">
                  <ol className="mb-2 ps-3">
                    {proposal.blocks.map((b) => (
                      <li key={b.id}>
                        {b.title} <span className="soft mono small">{b.minutes} min</span>
                      </li>
                    ))}
                  </ol>
                  <p className="mb-2 small">
                    {proposal.flightMin} min of flying in {proposal.flightRoomMin}; {proposal.wind.words}.
                  </p>
                  <Link href={`/checkouts/${head.id}/plan`}>Edit plan</Link>
                </Panel>
              ) : null}
              {record.sorties.length > 0 ? (
                <Panel title="Lessons">
                  <LessonLines
                    record={record}
                    flown={flownLessons(record)}
                    names={await namesOf(record.sorties.map((x) => x.instructorId))}
                    booked={
                      new Map(
                        [...(await bookingsOfLessons(head.id, zone))].map(([lesson, b]) => [
                          lesson,
                          {
                            words: `${clockText(b.startsAt, zone)} to ${clockText(b.endsAt, zone)}`,
                            href: `/schedule?day=${b.day}&booking=${b.id}`,
                          },
                        ]),
                      )
                    }
                  />
                </Panel>
              ) : null}
              <Panel title="What will look and feel different">
                {drops.length > 0 ? (
                  <p className="mb-2">First to drop: {drops.map((d) => d.name).join(', ')}.</p>
                ) : null}
                <LabLinks checkoutId={head.id} />
              </Panel>
              <Panel title="PIC and logging">
                <table aria-label="PIC and logging" className="plain">
                  <tbody>
                    {[...(head.opening.demands.classRatings ?? []), ...head.opening.demands.endorsements].map(
                      (kind) => (
                        <tr key={kind}>
                          <td>{say(kind)}</td>
                          <td>
                            {head.opening.held.includes(kind) ? (
                              <Verdict verdict="within">held</Verdict>
                            ) : head.opening.credited.some((c) => c.kind === kind) ? (
                              <Verdict verdict="edge">may be credited</Verdict>
                            ) : (
                              <Verdict verdict="outside">missing</Verdict>
                            )}
                          </td>
                        </tr>
                      ),
                    )}
                  </tbody>
                </table>
                <p className="mb-1 mt-2">{head.opening.picReason}</p>
                <p className="soft mb-2">{head.opening.logs}</p>
                <p className="caution mb-0">{pack.caution}</p>
              </Panel>
              {schools && runs && head.status === 'open' ? (
                <Panel title="Technique choices" id="schools">
                  <SchoolsForm
                    checkoutId={head.id}
                    topics={topicsFor(head.sheet, schools.body.topics)}
                    chosen={head.schools}
                    action={chooseSchoolsAction}
                  />
                </Panel>
              ) : null}
            </div>
          </div>
        </div>
      </main>
    </>
  );
}
