import type { Metadata } from 'next';
import Link from 'next/link';
import { lessonHeadline, lessonSummaries, lookFirst, recentShare, sideCounts } from '@/core/assess';
import { fixed } from '@/core/format';
import { Empty, Panel, Title } from '@/ui/shared/parts';
import { FlightStrip } from '@/ui/shared/strip';
import { LandingTable } from '@/ui/debrief/landing-table';
import { LessonBars } from '@/ui/debrief/lesson-bars';
import { TouchdownMap } from '@/ui/debrief/touchdown-map';
import { checkoutPage } from '../../../../checkout-page';

export const metadata: Metadata = { title: 'Debrief' };

export default async function DebriefPage({ params, searchParams }: { params: Promise<{ id: string }>; searchParams: Promise<{ lesson?: string }> }) {
  const { record, strip, runs } = await checkoutPage(params);
  const { head, landings, standard } = record;
  const summaries = lessonSummaries(landings);
  const wanted = Number((await searchParams).lesson);
  const summary = summaries.find((s) => s.lesson === wanted) ?? summaries[summaries.length - 1];
  const base = `/checkouts/${head.id}`;
  if (!summary) {
    return (
      <><FlightStrip facts={strip} at="debrief" /><main id="main"><div className="column"><Title title="Debrief" /><Empty title="Nothing to debrief yet" text="Landings recorded in the cockpit stand here, each with its verdict and the reason for it." {...(runs ? { href: `${base}/fly`, action: 'To fly' } : {})} /></div></main></>
    );
  }
  const shown = landings.filter((l) => l.lesson === summary.lesson);
  const recent = recentShare(landings);
  const sides = sideCounts(landings);
  const open = record.items.filter((i) => !i.met);
  return (
    <>
      <FlightStrip facts={strip} at="debrief" />
      <main id="main"><div className="column">
        <Title title={lessonHeadline(summary)} line={`${lookFirst(shown)} Judged by the standard ${standard.name}.`}>
          {runs && head.status === 'open' ? <Link className="btn btn-primary" href={open.length === 0 ? `${base}/sign` : `${base}/brief`}>{open.length === 0 ? 'To sign' : 'Brief the next lesson'}</Link> : null}
        </Title>
        <nav aria-label="Lessons" className="mb-3 d-flex gap-2 flex-wrap">{summaries.map((s) => <Link key={s.lesson} href={`${base}/debrief?lesson=${s.lesson}`} className={`btn btn-sm ${s.lesson === summary.lesson ? 'btn-primary' : 'btn-outline-primary'}`} aria-current={s.lesson === summary.lesson ? 'true' : undefined}>Lesson {s.lesson}</Link>)}</nav>
        <div className="grid">
          <Panel title="Where the wheels met the runway">
            <TouchdownMap aimPointM={head.sheet.landing.aimPointM.value} box={standard.boxM} points={shown.flatMap((l) => (l.captured.along && l.captured.lateral ? [{ number: l.number, along: l.captured.along, lateral: l.captured.lateral, verdict: worstOf(l.judged.landingClass), word: l.judged.reason }] : []))} notSeen={shown.filter((l) => l.kind !== 'go-around' && l.kind !== 'low-pass' && !(l.captured.along && l.captured.lateral)).map((l) => l.number)} />
          </Panel>
          <Panel title="Landing by landing">
            <LandingTable rows={shown.map((l) => ({ id: l.id, number: l.number, kind: l.kind, intended: l.intended, crosswindKt: l.crosswindKt, windAgeMin: l.windAgeMin, intervention: l.captured.intervention, memoryS: l.captured.endedAt ? Math.max(0, (Date.parse(l.savedAt) - Date.parse(l.captured.endedAt)) / 1000) : null, judged: l.judged }))} criteria={standard.criteria.map((c) => ({ id: c.id, group: c.group }))} />
          </Panel>
          <div className="grid g-3">
            <Panel title="Whose landing it was"><LessonBars summaries={summaries} /></Panel>
            <Panel title="Side of the line, all lessons">
              {sides.seen < 8 ? <p className="mb-0">{sides.left} left, {sides.line} on the line, {sides.right} right. Too few to speak of a side: {8 - sides.seen} more seen.</p> : (
                <><p className="mb-1"><strong>{sides.left} left, {sides.line} on the line, {sides.right} right</strong> of {sides.seen} seen by eye.</p><p className="soft mb-0">Counts, not metres: nothing was measured. Before it is called the pilot{'\u2019'}s, compare with your other pilots and with this aeroplane.</p></>
              )}
            </Panel>
            <Panel title="Towards the signature">
              {recent.window === 0 ? <p className="mb-0">No judged landing yet.</p> : <><p className="mb-1"><strong>{recent.own} of the last {recent.window} the pilot{'\u2019'}s own</strong>, {recent.onTarget} of them in standard throughout{recent.notJudged > 0 ? `; ${recent.notJudged} not judged beside them` : ''}.</p><p className="soft mb-2" style={{ fontSize: 14 }}>Lower bound of that share {fixed((recent.stats.wilsonLower90 ?? 0) * 100)} in 100 (Wilson, one-sided 90 %): a summary of what was flown, not a chance of what comes.</p></>}
              <p className="mb-0">{open.length === 0 ? 'Every item has its evidence.' : <>Open: {open.map((i) => i.item.id).join(', ')}. <Link href={`${base}/sign`}>What is missing</Link></>}</p>
            </Panel>
          </div>
        </div>
      </div></main>
    </>
  );
}

const worstOf = (c: string): 'within' | 'edge' | 'outside' | 'not-seen' => (c === 'own' ? 'within' : c === 'outside' || c === 'assisted' ? 'outside' : c === 'not-judged' || c === 'demonstration' ? 'not-seen' : 'edge');
