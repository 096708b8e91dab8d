import { FoldingPanel } from '@/ui/shared/folding';
import { LogbookLinesPanel } from '@/ui/debrief/logbook-lines';
import { Link } from '@/ui/shared/link';
import { compareSelf, lessonHeadline, lessonSummaries, lookFirst } from '@/core/assess';
import { list, plural } from '@/core/format';
import { touchdownPoint } from '@/core/sheet';
import { may } from '@/server/floor/auth/permissions';
import { flownLessons } from '@/server/checkout/queries/stage';
import { traceList } from '@/server/traces/queries/traces';
import { assessesFirst, assessmentOpen, debriefPage, lessonShown } from '@/server/debrief/queries/page';
import { FoundBeside } from '@/ui/debrief/found-beside';
import { AirworkTable } from '@/ui/debrief/airwork-table';
import { ChangeList } from '@/ui/debrief/change-list';
import { FindingList } from '@/ui/debrief/findings';
import { Focus } from '@/ui/debrief/focus';
import { LandingTable } from '@/ui/debrief/landing-table';
import { LessonBars } from '@/ui/debrief/lesson-bars';
import { touchdownPoints } from '@/ui/debrief/points';
import { SelfAsk, SelfBeside } from '@/ui/debrief/self';
import { TouchdownMap } from '@/ui/debrief/touchdown-map';
import { Empty, Outranked, Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { FlightStrip } from '@/ui/shared/strip';
import { StopList } from '@/ui/stops/stop-list';
import { checkoutPage, titled } from '../../../../checkout-page';
import {
  acknowledgeDebriefAction,
  assessSelfAction,
  decideFindingAction,
  deskEventAction,
  overruleAction,
  saveDebriefAction,
} from '../../../../actions';
import { CUT_SHORT_WORDS } from '@/domain/words';
import { namesOf } from '@/server/checkout/queries/lists';
import { CutShortForm, HandoverForm } from '@/ui/debrief/lesson-told';
import { Handover } from '@/ui/debrief/handover';
import { RecordingLinks } from '@/ui/debrief/recording-links';
import { BestAndWorst } from '@/ui/debrief/best-and-worst';
import { SinceBefore } from '@/ui/debrief/since-before';
import { TowardsSignature } from '@/ui/debrief/towards-signature';

export const generateMetadata = titled('Debrief');

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
              {...(runs ? { href: `${base}/fly`, action: 'Go to Fly' } : {})}
            />
          </div>
        </main>
      </>
    );
  }
  const lesson = await lessonShown(record, summary.lesson);
  const { shown, sortie, self, touched } = lesson;
  const pilotHere = may.acknowledgeDebrief(user, head);
  const asks = assessmentOpen(user, record, lesson);
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
  const ask =
    asks && sortie && touched.length > 0 ? (
      <SelfAsk
        sortieId={sortie.id}
        landings={touched.length}
        numbers={touched.map((l) => l.number)}
        forPilot={pilotHere}
        save={assessSelfAction}
      />
    ) : null;
  if (ask && assessesFirst(user, record, lesson)) {
    return (
      <>
        <FlightStrip facts={strip} at="debrief" />
        <main id="main">
          <div className="column">
            <Title
              title={`Lesson ${summary.lesson}: you first`}
              line="Your own assessment comes before the record. Then both are shown side by side."
            />
            {lessons}
            {ask}
          </div>
        </main>
      </>
    );
  }
  const recordings = (await traceList(user, head.id)).filter((t) => t.sortieId === sortie?.id);
  const replay = recordings[0];
  const { stops, past, best, worst, open, held, changes, logbook, powers, trials, ...page } = await debriefPage(
    record,
    lesson,
    { runs, traceId: replay?.id ?? null },
  );
  const short = record.cutShort.get(summary.lesson) ?? null;
  const handover = record.handovers.get(summary.lesson) ?? null;
  const teachers = await namesOf(record.sorties.map((s) => s.instructorId));
  const other = sortie !== undefined && sortie.instructorId !== head.instructorId;
  const taughtBy = other ? (teachers.get(sortie.instructorId) ?? null) : null;
  const own = sortie !== undefined && sortie.sharedWith === null ? sortie : null;
  const map = touchdownPoints(shown, { trackM: head.sheet.gear.trackM.value, boxM: standard.boxM }, false);
  return (
    <>
      <FlightStrip facts={strip} at="debrief" />
      <main id="main">
        <div className="column">
          <Title
            long
            title={lessonHeadline(summary)}
            line={[
              ...(short ? [`Cut short: ${CUT_SHORT_WORDS[short]}.`] : []),
              ...(taughtBy ? [`Taught by ${taughtBy}.`] : []),
              ...(past.size > 0 ? [`${plural(past.size, 'record')} flown past a stop.`] : []),
              // Which was the best is the pilot's to say first.
              ...(shown.length === 0
                ? [`${plural(page.airwork.length, 'item')} seen.`]
                : ask
                  ? []
                  : [lookFirst(shown)]),
              `Judged by the standard ${standard.name}.`,
            ].join(' ')}
          >
            {runs && head.status === 'open' ? (
              <>
                {open.length === 0 ? (
                  <Link className="btn btn-primary" href={`${base}/sign`}>
                    Go to Sign
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
            <RecordingLinks recordings={recordings} runs={runs} sortie={sortie} />
          ) : null}
          <div className="grid">
            {self ? (
              <FoldingPanel
                name="debrief/self"
                title="Self-assessment and record"
                answer={`Assessed by ${self.toldBy}.`}
              >
                <SelfBeside compared={compareSelf(self.said, shown)} toldBy={self.toldBy} />
              </FoldingPanel>
            ) : null}
            {stops.length > 0 ? (
              <Panel title="Flown past a stop">
                <p className="mb-2">
                  It stays on record. It is no evidence for a safety item and is shown at the signature.
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
            {handover ? <Handover lesson={summary.lesson} of={handover} /> : null}
            {own && runs && head.status === 'open' ? (
              <details className="panel" open={other && handover === null}>
                <summary>How the lesson ended{other ? ', and the handover' : ''}</summary>
                <div className="grid mt-2">
                  <CutShortForm sortieId={own.id} now={short} send={deskEventAction} />
                  {other ? (
                    <HandoverForm sortieId={own.id} to={head.instructorName} now={handover} send={deskEventAction} />
                  ) : null}
                </div>
              </details>
            ) : null}
            {best ? (
              <AfterTheirWord waits={ask !== null}>
                <BestAndWorst
                  best={best}
                  replay={replay}
                  worst={worst}
                  tailwheel={head.sheet.gear.layout === 'tailwheel'}
                />
              </AfterTheirWord>
            ) : null}
            {touched.length > 0 ? (
              <FoldingPanel
                name="debrief/wheels"
                title="Where the wheels met the runway"
                answer={
                  map.notSeen.length > 0
                    ? `Place not seen: ${map.notSeen.join(', ')}.`
                    : `${plural(map.points.length, 'touchdown')} placed.`
                }
              >
                <TouchdownMap
                  trackM={head.sheet.gear.trackM.value}
                  touchdownM={touchdownPoint(head.sheet)}
                  widthM={page.runway?.widthM ?? 18}
                  box={standard.boxM}
                  limitM={standard.criteria.find((c) => c.id === 'lateral')?.measured?.high ?? null}
                  points={map.points}
                  notSeen={map.notSeen}
                />
              </FoldingPanel>
            ) : null}
            <div className="grid g-2-1">
              <FoldingPanel
                name="debrief/findings"
                title="Findings, over all lessons"
                id="findings"
                answer={page.findings.length === 0 ? 'None.' : list(page.findings.slice(0, 3).map((f) => f.title))}
              >
                <FindingList
                  checkoutId={head.id}
                  lesson={summary.lesson}
                  findings={page.findings}
                  links={page.links}
                  decide={runs && head.status === 'open' ? decideFindingAction : null}
                />
              </FoldingPanel>
              <div className="grid" style={{ alignContent: 'start' }}>
                <FoldingPanel name="debrief/who" title="Who flew it" answer={lessonHeadline(summary)}>
                  <LessonBars summaries={summaries} />
                </FoldingPanel>
                <SinceBefore changed={page.changed} summaries={summaries} summary={summary} />
                <TowardsSignature base={base} open={open} recent={page.recent} />
              </div>
            </div>
            {shown.length > 0 ? (
              <FoldingPanel
                name="debrief/landings"
                anchors="landing-"
                title="Landing by landing"
                answer={lookFirst(shown)}
              >
                <LandingTable
                  key={summary.lesson}
                  first={worst?.number ?? null}
                  overrule={runs && head.status === 'open' ? overruleAction : null}
                  rows={page.landings}
                  tailwheel={head.sheet.gear.layout === 'tailwheel'}
                  criteria={standard.criteria.map((c) => ({ id: c.id, group: c.group }))}
                />
              </FoldingPanel>
            ) : null}
            {changes.length > 0 ? (
              <FoldingPanel
                name="debrief/changes"
                title="Corrected and undone"
                id="changes"
                answer={`${plural(changes.length, 'change')}.`}
              >
                <ChangeList changes={changes} />
              </FoldingPanel>
            ) : null}
            {page.airwork.length + powers.length + trials.length > 0 ? (
              <FoldingPanel
                name="debrief/airwork"
                title="Ground and airwork"
                id="airwork"
                answer={`${plural(page.airwork.length, 'item')} seen.`}
              >
                {page.airwork.length > 0 ? (
                  <AirworkTable overrule={runs && head.status === 'open' ? overruleAction : null} rows={page.airwork} />
                ) : null}
                <FoundBeside powers={powers} trials={trials} unit={head.sheet.dial.unit} typeCode={head.typeCode} />
              </FoldingPanel>
            ) : null}
            {logbook ? (
              <FoldingPanel
                name="debrief/logbook"
                title={`Logbook lines, lesson ${logbook.lesson}`}
                id="logbook"
                answer={logbook.pilot}
              >
                <LogbookLinesPanel
                  lines={[
                    { of: head.pilotName, text: logbook.pilot },
                    ...(may.seeEverybody(user) ? [{ of: 'Instructor', text: logbook.instructor }] : []),
                  ]}
                  open={logbook.open}
                />
              </FoldingPanel>
            ) : null}
            {sortie ? (
              <FoldingPanel
                name="debrief/focus"
                title="Focus for next time"
                id="focus"
                answer={held?.focus.length ? held.focus.join('; ') : 'Not saved yet.'}
              >
                <Focus
                  key={`${sortie.id}-${held?.version ?? 0}`}
                  sortieId={sortie.id}
                  held={held}
                  suggested={page.suggested}
                  save={runs && head.status === 'open' ? saveDebriefAction : null}
                  acknowledge={pilotHere ? acknowledgeDebriefAction : null}
                />
              </FoldingPanel>
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

/** The pilot's own words come first: until they are entered the best and the worst wait behind a tap. */
function AfterTheirWord({ waits, children }: { waits: boolean; children: React.ReactNode }) {
  if (!waits) return children;
  return (
    <details className="panel">
      <summary>Best and worst landing: after the pilot has said which they were</summary>
      <div className="mt-2">{children}</div>
    </details>
  );
}
