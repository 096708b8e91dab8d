'use client';
import { inPieces } from '../shared/chart-library';
import { useCallback } from 'react';
import { type DebriefLanding, type LessonPoint, type StageMedian, stageOfLesson } from '@/core/assess';
import { fixed } from '@/core/format';
import { Drawing } from '../shared/drawing';
import { FoldingPanel } from '../shared/folding';
import { LessonsTable } from './progress-lessons';

interface LessonMedian {
  lesson: number;
  part: number;
}
/** The school's median beside each lesson shown, by the stage its landings were flown at. */
export function mediansByLesson(
  lessons: readonly LessonPoint[],
  landings: readonly DebriefLanding[],
  medians: readonly StageMedian[],
): LessonMedian[] {
  const stages = stageOfLesson(landings);
  return lessons.flatMap((l) => {
    const part = medians.find((m) => m.stage === stages.get(l.lesson))?.part;
    return part == null ? [] : [{ lesson: l.lesson, part }];
  });
}

/** Who flew the landings, lesson by lesson. */
export function WhoseByLesson({
  lessons,
  medians,
}: {
  lessons: readonly LessonPoint[];
  medians: readonly LessonMedian[];
}) {
  const drawAuthorship = useCallback(
    async (el: HTMLElement) => (await inPieces(() => import('./charts'))).drawAuthorship(el, lessons, medians),
    [lessons, medians],
  );
  const spoken = lessons.map(
    (l) => `lesson ${l.lesson} ${l.authorship === null ? 'not recorded' : fixed(l.authorship, 2)}`,
  );
  return (
    <FoldingPanel name="progress/whose" title="Who flew the landings">
      <Drawing draw={drawAuthorship} label={`The pilot\u2019s part by lesson: ${spoken.join(', ')}`} height={190} />
      <p className="soft small mb-1">
        The pilot{'\u2019'}s part of a landing: 1 nothing said, 0.75 a word, 0.25 hands or feet, 0 taken over; the mean
        of a lesson.
        {medians.length > 0 ? ' Ochre: the school\u2019s median at the same stage on this type.' : ''}
      </p>
      <LessonsTable lessons={lessons} />
    </FoldingPanel>
  );
}
