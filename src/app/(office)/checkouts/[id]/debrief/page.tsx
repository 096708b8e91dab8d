import type { Metadata } from 'next';
import Link from 'next/link';
import { detailNoted, landingNoted, lessonHeadline, lessonSummaries, lookFirst, recentShare, sideCounts } from '@/core/assess';
import { fixed, withUnit } from '@/core/format';
import { eyeWord } from '@/core/trace';
import { type CaptureForm, FORM_NAME } from '@/domain/airwork';
import type { AirworkDetail } from '@/domain/capture';
import { type AlongBand, INTERVENTIONS, type LateralBand, say } from '@/domain/words';
import { Verdict } from '@/ui/shared/verdict';
import { Empty, Panel, Title } from '@/ui/shared/parts';
import { FlightStrip } from '@/ui/shared/strip';
import { traceList } from '@/server/queries/traces';
import { LandingTable } from '@/ui/debrief/landing-table';
import { LessonBars } from '@/ui/debrief/lesson-bars';
import { TouchdownMap, type TouchdownPoint } from '@/ui/debrief/touchdown-map';
import { checkoutPage } from '../../../../checkout-page';

export const metadata: Metadata = { title: 'Debrief' };

export default async function DebriefPage({ params, searchParams }: { params: Promise<{ id: string }>; searchParams: Promise<{ lesson?: string }> }) {
  const { user, record, strip, runs } = await checkoutPage(params);
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
  const sortie = record.sorties.find((x) => x.lesson === summary.lesson);
  const gates = sortie?.brief?.snapshot.gates ?? [];
  const { unit } = head.sheet.dial;
  const seen = record.evidence.observations.filter((o) => o.lesson === summary.lesson);
  const powers = record.powers.filter((p) => p.sortieId === sortie?.id);
  const trials = record.trials.filter((t) => t.sortieId === sortie?.id);
  const titles = new Map(record.programmes.flatMap((p) => p.items).map((i) => [i.id, i.title]));
  const recent = recentShare(landings);
  const sides = sideCounts(landings);
  const open = record.items.filter((i) => !i.met);
  const points = shown.flatMap((l): TouchdownPoint[] => {
    const c = { trackM: head.sheet.gear.trackM.value, boxM: standard.boxM };
    const m = l.measured?.values ?? {};
    const along = m.along === undefined ? l.captured.along : (eyeWord('along', m.along, c) as AlongBand);
    const lateral = m.lateral === undefined ? l.captured.lateral : (eyeWord('lateral', m.lateral, c) as LateralBand);
    return along && lateral ? [{ number: l.number, along, lateral, verdict: worstOf(l.judged.landingClass), word: l.judged.reason, alongM: m.along ?? null, lateralM: m.lateral ?? null }] : [];
  });
  const recordings = (await traceList(user, head.id)).filter((t) => t.sortieId === sortie?.id);
  return (
    <>
      <FlightStrip facts={strip} at="debrief" />
      <main id="main"><div className="column">
        <Title title={lessonHeadline(summary)} line={`${lookFirst(shown)} Judged by the standard ${standard.name}.`}>
          {runs && head.status === 'open' ? <Link className="btn btn-primary" href={open.length === 0 ? `${base}/sign` : `${base}/brief`}>{open.length === 0 ? 'To sign' : 'Brief the next lesson'}</Link> : null}
        </Title>
        <nav aria-label="Lessons" className="mb-3 d-flex gap-2 flex-wrap">{summaries.map((s) => <Link key={s.lesson} href={`${base}/debrief?lesson=${s.lesson}`} className={`btn btn-sm ${s.lesson === summary.lesson ? 'btn-primary' : 'btn-outline-primary'}`} aria-current={s.lesson === summary.lesson ? 'true' : undefined}>Lesson {s.lesson}</Link>)}</nav>
        {recordings.length > 0 || (runs && sortie && sortie.sharedWith === null) ? <p className="mb-3">{recordings.map((t) => <span key={t.id}><strong>Recorded:</strong> <Link href={`/traces/${t.id}`}>replay {t.name}</Link> {'\u00b7'} <Link href={`/traces/${t.id}/join`}>join with what was tapped</Link>{t.limits > 0 ? ` \u00b7 ${t.limits} ${t.limits === 1 ? 'limit' : 'limits'} passed` : ''}. </span>)}{runs && sortie ? <Link href={`/traces/new?sortie=${sortie.id}`}>{recordings.length > 0 ? 'Add another recording' : 'Add a recording of this flight'}</Link> : null}</p> : null}
        <div className="grid">
          <Panel title="Where the wheels met the runway">
            <TouchdownMap trackM={head.sheet.gear.trackM.value} aimPointM={head.sheet.landing.aimPointM.value} box={standard.boxM} points={points} notSeen={shown.filter((l) => l.kind !== 'go-around' && l.kind !== 'low-pass' && !points.some((p) => p.number === l.number)).map((l) => l.number)} />
          </Panel>
          <Panel title="Landing by landing">
            <LandingTable rows={shown.map((l) => ({ id: l.id, number: l.number, kind: l.kind, intended: l.intended, crosswindKt: l.crosswindKt, windAgeMin: l.windAgeMin, intervention: l.captured.intervention, memoryS: l.captured.endedAt ? Math.max(0, (Date.parse(l.savedAt) - Date.parse(l.captured.endedAt)) / 1000) : null, judged: l.judged, noted: [...landingNoted(l.captured, gates, unit), ...(l.measured ? [`measured from the recording: ${Object.keys(l.measured.values).map((k) => (k === 'peakG' ? `greatest load ${withUnit(l.measured?.values.peakG ?? 0, 'g', 1)}` : say(k))).join(', ')}`] : [])] }))} criteria={standard.criteria.map((c) => ({ id: c.id, group: c.group }))} />
          </Panel>
          {seen.length + powers.length + trials.length > 0 ? (
            <Panel title="Ground and airwork">
              {seen.length > 0 ? <div className="scroll-x"><table className="plain"><thead><tr><th>Item</th><th>How it went</th><th>Whose</th><th>Seen</th></tr></thead><tbody>{seen.map((o) => <tr key={o.id}><td>{titles.has(o.data.itemId) ? <><span className="mono">{o.data.itemId}</span> {titles.get(o.data.itemId)}</> : <>{itemName(o.data.itemId, o.data.detail)} <span className="soft small">beside the programme</span></>}</td><td style={{ whiteSpace: 'nowrap' }}><Verdict verdict={o.data.verdict} /></td><td>{INTERVENTIONS[o.data.intervention]?.word}</td><td>{detailNoted(o.data.detail, unit)}{o.data.note ? <div className="small">{o.data.note}</div> : null}</td></tr>)}</tbody></table></div> : null}
              {powers.length > 0 ? <p className="mb-0 mt-2"><strong>Power found:</strong> {powers.map((p) => `${p.data.phase}, ${p.data.setting}: ${withUnit(p.data.speed, unit)} ${p.data.vertical}`).join('; ')}. <Link href={`/hangar/${head.typeCode}`}>Where the chief decides</Link></p> : null}
              {trials.length > 0 ? <p className="mb-0 mt-2"><strong>Make-believe ground, trial results:</strong> {trials.map((t) => `flap ${t.data.flapDeg}\u00b0, ${t.data.power}, ${withUnit(t.data.speed, unit)}: ${t.data.arrested === 'none' ? 'not arrested' : `${say(t.data.arrested)} arrested`}${t.data.elevatorAtStop ? ', elevator at the stop' : ''}`).join('; ')}.</p> : null}
            </Panel>
          ) : null}
          <div className="grid g-3">
            <Panel title="Whose landing it was"><LessonBars summaries={summaries} /></Panel>
            <Panel title="Side of the line, all lessons">
              {sides.seen < 8 ? <p className="mb-0">{sides.left} left, {sides.line} on the line, {sides.right} right. Too few to speak of a side: {8 - sides.seen} more seen.</p> : (
                <><p className="mb-1"><strong>{sides.left} left, {sides.line} on the line, {sides.right} right</strong> of {sides.seen} seen by eye.</p><p className="soft mb-0">Counts by eye, not metres. Before it is called the pilot{'\u2019'}s, compare with your other pilots and with this aeroplane.</p></>
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

const itemName = (id: string, d: AirworkDetail | null): string => (d && (d.form === 'steps' || d.form === 'exchange') ? d.list : FORM_NAME[id.split(':')[1] as CaptureForm] ?? id);
const worstOf = (c: string): 'within' | 'edge' | 'outside' | 'not-seen' => (c === 'own' ? 'within' : c === 'outside' || c === 'assisted' ? 'outside' : c === 'not-judged' || c === 'demonstration' ? 'not-seen' : 'edge');
