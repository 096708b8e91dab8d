import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Person,
  type PersonType,
  type RuleBook,
  type TypedEvent,
  addDays,
  firstLapse,
  lapsesOf,
  loggedEvents,
  standingOf,
  validity,
  whatIf,
} from '@/core/recency';
import type { RecencyRule } from '@/domain/recency';
import { RulePack } from '@/domain/programme';
import us from '@content/packs/us.json';
import eu from '@content/packs/eu.json';

const packs = { us: RulePack.parse(us), eu: RulePack.parse(eu) };
const teach: RecencyRule[] = [
  {
    id: 'teach',
    title: '',
    citation: 'house',
    kind: 'landing',
    count: 3,
    windowDays: 90,
    fullStop: false,
    night: false,
    tailwheel: false,
    soleManipulator: true,
    surface: null,
    classes: null,
    when: 'always',
    within: 'type',
    confirm: false,
    servedBy: [],
    unlessHeld: [],
  },
];
const book = (pack: keyof typeof packs): RuleBook => ({
  recency: packs[pack].recency,
  dated: packs[pack].dated,
  teach,
  intervalSource: 'house',
});
const type = (code: string, more: Partial<PersonType> = {}): PersonType => ({
  code,
  name: code.toUpperCase(),
  class: 'single-engine-land',
  tailwheel: false,
  water: false,
  intervalDays: 60,
  checkedOn: [],
  flownOn: [],
  ...more,
});
const flown = (
  date: string,
  code: string,
  landings = 3,
  more: Partial<Parameters<typeof loggedEvents>[0]> = {},
  tailwheel = false,
): TypedEvent[] =>
  loggedEvents(
    {
      id: `${date}${code}`,
      date,
      takeoffs: landings,
      landings,
      fullStops: landings,
      night: false,
      surface: 'land',
      ...more,
    },
    { typeCode: code, engines: 1, tailwheel },
  );
const person = (events: TypedEvent[], more: Partial<Person> = {}): Person => ({
  events,
  types: [type('nose'), type('tail', { tailwheel: true })],
  holds: ['single-engine-land'],
  dates: [],
  teaches: false,
  certificateUntil: null,
  ...more,
});
const line = (p: Person, key: string, on: string, pack: keyof typeof packs = 'us') =>
  lapsesOf(p, book(pack), on).find((l) => l.key === key);

describe('what holds of a person', () => {
  it('a full stop in a nosewheel aeroplane never restores tailwheel recency; one in a tailwheel restores both', () => {
    const nose = person(flown('2026-11-01', 'nose', 9));
    expect([
      line(nose, 'always:single-engine-land', '2026-11-24')?.status,
      line(nose, 'tailwheel:single-engine-land', '2026-11-24')?.status,
    ]).toEqual(['current', 'never']);
    const tail = person(flown('2026-11-01', 'tail', 3, {}, true));
    expect([
      line(tail, 'always:single-engine-land', '2026-11-24')?.status,
      line(tail, 'tailwheel:single-engine-land', '2026-11-24')?.status,
    ]).toEqual(['current', 'current']);
    expect(line(nose, 'tailwheel:single-engine-land', '2026-11-24')?.restore).toBe(
      'three full-stop landings on land in a tailwheel aeroplane and three take-offs on land in a tailwheel aeroplane',
    );
  });
  it.each([
    ['the last day of ninety', '2026-11-24', '2026-08-26', 'expiring'],
    ['a day later', '2026-11-25', '2026-08-26', 'expired'],
    ['thirty days before the end', '2026-10-25', '2026-08-26', 'current'],
    ['twenty-nine', '2026-10-26', '2026-08-26', 'expiring'],
    ['over the end of a leap February', '2028-05-29', '2028-02-29', 'expiring'],
    ['a day later', '2028-05-30', '2028-02-29', 'expired'],
    ['over the change of the clocks', '2026-06-20', '2026-03-22', 'expiring'],
    ['a day later', '2026-06-21', '2026-03-22', 'expired'],
    ['over the year', '2027-03-01', '2026-12-01', 'expiring'],
    ['flown that very day', '2026-11-24', '2026-11-24', 'current'],
  ])('passengers: %s', (_name, on, day, status) => {
    expect(line(person(flown(day, 'nose')), 'always:single-engine-land', on)?.status).toBe(status);
  });
  it.each([
    ['24 months to the end of the month', '2024-11-03', '2026-11-30', 'expiring'],
    ['a day later', '2024-11-03', '2026-12-01', 'expired'],
    ['from a leap day', '2024-02-29', '2026-02-28', 'expiring'],
    ['from a leap day, a day later', '2024-02-29', '2026-03-01', 'expired'],
    ['from the 31st', '2024-12-31', '2026-12-31', 'expiring'],
  ])('flight review: %s', (_name, doneOn, on, status) => {
    expect(
      line(
        person([], { dates: [{ key: 'flight-review', title: 'Flight review', doneOn, until: null }] }),
        'flight-review',
        on,
      )?.status,
    ).toBe(status);
  });
  it('a date that is not entered is missing, not expired; a rule of others does not ask', () => {
    expect(line(person([]), 'flight-review', '2026-11-24')?.status).toBe('missing');
    expect(line(person([]), 'mep-rating', '2026-11-24', 'eu')).toBeUndefined();
    expect(line(person([], { holds: ['multi-engine-land'] }), 'mep-rating', '2026-11-24', 'eu')?.status).toBe(
      'missing',
    );
    expect(standingOf(lapsesOf(person([]), book('us'), '2026-11-24'))).toBe('unknown');
  });
  it('the house\u2019s interval counts from a flight, a check, or what the office entered, whichever is later', () => {
    const on = '2026-11-24';
    const at = (t: Partial<PersonType>, events: TypedEvent[] = []) =>
      line(person(events, { types: [type('nose', t)] }), 'interval:nose', on);
    expect(at({})?.status).toBe('never');
    expect(at({ flownOn: ['2026-10-01'] })?.through).toBe('2026-11-30');
    expect(at({ flownOn: ['2026-10-01'], checkedOn: ['2026-11-10'] })?.through).toBe('2027-01-09');
    expect(at({ checkedOn: ['2026-09-10'] }, flown('2026-09-24', 'nose', 1))?.through).toBe('2026-11-23');
    expect(at({ checkedOn: ['2026-09-10'] }, flown('2026-09-24', 'nose', 1))?.restore).toBe(
      'one flight in the type with an instructor, or a recurrent check',
    );
  });
  it('an instructor\u2019s right to teach a type rests on landings in that type', () => {
    const p = person([...flown('2026-11-01', 'nose'), ...flown('2026-07-01', 'tail', 3, {}, true)], {
      teaches: true,
      certificateUntil: '2026-12-10',
    });
    const all = lapsesOf(p, book('us'), '2026-11-24');
    expect(
      all
        .filter((l) => l.kind === 'teach')
        .map((l) => [l.typeCode, l.status])
        .sort(),
    ).toEqual([
      ['nose', 'current'],
      ['tail', 'expired'],
    ]);
    expect(all.find((l) => l.key === 'certificate')).toMatchObject({ status: 'expiring', daysLeft: 16 });
    expect(firstLapse(all)?.key).toBe('certificate');
    // Teaching is told apart; no medical and no review are on record.
    expect(standingOf(all)).toBe('unknown');
  });
  it('a type given up half a year ago raises no alarm', () => {
    const dates = [
      { key: 'flight-review', title: '', doneOn: '2026-05-01', until: null },
      { key: 'medical', title: '', doneOn: null, until: '2027-05-01' },
    ];
    const on = (day: string, more: Partial<Person> = {}) =>
      standingOf(lapsesOf(person(flown(day, 'nose'), { dates, ...more }), book('us'), '2026-11-24'));
    expect(on('2025-11-01')).toBe('current');
    // A check of the school is due, and no law is broken.
    expect(on('2026-07-01')).toBe('due');
    expect(on('2026-07-01', { dates: [{ key: 'medical', title: '', doneOn: null, until: '2026-11-01' }] })).toBe(
      'expired',
    );
    // What the right to act rests on is not on record: that is not current.
    expect(on('2025-11-01', { dates: dates.slice(0, 1) })).toBe('unknown');
  });
});

describe('what if', () => {
  const plan = fc.record({
    days: fc.integer({ min: 0, max: 200 }),
    code: fc.constantFrom('nose', 'tail'),
    landings: fc.integer({ min: 0, max: 5 }),
    stops: fc.integer({ min: 0, max: 5 }),
    night: fc.boolean(),
  });
  const START = '2026-05-01';
  const events = (
    all: { days: number; code: string; landings: number; stops: number; night: boolean }[],
    from: number,
  ) =>
    all.flatMap((p, i) =>
      loggedEvents(
        {
          id: `f${from + i}`,
          date: addDays(START, p.days),
          takeoffs: p.landings,
          landings: p.landings,
          fullStops: Math.min(p.stops, p.landings),
          night: p.night,
          surface: 'land',
        },
        { typeCode: p.code, engines: 1, tailwheel: p.code === 'tail' },
      ),
    );
  it('is what the rules say once it is really flown, on any day', () => {
    fc.assert(
      fc.property(
        fc.array(plan, { maxLength: 10 }),
        fc.array(plan, { maxLength: 4 }),
        fc.integer({ min: 0, max: 320 }),
        fc.constantFrom('us' as const, 'eu' as const),
        (before, planned, on, pack) => {
          const p = person(events(before, 0), { teaches: true });
          const foretold = whatIf(p, events(planned, 100), book(pack), addDays(START, on));
          const came = lapsesOf(
            { ...p, events: [...events(planned, 100), ...p.events] },
            book(pack),
            addDays(START, on),
          );
          expect(foretold.map((l) => [l.key, l.status, l.through, l.restore])).toEqual(
            came.map((l) => [l.key, l.status, l.through, l.restore]),
          );
        },
      ),
    );
  });
  it('flying more never takes anything away', () => {
    fc.assert(
      fc.property(
        fc.array(plan, { maxLength: 8 }),
        fc.array(plan, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 0, max: 320 }),
        (before, planned, on) => {
          const p = person(events(before, 0));
          const day = addDays(START, on);
          const after = whatIf(p, events(planned, 100), book('us'), day);
          for (const b of lapsesOf(p, book('us'), day))
            expect((after.find((a) => a.key === b.key)?.through ?? '') >= (b.through ?? '')).toBe(true);
        },
      ),
    );
  });
  it('a day of circuits as one row counts as its landings one by one', () => {
    fc.assert(
      fc.property(fc.array(plan, { maxLength: 8 }), fc.integer({ min: 0, max: 320 }), (flights, on) => {
        const rows = events(flights, 0);
        const single = rows.flatMap((e) =>
          Array.from({ length: e.times ?? 1 }, (_, i): TypedEvent => {
            const { times: _times, ...one } = e;
            return { ...one, id: `${e.id}.${i}` };
          }),
        );
        const day = addDays(START, on);
        const words = (p: Person) => lapsesOf(p, book('us'), day).map((l) => [l.key, l.status, l.through, l.restore]);
        expect(words(person(single))).toEqual(words(person(rows)));
      }),
    );
  });
  it('a dated thing holds through its last day and not one longer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2000 }),
        fc.integer({ min: 0, max: 36 }),
        fc.boolean(),
        (day, months, monthEnd) => {
          const from = addDays('2024-01-01', day);
          const v = validity({ fromDate: from, onDate: from, days: null, months, monthEnd });
          expect(validity({ fromDate: from, onDate: v.validThrough, days: null, months, monthEnd }).status).not.toBe(
            'expired',
          );
          expect(
            validity({ fromDate: from, onDate: addDays(v.validThrough, 1), days: null, months, monthEnd }).status,
          ).toBe('expired');
        },
      ),
    );
  });
});
