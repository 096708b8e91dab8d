'use client';
import { useCallback, useMemo, useState } from 'react';
import {
  type DebriefLanding,
  type Forecast,
  type MeasureKey,
  SHOWN_MEASURES,
  type StageMedian,
  bias,
  biasWords,
  asFlown,
  byLesson,
  countFlown,
  flownWords,
  counted,
  gateStrips,
  measureOf,
  measureTrend,
  ownHands,
  recentShare,
  shareWords,
  signed,
  stageOfLesson,
  stageRows,
  tableRows,
  trendWords,
} from '@/core/assess';
import { fixed } from '@/core/format';
import { say } from '@/domain/words';
import { forecastWorker } from '@/workers';
import { useWorker } from '../lab/use-worker';
import { Drawing } from '../shared/drawing';
import { Panel } from '../shared/parts';
import { touchdownPoints } from './points';
import { RowTable } from './table';
import { TouchdownMap } from './touchdown-map';

export interface ProgressLanding extends DebriefLanding {
  /** Which checkout and aeroplane it belongs to. */
  checkoutId: string;
  typeName: string;
}
interface Props {
  checkoutId: string;
  landings: readonly ProgressLanding[];
  here: string;
  types: readonly string[];
  touchdownM: number;
  trackM: number;
  widthM: number;
  box: { before: number; past: number };
  criteria: readonly { id: string; unit: string; measured: { low: number; high: number } | null }[];
  run: {
    needed: number;
    current: number;
    what: string;
    attitude: string | null;
    accuracy: boolean;
    missing: string;
  } | null;
  medians: readonly StageMedian[];
  fileName: string;
}
const WINDS = [
  { key: 'any', name: 'any wind' },
  { key: 'light', name: 'under 5 kt across' },
  { key: 'some', name: '5 kt and more across' },
  { key: 'gusts', name: 'with gusts' },
] as const;
/**
 * The whole record of a checkout: where, how fast, which way it goes, whose it was, how far it is to the bar. Every
 * drawing, table and file takes the rows chosen here.
 */
export function Progress(p: Props) {
  const [lesson, setLesson] = useState('all');
  const [type, setType] = useState(p.here);
  const [wind, setWind] = useState<(typeof WINDS)[number]['key']>('any');
  const [attitude, setAttitude] = useState('all');
  const [measure, setMeasure] = useState<MeasureKey>('fence');
  const chosen = useMemo(
    () =>
      p.landings.filter(
        (l) =>
          (type === 'every type' ||
            (type === p.here ? l.checkoutId === p.checkoutId : l.typeName === type && l.checkoutId !== p.checkoutId)) &&
          (lesson === 'all' || String(l.lesson) === lesson) &&
          (attitude === 'all' || l.intended === attitude) &&
          (wind === 'any' ||
            (wind === 'gusts'
              ? (l.captured.wind?.gustKt ?? null) !== null
              : l.crosswindKt !== null &&
                (wind === 'light' ? Math.abs(l.crosswindKt) < 5 : Math.abs(l.crosswindKt) >= 5))),
      ),
    [p.landings, p.here, p.checkoutId, lesson, type, wind, attitude],
  );
  const c = useMemo(() => ({ trackM: p.trackM, boxM: p.box }), [p.trackM, p.box]);
  const rows = useMemo(() => tableRows(chosen, c), [chosen, c]);
  const map = useMemo(() => touchdownPoints(chosen, c, true), [chosen, c]);
  const own = useMemo(() => chosen.filter(ownHands), [chosen]);
  const biases = SHOWN_MEASURES.map((m) => ({
    m,
    b: bias(
      own.map((l) => measureOf(l, m.key)?.value ?? null),
      m.practical,
    ),
    standard: p.criteria.find((x) => x.id === m.criterion)?.measured ?? null,
  })).filter((x) => x.b.n > 0);
  const strips = useMemo(() => gateStrips(own), [own]);
  const speedBand = p.criteria.find((x) => x.id === 'speed')?.measured ?? null;
  const drawStrips = useCallback(
    async (el: HTMLElement) => (await import('./charts')).drawStrips(el, strips, speedBand),
    [strips, speedBand],
  );
  const spec = SHOWN_MEASURES.find((m) => m.key === measure) ?? SHOWN_MEASURES[0];
  const trend = useMemo(
    () => measureTrend(own, spec, p.criteria.find((x) => x.id === spec.criterion)?.measured ?? null),
    [own, spec, p.criteria],
  );
  const drawTrend = useCallback(async (el: HTMLElement) => (await import('./charts')).drawTrend(el, trend), [trend]);
  const trendSaid = trendWords(trend);
  const lessons = useMemo(() => byLesson(chosen), [chosen]);
  const stageSeen = useMemo(
    () => stageOfLesson(p.landings.filter((l) => l.checkoutId === p.checkoutId)),
    [p.landings, p.checkoutId],
  );
  const lessonMedians = useMemo(
    () =>
      type === p.here && lesson === 'all'
        ? lessons.flatMap((l) => {
            const m = p.medians.find((x) => x.stage === stageSeen.get(l.lesson));
            return m?.part == null ? [] : [{ lesson: l.lesson, part: m.part }];
          })
        : [],
    [lessons, p.medians, p.here, type, lesson, stageSeen],
  );
  const drawAuthorship = useCallback(
    async (el: HTMLElement) => (await import('./charts')).drawAuthorship(el, lessons, lessonMedians),
    [lessons, lessonMedians],
  );
  const recent = recentShare(chosen);
  const judged = useMemo(
    () => counted(p.landings.filter((l) => l.checkoutId === p.checkoutId)),
    [p.landings, p.checkoutId],
  );
  const outcomes = useMemo(
    () =>
      judged
        .filter((l) => !p.run?.attitude || l.intended === p.run.attitude)
        .map(
          (l) =>
            l.judged.landingClass === 'own' ||
            (l.judged.landingClass === 'own-off-target' && p.run?.accuracy === false),
        ),
    [judged, p.run],
  );
  const perLesson = useMemo(() => {
    const n = byLesson(p.run?.attitude ? judged.filter((l) => l.intended === p.run?.attitude) : judged)
      .map((l) => l.landings)
      .sort((a, b) => a - b);
    return n.length === 0 ? null : (n[Math.floor(n.length / 2)] ?? null);
  }, [judged, p.run]);
  const future = useWorker<Forecast>(
    p.run && p.run.current < p.run.needed
      ? JSON.stringify([outcomes.map(Number).join(''), p.run.needed, p.run.current])
      : null,
    async () =>
      forecastWorker().forecast({
        own: outcomes,
        needed: p.run?.needed ?? 5,
        currentRun: p.run?.current ?? 0,
        perLesson,
        seed: 20261124,
      }),
  );
  const lessonNumbers = [
    ...new Set(
      p.landings
        .filter((l) => type === 'every type' || (type === p.here ? l.checkoutId === p.checkoutId : l.typeName === type))
        .map((l) => l.lesson),
    ),
  ].sort((a, b) => a - b);
  const attitudes = [...new Set(p.landings.flatMap((l) => l.intended ?? []))];
  const choose = (
    id: string,
    label: string,
    value: string,
    set: (v: string) => void,
    options: readonly { key: string; name: string }[],
  ) => (
    <div>
      <label className="form-label" htmlFor={id}>
        {label}
      </label>
      <select id={id} className="form-select form-select-sm" value={value} onChange={(e) => set(e.target.value)}>
        {options.map((o) => (
          <option key={o.key} value={o.key}>
            {o.name}
          </option>
        ))}
      </select>
    </div>
  );
  return (
    <>
      <div className="panel mb-3">
        <div className="filters" role="group" aria-label="Which landings">
          {choose('f-lesson', 'Lesson', lesson, setLesson, [
            { key: 'all', name: 'all' },
            ...lessonNumbers.map((n) => ({ key: String(n), name: String(n) })),
          ])}
          {choose(
            'f-type',
            'Aeroplane',
            type,
            (v) => {
              setType(v);
              setLesson('all');
            },
            [
              { key: p.here, name: `${p.here}, this checkout` },
              ...p.types.map((t) => ({ key: t, name: `${t}, before` })),
              ...(p.types.length > 0 ? [{ key: 'every type', name: 'every type' }] : []),
            ],
          )}
          {choose('f-wind', 'Wind', wind, (v) => setWind(v as typeof wind), WINDS)}
          {choose('f-attitude', 'Meant', attitude, setAttitude, [
            { key: 'all', name: 'any attitude' },
            ...attitudes.map((a) => ({ key: a, name: say(a) })),
          ])}
          <p className="mb-1 small" role="status">
            {chosen.length} of {p.landings.length} chosen
            {chosen.length > 0 ? `: ${flownWords(countFlown(chosen.map(asFlown)))}` : ''}
          </p>
        </div>
      </div>
      <div className="grid">
        <Panel title="Where the wheels met the runway">
          <TouchdownMap
            points={map.points}
            notSeen={map.notSeen}
            touchdownM={p.touchdownM}
            trackM={p.trackM}
            widthM={p.widthM}
            box={p.box}
            limitM={p.criteria.find((x) => x.id === 'lateral')?.measured?.high ?? null}
            height={270}
          />
        </Panel>
        <div className="grid g-1-1">
          <Panel title="Speed, gate by gate">
            {strips.length === 0 ? (
              <p className="mb-0">No speed was read or recorded at a gate.</p>
            ) : (
              <>
                <p className="mb-1">
                  {strips
                    .map(
                      (s) =>
                        `${s.gate.toLowerCase()} ${s.mean === null ? 'not known' : `${signed(s.mean)} kt of ${s.values.length}`}`,
                    )
                    .join('; ')}
                  .
                </p>
                <Drawing
                  draw={drawStrips}
                  label={`Speeds about their targets: ${strips.map((s) => `${s.gate} mean ${s.mean === null ? 'not known' : `${signed(s.mean)} knots`}, ${s.values.length} seen`).join('; ')}`}
                  height={60 + strips.length * 46}
                />
                <p className="soft small mb-0">
                  Dots are approaches, filled measured, open read by eye; the bar is the mean with its 95 in 100
                  interval; the wash is the standard{'\u2019'}s band.
                </p>
              </>
            )}
          </Panel>
          <Panel title="Which way it goes">
            <div className="filters mb-1">
              {choose(
                'f-measure',
                'Measure',
                measure,
                (v) => setMeasure(v as MeasureKey),
                SHOWN_MEASURES.map((m) => ({ key: m.key, name: m.name })),
              )}
            </div>
            {trend.points.length < 3 ? (
              <p className="mb-0">Fewer than three of these landings have it measured.</p>
            ) : (
              <>
                <p className="mb-1">{trendSaid}</p>
                <Drawing draw={drawTrend} label={trendSaid} height={236} />
                <p className="soft small mb-0">
                  Long dashes: Theil-Sen trend. Line: smoothed mean (EWMA, 0.3) between its control limits about{' '}
                  {spec.key === 'sink' ? 'its mean' : spec.key === 'along' ? 'the middle of the box' : spec.zero}; brick
                  dots lie where it left them.
                </p>
              </>
            )}
          </Panel>
        </div>
        <div className="grid g-1-1">
          <Panel title="Whose landings they were">
            <Drawing
              draw={drawAuthorship}
              label={`The pilot\u2019s part by lesson: ${lessons.map((l) => `lesson ${l.lesson} ${l.authorship === null ? 'not recorded' : fixed(l.authorship, 2)}`).join(', ')}`}
              height={190}
            />
            <p className="soft small mb-1">
              The pilot{'\u2019'}s part of a landing: 1 nothing said, 0.75 a word, 0.25 hands or feet, 0 taken over; the
              mean of a lesson.
              {lessonMedians.length > 0 ? ' Ochre: the school\u2019s median at the same stage on this type.' : ''}
            </p>
            <details className="small">
              <summary>As a table</summary>
              <table className="plain">
                <thead>
                  <tr>
                    <th>Lesson</th>
                    <th className="r">part</th>
                    <th className="r">own</th>
                    <th className="r">own and in standard</th>
                    <th className="r">judged</th>
                  </tr>
                </thead>
                <tbody>
                  {lessons.map((l) => (
                    <tr key={l.lesson}>
                      <td>{l.lesson}</td>
                      <td className="r mono">{l.authorship === null ? '' : fixed(l.authorship, 2)}</td>
                      <td className="r mono">{l.own}</td>
                      <td className="r mono">{l.inStandard}</td>
                      <td className="r mono">{l.landings}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </details>
          </Panel>
          <Panel title="How steady, and how far to go">
            <dl className="progress-stats mb-2" style={{ gridTemplateColumns: '1fr 1fr' }}>
              <div>
                <dt>own, of the last {recent.window}</dt>
                <dd className="mono">{shareWords(recent.own, recent.window)}</dd>
              </div>
              <div>
                <dt>own and in standard</dt>
                <dd className="mono">{shareWords(recent.onTarget, recent.window)}</dd>
              </div>
              <div>
                <dt>lower bound of own (Wilson, one-sided 90 %)</dt>
                <dd className="mono">
                  {recent.stats.wilsonLower90 === null ? '\u2013' : `${fixed(100 * recent.stats.wilsonLower90)} in 100`}
                </dd>
              </div>
              <div>
                <dt>posterior of own, 80 in 100 range</dt>
                <dd className="mono">
                  {recent.window === 0
                    ? '\u2013'
                    : `${fixed(100 * recent.stats.posteriorQ10)} to ${fixed(100 * recent.stats.posteriorQ90)} in 100`}
                </dd>
              </div>
            </dl>
            {p.run ? (
              <p className="mb-1">
                <strong>{p.run.what}:</strong> {p.run.current} in a row of {p.run.needed} asked.
              </p>
            ) : null}
            <p className="mb-1" role="status" data-forecast>
              {!p.run ? (
                'No item of this checkout asks for a run of landings, so there is no bar to forecast.'
              ) : p.run.current >= p.run.needed ? (
                `The run is there; still asked: ${p.run.missing}.`
              ) : future.failed ? (
                'The forecast could not be computed on this device.'
              ) : future.value === null ? (
                'Computing the forecast \u2026'
              ) : future.value.tells ? (
                <>
                  At this rate about <strong>{future.value.landings.median} more landings</strong> (
                  {future.value.landings.low} to {future.value.landings.high})
                  {future.value.lessons ? (
                    <>
                      ,{' '}
                      {future.value.lessons.low === future.value.lessons.high
                        ? `${future.value.lessons.median}`
                        : `${future.value.lessons.low} to ${future.value.lessons.high}`}{' '}
                      {future.value.lessons.high === 1 ? 'lesson' : 'lessons'}
                    </>
                  ) : null}
                  .
                </>
              ) : (
                <>{future.value.why.charAt(0).toUpperCase() + future.value.why.slice(1)}.</>
              )}
            </p>
            <p className="soft small mb-0">
              A learning curve over {outcomes.length} judged landings, 2000 trials, median and 80 in 100 range. It
              counts what was flown; it never signs.
            </p>
          </Panel>
        </div>
        <Panel title="Bias, measure by measure">
          {biases.length === 0 ? (
            <p className="mb-0">
              Nothing of these landings was measured. What the eye saw is counted in the findings, never made into
              metres.
            </p>
          ) : (
            <div className="scroll-x">
              <table className="plain">
                <thead>
                  <tr>
                    <th>Measure</th>
                    <th className="r">mean</th>
                    <th className="r">95 in 100 interval</th>
                    <th className="r">spread (sd)</th>
                    <th className="r">landings</th>
                    <th>Standard</th>
                    <th>Says</th>
                  </tr>
                </thead>
                <tbody>
                  {biases.map(({ m, b, standard }) => (
                    <tr key={m.key}>
                      <td>
                        {m.name}{' '}
                        <span className="soft small">
                          ({m.unit}, about {m.zero})
                        </span>
                      </td>
                      <td className="r mono">{signed(b.mean ?? 0)}</td>
                      <td className="r mono">
                        {b.lower === null || b.upper === null ? '\u2013' : `${signed(b.lower)} to ${signed(b.upper)}`}
                      </td>
                      <td className="r mono">{b.sd === null ? '\u2013' : fixed(b.sd, 1)}</td>
                      <td className="r mono">{b.n}</td>
                      <td className="mono">{standard ? `${signed(standard.low)} to ${signed(standard.high)}` : ''}</td>
                      <td>{biasWords(b, m, standard)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
        </Panel>
        <Panel title="Beside the school and before">
          <div className="scroll-x">
            <table className="plain">
              <thead>
                <tr>
                  <th>Stage</th>
                  <th className="r">own, this pilot</th>
                  <th className="r">own, school</th>
                  <th className="r">own and in standard, this pilot</th>
                  <th className="r">own and in standard, school</th>
                  <th>From</th>
                </tr>
              </thead>
              <tbody>
                {stageRows(judged, p.medians).map((s) => (
                  <tr key={s.stage}>
                    <td>{s.name}</td>
                    <td className="r mono">{shareWords(s.own, s.n)}</td>
                    <td className="r mono">{s.median ? `${fixed(100 * s.median.own)} in 100` : ''}</td>
                    <td className="r mono">{shareWords(s.inStandard, s.n)}</td>
                    <td className="r mono">{s.median ? `${fixed(100 * s.median.inStandard)} in 100` : ''}</td>
                    <td className="soft small">
                      {s.median
                        ? `median of ${s.median.pilots} pilots on this type`
                        : 'fewer than five pilots: not shown'}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <p className="soft small mb-0">
            Medians are of pilots, one voice each, at the same landing of a checkout on the same type; no name goes with
            them.
          </p>
        </Panel>
        <Panel title="Landing by landing">
          <RowTable rows={rows} fileName={p.fileName} />
        </Panel>
      </div>
    </>
  );
}
