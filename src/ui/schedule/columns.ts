import { localClock, minutesText, weekday } from '@/core/schedule';
import type { ScheduleFacts, Wanted } from './facts';
import type { GridBlock, GridColumn } from './grid';

export type View = 'week' | 'day';
type Day = ScheduleFacts['days'][number];

/** What the columns of a day are: `by-aeroplane` and the like; null = whose bookings are shown. */
export const lensOf = (whose: string): string | null => (whose.startsWith('by-') ? whose.slice(3) : null);

/** When a person or aeroplane cannot be booked on a day: away or out of service, and outside their hours. */
export function shutOf(facts: ScheduleFacts, key: string, date: string): GridColumn['shut'] {
  const away = facts.away
    .filter((a) => a.who === key)
    .flatMap((a) => {
      const from = localClock(a.from, facts.zone);
      const to = a.to === null ? { date: '9999-12-31', minutes: 0 } : localClock(a.to, facts.zone);
      if (from.date > date || to.date < date) return [];
      return [
        {
          fromMin: from.date === date ? from.minutes : 0,
          toMin: to.date === date ? to.minutes : 1440,
          why: a.why,
        },
      ];
    });
  return [...away, ...gapsOf(facts.windows[key] ?? [], date)];
}

/** The day outside the hours somebody keeps; nothing where they keep none. */
function gapsOf(windows: ScheduleFacts['windows'][string], date: string): GridColumn['shut'] {
  if (windows.length === 0) return [];
  const gaps: GridColumn['shut'] = [];
  let at = 0;
  for (const w of windows.filter((x) => x.weekday === weekday(date)).sort((a, b) => a.fromMin - b.fromMin)) {
    if (w.fromMin > at) gaps.push({ fromMin: at, toMin: w.fromMin, why: '' });
    at = Math.max(at, w.toMin);
  }
  if (at < 1440) gaps.push({ fromMin: at, toMin: 1440, why: '' });
  return gaps;
}

const sunLine = (d: Day): string => {
  const mid = d.wind.find((w) => w.fromMin >= 12 * 60) ?? d.wind[0];
  if (mid) return mid.text;
  return d.sunsetMin === null ? '' : `sunset ${minutesText(d.sunsetMin)}`;
};

/** The days of a week; or of one day its instructors, or its aeroplanes. */
export function columnsOf(facts: ScheduleFacts, view: View, whose: string): GridColumn[] {
  if (view === 'week') {
    const key = facts.airframes.some((a) => a.id === whose)
      ? `a:${whose}`
      : facts.people.find((x) => x.userId === whose || (whose === 'mine' && x.userId === facts.me))?.key;
    return facts.days.map((d) => ({
      key: d.date,
      name: d.name,
      line: sunLine(d),
      today: d.today,
      wind: d.wind,
      sunriseMin: d.sunriseMin,
      sunsetMin: d.sunsetMin,
      shut: key === undefined ? [] : shutOf(facts, key, d.date),
    }));
  }
  const day = facts.days[0];
  if (!day) return [];
  const { date, today, sunriseMin, sunsetMin } = day;
  const of = (key: string, name: string, line: string, who: string | null): GridColumn => ({
    key,
    name,
    line,
    today,
    wind: day.wind,
    sunriseMin,
    sunsetMin,
    shut: who === null ? [] : shutOf(facts, who, date),
  });
  if (lensOf(whose) === 'aeroplane')
    return facts.airframes.map((a) => ({
      ...of(a.id, a.registration, a.down === null ? a.typeName : `out of service: ${a.down}`, `a:${a.id}`),
      wind: [],
    }));
  return [
    ...facts.people.filter((x) => x.instructor).map((x) => of(x.userId ?? x.key, x.name, 'instructor', x.key)),
    of('', 'Without instructor', 'hire, own practice', null),
  ];
}

/**
 * The facts with what was moved since they were read: a block stands where it was put, under the version it has there,
 * and not where an older reading has it. The wind of the new time is not known before the page is read again.
 */
export function withPlaced(facts: ScheduleFacts, placed: Readonly<Record<string, Wanted>>): ScheduleFacts {
  const bookings = facts.bookings.map((b) => {
    const to = placed[b.id];
    if (!to || to.version <= b.version) return b;
    const { date, minutes } = localClock(to.startsAt, facts.zone);
    const airframe = facts.airframes.find((a) => a.id === to.airframeId);
    const instructor = facts.people.find((x) => x.userId !== null && x.userId === to.instructorId);
    return {
      ...b,
      version: to.version,
      startsAt: to.startsAt,
      endsAt: new Date(Date.parse(to.startsAt) + to.minutes * 60_000).toISOString(),
      date,
      fromMin: minutes,
      toMin: minutes + to.minutes,
      ...(airframe ? { airframeId: airframe.id, registration: airframe.registration } : {}),
      ...(instructor ? { instructorId: instructor.userId, instructorName: instructor.name } : {}),
      split: to.minutes === b.toMin - b.fromMin ? b.split : null,
      fit: null,
      hit: [],
    };
  });
  return { ...facts, bookings };
}

/** The bookings shown, each in its column. */
export function blocksOf(facts: ScheduleFacts, view: View, whose: string, columns: readonly GridColumn[]): GridBlock[] {
  const lens = lensOf(whose);
  const keys = new Set(columns.map((c) => c.key));
  const columnOf = (b: ScheduleFacts['bookings'][number]): string => {
    if (view === 'week') return b.date;
    return (lens === 'aeroplane' ? b.airframeId : b.instructorId) ?? '';
  };
  return facts.bookings
    .filter(
      (b) =>
        whose === 'all' ||
        lens !== null ||
        (whose === 'mine' && b.mine) ||
        b.instructorId === whose ||
        b.airframeId === whose,
    )
    .map((b) => ({
      ...b,
      column: columnOf(b),
      movable: !b.masked && b.startsAt > facts.now && (facts.staff || b.mine),
    }))
    .filter((b) => keys.has(b.column));
}
