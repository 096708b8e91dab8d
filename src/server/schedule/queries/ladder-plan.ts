/** A pilot's crosswind ladder over the lessons that are booked, with the wind forecast for each. */
import { gearMassGroup, ladderStepKt, schoolCrosswind } from '@/core/plan';
import { localClock } from '@/core/schedule';
import { type LadderLesson, planLadder } from '@/core/wind';
import type { CurrentUser } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import type { CheckoutHead } from '../../checkout/queries/head';
import { ladderOf } from '../../checkout/queries/ladder';
import { bookingsBetween } from './bookings';
import { flightSpan, schoolAt, schoolFacts } from './day';
import { leastLimit, windAtSlot } from './wind';

const AHEAD_DAYS = 21;
const DAY_MS = 86_400_000;
export interface PlannedLesson extends LadderLesson {
  bookingId: string;
  startsAt: string;
  zone: string;
  wind: { crosswindKt: number; runwayEnd: string; forecast: boolean } | null;
}

/** @returns the booked lessons of the next three weeks in order; empty = none is booked */
export async function ladderPlan(
  user: CurrentUser,
  head: CheckoutHead,
  instructorLimitKt: number | null,
): Promise<PlannedLesson[]> {
  const now = nowIso();
  const school = await schoolFacts();
  const ladder = await ladderOf(head.pilotId, head.sheet, localClock(now, school.zone).date);
  const booked = (
    await bookingsBetween(user, now, new Date(Date.parse(now) + AHEAD_DAYS * DAY_MS).toISOString())
  ).filter((b) => b.checkoutId === head.id && b.state === 'booked');
  const winds = await Promise.all(
    booked.map(async (b) =>
      windAtSlot(
        await schoolAt(school, b.aerodrome),
        head.sheet,
        b.split ? flightSpan(b.startsAt, b.split).from : b.startsAt,
        b.surface,
      ),
    ),
  );
  const group = gearMassGroup(head.sheet);
  const { mostKt } = leastLimit([
    [schoolCrosswind(school.house.crosswindKt, group)?.kt ?? null, 'the school'],
    [instructorLimitKt, 'the instructor'],
  ]);
  const plan = planLadder(
    ladder,
    ladderStepKt(group),
    mostKt,
    winds.map((w) => (w === null ? null : Math.ceil(w.crosswindKt - 1e-9))),
  );
  return booked.flatMap((b, i) => {
    const lesson = plan[i];
    const w = winds[i];
    return lesson
      ? [
          {
            ...lesson,
            bookingId: b.id,
            startsAt: b.startsAt,
            zone: school.zone,
            wind: w
              ? {
                  crosswindKt: Math.ceil(w.crosswindKt - 1e-9),
                  runwayEnd: w.runwayEnd,
                  forecast: w.sureness === 1,
                }
              : null,
          },
        ]
      : [];
  });
}
