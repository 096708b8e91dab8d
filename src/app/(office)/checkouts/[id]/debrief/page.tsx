import type { Metadata } from 'next';
import { LogbookLinesPanel } from '@/ui/debrief/logbook-lines';
import { Link } from '@/ui/shared/link';
import {
  type DebriefLanding,
  bestAndWorst,
  compareSelf,
  detailNoted,
  detailReasons,
  judgeDetail,
  landingNoted,
  lessonHeadline,
  lessonSummaries,
  lookFirst,
  recentShare,
  sinceLastTime,
  landingWords,
  criterionWords,
} from '@/core/assess';
import { fixed, plural, withUnit } from '@/core/format';
import { touchdownPoint } from '@/core/sheet';
import { ktPerUnit } from '@/core/speeds';
import { type CaptureForm, FORM_NAME } from '@/domain/airwork';
import type { AirworkDetail } from '@/domain/capture';
import { INTERVENTIONS, say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { homeAerodrome } from '@/server/rules/content';
import { changesOf } from '@/server/checkout/queries/changes';
import { flownLessons } from '@/server/checkout/queries/stage';
import { debriefFacts, debriefOf, selfOf, standing } from '@/server/debrief/queries/debrief';
import { linesOf } from '@/server/checkout/queries/logbook-lines';
import { stopsShown } from '@/server/checkout/queries/stop-shown';
import { traceList } from '@/server/traces/queries/traces';
import { AirworkTable } from '@/ui/debrief/airwork-table';
import { ChangeList } from '@/ui/debrief/change-list';
import { FindingList } from '@/ui/debrief/findings';
import { Focus } from '@/ui/debrief/focus';
import { LandingTable } from '@/ui/debrief/landing-table';
import { LessonBars } from '@/ui/debrief/lesson-bars';
import { touchdownPoints } from '@/ui/debrief/points';
import { SelfAsk, SelfBeside } from '@/ui/debrief/self';
import { TouchdownMap } from '@/ui/debrief/touchdown-map';
import { Empty, Outranked, Panel, Title } from '@/ui/shared/parts';
import { FlightStrip } from '@/ui/shared/strip';
import { StopList } from '@/ui/stops/stop-list';
import { checkoutPage } from '../../../../checkout-page';
import {
  acknowledgeDebriefAction,
  assessSelfAction,
  decideFindingAction,
  deskEventAction,
  overruleAction,
  saveDebriefAction,
} from '../../../../actions';

export const metadata: Metadata = { title: 'Debrief' };

export default async function DebriefPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ lesson?: string }>;
}) {
  const { user, record, strip, runs } = await checkoutPage(params);
  const { head, standard } = record;
  const flown = flownLessons(record);
  const summaries = lessonSummaries(
    record.landings,
    record.sorties.filter((s) => flown.has(s.lesson)).map((s) => ({ lesson: s.lesson, date: s.flownOn })),
  );
  const wanted = Number((await searchParams).lesson);
  const summary = summaries.find((s) => s.lesson === wanted) ?? summaries[summaries.length - 1];
  const base = `/checkouts/${head.id}`;
  if (!summary) {
    return (
      <>
        <FlightStrip facts={strip} at="debrief" />
        <main id="main">
          <div className="column">
            <Title title="Debrief" />
            <Empty
              title="Nothing to debrief yet"
              text="Landings and airwork recorded in the cockpit stand here, each with its verdict and the reason for it."
              {...(runs ? { href: `${base}/fly`, action: 'To fly' } : {})}
            />
          </div>
        </main>
      </>
    );
  }
  const stops = stopsShown(record, summary.lesson);
  const past = new Set(stops.map((s) => s.subjectId));
  const facts = await debriefFacts(record);
  const stopsAt = new Map(record.evidence.landings.map((l) => [l.id, l.stops]));
  const shown = facts.landings
    .filter((l) => l.lesson === summary.lesson)
    .map((l) => ({ ...l, stops: stopsAt.get(l.id) ?? [] }));
  const sortie = record.sorties.find((x) => x.lesson === summary.lesson);
  const logbook = (await linesOf(record)).find((l) => l.lesson === summary.lesson);
  const self = sortie ? await selfOf(sortie.id) : null;
  const pilotHere = may.acknowledgeDebrief(user, head);
  const asks = sortie !== undefined && !self && head.status === 'open' && may.assessSelf(user, head);
  const lessons = (
    <nav aria-label="Lessons" className="mb-3 d-flex gap-2 flex-wrap">
      {summaries.map((s) => (
        <Link
          key={s.lesson}
          href={`${base}/debrief?lesson=${s.lesson}`}
          className={`btn btn-sm ${s.lesson === summary.lesson ? 'btn-primary' : 'btn-outline-primary'}`}
          aria-current={s.lesson === summary.lesson ? 'true' : undefined}
        >
          Lesson {s.lesson}
        </Link>
      ))}
      {pilotHere && asks ? null : (
        <Link className="btn btn-sm btn-outline-primary" href={`${base}/progress`}>
          All lessons
        </Link>
      )}
    </nav>
  );
  const touched = shown.filter(
    (l) => l.kind !== 'go-around' && l.kind !== 'low-pass' && l.judged.landingClass !== 'demonstration',
  );
  const ask =
    asks && touched.length > 0 ? (
      <SelfAsk
        sortieId={sortie.id}
        landings={touched.length}
        numbers={touched.map((l) => l.number)}
        forPilot={pilotHere}
        save={assessSelfAction}
      />
    ) : null;
  if (ask && pilotHere) {
    return (
      <>
        <FlightStrip facts={strip} at="debrief" />
        <main id="main">
          <div className="column">
            <Title
              title={`Lesson ${summary.lesson}: you first`}
              line="What you think of it comes before what was recorded. Then the two stand side by side."
            />
            {lessons}
            {ask}
          </div>
        </main>
      </>
    );
  }
  const held = sortie ? await debriefOf(sortie.id) : null;
  const changes = await changesOf(record, summary.lesson);
  const gates = sortie?.brief?.snapshot.gates ?? [];
  const { unit } = head.sheet.dial;
  const seen = record.evidence.observations.filter((o) => o.lesson === summary.lesson);
  const powers = record.powers.filter((p) => p.sortieId === sortie?.id);
  const trials = record.trials.filter((t) => t.sortieId === sortie?.id);
  const titles = new Map(record.programmes.flatMap((p) => p.items).map((i) => [i.id, i.title]));
  const recent = recentShare(record.landings);
  const open = record.items.filter((i) => !i.met);
  const recordings = (await traceList(user, head.id)).filter((t) => t.sortieId === sortie?.id);
  const replay = recordings[0];
  const end = sortie?.brief?.choices.runwayEnd ?? shown[0]?.captured.runwayEnd;
  const runway = (await homeAerodrome()).runways.find((r) => r.ends.some((e) => e.ident === end));
  const map = touchdownPoints(shown, { trackM: head.sheet.gear.trackM.value, boxM: standard.boxM }, false);
  const { worst } = bestAndWorst(shown);
  const { best } = bestAndWorst(shown.filter((l) => l.stops.length === 0));
  const changed = sinceLastTime(facts.landings, summary.lesson);
  const told = facts.findings.filter((f) => runs || (f.forPilot && f.decided?.decision !== 'dismissed'));
  const links = [
    ...facts.landings.map((l) => ({
      id: l.id,
      label: l.lesson === summary.lesson ? `landing ${l.number}` : `lesson ${l.lesson}, landing ${l.number}`,
      href:
        l.lesson === summary.lesson ? `#landing-${l.number}` : `${base}/debrief?lesson=${l.lesson}#landing-${l.number}`,
    })),
    ...record.evidence.observations.map((o) => ({
      id: o.id,
      label: `lesson ${o.lesson}, ${titles.has(o.data.itemId) ? o.data.itemId : itemName(o.data.itemId, o.data.detail)}`,
      href: `${base}/debrief?lesson=${o.lesson}#airwork`,
    })),
    ...facts.record.limits.map((l) => ({
      id: l.id,
      label: `lesson ${l.lesson}, the recording`,
      href: `/traces/${l.traceId ?? ''}`,
    })),
  ];
  const suggested = standing(facts.findings)
    .filter((f) => !f.positive && f.forPilot)
    .slice(0, 2)
    .map((f) => f.next.title);
  return (
    <>
      <FlightStrip facts={strip} at="debrief" />
      <main id="main">
        <div className="column">
          <Title
            title={lessonHeadline(summary)}
            line={[
              ...(past.size > 0 ? [`${plural(past.size, 'record')} flown past a stop.`] : []),
              shown.length > 0 ? lookFirst(shown) : `${plural(seen.length, 'item')} seen.`,
              `Judged by the standard ${standard.name}.`,
            ].join(' ')}
          >
            {runs && head.status === 'open' ? (
              <>
                {open.length === 0 ? (
                  <Link className="btn btn-primary" href={`${base}/sign`}>
                    To sign
                  </Link>
                ) : (
                  <Link className="btn btn-primary" href={`${base}/plan`}>
                    Plan the next lesson
                  </Link>
                )}
              </>
            ) : null}
          </Title>
          {lessons}
          {ask}
          {recordings.length > 0 || (runs && sortie && sortie.sharedWith === null) ? (
            <p className="mb-3">
              {recordings.map((t) => (
                <span key={t.id}>
                  <strong>Recorded:</strong> <Link href={`/traces/${t.id}`}>replay {t.name}</Link> {'\u00b7'}{' '}
                  <Link href={`/traces/${t.id}/join`}>join with what was tapped</Link>
                  {t.limits > 0 ? ` \u00b7 ${t.limits} ${t.limits === 1 ? 'limit' : 'limits'} passed` : ''}.{' '}
                </span>
              ))}
              {runs && sortie ? (
                <Link href={`/traces/new?sortie=${sortie.id}`}>
                  {recordings.length > 0 ? 'Add another recording' : 'Add a recording of this flight'}
                </Link>
              ) : null}
            </p>
          ) : null}
          <div className="grid">
            {self ? (
              <Panel title="What the pilot said, and what was recorded">
                <SelfBeside compared={compareSelf(self.said, shown)} toldBy={self.toldBy} />
              </Panel>
            ) : null}
            {stops.length > 0 ? (
              <Panel title="Flown past a stop">
                <p className="mb-2">
                  It happened, so it is kept. It is no evidence of a safety item, and it stands at the signature.
                </p>
                <StopList stops={stops} explain={runs && head.status === 'open' ? deskEventAction : null} />
              </Panel>
            ) : null}
            {record.overridden
              .filter((o) => o.lesson === summary.lesson)
              .map((o) => (
                <p key={o.at} className="mb-0">
                  <strong>The school’s wind limit was set aside for this flight:</strong> {o.reason}.
                </p>
              ))}
            {best ? (
              <Panel title="Best and worst">
                <div className="two-landings">
                  <OneLanding
                    l={best}
                    what={worst ? 'Best' : 'The only one judged'}
                    href={
                      replay && worst
                        ? `/traces/${replay.id}?landing=${best.number}&beside=${worst.number}`
                        : replay
                          ? `/traces/${replay.id}?landing=${best.number}`
                          : null
                    }
                  />
                  {worst ? (
                    <OneLanding
                      l={worst}
                      what="Worst"
                      href={replay ? `/traces/${replay.id}?landing=${worst.number}&beside=${best.number}` : null}
                    />
                  ) : (
                    <div className="worst">
                      <p className="mb-0">Only one landing was judged.</p>
                    </div>
                  )}
                </div>
              </Panel>
            ) : null}
            {touched.length > 0 ? (
              <Panel title="Where the wheels met the runway">
                <TouchdownMap
                  trackM={head.sheet.gear.trackM.value}
                  touchdownM={touchdownPoint(head.sheet)}
                  widthM={runway?.widthM ?? 18}
                  box={standard.boxM}
                  limitM={standard.criteria.find((c) => c.id === 'lateral')?.measured?.high ?? null}
                  points={map.points}
                  notSeen={map.notSeen}
                />
              </Panel>
            ) : null}
            <div className="grid g-2-1">
              <Panel title="What was found, over all lessons" id="findings">
                <FindingList
                  checkoutId={head.id}
                  lesson={summary.lesson}
                  findings={told.map((f) => ({
                    ...f,
                    decided: f.decided && {
                      decision: f.decided.decision,
                      reason: f.decided.reason,
                      by: f.decided.by,
                      at: f.decided.at,
                    },
                  }))}
                  links={links}
                  decide={runs && head.status === 'open' ? decideFindingAction : null}
                />
              </Panel>
              <div className="grid" style={{ alignContent: 'start' }}>
                <Panel title="Whose landing it was">
                  <LessonBars summaries={summaries} />
                </Panel>
                <Panel title="Since the lessons before">
                  {changed.length === 0 ? (
                    <p className="mb-0">
                      {summaries[0]?.lesson === summary.lesson
                        ? 'The first lesson: nothing to set beside it.'
                        : 'Nothing moved by more than a fifth.'}
                    </p>
                  ) : (
                    <ul className="changed">
                      {changed.slice(0, 6).map((c) => (
                        <li key={c.what}>
                          <span className={c.direction === 'better' ? 'v-within' : 'v-outside'}>{c.direction}</span>
                          <span>
                            {c.what}
                            <br />
                            <span className="mono small">
                              {c.now} <span className="soft">was {c.before}</span>
                            </span>
                          </span>
                        </li>
                      ))}
                    </ul>
                  )}
                </Panel>
                <Panel title="Towards the signature">
                  {recent.window === 0 ? (
                    <p className="mb-0">No judged landing yet.</p>
                  ) : (
                    <>
                      <p className="mb-1">
                        <strong>
                          {recent.own} of the last {recent.window} the pilot{'\u2019'}s own
                        </strong>
                        , {recent.onTarget} of them in standard throughout
                        {recent.notJudged > 0 ? `; ${recent.notJudged} not judged beside them` : ''}.
                      </p>
                      <p className="soft mb-2" style={{ fontSize: 14 }}>
                        Lower bound of that share {fixed((recent.stats.wilsonLower90 ?? 0) * 100)} in 100 (Wilson,
                        one-sided 90 %): a summary of what was flown, not a chance of what comes.
                      </p>
                    </>
                  )}
                  <p className="mb-0">
                    {open.length === 0 ? (
                      'Every item has its evidence.'
                    ) : (
                      <>
                        Open: {open.map((i) => i.item.id).join(', ')}.{' '}
                        <Link href={`${base}/sign`}>What is missing</Link>
                      </>
                    )}
                  </p>
                </Panel>
              </div>
            </div>
            {shown.length > 0 ? (
              <Panel title="Landing by landing">
                <LandingTable
                  key={summary.lesson}
                  first={worst?.number ?? null}
                  overrule={runs && head.status === 'open' ? overruleAction : null}
                  rows={shown.map((l) => ({
                    id: l.id,
                    sortieId: l.sortieId,
                    number: l.number,
                    kind: l.kind,
                    intended: l.intended,
                    crosswindKt: l.crosswindKt,
                    windAgeMin: windAge(record.landings, l.id),
                    intervention: l.captured.intervention,
                    memoryS: memory(record.landings, l),
                    judged: l.judged,
                    stopped: past.has(l.id),
                    replay: replay ? `/traces/${replay.id}?landing=${l.number}` : null,
                    noted: [
                      ...landingNoted(l.captured, gates, unit),
                      ...(l.measured
                        ? [
                            `measured from the recording: ${Object.keys(l.measured.values)
                              .map((k) =>
                                k === 'peakG'
                                  ? `greatest load ${withUnit(l.measured?.values.peakG ?? 0, 'g', 1)}`
                                  : say(k),
                              )
                              .join(', ')}`,
                          ]
                        : []),
                    ],
                  }))}
                  criteria={standard.criteria.map((c) => ({ id: c.id, group: c.group }))}
                />
              </Panel>
            ) : null}
            {changes.length > 0 ? (
              <Panel title="Corrected and undone" id="changes">
                <ChangeList changes={changes} />
              </Panel>
            ) : null}
            {seen.length + powers.length + trials.length > 0 ? (
              <Panel title="Ground and airwork" id="airwork">
                {seen.length > 0 ? (
                  <AirworkTable
                    overrule={runs && head.status === 'open' ? overruleAction : null}
                    rows={seen.map((o) => ({
                      id: o.id,
                      sortieId: sortie?.id ?? '',
                      code: titles.has(o.data.itemId) ? o.data.itemId : null,
                      name: titles.get(o.data.itemId) ?? itemName(o.data.itemId, o.data.detail),
                      verdict: o.data.verdict,
                      was: o.overruled ? { verdict: o.overruled.computed, reason: o.overruled.reason } : null,
                      whose: INTERVENTIONS[o.data.intervention]?.word ?? '',
                      noted: detailNoted(o.data.detail, unit),
                      note: o.data.note,
                      reasons: o.data.detail
                        ? detailReasons(judgeDetail(o.data.detail, standard, ktPerUnit(unit)))
                        : [],
                      notJudged: (o.unseen?.length ?? 0) > 0 && !o.overruled && o.data.verdict !== 'outside',
                    }))}
                  />
                ) : null}
                {powers.length > 0 ? (
                  <p className="mb-0 mt-2">
                    <strong>Power found:</strong>{' '}
                    {powers
                      .map(
                        (p) => `${p.data.phase}, ${p.data.setting}: ${withUnit(p.data.speed, unit)} ${p.data.vertical}`,
                      )
                      .join('; ')}
                    . <Link href={`/hangar/${head.typeCode}`}>Where the chief decides</Link>
                  </p>
                ) : null}
                {trials.length > 0 ? (
                  <p className="mb-0 mt-2">
                    <strong>Make-believe ground, trial results:</strong>{' '}
                    {trials
                      .map(
                        (t) =>
                          `flap ${t.data.flapDeg}\u00b0, ${t.data.power}, ${withUnit(t.data.speed, unit)}: ${t.data.arrested === 'none' ? 'not arrested' : `${say(t.data.arrested)} arrested`}${t.data.elevatorAtStop ? ', elevator at the stop' : ''}`,
                      )
                      .join('; ')}
                    .
                  </p>
                ) : null}
              </Panel>
            ) : null}
            {logbook ? (
              <Panel title={`Logbook lines, lesson ${logbook.lesson}`} id="logbook">
                <LogbookLinesPanel
                  lines={[
                    { of: head.pilotName, text: logbook.pilot },
                    ...(may.seeEverybody(user) ? [{ of: 'Instructor', text: logbook.instructor }] : []),
                  ]}
                  open={logbook.open}
                />
              </Panel>
            ) : null}
            {sortie ? (
              <Panel title="Think of, next time" id="focus">
                <Focus
                  key={`${sortie.id}-${held?.version ?? 0}`}
                  sortieId={sortie.id}
                  held={held}
                  suggested={suggested}
                  save={runs && head.status === 'open' ? saveDebriefAction : null}
                  acknowledge={pilotHere ? acknowledgeDebriefAction : null}
                />
              </Panel>
            ) : null}
            <Outranked
              extra={'An exercise is a proposal: whether it is flown, and how, is the instructor\u2019s to say.'}
            />
          </div>
        </div>
      </main>
    </>
  );
}

/** One landing in short: why it has its class, what was outside or on the edge, and where to look at it. */
function OneLanding({
  l,
  what,
  href,
}: {
  l: DebriefLanding;
  what: 'Best' | 'Worst' | 'The only one judged';
  href: string | null;
}) {
  const told = [...l.judged.criteria]
    .filter((c) => c.verdict === 'outside' || c.verdict === 'edge')
    .sort((a, b) => Number(b.verdict === 'outside') - Number(a.verdict === 'outside'))
    .slice(0, 4);
  const whose =
    l.captured.intervention === null ? 'whose is not recorded' : (INTERVENTIONS[l.captured.intervention]?.word ?? '');
  return (
    <div className={what === 'Worst' ? 'worst' : ''}>
      <h3>
        {what}: landing {l.number}, {say(l.intended ?? 'not-seen')}, {whose}
      </h3>
      <p className="mb-0">{landingWords(l.judged.reason)}</p>
      {told.length > 0 ? (
        <ul className="small">
          {told.map((c) => (
            <li key={c.id}>
              <strong>
                {say(c.id)}, {say(c.verdict)}:
              </strong>{' '}
              {criterionWords(c.reasons)}
            </li>
          ))}
        </ul>
      ) : what !== 'Worst' ? (
        <p className="soft small mb-0">Nothing on the edge of what was seen.</p>
      ) : null}
      <p className="small mb-0 mt-1">
        <a href={`#landing-${l.number}`}>Every criterion</a>
        {href ? (
          <>
            {' '}
            {'\u00b7'} <Link href={href}>Replay the two beside each other</Link>
          </>
        ) : null}
      </p>
    </div>
  );
}

const windAge = (rows: readonly { id: string; windAgeMin: number | null }[], id: string): number | null =>
  rows.find((r) => r.id === id)?.windAgeMin ?? null;
const memory = (rows: readonly { id: string; savedAt: string }[], l: DebriefLanding): number | null => {
  const saved = rows.find((r) => r.id === l.id)?.savedAt;
  return l.captured.endedAt && saved ? Math.max(0, (Date.parse(saved) - Date.parse(l.captured.endedAt)) / 1000) : null;
};
const itemName = (id: string, d: AirworkDetail | null): string =>
  d && (d.form === 'steps' || d.form === 'exchange') ? d.list : (FORM_NAME[id.split(':')[1] as CaptureForm] ?? id);
