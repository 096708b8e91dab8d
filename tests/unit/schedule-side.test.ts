import { describe, expect, it } from 'vitest';
import { blocksOf, columnsOf, shutOf, withPlaced } from '@/ui/schedule/columns';
import type { ScheduleFacts } from '@/ui/schedule/facts';
import { bookForm, wishForm } from '@/ui/schedule/booking-values';
import { sideStart, sideStep } from '@/ui/schedule/side-state';

const wanted = { bookingId: 'b', version: 1, startsAt: '2026-11-24T10:00:00Z', minutes: 90 };
describe('what stands beside the schedule', () => {
  it('a new booking, a chosen one and a refusal put each other away; what was said stays', () => {
    const moved = sideStep(sideStart({ fresh: null, selected: null }), {
      type: 'moved',
      said: 'Moved.',
      undo: null,
      placed: wanted,
    });
    const refused = sideStep(moved, { type: 'refused', wanted, problems: [], nearest: null });
    expect(refused).toMatchObject({ said: '', busy: false, refused: { wanted } });
    const fresh = sideStep(refused, { type: 'new', from: { date: '2026-11-24', minutes: 600 } });
    expect(fresh).toMatchObject({ selected: null, refused: null, fresh: { minutes: 600 } });
    const booked = sideStep(fresh, { type: 'booked', id: 'n', said: 'Booked.' });
    expect(booked).toMatchObject({ selected: 'n', fresh: null, said: 'Booked.' });
    expect(sideStep(booked, { type: 'choose', id: 'b' })).toMatchObject({ selected: 'b', said: 'Booked.' });
  });
  it('a move under way is busy until it is answered', () => {
    const moving = sideStep(sideStart({ fresh: null, selected: null }), { type: 'moving', id: 'b' });
    expect(moving).toMatchObject({ selected: 'b', busy: true });
    expect(sideStep(moving, { type: 'moved', said: 'x', undo: null, placed: wanted }).busy).toBe(false);
  });
});

describe('a booking as typed', () => {
  it('a day that is none is sent as typed and asks for no instant: whoever checks it says so', () => {
    const v = {
      requestId: 'r',
      kind: 'lesson' as const,
      checkoutId: 'c',
      pilotId: '',
      instructorId: '',
      airframeId: '',
      date: '11/12/2026',
      start: '10:00',
      at: '',
      minutes: '',
      passengers: '',
      surface: 'any' as const,
      aerodrome: '',
      note: '',
      aim: '',
    };
    const school = { ...facts, checkouts: [] } as unknown as ScheduleFacts;
    expect(bookForm(v, school, 90, null)).toMatchObject({ startsAt: '', minutes: 90 });
    expect(bookForm({ ...v, date: '2026-12-11' }, school, 90, null).startsAt).toBe('2026-12-11T10:00:00.000Z');
    expect(wishForm(v, school, 90)).toMatchObject({ fromDate: '11/12/2026', toDate: '11/12/2026' });
  });
});

// Lisbon in winter is UTC; 24 November 2026 is a Tuesday.
const facts = {
  zone: 'Europe/Lisbon',
  today: '2026-11-24',
  now: '2026-11-24T09:00:00Z',
  me: 'u1',
  staff: false,
  days: [{ date: '2026-11-24', name: 'Tue', today: true, past: false, sunriseMin: 440, sunsetMin: 1030, wind: [] }],
  people: [
    { key: 'u:u1', userId: 'u1', pilotId: null, name: 'Ana', instructor: true },
    { key: 'p:x', userId: null, pilotId: 'x', name: 'Rui', instructor: false },
  ],
  airframes: [{ id: 'f', registration: 'ZS-ABC', typeName: 'T', down: null }],
  away: [
    {
      id: 'a',
      who: 'u:u1',
      name: 'Ana',
      kind: 'away',
      from: '2026-11-23T10:00:00Z',
      to: '2026-11-24T09:30:00Z',
      why: '',
    },
    { id: 'g', who: 'a:f', name: 'ZS-ABC', kind: 'grounded', from: '2026-11-20T10:00:00Z', to: null, why: 'flat tyre' },
  ],
  windows: { 'u:u1': [{ weekday: 2, fromMin: 540, toMin: 1020 }] },
  bookings: [
    { id: 'b1', date: '2026-11-24', startsAt: '2026-11-24T12:00:00Z', mine: true, masked: false, airframeId: 'f' },
    { id: 'b2', date: '2026-11-24', startsAt: '2026-11-24T08:00:00Z', mine: true, masked: false, airframeId: 'f' },
    { id: 'b3', date: '2026-11-24', startsAt: '2026-11-24T13:00:00Z', mine: false, masked: true, airframeId: 'f' },
  ].map((b) => ({ ...b, instructorId: null })),
} as unknown as ScheduleFacts;
describe('columns of the schedule', () => {
  it('a day is shut where somebody is away, and outside the hours they keep', () => {
    expect(shutOf(facts, 'u:u1', '2026-11-24')).toEqual([
      { fromMin: 0, toMin: 570, why: '' },
      { fromMin: 0, toMin: 540, why: '' },
      { fromMin: 1020, toMin: 1440, why: '' },
    ]);
    expect(shutOf(facts, 'u:u1', '2026-11-25')).toEqual([{ fromMin: 0, toMin: 1440, why: '' }]);
    expect(shutOf(facts, 'a:f', '2026-12-24')).toEqual([{ fromMin: 0, toMin: 1440, why: 'flat tyre' }]);
    expect(shutOf(facts, 'p:x', '2026-11-24')).toEqual([]);
  });
  it('by week the days, by day the instructors and one without, by aeroplane the aeroplanes', () => {
    expect(columnsOf(facts, 'week', 'all').map((c) => c.key)).toEqual(['2026-11-24']);
    expect(columnsOf(facts, 'day', 'all').map((c) => c.key)).toEqual(['u1', '']);
    expect(columnsOf(facts, 'day', 'by-aeroplane').map((c) => c.name)).toEqual(['ZS-ABC']);
  });
  it('only one’s own of the future moves', () => {
    const blocks = blocksOf(facts, 'week', 'all', columnsOf(facts, 'week', 'all'));
    expect(blocks.map((b) => b.movable)).toEqual([true, false, false]);
    expect(blocksOf(facts, 'week', 'mine', columnsOf(facts, 'week', 'mine')).map((b) => b.id)).toEqual(['b1', 'b2']);
  });
  it('a booking moved twice stands where it was put last, whichever reading of the page comes in between', () => {
    const read = (version: number, startsAt: string) =>
      ({
        ...facts,
        bookings: [{ ...facts.bookings[0], version, startsAt, fromMin: 720, toMin: 825, fit: 'x', hit: [] }],
      }) as unknown as ScheduleFacts;
    const put = (version: number, startsAt: string) => ({ bookingId: 'b1', version, startsAt, minutes: 105 });
    const first = sideStep(sideStart({ fresh: null, selected: null }), {
      type: 'moved',
      said: 'Moved.',
      undo: null,
      placed: put(2, '2026-11-25T10:45:00.000Z'),
    });
    const back = sideStep(first, {
      type: 'moved',
      said: 'Undone.',
      undo: null,
      placed: put(3, '2026-11-24T12:00:00.000Z'),
    });
    const at = (f: ScheduleFacts, s: typeof back) => {
      const b = withPlaced(f, s.placed).bookings[0];
      return [b?.version, b?.date, b?.fromMin, b?.toMin];
    };
    const [old, between] = [read(1, '2026-11-24T12:00:00Z'), read(2, '2026-11-25T10:45:00Z')];
    expect(at(old, first)).toEqual([2, '2026-11-25', 645, 750]);
    expect(at(old, back)).toEqual([3, '2026-11-24', 720, 825]);
    expect(at(between, back)).toEqual([3, '2026-11-24', 720, 825]);
    // What somebody else did since outranks it.
    expect(withPlaced(read(4, '2026-11-24T13:00:00Z'), back.placed).bookings[0]?.startsAt).toBe('2026-11-24T13:00:00Z');
  });
});
