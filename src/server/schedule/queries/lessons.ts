import { localClock } from '@/core/schedule';
import * as ask from '../../floor/statements/schedule';
import { Bookings } from '../tables';

/** The lesson flown or briefed in a booking, with its block times as tapped. */
export interface BookedLesson {
  lesson: number;
  flown: boolean;
  /** Instants; null = not tapped. */
  offBlock: string | null;
  onBlock: string | null;
}
interface Span {
  id: string;
  checkoutId: string | null;
  startsAt: string;
}
type Lesson = BookedLesson & { checkoutId: string; flownOn: string };

/**
 * Lessons by booking: of the same checkout, on the booking's own day; of several the one whose blocks are nearest, without
 * them in the order of both.
 */
export function lessonsByBooking(
  bookings: readonly Span[],
  lessons: readonly Lesson[],
  zone: string,
): Map<string, BookedLesson> {
  const found = new Map<string, BookedLesson>();
  const taken = new Set<Lesson>();
  for (const b of [...bookings].sort((x, y) => x.startsAt.localeCompare(y.startsAt))) {
    const day = localClock(b.startsAt, zone).date;
    const here = lessons.filter((l) => l.checkoutId === b.checkoutId && l.flownOn === day && !taken.has(l));
    const off = (l: Lesson) =>
      l.offBlock === null ? Infinity : Math.abs(Date.parse(l.offBlock) - Date.parse(b.startsAt));
    const [lesson] = [...here].sort((x, y) => (off(x) === off(y) ? x.lesson - y.lesson : off(x) - off(y)));
    if (!lesson) continue;
    taken.add(lesson);
    found.set(b.id, {
      lesson: lesson.lesson,
      flown: lesson.flown,
      offBlock: lesson.offBlock,
      onBlock: lesson.onBlock,
    });
  }
  return found;
}

/** The lessons of bookings in these days. */
export const lessonsOfBookings = async (
  bookings: readonly Span[],
  days: { from: string; to: string },
  zone: string,
): Promise<Map<string, BookedLesson>> =>
  lessonsByBooking(
    bookings.filter((b) => b.checkoutId !== null),
    await ask.lessonsOn.all({ ...days, checkoutId: null }),
    zone,
  );

export interface LessonBooking {
  id: string;
  startsAt: string;
  endsAt: string;
  /** The aerodrome's own date of it. */
  day: string;
}
/** The booking of each lesson of a checkout that had one, by lesson. */
export async function bookingsOfLessons(checkoutId: string, zone: string): Promise<Map<number, LessonBooking>> {
  const bookings = await Bookings.find({
    where: { checkoutId, state: 'booked' },
    pick: ['id', 'checkoutId', 'startsAt', 'endsAt'],
    order: ['startsAt'],
  });
  const lessons = await ask.lessonsOn.all({ from: '', to: '9999', checkoutId });
  const by = lessonsByBooking(bookings, lessons, zone);
  return new Map(
    bookings.flatMap((b): [number, LessonBooking][] => {
      const lesson = by.get(b.id);
      return lesson
        ? [
            [
              lesson.lesson,
              { id: b.id, startsAt: b.startsAt, endsAt: b.endsAt, day: localClock(b.startsAt, zone).date },
            ],
          ]
        : [];
    }),
  );
}
