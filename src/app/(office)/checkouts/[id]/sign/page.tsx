import { Link } from '@/ui/shared/link';
import { flownUnread } from '@/core/assess';
import { dateText, list } from '@/core/format';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { overridesOf, signingState } from '@/server/ledger/commands/sign';
import { ledgerLines } from '@/server/ledger/queries/entries';
import { intervalOf, passengerState } from '@/server/people/queries/recency';
import { localToday } from '@/server/rules/today';
import { ResultForm } from '@/ui/sign/later-form';
import { Matrix } from '@/ui/sign/matrix';
import { stateWords } from '@/ui/sign/state-words';
import { Outranked, Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { RefusedNote } from '@/ui/sign/refused-note';
import { FlightStrip } from '@/ui/shared/strip';
import { StopList } from '@/ui/stops/stop-list';
import { stopsShown } from '@/server/checkout/queries/stop-shown';
import { flownUnreadOf } from '@/server/checkout/queries/stage';
import { checkoutPage, titled } from '../../../../checkout-page';
import { enterResultAction } from '../../../../actions';
import { NotApplicable } from '@/ui/sign/not-applicable';
import { EntriesOfCheckout } from '@/ui/sign/entries-of-checkout';
import { courseOf, headline, matrixRows } from './facts';
import { MissingPanel } from '@/ui/sign/missing';
import { PassengersToday, Prerequisites } from '@/ui/sign/before-and-after';
import { WhatIsWritten } from '@/ui/sign/what-is-written';
import { SignPanel } from './sign-panel';
import { OverridesPanel } from './overrides-panel';
import { OtherDecisions } from './other-decisions';

export const generateMetadata = titled('Sign');

/** The earlier of two last days; null = neither is kept. */
const earliest = (...days: (string | null | undefined)[]): string | null =>
  days.flatMap((d) => d ?? []).sort()[0] ?? null;

export default async function SignPage({ params }: { params: Promise<{ id: string }> }) {
  const { user, record, strip, runs } = await checkoutPage(params);
  const { head, items, pack, house } = record;
  const open = head.status === 'open';
  const base = `/checkouts/${head.id}`;
  const signs = runs && open;
  const state = signs ? await signingState(user, record) : null;
  const overrides = state?.overrides ?? (open ? await overridesOf(record) : []);
  const [today, entries, interval, passengers] = await Promise.all([
    localToday(),
    ledgerLines(user, { checkoutId: head.id }),
    intervalOf(head.pilotId, head.sheet, house, record.evidence.onDate ?? ''),
    passengerState(head.pilotId, head.sheet, pack, record.evidence.onDate ?? ''),
  ]);
  const signed = entries.find((e) => e.id === head.signedLedgerId);
  const problems = state?.problems ?? [];
  const stops = stopsShown(record);
  const written = pack.goals.filter((g) => head.goals.includes(g.goal));
  const countedFrom = written.find((g) => g.recommendation)?.recommendation?.from;
  const course = courseOf(record);
  const rows = matrixRows(record, overrides);
  return (
    <>
      <FlightStrip facts={strip} at="sign" />
      <main id="main">
        <div className="column">
          <Title
            long
            title={headline(record, state)}
            line={`${head.pilotName}, ${head.registration} ${head.typeName}: ${list(head.goals.map(say))} under ${pack.name}. ${stateWords(rows.map((r) => r.state))}.`}
          >
            {may.exportRecord(user, head) ? (
              <a
                className="btn btn-outline-primary"
                href={`/api/checkouts/${head.id}/booklet`}
                target="_blank"
                rel="noreferrer"
              >
                Booklet, PDF
              </a>
            ) : null}
          </Title>
          {!open && head.signedLedgerId ? (
            <p className="note-good">
              This checkout is in the ledger.{' '}
              <Link href={`/ledger/${head.signedLedgerId}`}>See the entry and its PDF</Link>
              {interval?.validThrough
                ? ` The house’s interval without flying this type: ${interval.days} days, from the ${interval.because === 'check' ? 'sign-off' : 'last flight'} of ${dateText(interval.from ?? '')}, so to ${dateText(interval.validThrough)}.`
                : ''}
            </p>
          ) : null}
          {open ? <RefusedNote items={items} base={null} /> : null}
          <div className="grid g-3-2">
            <div className="grid" style={{ alignContent: 'start' }}>
              <Panel title="Criteria and evidence, by lesson">
                <Matrix rows={rows} lessons={record.sorties.map((s) => s.lesson)} base={base} />
                {record.notAsked.length > 0 ? (
                  <NotApplicable registration={head.registration} notAsked={record.notAsked} />
                ) : null}
              </Panel>
              {entries.length > 0 ? <EntriesOfCheckout entries={entries} /> : null}
            </div>
            <div className="grid" style={{ alignContent: 'start' }}>
              {signs && state ? (
                <>
                  {problems.length > 0 ? <MissingPanel base={base} problems={problems} /> : null}
                  <SignPanel countedFrom={countedFrom} head={head} state={state} />
                </>
              ) : head.status === 'recommended' && may.enterResult(user, head) ? (
                <Panel title="Examiner’s result">
                  <ResultForm
                    checkoutId={head.id}
                    today={today}
                    validThrough={earliest(signed?.body?.validThrough, signed?.body?.courseUntil)}
                    action={enterResultAction}
                  />
                </Panel>
              ) : open ? (
                <Panel title="Who signs">
                  <p className="mb-0">The instructor signs when every item has its evidence.</p>
                </Panel>
              ) : null}
              {stops.length > 0 ? (
                <Panel title="Flown past a stop">
                  <StopList stops={stops} explain={null} />
                  <p className="soft small mb-0 mt-2">
                    None of it is evidence of a safety item. Reasons are given in the debrief.
                  </p>
                </Panel>
              ) : null}
              {overrides.length > 0 ? (
                <OverridesPanel head={head} open={open} overrides={overrides} user={user} />
              ) : null}
              {signs && state ? <OtherDecisions record={record} state={state} /> : null}
              <Panel title="Before and after">
                <Prerequisites asked={state?.prerequisites ?? []} />
                {written.flatMap((g) =>
                  g.organisation
                    ? [
                        <p key={g.goal} className="mb-1">
                          {g.organisation} <span className="soft">{g.citation}</span>
                        </p>,
                      ]
                    : [],
                )}
                {course ? (
                  <p className="mb-1">
                    Course begun on {dateText(course.from)}: the test by {dateText(course.until)}
                    {course.confirm ? ', to be confirmed against the current text' : ''}.
                  </p>
                ) : null}
                {flownUnreadOf(record).map((b) => (
                  <p key={b.lesson} className="mb-1">
                    {flownUnread(b)}
                  </p>
                ))}
                <PassengersToday passengers={passengers} />
                {interval ? (
                  <p className="mb-0">
                    School recurrent check: {interval.days} days without flying the type
                    {interval.validThrough ? `, now to ${dateText(interval.validThrough)}` : ''}.{' '}
                    <span className="soft">{house.signing.source}</span>
                  </p>
                ) : null}
              </Panel>
              <WhatIsWritten caution={pack.caution} written={written} />
              <Outranked />
            </div>
          </div>
        </div>
      </main>
    </>
  );
}
