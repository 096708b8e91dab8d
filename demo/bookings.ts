import { localInstant } from '@/core/schedule';
import { addDays } from '@/core/recency';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { writeNote, saveDate } from '@/server/people/commands/persons';
import { book } from '@/server/schedule/commands/bookings';
import { joinWaiting } from '@/server/schedule/commands/waiting';
import { saveAway, saveWindows } from '@/server/schedule/commands/times';
import { row } from '../scripts/lib/raw';
import { pedraAlva } from './aerodrome';
import { pilots } from './people';
import { seeded, seededId } from './random';

interface Planned {
  madeDaysAgo: number;
  inDays: number;
  at: string;
  minutes: number;
  pilot: string;
  by?: 'helena' | 'bento' | 'vasco';
  registration: string;
  kind?: 'lesson' | 'hire' | 'currency';
  passengers?: number;
  /** Code of the aerodrome it is flown at, where that is not home. */
  away?: string;
  lesson?: boolean;
}

/**
 * The weeks around the day: windows of the instructors, bookings made days ago, an inspection, somebody away, wishes,
 * dates and notes. Through the same commands the screens use.
 */
export async function seedSchedule(
  users: Record<'helena' | 'bento' | 'vasco', CurrentUser>,
  today: string,
  at: (iso: string) => void,
  dayAt: (daysAgo: number, hhmm: string) => string,
): Promise<number> {
  const zone = pedraAlva.timeZone;
  const ids = seeded(20264);
  const must = (what: string, answer: { ok: boolean }) => {
    if (!answer.ok) throw new Error(`demo ${what}: ${JSON.stringify(answer)}`);
  };
  const minutes = (hhmm: string) => Number(hhmm.slice(0, 2)) * 60 + Number(hhmm.slice(3));
  const w = (days: number[], ...spans: [string, string][]) =>
    days.flatMap((weekday) => spans.map(([from, to]) => ({ weekday, fromMin: minutes(from), toMin: minutes(to) })));
  at(dayAt(40, '08:00'));
  const from = addDays(today, -40);
  must(
    'windows',
    await saveWindows(users.bento, {
      person: 'p:pilot-helena',
      base: '',
      validFrom: from,
      windows: w([1, 2, 3, 4, 5, 6], ['08:30', '12:30'], ['13:30', '18:00']),
    }),
  );
  must(
    'windows',
    await saveWindows(users.bento, {
      person: 'p:pilot-bento',
      base: '',
      validFrom: from,
      windows: w([1, 2, 3, 4, 5, 6, 7], ['09:00', '17:30']),
    }),
  );
  must(
    'windows',
    await saveWindows(users.bento, {
      person: 'p:pilot-vasco',
      base: '',
      validFrom: from,
      windows: w([3, 6, 7], ['10:00', '18:00']),
    }),
  );
  at(dayAt(9, '08:00'));
  const day = (inDays: number, hhmm: string) => localInstant(addDays(today, inDays), minutes(hhmm), zone);
  must(
    'inspection',
    await saveAway(users.bento, {
      requestId: seededId(ids),
      who: 'a:air-ZP-CAD',
      fromAt: day(2, '08:00'),
      toAt: day(4, '18:00'),
      why: '100-hour inspection',
    }),
  );
  must(
    'away',
    await saveAway(users.vasco, {
      requestId: seededId(ids),
      who: 'p:pilot-vasco',
      fromAt: day(6, '00:00'),
      toAt: day(9, '00:00'),
      why: 'refresher seminar',
    }),
  );

  let booked = 0;
  const plan: Planned[] = [
    { madeDaysAgo: 5, inDays: 0, at: '15:00', minutes: 105, pilot: 'duarte', by: 'helena', registration: 'ZP-URZ' },
    { madeDaysAgo: 2, inDays: 0, at: '14:45', minutes: 105, pilot: 'teresa', by: 'bento', registration: 'ZP-URA' },
    { madeDaysAgo: 5, inDays: 1, at: '09:00', minutes: 105, pilot: 'clara', by: 'helena', registration: 'ZP-URZ' },
    { madeDaysAgo: 1, inDays: 1, at: '11:00', minutes: 90, pilot: 'gaspar', by: 'bento', registration: 'ZP-CAV' },
    { madeDaysAgo: 1, inDays: 1, at: '14:00', minutes: 105, pilot: 'ivo', by: 'bento', registration: 'ZP-URA' },
    { madeDaysAgo: 3, inDays: 1, at: '13:30', minutes: 90, pilot: 'sara', by: 'helena', registration: 'ZP-CAV' },
    { madeDaysAgo: 4, inDays: 2, at: '09:30', minutes: 120, pilot: 'lidia', by: 'bento', registration: 'ZP-MAR' },
    { madeDaysAgo: 1, inDays: 2, at: '10:00', minutes: 105, pilot: 'ines', by: 'helena', registration: 'ZP-URA' },
    { madeDaysAgo: 2, inDays: 2, at: '14:00', minutes: 90, pilot: 'marta', by: 'bento', registration: 'ZP-FAI' },
    {
      madeDaysAgo: 3,
      inDays: 3,
      at: '09:00',
      minutes: 105,
      pilot: 'joana',
      by: 'bento',
      registration: 'ZP-URA',
      away: 'ZPMV',
    },
    { madeDaysAgo: 2, inDays: 3, at: '14:00', minutes: 60, pilot: 'helena', registration: 'ZP-PUR', kind: 'currency' },
    {
      madeDaysAgo: 1,
      inDays: 4,
      at: '10:00',
      minutes: 75,
      pilot: 'vasco',
      registration: 'ZP-ALV',
      kind: 'hire',
      passengers: 1,
    },
    { madeDaysAgo: 1, inDays: 4, at: '13:30', minutes: 90, pilot: 'tome', by: 'helena', registration: 'ZP-URA' },
    { madeDaysAgo: 1, inDays: 7, at: '09:00', minutes: 105, pilot: 'clara', by: 'helena', registration: 'ZP-URA' },
    { madeDaysAgo: 1, inDays: 7, at: '14:00', minutes: 105, pilot: 'teresa', by: 'bento', registration: 'ZP-URA' },
    // Flown already: a week behind.
    { madeDaysAgo: 9, inDays: -3, at: '09:00', minutes: 105, pilot: 'ines', by: 'helena', registration: 'ZP-URV' },
    { madeDaysAgo: 9, inDays: -5, at: '14:00', minutes: 90, pilot: 'vasco', by: 'bento', registration: 'ZP-CAD' },
    { madeDaysAgo: 9, inDays: -7, at: '09:00', minutes: 105, pilot: 'duarte', by: 'helena', registration: 'ZP-URZ' },
  ];
  for (const p of plan) {
    at(dayAt(p.madeDaysAgo, '17:00'));
    const kind = p.kind ?? 'lesson';
    const checkout =
      kind === 'lesson'
        ? await row<{ id: string }>(
            "SELECT id FROM checkouts WHERE pilot_id = :pilot AND status = 'open' ORDER BY created_at DESC LIMIT 1",
            { pilot: `pilot-${p.pilot}` },
          )
        : null;
    const form = {
      requestId: seededId(ids),
      kind,
      checkoutId: checkout?.id ?? null,
      pilotId: `pilot-${p.pilot}`,
      instructorId: p.by ? `user-${p.by}` : null,
      airframeId: `air-${p.registration}`,
      startsAt: day(p.inDays, p.at),
      minutes: p.minutes,
      passengers: p.passengers ?? 0,
      surface: 'any',
      aerodrome: p.away ?? null,
      note: '',
      waitingId: null,
    };
    const answer = await book(users[p.by ?? 'helena'], form);
    if (answer.ok) {
      booked++;
      continue;
    }
    // On the day it is filled in, a wished time may be past, dark or outside the windows: the nearest free one will do.
    const again = answer.nearest
      ? await book(users[p.by ?? 'helena'], { ...form, startsAt: answer.nearest.from })
      : answer;
    if (again.ok) booked++;
    else if (process.env.JEITO_SEED_SAYS) console.log(p.pilot, JSON.stringify(again));
  }
  at(dayAt(2, '10:00'));
  const wish = async (pilot: string, minutesLong: number, note: string) => {
    const checkout = await row<{ id: string }>(
      "SELECT id FROM checkouts WHERE pilot_id = :pilot AND status = 'open' LIMIT 1",
      { pilot: `pilot-${pilot}` },
    );
    must(
      'wish',
      await joinWaiting(users.helena, {
        requestId: seededId(ids),
        pilotId: `pilot-${pilot}`,
        checkoutId: checkout?.id ?? null,
        minutes: minutesLong,
        fromDate: today,
        toDate: addDays(today, 9),
        note,
      }),
    );
  };
  await wish('rui', 90, 'mornings best');
  await wish('joana', 105, '');

  at(dayAt(30, '10:00'));
  const spread = seeded(20265);
  const clerk = (pilot: string) => (pilot === 'bento' ? users.helena : users.bento);
  for (const p of pilots) {
    const until =
      p.key === 'joana'
        ? addDays(today, -6)
        : p.key === 'ivo'
          ? addDays(today, 19)
          : addDays(today, 90 + Math.floor(spread() * 500));
    const reviewed = p.key === 'gaspar' ? addDays(today, -735) : addDays(today, -(60 + Math.floor(spread() * 560)));
    // Of who has just come nothing was shown yet.
    if (p.key === 'tome') continue;
    must(
      'medical',
      await saveDate(clerk(p.key), {
        pilotId: `pilot-${p.key}`,
        key: 'medical',
        title: 'Medical',
        doneOn: null,
        until,
        note: '',
      }),
    );
    must(
      'review',
      await saveDate(clerk(p.key), {
        pilotId: `pilot-${p.key}`,
        key: 'flight-review',
        title: 'Flight review',
        doneOn: reviewed,
        until: null,
        note: '',
      }),
    );
  }
  must(
    'note',
    await writeNote(users.helena, {
      requestId: seededId(ids),
      pilotId: 'pilot-ines',
      text: 'Left seat cushion 4 cm: sits better and sees the right edge.',
      visible: 'pilot',
    }),
  );
  must(
    'note',
    await writeNote(users.helena, {
      requestId: seededId(ids),
      pilotId: 'pilot-ines',
      text: 'Looks over the left side in the flare. Raise it again after lesson 5.',
      visible: 'staff',
    }),
  );
  return booked;
}
