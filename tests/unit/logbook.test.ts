import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type LessonLogged,
  guessColumns,
  guessDates,
  logbookLines,
  readDate,
  readHours,
  readLogbook,
  readTable,
  rowWords,
} from '@/core/logbook';
import type { LogbookMapping } from '@/domain/people';

const NOSE = { typeCode: 'nose', engines: 1, tailwheel: false, surface: 'land' as const };
const TAIL = { typeCode: null, engines: 1, tailwheel: true, surface: 'land' as const };
const mapping = (text: string, more: Partial<LogbookMapping> = {}): LogbookMapping => {
  const t = readTable(text);
  return {
    columns: guessColumns(t.header),
    dates: 'ymd',
    time: 'hours',
    stopLines: [],
    types: { Nose: NOSE, Tail: TAIL },
    ...more,
  };
};
const read = (text: string, more: Partial<LogbookMapping> = {}) =>
  readLogbook(readTable(text), mapping(text, more), '2026-11-24');

describe('a logbook file', () => {
  it('finds columns by their names, each once', () => {
    expect(
      guessColumns([
        'Date',
        'Aircraft Make & Model',
        'Ident',
        'Total Flight Time',
        'PIC',
        'Day Landings',
        'Night Landings',
        'Full-stop landings',
        'Night',
        'Remarks',
      ]),
    ).toEqual({
      date: 'Date',
      type: 'Aircraft Make & Model',
      registration: 'Ident',
      total: 'Total Flight Time',
      pic: 'PIC',
      landingsDay: 'Day Landings',
      landingsNight: 'Night Landings',
      fullStops: 'Full-stop landings',
      night: 'Night',
      remark: 'Remarks',
    });
    expect(guessColumns(['date', 'type', 'registration', 'minutes', 'dual', 'takeoffs', 'landings'])).toMatchObject({
      date: 'date',
      total: 'minutes',
      takeoffs: 'takeoffs',
      landings: 'landings',
      dual: 'dual',
    });
  });
  it('tells how dates are written from the dates themselves', () => {
    expect([
      guessDates(['2026-10-02']),
      guessDates(['13/10/2026', '01/02/2026']),
      guessDates(['10/13/2026', '01/02/2026']),
      guessDates(['01/02/2026']),
    ]).toEqual(['ymd', 'dmy', 'mdy', 'dmy']);
  });
  it.each([
    ['2026-02-28', 'dmy', '2026-02-28'],
    ['28.02.2026', 'dmy', '2026-02-28'],
    ['02/28/2026', 'mdy', '2026-02-28'],
    ['28/2/26', 'dmy', '2026-02-28'],
    ['29/02/2028', 'dmy', '2028-02-29'],
    ['29/02/2026', 'dmy', null],
    ['31/04/2026', 'dmy', null],
    ['2026-13-01', 'ymd', null],
    ['soon', 'ymd', null],
    ['', 'ymd', null],
  ] as const)('%s as %s is %s', (text, order, iso) => {
    expect(readDate(text, order)).toBe(iso);
  });
  it.each([
    ['1:30', 1.5],
    ['0:05', 0.083],
    ['1.5', 1.5],
    ['1,5', 1.5],
    ['', 0],
    ['-', 0],
    ['1h20', 1.333],
    ['x', null],
    ['25', null],
    ['-1', null],
  ] as const)('time %s', (text, hours) => {
    expect(readHours(text, 'hours')).toBe(hours);
  });
  it('a bare number of minutes', () => {
    expect([readHours('90', 'minutes'), readHours('1:30', 'minutes'), readHours('1441', 'minutes')]).toEqual([
      1.5,
      1.5,
      null,
    ]);
  });
  it('reads semicolons and a byte order mark, and refuses a ragged row by its line', () => {
    const got = read(
      '\uFEFFDate;Type;Registration;Total time;Landings\n2026-10-02;Nose;ZP-A;1:00;3\n2026-10-03;Nose;ZP-A;1:00\n',
    );
    expect(got.flights).toHaveLength(1);
    expect(got.refused).toEqual([{ line: 3, why: { code: 'ragged', params: { fields: 4, header: 5 } } }]);
  });
  it('day and night by their columns; without, by night time that covers the flight', () => {
    const cols = read('Date,Type,Total time,Landings day,Landings night,Full stop\n2026-10-02,Tail,1:00,2,1,2\n');
    expect(cols.flights[0]).toMatchObject({
      landingsDay: 2,
      landingsNight: 1,
      fullStopsNight: 1,
      fullStopsDay: 1,
      takeoffsDay: 3,
      takeoffsNight: 0,
    });
    const byTime = read(
      'Date,Type,Total time,Landings,Night\n2026-10-02,Tail,1:00,2,1:00\n2026-10-03,Tail,1:00,2,0:20\n',
    );
    expect(byTime.flights.map((f) => [f.landingsDay, f.landingsNight, f.fullStopsDay, f.fullStopsNight])).toEqual([
      [0, 2, 0, 0],
      [2, 0, 0, 0],
    ]);
  });
  it('no tick makes full stops of every row: each is said of its own line', () => {
    const text = 'Date,Type,Total time,Landings\n2026-10-02,Nose,1:00,3\n2026-10-03,Tail,1:00,3\n';
    const stops = (m: Partial<LogbookMapping>) => read(text, m).flights.map((f) => f.fullStopsDay);
    expect([stops({}), stops({ stops: 'all' }), stops({ stops: 'tailwheel' }), stops({ stopLines: [3] })]).toEqual([
      [0, 0],
      [0, 0],
      [0, 0],
      [0, 3],
    ]);
  });
  it('says of each line why it is refused', () => {
    const got = read(
      'Date,Type,Total time,Landings,Full stop\n,Nose,1:00,1,0\n2027-01-01,Nose,1:00,1,0\n2026-10-02,,1:00,1,0\n2026-10-02,Tern,1:00,1,0\n2026-10-02,Nose,soon,1,0\n2026-10-02,Nose,1:00,many,0\n2026-10-02,Nose,1:00,1,2\n2026-10-02,Nose,,0,0\n2026-10-02,Nose,26:00,1,0\n',
    );
    expect(got.flights).toEqual([]);
    expect(got.refused.map((r) => `${r.line} ${rowWords(r.why)}`)).toEqual([
      '2 has no date',
      '3 1 Jan 2027 is in the future',
      '4 has no type',
      '5 no type of the list is chosen for \u201cTern\u201d',
      '6 a time cannot be read: \u201csoon\u201d',
      '7 \u201cmany\u201d is not a number of landings',
      '8 has 2 full stops and 1 landings',
      '9 has neither time nor landings',
      '10 a time cannot be read: \u201c26:00\u201d',
    ]);
    expect(got.typesWritten).toEqual([
      { name: 'Nose', flights: 7 },
      { name: 'Tern', flights: 1 },
    ]);
  });
  it('the same flight has the same name in any file and order; twice the same flight has two', () => {
    const a = read(
      'Date,Type,Registration,Total time,Landings\n2026-10-02,Nose,ZP-A,1:00,3\n2026-10-02,Nose,ZP-A,1:00,3\n2026-10-05,Nose,ZP-A,0:30,1\n',
    ).flights.map((f) => f.fingerprint);
    const b = read(
      'Landings;Total time;Registration;Type;Date\n1;0.5;zpa;Nose;2026-10-05\n3;1;zp-a;Nose;2026-10-02\n3;1.0;ZP A;Nose;2026-10-02\n',
    ).flights.map((f) => f.fingerprint);
    expect(new Set(a).size).toBe(3);
    expect([...a].sort()).toEqual([...b].sort());
  });
  it('never throws, and accounts for every row', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string({ maxLength: 8 }), { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 8 }),
        (grid) => {
          const text = [
            'Date,Type,Total time,Landings,Full stop',
            ...grid.map((r) => r.map((c) => `"${c.replaceAll('"', '""')}"`).join(',')),
          ].join('\n');
          const got = read(text);
          expect(got.flights.length + got.refused.length).toBe(readTable(text).rows.length);
        },
      ),
    );
  });
});

describe('what is written after a lesson', () => {
  const lesson: LessonLogged = {
    pack: 'us',
    date: '24 Nov 2026',
    place: { at: 'ZPAV', home: 'ZPAV' },
    registration: 'ZP-URZ',
    typeName: 'Serrana Urze',
    engines: 1,
    lesson: 3,
    minutes: 59,
    groundMinutes: 24,
    takeoffs: { day: 6, night: 1 },
    landings: { day: 6, night: 1, fullStops: 7, water: 0 },
    trained: ['three-point landings', 'go-arounds'],
    pilot: 'Rui Casal Ferro',
    instructor: 'Helena Serpa Dorna',
    certificate: 'instructor ZP-FI 0412',
    until: '30 Jun 2027',
    lacks: 'endorsement',
  };
  it('in the United States: rated, the sole manipulator may log command; 59 minutes are 0.9 h and not 1.0', () => {
    const { pilot, instructor, open } = logbookLines(lesson);
    expect(pilot).toBe(
      '24 Nov 2026, ZPAV to ZPAV, ZP-URZ Serrana Urze, lesson 3: dual received 0.9 h; pilot in command up to 0.9 h as sole manipulator (14 CFR 61.51(e)), ground training 0.4 h; take-offs 6 day, 1 night; landings 6 day, 1 night, 7 to a full stop. Training: three-point landings and go-arounds. Helena Serpa Dorna, instructor ZP-FI 0412, recent experience end date 30 Jun 2027.',
    );
    expect(instructor).toContain('Rui Casal Ferro: dual given 0.9 h, pilot in command as instructor 0.9 h');
    expect(instructor).toContain('61.189');
    expect(open).toEqual([]);
  });
  it('flown at another aerodrome: where it began and ended is left open', () => {
    const away = logbookLines({ ...lesson, place: { at: 'ZPMV', home: 'ZPAV' } });
    expect(away.pilot).toContain('24 Nov 2026, ____ to ____, landings at ZPMV, ZP-URZ');
    expect(away.open).toEqual(['where the flight began and ended']);
  });
  it('not rated in the class, no command is logged by the pilot', () => {
    expect(logbookLines({ ...lesson, lacks: 'class' }).pilot).toContain(
      'dual received 0.9 h; no pilot-in-command time',
    );
  });
  it('in Europe hours and minutes, and the command as agreed where nothing is missing', () => {
    const eu = { ...lesson, pack: 'eu' as const };
    expect(logbookLines(eu).pilot).toContain('total 0:59, pilot in command Helena Serpa Dorna, dual 0:59');
    expect(logbookLines({ ...eu, lacks: 'nothing' }).pilot).toContain(
      'as agreed before the flight: pilot in command 0:59, or dual 0:59',
    );
    expect(logbookLines({ ...eu, lacks: 'nothing' }).instructor).toContain('pilot in command 0:59 where agreed so');
  });
  it('a time nobody measured and a certificate nobody entered are left open, and said', () => {
    const bare = logbookLines({ ...lesson, minutes: null, certificate: '', until: null });
    expect(bare.pilot).toContain('dual received ____ h');
    expect(bare.pilot).toContain('Helena Serpa Dorna, ____, recent experience end date ____.');
    expect(bare.open).toHaveLength(3);
    expect(() => logbookLines({ ...lesson, minutes: Number.NaN })).toThrow(RangeError);
  });
});
