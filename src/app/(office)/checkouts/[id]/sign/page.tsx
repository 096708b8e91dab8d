import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { type SigningProblem, itemEvidenceWords, itemRecordWords, recordsOf, signingWords } from '@/core/assess';
import { dateText, list } from '@/core/format';
import { validThrough } from '@/core/recency';
import { NEED_WORDS } from '@/domain/assess-words';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { overridesOf, signingState } from '@/server/ledger/commands/sign';
import { bookLines } from '@/server/ledger/queries/book';
import { intervalOf, passengerState } from '@/server/people/queries/recency';
import { localToday } from '@/server/rules/today';
import { ResultForm } from '@/ui/sign/later-form';
import { Matrix } from '@/ui/sign/matrix';
import { MinutesForm } from '@/ui/sign/minutes-form';
import { OverrideAnswer, OverrideForm } from '@/ui/sign/override-form';
import { stateWords } from '@/ui/sign/state-words';
import { AsideForm, SignForm } from '@/ui/sign/sign-form';
import { Outranked, Panel, Title } from '@/ui/shared/parts';
import { RefusedNote } from '@/ui/sign/refused-note';
import { FlightStrip } from '@/ui/shared/strip';
import { StopList } from '@/ui/stops/stop-list';
import { stopsShown } from '@/server/checkout/queries/stop-shown';
import { checkoutPage } from '../../../../checkout-page';
import {
  answerOverrideAction,
  askOverrideAction,
  enterResultAction,
  deskEventAction,
  signCheckoutAction,
  signNotYetAction,
  signPartAction,
} from '../../../../actions';
import { WaiveForm } from '@/ui/sign/waive-form';

export const metadata: Metadata = { title: 'Sign' };
const OVERRIDE_RULE = {
  always: 'A chief instructor says yes to each.',
  safety: 'For a safety item a chief instructor says yes.',
  never: 'The instructor decides.',
} as const;

/** The earlier of two last days; null = neither is kept. */
const earliest = (...days: (string | null | undefined)[]): string | null =>
  days.flatMap((d) => d ?? []).sort()[0] ?? null;
/** Beyond so many open items the list is folded: the matrix beside it says the same. */
const MANY = 7;

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
    bookLines(user, { checkoutId: head.id }),
    intervalOf(head.pilotId, head.sheet, house, record.evidence.onDate ?? ''),
    passengerState(head.pilotId, head.sheet, pack, record.evidence.onDate ?? ''),
  ]);
  const signed = entries.find((e) => e.id === head.signedLedgerId);
  const problems = state?.problems ?? [];
  const stops = stopsShown(record);
  const ofItems: ReadonlySet<SigningProblem['code']> = new Set(['item', 'legal', 'not-seen', 'refused']);
  const itemProblems = problems.filter((p) => ofItems.has(p.code));
  const signer = problems.filter((p) => !ofItems.has(p.code));
  const latest = record.sorties[record.sorties.length - 1];
  const waivable = items.filter((i) => !i.met && i.item.waivable !== null);
  const overridable = problems
    .filter((p) => p.overridable)
    .flatMap((p) => items.find((i) => i.item.id === p.itemId)?.item ?? []);
  const timed = items.filter((i) => i.item.evidence.kind === 'hours').map((i) => i.item);
  const met = items.filter((i) => i.met).length;
  const written = pack.goals.filter((g) => head.goals.includes(g.goal));
  const countedFrom = written.find((g) => g.recommendation)?.recommendation?.from;
  const course = written.find((g) => g.recommendation?.courseMonths)?.recommendation;
  const firstFlown = record.sorties[0]?.flownOn;
  const courseEnds =
    course?.courseMonths && firstFlown
      ? validThrough(firstFlown, { days: null, months: course.courseMonths, monthEnd: false })
      : null;
  const rows = items.map((i) => {
    const o = overrides.find((x) => x.itemId === i.item.id);
    const said = itemEvidenceWords(i);
    return {
      id: i.item.id,
      title: i.item.title,
      citation: i.item.citation,
      safety: i.item.safety,
      legal: i.item.legal,
      confirm: i.item.confirm,
      house: i.item.source === 'house',
      state: !i.met && o?.approved ? ('overridden' as const) : i.state,
      ...said,
      note: i.waived ?? said.credited ?? (o ? `${o.reason} ${o.approved ? '' : '(waits for the chief)'}` : null),
      records: recordsOf(i, record.evidence).map((r) => ({ ...r, words: itemRecordWords(r.shown) })),
    };
  });
  const title =
    head.status === 'signed'
      ? 'Signed'
      : head.status === 'recommended'
        ? 'Recommended: the examiner decides'
        : problems.length === 0 && state
          ? 'Everything is there to sign'
          : `${met} of ${items.length} items met`;
  return (
    <>
      <FlightStrip facts={strip} at="sign" />
      <main id="main">
        <div className="column">
          <Title
            title={title}
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
              This checkout is in the book.{' '}
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
                  <p className="soft small mb-0 mt-2">
                    Not applicable to {head.registration}:{' '}
                    {record.notAsked
                      .map(
                        (n) =>
                          `${n.id} ${n.title} (no ${list(n.needs.map((x) => NEED_WORDS[x].replace(/^an? /, '')))})`,
                      )
                      .join('; ')}
                    .
                  </p>
                ) : null}
              </Panel>
              {entries.length > 0 ? (
                <Panel title="In the book">
                  <ul className="ps-3 mb-0">
                    {entries.map((e) => (
                      <li key={e.id}>
                        <Link href={`/ledger/${e.id}`}>
                          Entry {e.seq}, {say(e.kind)}
                        </Link>{' '}
                        of {dateText(e.signedOn)}, {e.signerName}
                        {e.voidedBy ? <strong> · void</strong> : null}
                      </li>
                    ))}
                  </ul>
                </Panel>
              ) : null}
            </div>
            <div className="grid" style={{ alignContent: 'start' }}>
              {signs && state ? (
                <>
                  {problems.length > 0 ? (
                    <Panel title="Missing before you can sign">
                      <Missing problems={signer} base={base} />
                      {itemProblems.length > MANY ? (
                        <details className="mt-1">
                          <summary>{itemProblems.length} items of the programme are open</summary>
                          <Missing problems={itemProblems} base={base} />
                        </details>
                      ) : (
                        <Missing problems={itemProblems} base={base} />
                      )}
                    </Panel>
                  ) : null}
                  <Panel title={state.recommends.length > 0 ? 'Recommend' : 'Sign'}>
                    {state.recommends.length > 0 ? (
                      <p className="mb-2">
                        This goal ends with an examiner: what you sign is a recommendation
                        {state.validThrough
                          ? `, valid until ${dateText(state.validThrough)}${countedFrom === 'last-training' && state.trainedOn ? `, counted from the last training on ${dateText(state.trainedOn)}` : ''}`
                          : ''}
                        .{' '}
                        {state.courseUntil
                          ? `The test is flown by ${dateText(state.courseUntil)}, counted from the start of the course. `
                          : ''}
                        The result is entered here later.
                      </p>
                    ) : null}
                    <SignForm
                      checkoutId={head.id}
                      shown={state.stamp}
                      text={state.text}
                      blocked={problems.length > 0}
                      recommends={state.recommends.length > 0}
                      water={head.sheet.surface !== 'land'}
                      action={signCheckoutAction}
                    />
                  </Panel>
                </>
              ) : head.status === 'recommended' && may.enterResult(user, head) ? (
                <Panel title="The examiner’s result">
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
                <Panel title="Overrides">
                  <ul className="ps-3 mb-0">
                    {overrides.map((o) => (
                      <li key={o.id} className="mb-2">
                        <span className="mono">{o.itemId}</span> {o.reason}{' '}
                        <span className="soft">
                          {o.askedBy}, {dateText(o.askedAt)}.{' '}
                          {o.approved
                            ? o.answeredBy && o.answeredBy !== o.askedBy
                              ? `Approved by ${o.answeredBy}.`
                              : 'Stands.'
                            : 'Waits for the chief instructor.'}
                        </span>
                        {open && o.answer === null ? (
                          <OverrideAnswer
                            overrideId={o.id}
                            mayAnswer={o.needsChief && may.answerOverride(user, head)}
                            mayWithdraw={o.askedById === user.id}
                            action={answerOverrideAction}
                          />
                        ) : null}
                      </li>
                    ))}
                  </ul>
                </Panel>
              ) : null}
              {signs && state ? (
                <Panel title="Otherwise">
                  {overridable.length > 0 ? (
                    <details className="mb-2">
                      <summary>Override an item</summary>
                      <OverrideForm
                        key={overridable.map((i) => i.id).join()}
                        checkoutId={head.id}
                        items={overridable.map((i) => ({ id: i.id, title: i.title }))}
                        rule={OVERRIDE_RULE[house.signing.overrideNeedsChief]}
                        action={askOverrideAction}
                      />
                    </details>
                  ) : null}
                  {waivable.length > 0 && latest ? (
                    <details className="mb-2">
                      <summary>Waive an item</summary>
                      <div className="mt-2">
                        <WaiveForm
                          key={waivable.map((i) => i.item.id).join()}
                          sortieId={latest.id}
                          items={waivable.map((i) => ({
                            id: i.item.id,
                            title: i.item.title,
                            rule: i.item.waivable ?? '',
                          }))}
                          action={deskEventAction}
                        />
                      </div>
                    </details>
                  ) : null}
                  {timed.length > 0 && latest ? (
                    <details className="mb-2">
                      <summary>Enter time of an item</summary>
                      <MinutesForm
                        items={timed.map((i) => ({ id: i.id, title: i.title }))}
                        lessons={record.sorties
                          .filter((s) => s.sharedWith === null)
                          .map((s) => ({ sortieId: s.id, lesson: s.lesson }))}
                        action={deskEventAction}
                      />
                    </details>
                  ) : null}
                  <details className="mb-2">
                    <summary>Sign some items now</summary>
                    <AsideForm
                      key="part"
                      checkoutId={head.id}
                      shown={state.stamp}
                      kind="part"
                      items={items
                        .filter((i) => i.state === 'met' && i.part === null)
                        .map((i) => ({ id: i.item.id, title: i.item.title }))}
                      text={`These items of ${head.pilotName} were shown to me in ${head.registration} within the standard; the rest is for another instructor.`}
                      action={signPartAction}
                    />
                    <p className="small soft mb-0 mt-1">
                      A part sign-off holds {state.partDays} days ({house.signing.source}).
                    </p>
                  </details>
                  <details>
                    <summary>Enter further training</summary>
                    <AsideForm
                      key="not-yet"
                      checkoutId={head.id}
                      shown={state.stamp}
                      kind="not-yet"
                      items={items.map((i) => ({ id: i.item.id, title: i.item.title }))}
                      text=""
                      action={signNotYetAction}
                    />
                  </details>
                </Panel>
              ) : null}
              <Panel title="Before, and after">
                {state && state.prerequisites.length > 0 ? (
                  <p className="mb-1">
                    {state.prerequisites
                      .map(
                        (p) =>
                          `${p.text}: ${p.met === true ? 'shown' : p.met === false ? 'not reached' : 'to be shown in the logbook'}`,
                      )
                      .join('. ')}
                    .
                  </p>
                ) : null}
                {written.flatMap((g) =>
                  g.organisation
                    ? [
                        <p key={g.goal} className="mb-1">
                          {g.organisation} <span className="soft">{g.citation}</span>
                        </p>,
                      ]
                    : [],
                )}
                {courseEnds ? (
                  <p className="mb-1">
                    Course begun on {dateText(firstFlown ?? '')}: the test by {dateText(courseEnds)}
                    {course?.confirm ? ', to be confirmed against the current text' : ''}.
                  </p>
                ) : null}
                <p className="mb-1">
                  Passengers in this aeroplane today:{' '}
                  {passengers.rules.length === 0
                    ? 'the pack sets no count.'
                    : passengers.overall === 'expired'
                      ? `not by recent experience; ${list(passengers.rules.flatMap((r) => r.restore ?? []))} restore it.`
                      : `recent to ${dateText(passengers.rules.reduce((d, r) => (r.validThrough !== null && (d === '' || r.validThrough < d) ? r.validThrough : d), ''))}.`}{' '}
                  <span className="soft">{list([...new Set(passengers.asked.map((r) => r.citation))])}</span>
                </p>
                {interval ? (
                  <p className="mb-0">
                    House interval: {interval.days} days without flying the type
                    {interval.validThrough ? `, now to ${dateText(interval.validThrough)}` : ''}.{' '}
                    <span className="soft">{house.signing.source}</span>
                  </p>
                ) : null}
              </Panel>
              <Panel title="What is written">
                {written.map((g) => (
                  <p key={g.goal} className="mb-1">
                    {g.title}: {g.written} Lasts: {g.lasts} <span className="soft">{g.citation}</span>
                    {g.confirm || g.recommendation?.confirm ? (
                      <strong className="v-edge"> To be confirmed.</strong>
                    ) : null}
                  </p>
                ))}
                <p className="caution mb-0">{pack.caution}</p>
              </Panel>
              <Outranked />
            </div>
          </div>
        </div>
      </main>
    </>
  );
}

/** What stands in the way, each leading to where it is done. */
function Missing({ problems, base }: { problems: readonly SigningProblem[]; base: string }) {
  if (problems.length === 0) return null;
  const leads = (p: SigningProblem): string | null =>
    p.target === 'brief' || p.target === 'fly' || p.target === 'debrief'
      ? `${base}/${p.target}`
      : p.target === 'trace'
        ? `/traces/${p.traceId ?? ''}`
        : p.code === 'not-recent' || p.code === 'model-hours'
          ? '/account'
          : p.target === 'people'
            ? '/people'
            : null;
  return (
    <ul className="ps-3 mb-0">
      {problems.map((p) => {
        const href = leads(p);
        const words = signingWords(p);
        return (
          <li key={words} className="mb-1">
            {href ? <Link href={href}>{words}</Link> : words}
          </li>
        );
      })}
    </ul>
  );
}
