import { windowsStamp } from '@/domain/schedule';
import { addDays } from '@/core/recency';
import { components } from '@/core/wind';
import { type WindFit, dayText, localClock, localInstant } from '@/core/schedule';
import { windOutlook } from '../../weather/weather';
import { sunTimes } from '@/core/sun';
import { windText } from '@/core/format';
import type { Goal } from '@/domain/words';
import { type CurrentUser, may, personKey } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { fitOf } from './readiness';
import { type AwayRow, awayRows, weeklyRows } from './holds';
import { type BookingLine, bookingsBetween } from './bookings';
import { type Wish, waiting } from './waiting';
import { airKey, schoolFacts } from './day';
import { type BookedLesson, lessonsOfBookings } from './lessons';
import { recordReader } from '../../checkout/queries/record';
import { aerodromes } from '../../rules/content';
import { localToday } from '../../rules/today';
import * as ask from '../../floor/statements/schedule';
import { Users } from '../../account/tables';
import { Airframes } from '../../hangar/tables';
import { Checkouts } from '../../checkout/tables';

export interface PlacedBooking extends BookingLine {
  date: string;
  fromMin: number;
  toMin: number;
  fit: WindFit | null;
  /** Why it must be moved: the aeroplane down, somebody away. */
  hit: string[];
  /** The lesson briefed or flown in it; null = none of it. */
  lesson: BookedLesson | null;
}
export interface ScheduleDay {
  date: string;
  name: string;
  today: boolean;
  past: boolean;
  sunriseMin: number | null;
  sunsetMin: number | null;
  wind: { fromMin: number; toMin: number; text: string; kt: number; acrossKt: number; sureness: number }[];
}
export interface ScheduleData {
  days: ScheduleDay[];
  bookings: PlacedBooking[];
  today: string;
  zone: string;
  nowMin: number;
  openFromMin: number;
  openToMin: number;
  stepMin: number;
  away: (AwayRow & { name: string })[];
  people: {
    key: string;
    userId: string | null;
    pilotId: string | null;
    name: string;
    instructor: boolean;
    windows: { weekday: number; fromMin: number; toMin: number }[];
    /** What the weekly times are, for who changes them. */
    stamp: string;
  }[];
  airframes: { id: string; registration: string; typeName: string; down: string | null }[];
  checkouts: {
    id: string;
    pilotId: string;
    pilotName: string;
    instructorId: string;
    airframeId: string;
    registration: string;
    goals: Goal[];
  }[];
  /** Aerodromes of the school, home first. */
  places: { ident: string; name: string }[];
  wishes: Wish[];
  main: string;
  source: string;
}
const HOURS = [8, 10, 12, 14, 16, 18];

/** Everything the schedule shows of some days, for this user. */
export async function schedulePage(user: CurrentUser, fromDate: string, days: number): Promise<ScheduleData> {
  const school = await schoolFacts();
  const { zone, aerodrome, house } = school;
  const now = nowIso();
  const today = await localToday();
  const [from, to] = [localInstant(fromDate, 0, zone), localInstant(addDays(fromDate, days), 0, zone)];
  const staff = may.seeEverybody(user);
  const [lines, away, weekly, users, pilots, frames, checkouts, wishes] = await Promise.all([
    bookingsBetween(user, from, to),
    awayRows(),
    weeklyRows(),
    Users.find({ where: { closedAt: null }, pick: ['id', 'name', 'roles', 'pilotId'], order: ['name'] }),
    ask.schedulePage.all(),
    Airframes.find({ pick: ['id', 'registration'], with: { type: ['name'] }, order: ['registration'] }),
    Checkouts.find({
      where: { status: 'open', ...(staff ? {} : { pilotId: user.pilotId ?? '' }) },
      pick: ['id', 'pilotId', 'instructorId', 'airframeId', 'goals'],
      with: { pilot: ['name'], airframe: ['registration'] },
      order: ['pilot.name'],
      limit: 500,
    }),
    waiting(user),
  ]);
  const stampOf = (key: string) => windowsStamp(weekly.filter((w) => w.person === key));
  const windowsOf = (key: string) =>
    weekly
      .filter(
        (w) =>
          w.person === key &&
          w.validFrom <= addDays(fromDate, days) &&
          (w.validUntil === null || w.validUntil >= fromDate),
      )
      .map((w) => ({ weekday: w.weekday, fromMin: w.fromMin, toMin: w.toMin }));
  const instructors = users.filter((u) => u.roles.includes('instructor'));
  const known = new Set(instructors.flatMap((u) => (u.pilotId === null ? [] : [u.pilotId])));
  const people = [
    ...instructors.map((u) => {
      const key = personKey({ id: u.id, pilotId: u.pilotId });
      return {
        key,
        userId: u.id,
        pilotId: u.pilotId,
        name: u.name,
        instructor: true,
        windows: windowsOf(key),
        stamp: stampOf(key),
      };
    }),
    ...pilots
      .filter((p) => !known.has(p.id) && (staff || p.id === user.pilotId))
      .map((p) => ({
        key: `p:${p.id}`,
        userId: null,
        pilotId: p.id,
        name: p.name,
        instructor: false,
        windows: windowsOf(`p:${p.id}`),
        stamp: stampOf(`p:${p.id}`),
      })),
  ];
  const nameOf = (who: string) =>
    people.find((p) => p.key === who)?.name ?? frames.find((f) => airKey(f.id) === who)?.registration ?? '';
  const shownAway = away
    .filter((a) => a.from < to && (a.to === null || a.to > from) && nameOf(a.who) !== '')
    .map((a) => ({ ...a, why: staff || a.kind !== 'away' ? a.why : 'away', name: nameOf(a.who) }));
  const main = aerodrome.runways[0]?.ends[0];
  const read = recordReader();
  const lessons = await lessonsOfBookings(lines, { from: fromDate, to: addDays(fromDate, days) }, zone);
  return {
    days: Array.from({ length: days }, (_, i): ScheduleDay => {
      const date = addDays(fromDate, i);
      const sun = sunTimes(date, aerodrome);
      const min = (iso: string | null) => (iso === null ? null : localClock(iso, zone).minutes);
      return {
        date,
        name: dayText(date),
        today: date === today,
        past: date < today,
        sunriseMin: min(sun.sunrise),
        sunsetMin: min(sun.sunset),
        wind: HOURS.flatMap((h) => {
          const wind = windOutlook(aerodrome.ident, now, localInstant(date, h * 60, zone));
          if (!wind) return [];
          const across = main ? components(wind.fromDeg, wind.kt, wind.gustKt, main.trueBearingDeg) : null;
          return [
            {
              fromMin: h * 60,
              toMin: h * 60 + 120,
              text: windText({
                variable: false,
                fromDeg: Math.round(wind.fromDeg / 10) * 10 || 360,
                kt: Math.round(wind.kt),
                gustKt: wind.gustKt,
              }),
              kt: wind.kt,
              acrossKt: Math.abs(across?.gustCrosswindKt ?? across?.crosswindKt ?? 0),
              sureness: wind.sureness,
            },
          ];
        }),
      };
    }),
    bookings: await Promise.all(
      lines.map(async (b): Promise<PlacedBooking> => {
        const [a, z] = [localClock(b.startsAt, zone), localClock(b.endsAt, zone)];
        const holders = [
          b.pilotId === null ? '' : `p:${b.pilotId}`,
          b.instructorKey ?? '',
          b.airframeId === null ? '' : airKey(b.airframeId),
        ];
        const hit =
          b.endsAt < now
            ? []
            : shownAway
                .filter((x) => holders.includes(x.who) && x.from < b.endsAt && (x.to === null || x.to > b.startsAt))
                .map((x) => `${x.name}: ${x.why}`);
        return {
          ...b,
          date: a.date,
          fromMin: a.minutes,
          toMin: z.date === a.date ? z.minutes : 1440,
          fit: await fitOf(b, school, read),
          hit,
          lesson: lessons.get(b.id) ?? null,
        };
      }),
    ),
    today,
    zone,
    nowMin: localClock(now, zone).minutes,
    openFromMin: house.schedule.openFromMin,
    openToMin: house.schedule.openToMin,
    stepMin: house.schedule.stepMin,
    away: shownAway,
    people,
    airframes: frames.map((f) => ({
      id: f.id,
      registration: f.registration,
      typeName: f.type.name,
      down: away.find((a) => a.who === airKey(f.id) && a.from <= now && (a.to === null || a.to > now))?.why ?? null,
    })),
    checkouts: checkouts.map((c) => ({
      id: c.id,
      pilotId: c.pilotId,
      pilotName: c.pilot.name,
      instructorId: c.instructorId,
      airframeId: c.airframeId,
      registration: c.airframe.registration,
      goals: c.goals,
    })),
    places: (await aerodromes()).map((a) => ({ ident: a.ident, name: a.name })),
    wishes,
    main: main?.ident ?? '',
    source: house.schedule.source,
  };
}
