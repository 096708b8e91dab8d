'use client';
import { useMemo, useState } from 'react';
import {
  SHOWN_MEASURES,
  type StageMedian,
  bias,
  byLesson,
  counted,
  measureOf,
  ownHands,
  recentShare,
  shareWords,
  tableRows,
} from '@/core/assess';
import { plural } from '@/core/format';
import { FoldingPanel } from '../shared/folding';
import { touchdownPoints } from './points';
import { RowTable } from './table';
import { type LandingFilter, type ProgressLanding, chosenLandings } from './progress-filter';
import { ProgressFilters } from './progress-filters';
import { type RunAsked, RunForecast } from './progress-forecast';
import { SpeedByGate } from './progress-speed';
import { type CriterionBand, MeasureTrend } from './progress-trend';
import { WhoseByLesson, mediansByLesson } from './progress-whose';
import { TouchdownMap } from './touchdown-map';
import { RecentStats } from './progress-recent';
import { BiasTable } from './progress-bias';
import { BesideSchool } from './progress-school';

interface Props {
  checkoutId: string;
  landings: readonly ProgressLanding[];
  here: string;
  types: readonly string[];
  touchdownM: number;
  trackM: number;
  widthM: number;
  box: { before: number; past: number };
  criteria: readonly CriterionBand[];
  run: RunAsked | null;
  medians: readonly StageMedian[];
  fileName: string;
}
/**
 * The whole record of a checkout: where, how fast, which way it goes, whose it was, how far it is to the bar. Every
 * drawing, table and file takes the rows chosen here.
 */
export function Progress(p: Props) {
  const [filter, setFilter] = useState<LandingFilter>({ lesson: 'all', type: p.here, wind: 'any', attitude: 'all' });
  const { checkoutId, here, landings } = p;
  const chosen = useMemo(
    () => chosenLandings(landings, filter, { checkoutId, here }),
    [landings, filter, checkoutId, here],
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
  const lessons = useMemo(() => byLesson(chosen), [chosen]);
  const lessonMedians = useMemo(
    () =>
      filter.type === here && filter.lesson === 'all'
        ? mediansByLesson(
            lessons,
            landings.filter((l) => l.checkoutId === checkoutId),
            p.medians,
          )
        : [],
    [filter, lessons, landings, here, checkoutId, p.medians],
  );
  const recent = recentShare(chosen);
  const judged = useMemo(
    () => counted(p.landings.filter((l) => l.checkoutId === p.checkoutId)),
    [p.landings, p.checkoutId],
  );
  return (
    <>
      <ProgressFilters
        filter={filter}
        change={setFilter}
        landings={landings}
        checkoutId={checkoutId}
        here={here}
        types={p.types}
        chosen={chosen}
      />
      <div className="grid">
        <FoldingPanel
          name="progress/wheels"
          title="Where the wheels met the runway"
          answer={`${plural(map.points.length, 'touchdown')} placed.`}
        >
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
        </FoldingPanel>
        <div className="grid g-1-1">
          <SpeedByGate own={own} band={p.criteria.find((x) => x.id === 'speed')?.measured ?? null} />
          <MeasureTrend own={own} criteria={p.criteria} />
        </div>
        <div className="grid g-1-1">
          <WhoseByLesson lessons={lessons} medians={lessonMedians} />
          <FoldingPanel
            name="progress/forecast"
            title="Consistency and forecast"
            answer={`Unassisted ${shareWords(recent.own, recent.window)} of the last ${recent.window}.`}
          >
            <RecentStats recent={recent} />
            <RunForecast judged={judged} run={p.run} />
          </FoldingPanel>
        </div>
        <BiasTable biases={biases} />
        <BesideSchool judged={judged} medians={p.medians} />
        <FoldingPanel name="progress/landings" title="Landing by landing" answer={`${plural(rows.length, 'landing')}.`}>
          <RowTable rows={rows} fileName={p.fileName} />
        </FoldingPanel>
      </div>
    </>
  );
}
