import { list, plural } from '../format';
import { type FlownCount, countFlown, flownWords } from './counts';
import type { RecordedLanding } from './evidence';
import { bestAndWorst } from './progress';
import { type Share, share } from './stats';

export interface LessonSummary extends FlownCount {
  lesson: number;
  date: string;
  own: number;
  prompted: number;
  assisted: number;
  outside: number;
  notJudged: number;
}

/**
 * Landings of each lesson counted by class; go-arounds and low passes beside them, demonstrations apart.
 * @param others lessons with something flown and no landing, so that each has its own line
 * @returns one entry a lesson, by number
 */
export function lessonSummaries(
  landings: readonly RecordedLanding[],
  others: readonly { lesson: number; date: string }[] = [],
): LessonSummary[] {
  const lessons = new Map<number, LessonSummary>();
  for (const l of landings) {
    const s = lessons.get(l.lesson) ?? {
      lesson: l.lesson,
      date: l.date,
      own: 0,
      prompted: 0,
      assisted: 0,
      outside: 0,
      notJudged: 0,
      ...countFlown(landings.filter((x) => x.lesson === l.lesson).map(asFlown)),
    };
    lessons.set(l.lesson, s);
    switch (l.judged.landingClass) {
      case 'own':
      case 'own-off-target':
        s.own++;
        break;
      case 'prompted':
        s.prompted++;
        break;
      case 'assisted':
        s.assisted++;
        break;
      case 'outside':
        s.outside++;
        break;
      case 'not-judged':
        s.notJudged++;
        break;
      case 'go-around':
      case 'low-pass':
      case 'demonstration':
        break;
    }
  }
  for (const { lesson, date } of others)
    if (!lessons.has(lesson))
      lessons.set(lesson, {
        lesson,
        date,
        own: 0,
        prompted: 0,
        assisted: 0,
        outside: 0,
        notJudged: 0,
        ...countFlown([]),
      });
  return [...lessons.values()].sort((a, b) => a.lesson - b.lesson);
}
/**
 * A recorded landing as it is counted. A go-around that was shown is a demonstration too.
 * @returns kind, demonstration and how often
 */
export const asFlown = (l: Pick<RecordedLanding, 'kind' | 'judged'>) => ({
  kind: l.kind === 'low-pass' && l.judged.landingClass !== 'low-pass' ? 'touch-and-go' : l.kind,
  demonstration: l.judged.landingClass === 'demonstration' || l.judged.goAround?.decision === 'demonstration',
});

export interface RecentShare {
  window: number;
  own: number;
  onTarget: number;
  notJudged: number;
  stats: Share;
}

/**
 * The last `window` judged landings (demonstrations, go-arounds and low passes excluded) and how many were the pilot's
 * own.
 * @returns own landings and judged landings of the window
 */
export function recentShare(landings: readonly RecordedLanding[], window = 12): RecentShare {
  const counted = landings.filter((l) => !['go-around', 'low-pass', 'demonstration'].includes(l.judged.landingClass));
  const judged = counted.filter((l) => l.judged.landingClass !== 'not-judged').slice(-window);
  const onTarget = judged.filter((l) => l.judged.landingClass === 'own').length;
  const own = onTarget + judged.filter((l) => l.judged.landingClass === 'own-off-target').length;
  return {
    window: judged.length,
    own,
    onTarget,
    notJudged: counted.slice(-window).filter((l) => l.judged.landingClass === 'not-judged').length,
    stats: share(own, judged.length),
  };
}

/**
 * The headline of a lesson: `Lesson 4: 9 landings, 5 unassisted`.
 * @returns a sentence without its full stop
 */
export function lessonHeadline(s: LessonSummary): string {
  const others = flownWords({ ...s, fullStops: 0, touchAndGos: 0 });
  if (s.landings === 0) return `Lesson ${s.lesson}: ${others}`;
  return `Lesson ${s.lesson}: ${plural(s.landings, 'landing')}, ${s.own} unassisted${others === 'no landing' ? '' : `; ${others}`}`;
}

/**
 * Where to look first: the landings outside or assisted, by number.
 * @returns a sentence; empty when nothing stands out
 */
export function lookFirst(landings: readonly RecordedLanding[]): string {
  const worst = landings
    .filter((l) => l.judged.landingClass === 'outside' || l.judged.landingClass === 'assisted')
    .map((l) => String(l.number));
  // What was flown past a stop is never the best of a lesson.
  const past = landings.filter((l) => (l.stops?.length ?? 0) > 0);
  const { best } = bestAndWorst(landings.filter((l) => !past.includes(l)));
  const parts = [
    best?.judged.landingClass === 'own' ? `Best: landing ${best.number}.` : '',
    worst.length > 0
      ? `Look first at ${worst.length === 1 ? 'landing' : 'landings'} ${list(worst.slice(0, 4))}.`
      : past.length > 0
        ? ''
        : 'Nothing outside.',
  ];
  return parts.filter(Boolean).join(' ');
}
