import { randomUUID } from 'node:crypto';
import ICAL from 'ical.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { localInstant } from '@/core/schedule';
import { addDays } from '@/core/recency';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { icsOf } from '@/server/schedule/papers/calendar';
import { logFlight } from '@/server/people/commands/people';
import { saveDate } from '@/server/people/commands/persons';
import { book, cancelBooking, moveBooking } from '@/server/schedule/commands/bookings';
import { endAway, saveAway, saveWindows } from '@/server/schedule/commands/times';
import { endFeed, feedOwner, openFeed } from '@/server/schedule/commands/feed';
import { joinWaiting, leaveWaiting } from '@/server/schedule/commands/waiting';
import { releaseExceedance } from '@/server/traces/commands/traces';
import { row, rows } from '../../scripts/lib/raw';
import { noticesOf, seeNotices, unseenCount } from '@/server/account/commands/notices';
import { boardData } from '@/server/board/queries/board';
import { windowsStamp } from '@/domain/schedule';
import { bookingsBetween, ownBookings } from '@/server/schedule/queries/bookings';
import { learnedSplit } from '@/server/schedule/queries/split';
import { proposeSlots } from '@/server/schedule/queries/slots';
import { weeklyRows } from '@/server/schedule/queries/holds';
import { schedulePage } from '@/server/schedule/queries/page';
import { houseRules } from '@/server/people/queries/house-rules';
import { seeded } from '@/core/random';
import { demoFolder, done, shell } from './folder';
import { said, user } from './signed';

let close: () => Promise<void>;
let helena: CurrentUser;
let bento: CurrentUser;
let checkout: Record<string, string>;
const ZONE = 'Europe/Lisbon';
const TODAY = '2026-11-24';
const at = (inDays: number, hhmm: string) =>
  localInstant(addDays(TODAY, inDays), Number(hhmm.slice(0, 2)) * 60 + Number(hhmm.slice(3)), ZONE);
const form = (more: object) => ({
  requestId: randomUUID(),
  kind: 'lesson',
  checkoutId: null,
  pilotId: null,
  instructorId: null,
  airframeId: null,
  startsAt: at(10, '10:00'),
  minutes: 90,
  passengers: 0,
  surface: 'any',
  note: '',
  waitingId: null,
  ...more,
});
const lesson = (pilot: string, by: string, frame: string, more: object = {}) =>
  form({ checkoutId: checkout[pilot] ?? null, instructorId: `user-${by}`, airframeId: `air-ZP-${frame}`, ...more });

beforeAll(async () => {
  ({ close } = await demoFolder());
  helena = await user('helena');
  bento = await user('bento');
  checkout = Object.fromEntries(
    (await rows<{ id: string; pilot_id: string }>("SELECT id, pilot_id FROM checkouts WHERE status = 'open'")).map(
      (c) => [c.pilot_id.slice(6), c.id],
    ),
  );
}, 120_000);
afterAll(() => close());

/** First of all: which hours are free hangs on what the tests below book. */
describe('a proposal', () => {
  it('a lesson that is about wind wants it', async () => {
    const answer = await proposeSlots(helena, {
      kind: 'lesson',
      checkoutId: checkout.ivo,
      pilotId: null,
      instructorId: 'user-helena',
      airframeId: 'air-ZP-URA',
      passengers: 0,
      surface: 'any',
      minutes: 90,
      fromDate: TODAY,
      days: 5,
    });
    if (!answer.ok) throw new Error(said(answer));
    expect(answer.need.wantsKt).not.toBeNull();
    expect(answer.best[0]?.fit.word).toBe('wanted');
    expect(answer.need.mostKt).toBeLessThanOrEqual(12);
  });
});

describe('a booking', () => {
  it('is made once, told to who it concerns, and moved only as it was seen', async () => {
    const f = lesson('ines', 'helena', 'URA', { startsAt: at(10, '10:00') });
    const made = done(await book(bento, f));
    expect(made.version).toBe(1);
    expect(await book(bento, f)).toEqual(made);
    expect((await noticesOf(helena))[0]?.text).toMatch(
      /^Bento Quadra Luz booked In\u00eas Vale Carmo in ZP-URA with Helena Serpa Dorna, Fri 4 Dec, 10:00 to 11:30\.$/,
    );
    expect((await noticesOf(await user('ines')))[0]?.kind).toBe('booked');
    const move = { bookingId: made.bookingId, version: 1, startsAt: at(10, '14:00'), minutes: 90 };
    expect(await moveBooking(helena, move)).toMatchObject({ ok: true, version: 2 });
    expect(said(await moveBooking(helena, move))).toContain('changed-meanwhile');
    expect(
      await rows('SELECT holder, starts_at FROM booking_holds WHERE booking_id = :id ORDER BY holder', {
        id: made.bookingId,
      }),
    ).toEqual([
      { holder: 'a:air-ZP-URA', starts_at: at(10, '14:00') },
      { holder: 'p:pilot-helena', starts_at: at(10, '14:00') },
      { holder: 'p:pilot-ines', starts_at: at(10, '14:00') },
    ]);
    expect(said(await cancelBooking(helena, { bookingId: made.bookingId, version: 2, reason: '' }))).toContain(
      'reason: Say why',
    );
    expect(await cancelBooking(helena, { bookingId: made.bookingId, version: 2, reason: 'fog' })).toMatchObject({
      ok: true,
      version: 3,
    });
    expect(
      (
        await rows<{ what: string }>('SELECT what FROM booking_changes WHERE booking_id = :id ORDER BY version', {
          id: made.bookingId,
        })
      ).map((c) => c.what),
    ).toEqual(['booked', 'moved', 'cancelled']);
    expect(await rows('SELECT 1 FROM booking_holds WHERE booking_id = :id', { id: made.bookingId })).toEqual([]);
    expect(await unseenCount(helena)).toBeGreaterThan(0);
    await seeNotices(helena);
    expect(await unseenCount(helena)).toBe(0);
  });
  it('names who and what is taken, and the nearest time at which everybody is free; booked there it holds', async () => {
    // Clara is with Helena from nine to a quarter to eleven tomorrow.
    const refused = await book(helena, lesson('ines', 'helena', 'URA', { startsAt: at(1, '10:00') }));
    expect(said(refused)).toContain(
      'instructorId: taken {"name":"Helena Serpa Dorna","when":"Wed 25 Nov, 09:00 to 10:45","what":"ZP-URZ Clara Moita Reis with Helena Serpa Dorna"}',
    );
    if (refused.ok || !refused.nearest) throw new Error('no nearest');
    expect(refused.nearest.from).toBe(at(1, '10:45'));
    expect(await book(helena, lesson('ines', 'helena', 'URA', { startsAt: refused.nearest.from }))).toMatchObject({
      ok: true,
    });
    const third = await book(bento, lesson('joana', 'bento', 'URA', { startsAt: at(1, '11:30') }));
    expect(said(third)).toContain('airframeId: taken {"name":"ZP-URA","when":"Wed 25 Nov, 10:45 to 12:15"');
    expect(said(third)).toContain('instructorId: taken {"name":"Bento Quadra Luz"');
  });
  it('a person in two seats is one person: an instructor who is checked out does not teach meanwhile', async () => {
    const made = await book(bento, lesson('vasco', 'bento', 'CAV', { startsAt: at(12, '10:00'), minutes: 90 }));
    expect(said(made)).toBe('done');
    const other = await book(
      bento,
      form({
        kind: 'lesson',
        pilotId: 'pilot-elias',
        instructorId: 'user-vasco',
        airframeId: 'air-ZP-ALV',
        startsAt: at(12, '10:30'),
      }),
    );
    expect(said(other)).toContain('instructorId: taken {"name":"Vasco Teles Brito"');
  });
  it.each([
    ['in the past', { startsAt: at(-1, '10:00') }, 'startsAt: time-past'],
    ['before the house opens', { startsAt: at(10, '06:00') }, 'startsAt: outside-hours {"from":"07:00","to":"21:00"'],
    ['after dark', { startsAt: at(10, '16:00') }, 'startsAt: after-sunset'],
    [
      'beyond the windows of the instructor',
      { startsAt: at(10, '12:15') },
      'instructorId: outside-windows {"name":"Helena Serpa Dorna","windows":["08:30 to 12:30","13:30 to 18:00"]',
    ],
    [
      'on a day without windows',
      { startsAt: at(5, '10:00') },
      'instructorId: outside-windows {"name":"Helena Serpa Dorna","windows":[]',
    ],
    [
      'an aeroplane at its inspection',
      { airframeId: 'air-ZP-CAD', startsAt: at(3, '10:00') },
      'airframeId: away {"name":"ZP-CAD","how":"grounded"',
    ],
    [
      'an aeroplane with a limit passed',
      { airframeId: 'air-ZP-URV' },
      'airframeId: away {"name":"ZP-URV","how":"grounded","when":"from Sat 21 Nov until further notice","why":"Vne exceeded and not released"',
    ],
    ['without an aeroplane', { airframeId: null }, 'airframeId: choose-aeroplane'],
    ['too short', { minutes: 20 }, 'minutes: At least 30 min'],
    ['no day at all', { startsAt: '' }, 'startsAt: Give the start as hours and minutes'],
    ['one\u2019s own instructor', { checkoutId: null, pilotId: 'pilot-helena' }, 'instructorId: own-instructor'],
    [
      'by who is none',
      { instructorId: 'user-ines' },
      'instructorId: not-an-instructor {"name":"In\u00eas Vale Carmo"}',
    ],
  ])('is refused %s', async (_name, more, words) => {
    expect(said(await book(bento, lesson('ines', 'helena', 'URA', more)))).toContain(words);
  });
  it('an aeroplane is back in the line once the chief has released it', async () => {
    const open = await row<{ id: string }>(
      'SELECT e.id FROM exceedances e WHERE NOT EXISTS (SELECT 1 FROM exceedance_releases r WHERE r.exceedance_id = e.id)',
    );
    expect(
      await releaseExceedance(bento, {
        exceedanceId: open?.id,
        done: 'inspected, nothing found',
        certifier: 'Telmo Vaz Outeiro',
        certificate: 'licence B1 0417',
      }),
    ).toMatchObject({ ok: true });
    expect(said(await book(bento, lesson('ines', 'helena', 'URV', { startsAt: at(10, '10:00') })))).toBe('done');
  });
});

describe('who may not teach is not booked to teach', () => {
  it('out of recency in the twin; three landings logged, he is', async () => {
    const f = lesson('nuno', 'bento', 'PDO', { startsAt: at(9, '10:00'), minutes: 105 });
    expect(said(await book(helena, f))).toContain(
      'instructorId: not-recent-to-teach {"name":"Bento Quadra Luz","type":"Planalto P2","date":"Thu 3 Dec","restore":"three landings","citation":"School rules, flying order 7"}',
    );
    expect(
      await logFlight(bento, {
        requestId: randomUUID(),
        pilotId: 'pilot-bento',
        flownOn: '2026-11-23',
        typeCode: 'planalto-p2',
        takeoffs: 3,
        landings: 3,
        fullStops: 3,
        night: false,
        surface: 'land',
        hours: 0.8,
        remark: '',
      }),
    ).toMatchObject({ ok: true });
    expect(said(await book(helena, f))).toBe('done');
    // The right is looked at on the day of the booking, not on the day it is made.
    expect(said(await book(helena, { ...f, requestId: randomUUID(), startsAt: at(100, '10:00') }))).toContain(
      'not-recent-to-teach',
    );
  });
  it('whatever the booking is called, and in the aeroplane that is booked', async () => {
    const day = { startsAt: at(9, '14:00'), minutes: 60 };
    for (const kind of ['hire', 'currency', 'other', 'lesson'])
      expect(
        said(
          await book(
            helena,
            form({ kind, pilotId: 'pilot-nuno', instructorId: 'user-helena', airframeId: 'air-ZP-PDO', ...day }),
          ),
        ),
        kind,
      ).toContain('lacks-kinds {"name":"Helena Serpa Dorna","kinds":"multi-engine land');
    expect(said(await book(helena, lesson('ines', 'helena', 'PDO', day)))).toContain('airframeId: other-type');
  });
  it('who does not hold what the aeroplane demands', async () => {
    expect(said(await book(bento, lesson('nuno', 'helena', 'PDO', { startsAt: at(16, '10:00') })))).toContain(
      'lacks-kinds {"name":"Helena Serpa Dorna","kinds":"multi-engine land',
    );
  });
});

describe('flying alone', () => {
  it('what the aeroplane demands, a sign-off, the interval and its limitations', async () => {
    const hire = (pilot: string, frame: string, more: object = {}) =>
      form({
        kind: 'hire',
        pilotId: `pilot-${pilot}`,
        airframeId: `air-ZP-${frame}`,
        startsAt: at(11, '10:00'),
        ...more,
      });
    expect(said(await book(helena, hire('tome', 'URA')))).toContain(
      'pilotId: pilot-lacks {"type":"Serrana Urze","kinds":"tailwheel"}',
    );
    expect(said(await book(helena, hire('amelia', 'URA')))).toContain('interval-check');
    // Checked again in the type, the limitations of the sign-off bind: no passengers, 8 kt across, until 5 h.
    await logFlight(await user('amelia'), {
      requestId: randomUUID(),
      pilotId: 'pilot-amelia',
      flownOn: '2026-11-20',
      typeCode: 'serrana-urze',
      takeoffs: 1,
      landings: 1,
      fullStops: 1,
      night: false,
      surface: 'land',
      hours: 1,
      remark: '',
    });
    expect(said(await book(helena, hire('amelia', 'URA', { passengers: 1 })))).toMatch(
      /passengers: limitation \{"seq":\d+,"limitation":\{"code":"no-passengers","params":\{"until":\{"untilHours":5,"flownHours":1\}/,
    );
    const far = done(await book(helena, hire('amelia', 'URA')));
    expect(far.warnings).toMatchObject([{ code: 'crosswind-limit', params: { limitKt: 8 } }]);
    await logFlight(await user('amelia'), {
      requestId: randomUUID(),
      pilotId: 'pilot-amelia',
      flownOn: '2026-11-21',
      typeCode: 'serrana-urze',
      takeoffs: 1,
      landings: 1,
      fullStops: 1,
      night: false,
      surface: 'land',
      hours: 4,
      remark: '',
    });
    expect(said(await book(helena, hire('amelia', 'URA', { passengers: 1, startsAt: at(13, '10:00') })))).toBe('done');
    expect(said(await book(helena, hire('elias', 'ALV', { passengers: 1 })))).toContain(
      'passengers: passengers-not-recent',
    );
    expect(
      said(
        await book(
          bento,
          form({ kind: 'currency', pilotId: 'pilot-bento', airframeId: 'air-ZP-BQZ', startsAt: at(11, '12:00') }),
        ),
      ),
    ).toBe('done');
  });
});

describe('who may act as pilot in command', () => {
  const hire = (pilot: string, more: object = {}) =>
    form({ kind: 'hire', pilotId: `pilot-${pilot}`, airframeId: 'air-ZP-ALV', startsAt: at(17, '10:00'), ...more });
  beforeAll(async () => {
    for (const key of ['gaspar', 'joana', 'tome', 'nuno'])
      done(
        await logFlight(bento, {
          requestId: randomUUID(),
          pilotId: `pilot-${key}`,
          flownOn: '2026-11-20',
          typeCode: 'alvor-c1',
          takeoffs: 3,
          landings: 3,
          fullStops: 3,
          night: false,
          surface: 'land',
          hours: 1,
          remark: '',
        }),
      );
  });
  it('not with a review that will have ended, whoever books, until it is renewed', async () => {
    const gaspar = await user('gaspar');
    expect(said(await book(gaspar, hire('gaspar', { startsAt: at(5, '10:00') })))).toBe('done');
    for (const who of [gaspar, helena, bento])
      expect(said(await book(who, hire('gaspar')))).toMatch(
        /^pilotId: date-ends \{"title":"Flight review","ended":"30 Nov 2026",.*"citation":"14 CFR 61\.56\(c\)"\}$/,
      );
    // Beside an instructor it is training, and nobody's command.
    expect(said(await book(bento, lesson('gaspar', 'bento', 'CAV', { startsAt: at(17, '14:00') })))).toBe('done');
    done(
      await saveDate(bento, {
        pilotId: 'pilot-gaspar',
        key: 'flight-review',
        title: 'Flight review',
        doneOn: '2026-11-23',
        until: null,
        note: '',
      }),
    );
    expect(said(await book(gaspar, hire('gaspar')))).toBe('done');
  });
  it('not with a medical that has ended, and not with nothing on record', async () => {
    expect(said(await book(helena, hire('joana', { startsAt: at(18, '10:00') })))).toMatch(
      /^pilotId: date-ends \{"title":"Medical or BasicMed","ended":"18 Nov 2026"/,
    );
    const answer = said(await book(helena, hire('tome', { startsAt: at(18, '10:00') })));
    expect(answer).toContain('date-not-on-record {"title":"Flight review"');
    expect(answer).toContain('date-not-on-record {"title":"Medical or BasicMed"');
  });
  it('an instructor gives at most eight hours of flight training in 24', async () => {
    const long = (i: number, hhmm: string) =>
      form({
        kind: 'other',
        pilotId: 'pilot-nuno',
        instructorId: 'user-bento',
        airframeId: 'air-ZP-ALV',
        startsAt: at(24 + i, hhmm),
        minutes: 290,
      });
    expect(said(await book(helena, long(0, '12:00')))).toBe('done');
    expect(said(await book(helena, long(1, '08:00')))).toMatch(
      /startsAt: training-limit \{"name":"Bento Quadra Luz",.*"mostHours":8,"citation":"14 CFR 61\.195\(a\)"/,
    );
  });
});

describe('a pilot at the schedule', () => {
  it('books their own, sees others only as taken, and touches nothing of theirs', async () => {
    const clara = await user('clara');
    expect(said(await book(clara, lesson('clara', 'helena', 'URA', { startsAt: at(14, '10:00') })))).toBe('done');
    expect(said(await book(clara, lesson('ines', 'helena', 'URA', { startsAt: at(14, '14:00') })))).toContain(
      'not-found',
    );
    const all = await bookingsBetween(clara, at(0, '00:00'), at(20, '00:00'));
    const others = all.filter((b) => !b.mine);
    expect(others.length).toBeGreaterThan(4);
    for (const b of others)
      expect([b.pilotName, b.instructorName, b.checkoutId, b.note, b.goals.length, b.split]).toEqual([
        null,
        null,
        null,
        '',
        0,
        null,
      ]);
    const other = others.find((b) => b.startsAt > at(1, '00:00'));
    expect(
      (
        await moveBooking(clara, {
          bookingId: other?.id,
          version: other?.version,
          startsAt: at(15, '10:00'),
          minutes: 90,
        })
      ).ok,
    ).toBe(false);
    expect((await cancelBooking(clara, { bookingId: other?.id, version: other?.version, reason: 'not mine' })).ok).toBe(
      false,
    );
    const taken = await book(clara, lesson('clara', 'helena', 'URA', { startsAt: at(1, '11:00') }));
    expect(said(taken)).toContain('taken {');
    expect(said(taken)).not.toContain('In\u00eas');
    const page = await schedulePage(clara, TODAY, 7);
    expect(page.checkouts.map((c) => c.pilotName)).toEqual(['Clara Moita Reis']);
    expect(page.people.filter((p) => !p.instructor).map((p) => p.name)).toEqual(['Clara Moita Reis']);
    expect(page.wishes).toEqual([]);
  });
});

describe('two at once', () => {
  it('a thousand attempts at random, together: never an overlap, every refusal names its conflict and the nearest free time', async () => {
    const random = seeded(77);
    const pick = <T>(xs: readonly T[]): T => xs[Math.floor(random() * xs.length)] as T;
    const names = ['ines', 'clara', 'tome', 'teresa', 'ivo', 'joana'] as const;
    const attempts = Array.from({ length: 1000 }, () => {
      const pilot = pick(names);
      const by = pick(['helena', 'bento']);
      return {
        requestId: randomUUID(),
        kind: 'lesson',
        checkoutId: checkout[pilot],
        pilotId: null,
        instructorId: `user-${by}`,
        airframeId: `air-ZP-${pick(['URZ', 'URA'])}`,
        startsAt: at(
          20 + Math.floor(random() * 3),
          `${String(9 + Math.floor(random() * 6)).padStart(2, '0')}:${pick(['00', '15', '30', '45'])}`,
        ),
        minutes: pick([45, 60, 90]),
        passengers: 0,
        surface: 'any',
        note: '',
        waitingId: null,
      };
    });
    const answers = await Promise.all(attempts.map((a) => book(bento, a)));
    const made = answers.filter((a) => a.ok).length;
    expect(made).toBeGreaterThan(10);
    for (const a of answers) {
      if (a.ok) continue;
      expect(said(a)).toMatch(/taken \{.*\d\d:\d\d to \d\d:\d\d|outside-windows/);
      expect((a.nearest?.from ?? '') > at(0, '14:30'), said(a)).toBe(true);
    }
    const holds = await rows<{ holder: string; starts_at: string; ends_at: string }>(
      'SELECT holder, starts_at, ends_at FROM booking_holds ORDER BY holder, starts_at',
    );
    for (const [i, h] of holds.entries()) {
      const n = holds[i + 1];
      if (n && n.holder === h.holder) expect(n.starts_at >= h.ends_at).toBe(true);
    }
    const booked = await row<{ n: number; held: number }>(
      "SELECT (SELECT COUNT(*) FROM bookings WHERE state = 'booked') AS n, (SELECT COUNT(DISTINCT booking_id) FROM booking_holds) AS held",
    );
    expect(booked?.held).toBe(booked?.n);
  }, 400_000);
  it('the database itself refuses, past every door of the application', async () => {
    const h = await row<{ booking_id: string; holder: string; starts_at: string }>(
      'SELECT * FROM booking_holds LIMIT 1',
    );
    const insert = (verb: string) =>
      shell(
        `${verb} INTO booking_holds VALUES ('${h?.booking_id ?? ''}', '${h?.holder ?? ''}', '${new Date(Date.parse(h?.starts_at ?? '') + 60_000).toISOString()}', '2031-01-01T00:00:00.000Z')`,
      );
    expect((await insert('INSERT')).error).toContain('taken already');
    expect((await insert('REPLACE')).error).toContain('taken already');
    expect((await shell('UPDATE booking_holds SET ends_at = starts_at')).error).toContain('never changed');
    expect((await shell('DELETE FROM bookings')).error).toContain('never removed');
    expect((await shell('DELETE FROM booking_changes')).error).toContain('never removed');
  });
});

describe('times, away and waiting', () => {
  it('new windows hold from their day; they do not overlap; one keeps one\u2019s own', async () => {
    const w = {
      person: 'p:pilot-helena',
      validFrom: addDays(TODAY, 30),
      windows: [{ weekday: 3, fromMin: 600, toMin: 720 }],
      base: windowsStamp((await weeklyRows()).filter((x) => x.person === 'p:pilot-helena')),
    };
    expect(said(await saveWindows(helena, { ...w, base: '' }))).toContain('times-changed');
    expect(said(await saveWindows(await user('vasco'), w))).toContain('own-times');
    expect(said(await saveWindows(helena, { ...w, windows: [{ weekday: 3, fromMin: 720, toMin: 600 }] }))).toContain(
      'windows.0.toMin: end-before-start',
    );
    expect(
      said(await saveWindows(helena, { ...w, windows: [...w.windows, { weekday: 3, fromMin: 700, toMin: 800 }] })),
    ).toContain('windows-overlap');
    expect(said(await saveWindows(helena, w))).toBe('done');
    expect(said(await book(bento, lesson('ines', 'helena', 'URA', { startsAt: at(35, '10:00') })))).toContain(
      'outside-windows',
    );
    expect(said(await book(bento, lesson('ines', 'helena', 'URA', { startsAt: at(28, '10:00') })))).not.toContain(
      'outside-windows',
    );
  });
  it('an aeroplane taken out names the bookings it hits, and marks them until they are moved; back, it is free', async () => {
    const before = await schedulePage(bento, addDays(TODAY, 7), 1);
    const hit = before.bookings.filter((b) => b.registration === 'ZP-URA');
    expect(hit.length).toBeGreaterThan(0);
    const down = done(
      await saveAway(helena, {
        requestId: randomUUID(),
        who: 'a:air-ZP-URA',
        fromAt: at(7, '00:00'),
        toAt: null,
        why: 'tailwheel spring cracked',
      }),
    );
    expect(down.hit.join(' ')).toContain('Clara Moita Reis in ZP-URA');
    expect(
      (await schedulePage(bento, addDays(TODAY, 7), 1)).bookings
        .filter((b) => b.hit.length > 0)
        .map((b) => b.id)
        .sort(),
    ).toEqual(hit.map((b) => b.id).sort());
    expect((await noticesOf(await user('clara')))[0]?.text).toContain('must be moved or cancelled');
    const id =
      (await row<{ id: string }>("SELECT id FROM times_away WHERE who = 'a:air-ZP-URA' AND ended_at IS NULL"))?.id ??
      '';
    expect((await endAway(await user('clara'), { id, why: '' })).ok).toBe(false);
    expect((await endAway(helena, { id, why: 'replaced' })).ok).toBe(true);
    expect((await schedulePage(bento, addDays(TODAY, 7), 1)).bookings.filter((b) => b.hit.length > 0)).toEqual([]);
  });
  it('who waits hears of a slot that comes free and fits, and leaves the list when it is booked', async () => {
    const rui = await user('rui');
    const wish = randomUUID();
    expect(
      said(
        await joinWaiting(rui, {
          requestId: wish,
          pilotId: 'pilot-rui',
          checkoutId: checkout.rui ?? null,
          minutes: 90,
          fromDate: addDays(TODAY, 17),
          toDate: addDays(TODAY, 18),
          note: '',
        }),
      ),
    ).toBe('done');
    expect(
      (
        await joinWaiting(rui, {
          requestId: randomUUID(),
          pilotId: 'pilot-ines',
          checkoutId: null,
          minutes: 90,
          fromDate: TODAY,
          toDate: TODAY,
          note: '',
        })
      ).ok,
    ).toBe(false);
    const made = await book(helena, lesson('clara', 'helena', 'URZ', { startsAt: at(17, '09:00') }));
    if (!made.ok) throw new Error(said(made));
    await cancelBooking(helena, { bookingId: made.bookingId, version: 1, reason: 'Clara is ill' });
    expect((await noticesOf(rui))[0]).toMatchObject({ kind: 'free' });
    expect((await noticesOf(rui))[0]?.text).toContain('became free; Rui Casal Ferro is waiting for 90 minutes');
    expect(
      said(await book(helena, lesson('rui', 'helena', 'URZ', { startsAt: at(17, '09:00'), waitingId: wish }))),
    ).toBe('done');
    expect(await row('SELECT ended_how FROM waiting_list WHERE id = :wish', { wish })).toEqual({ ended_how: 'booked' });
    const other = await row<{ id: string }>('SELECT id FROM waiting_list WHERE ended_at IS NULL LIMIT 1');
    expect((await leaveWaiting(rui, other?.id ?? '')).ok).toBe(
      other === null
        ? false
        : (await row<{ pilot_id: string }>('SELECT pilot_id FROM waiting_list WHERE id = :id', { id: other.id }))
            ?.pilot_id === 'pilot-rui',
    );
  });
});

describe('proposals', () => {
  it('the best three are free, apart, by day, and as long as lessons of the type took', async () => {
    const answer = await proposeSlots(helena, {
      kind: 'lesson',
      checkoutId: checkout.duarte,
      pilotId: null,
      instructorId: 'user-helena',
      airframeId: 'air-ZP-URA',
      passengers: 0,
      surface: 'any',
      minutes: null,
      fromDate: TODAY,
      days: 7,
    });
    if (!answer.ok) throw new Error(said(answer));
    const split = await learnedSplit('serrana-urze', (await houseRules()).house);
    expect(split.lessons).toBeGreaterThan(20);
    expect(answer.minutes).toBe(Math.ceil((split.brief + split.prepare + split.flight + split.debrief) / 15) * 15);
    expect(answer.best).toHaveLength(3);
    for (const s of answer.best) {
      expect(s.from > at(0, '14:30')).toBe(true);
      expect(
        await rows(
          "SELECT 1 FROM booking_holds WHERE holder IN ('p:pilot-helena', 'p:pilot-duarte', 'a:air-ZP-URA') AND starts_at < :to AND ends_at > :from",
          { from: s.from, to: s.to },
        ),
      ).toEqual([]);
    }
    expect(answer.best.map((s) => s.fit.score)).toEqual([...answer.best.map((s) => s.fit.score)].sort((a, b) => b - a));
    expect(
      said(
        await book(
          helena,
          lesson('duarte', 'helena', 'URA', { startsAt: answer.best[0]?.from, minutes: answer.minutes }),
        ),
      ),
    ).toBe('done');
  });
  it('a pilot asks for their own and nobody else\u2019s', async () => {
    const ask = {
      kind: 'lesson',
      checkoutId: checkout.ines,
      pilotId: null,
      instructorId: 'user-helena',
      airframeId: 'air-ZP-URA',
      passengers: 0,
      surface: 'any',
      minutes: 90,
      fromDate: TODAY,
      days: 5,
    };
    expect((await proposeSlots(await user('clara'), ask)).ok).toBe(false);
    expect((await proposeSlots(await user('ines'), ask)).ok).toBe(true);
  });
});

describe('the calendar', () => {
  const parse = (text: string) =>
    new ICAL.Component(ICAL.parse(text) as never)
      .getAllSubcomponents('vevent')
      .map((v) => ({ event: new ICAL.Event(v), v }));
  it('opens in another program\u2019s parser with the right times, an alarm, and a cancelled one marked', async () => {
    const mine = await ownBookings(helena, at(-10, '00:00'), true);
    expect(mine.some((b) => b.state === 'cancelled')).toBe(true);
    const text = icsOf(mine, {
      placeOf: () => 'Pedra Alva',
      alarmMin: 45,
      now: at(0, '14:30'),
      origin: 'https://x.example',
      name: 'Jeito',
    });
    const events = parse(text);
    expect(events).toHaveLength(mine.length);
    for (const b of mine) {
      const found = events.find((e) => e.event.uid === `${b.id}@jeito`);
      expect(found?.event.startDate.toJSDate().toISOString()).toBe(b.startsAt);
      expect(found?.event.endDate.toJSDate().toISOString()).toBe(b.endsAt);
      expect(found?.v.getFirstPropertyValue('status')).toBe(b.state === 'cancelled' ? 'CANCELLED' : 'CONFIRMED');
      expect(found?.v.getAllSubcomponents('valarm').length).toBe(b.state === 'cancelled' ? 0 : 1);
      if (b.pilotName && b.registration) expect(found?.event.summary).toContain(b.registration);
    }
    expect(text.split('\r\n').every((l) => Buffer.byteLength(l) <= 75)).toBe(true);
    expect(parse(icsOf([], { placeOf: () => '', alarmMin: 0, now: at(0, '14:30'), origin: '', name: 'none' }))).toEqual(
      [],
    );
  });
  it('an address opens only one\u2019s own, is kept as a hash, and ends', async () => {
    const made = await openFeed(helena, { alarmMin: 30 });
    if (!made.ok) throw new Error('feed');
    expect((await feedOwner(made.secret))?.user.id).toBe('user-helena');
    expect(await feedOwner(`${made.secret}x`)).toBeNull();
    expect(JSON.stringify(await rows('SELECT * FROM calendar_feeds'))).not.toContain(made.secret);
    const second = await openFeed(helena, { alarmMin: 30 });
    expect(await feedOwner(made.secret)).toBeNull();
    await endFeed(helena);
    expect(second.ok && (await feedOwner(second.secret))).toBeNull();
    expect((await openFeed(helena, { alarmMin: -5 })).ok).toBe(false);
  });
});

describe('the board', () => {
  it('the next booking with what is ready; the day; what ends; what stalled; the chief sees across', async () => {
    const mine = await boardData(helena);
    expect(mine.next?.booking.pilotName).toBe('Duarte S\u00e1 Nogal');
    expect(Object.fromEntries((mine.next?.ready ?? []).map((r) => [r.key, r.verdict]))).toMatchObject({
      brief: 'edge',
      teach: 'within',
      papers: 'within',
    });
    expect(mine.cards[0]?.stage).toBe('sign');
    expect(mine.lapses.map((l) => l.name)).toContain('Joana Pires Atalaia');
    expect(mine.instructors).toEqual([]);
    const chief = await boardData(bento);
    expect(chief.instructors.map((i) => i.name)).toEqual([
      'Bento Quadra Luz',
      'Helena Serpa Dorna',
      'Vasco Teles Brito',
    ]);
    expect(chief.stats.find((s) => s.name === 'checkouts open')?.value).toBe(
      String((await row<{ n: number }>("SELECT COUNT(*) AS n FROM checkouts WHERE status <> 'signed'"))?.n),
    );
    const own = await boardData(await user('duarte'));
    expect(own.waits.map((w) => w.text)).toContain('Read and acknowledge the brief of lesson 4.');
    expect(own.line.every((l) => l.booking.mine)).toBe(true);
  });
});
