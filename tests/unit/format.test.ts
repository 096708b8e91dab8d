import fc from 'fast-check';
import { typedDate } from '@/core/schedule';
import { describe, expect, it } from 'vitest';
import {
  ageText,
  crosswindWords,
  dateText,
  direction,
  fixed,
  headwindWords,
  list,
  localText,
  localTime,
  plural,
  windText,
  withUnit,
  zoneText,
} from '@/core/format';
import { spread } from '@/ui/brief/drawings';
import { readWindFields, windToFields } from '@/ui/brief/wind-entry';

describe('format', () => {
  it('writes numbers with their unit', () => {
    expect(withUnit(61.6, 'mph')).toBe('62\u00a0mph');
    expect(withUnit(null, 'kt')).toBe('\u2013');
    expect(fixed(-0.2)).toBe('0');
  });
  it('writes wind and direction', () => {
    expect(windText({ variable: false, fromDeg: 260, kt: 11, gustKt: 17 })).toBe('260/11 G17');
    expect(windText({ variable: true, fromDeg: null, kt: 3, gustKt: null })).toBe('VRB/03');
    expect(windText({ variable: false, fromDeg: 360, kt: 0, gustKt: null })).toBe('calm');
    expect([direction(360), direction(0), direction(5)]).toEqual(['360', '360', '005']);
    expect(crosswindWords(-7.4)).toContain('from the left');
    expect(headwindWords(-3)).toContain('tail');
  });
  it('writes dates, ages and lists', () => {
    expect(dateText('2026-11-04')).toBe('4 Nov 2026');
    expect(localText('2026-11-04T09:05:00.000Z', 'UTC')).toBe('4 Nov 2026 09:05 UTC');
    expect(localTime('2026-07-04T09:05:07.000Z', 'Europe/Lisbon', true)).toBe('10:05:07');
    expect([
      zoneText('2026-07-04T09:05:00Z', 'Europe/Lisbon'),
      zoneText('2026-12-04T09:05:00Z', 'Europe/Lisbon'),
    ]).toEqual(['WEST', 'WET']);
    expect(ageText(125)).toBe('2\u00a0h\u00a005');
    expect(list(['a', 'b', 'c'])).toBe('a, b and c');
    expect(plural(1, 'entry', 'entries')).toBe('1 entry');
  });
});

describe('label layout', () => {
  it('keeps labels apart and in order', () => {
    const at = spread([100, 102, 104, 300], 40, 0, 400);
    for (let i = 1; i < at.length; i++) expect((at[i] ?? 0) - (at[i - 1] ?? 0)).toBeGreaterThan(35);
  });
});

describe('wind fields', () => {
  const now = '2026-11-24T14:30:00.000Z';
  const zone = 'Europe/Lisbon';
  const empty = windToFields(null, zone);
  it('an empty form is no wind and no problem', () =>
    expect(readWindFields(empty, now, zone)).toEqual({ wind: null, problem: null }));
  it('a typed wind is magnetic unless said otherwise and seen now unless timed', () => {
    const read = readWindFields({ ...empty, windKind: 'typed', typedDir: '250', typedKt: '9' }, now, zone);
    expect(read.wind).toMatchObject({ reference: 'magnetic', fromDeg: 250, kt: 9, gustKt: null, observedAt: now });
  });
  it.each([
    ['typedDir', { typedDir: '400' }],
    ['typedKt', { typedKt: 'nine' }],
    ['typedGust', { typedGust: '5' }],
    ['typedAt', { typedAt: '25:00' }],
  ])('puts the message beside %s', (path, part) => {
    expect(
      readWindFields({ ...empty, windKind: 'typed', typedDir: '250', typedKt: '9', ...part }, now, zone).problem?.path,
    ).toBe(path);
  });
  it.each([
    ['the evening before, of the UTC date', 'America/Denver', '2026-11-24T02:30:30.000Z', '19:20', '2026-11-24T02:20'],
    ['later by less than an hour', 'America/Denver', '2026-11-24T02:30:00.000Z', '20:15', '2026-11-24T03:15'],
    ['later by more: the day before', 'America/Denver', '2026-11-24T02:30:00.000Z', '20:45', '2026-11-23T03:45'],
    ['before midnight, just after it', 'Europe/Lisbon', '2026-07-01T23:05:00.000Z', '23:55', '2026-07-01T22:55'],
    ['across the hour that comes twice', 'Europe/Lisbon', '2026-10-25T03:10:00.000Z', '00:30', '2026-10-24T23:30'],
    ['half an hour off the whole', 'Asia/Kolkata', '2026-11-24T04:00:00.000Z', '09:25', '2026-11-24T03:55'],
  ])('a time typed is the aerodrome\u2019s clock: %s', (_, timeZone, at, typedAt, instant) => {
    const read = readWindFields({ ...empty, windKind: 'typed', typedDir: '250', typedKt: '9', typedAt }, at, timeZone);
    expect(read.wind?.observedAt).toBe(`${instant}:00.000Z`);
    expect(windToFields(read.wind, timeZone).typedAt).toBe(typedAt);
  });
  it('a stored wind comes back as it was typed', () => {
    const read = readWindFields(
      { ...empty, windKind: 'typed', typedDir: 'vrb', typedKt: '4', typedAt: '14:10' },
      now,
      zone,
    );
    expect(readWindFields(windToFields(read.wind, zone), now, zone).wind).toMatchObject({
      variable: true,
      kt: 4,
      observedAt: '2026-11-24T14:10:00.000Z',
    });
  });
});

describe('a date as it is typed', () => {
  it('every usual form of one day is that day; what two people read differently is refused', () => {
    const months = ['January', 'February', 'March', 'April', 'May', 'June', 'July'].concat([
      'August',
      'September',
      'October',
      'November',
      'December',
    ]);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 80_000 }), (days) => {
        const iso = new Date(Date.UTC(1950, 0, 1) + days * 86_400_000).toISOString().slice(0, 10);
        const [y = '', m = '', d = ''] = iso.split('-');
        const month = months[Number(m) - 1] ?? '';
        const forms = [
          iso,
          dateText(iso),
          `${d}.${m}.${y}`,
          `${Number(d)} ${month} ${y}`,
          `${month} ${Number(d)}, ${y}`,
        ];
        expect(forms.map(typedDate)).toEqual(forms.map(() => iso));
        const strokes = [typedDate(`${d}/${m}/${y}`), typedDate(`${m}/${d}/${y}`)];
        expect(strokes).toEqual(Number(d) > 12 || d === m ? [iso, iso] : [null, null]);
      }),
    );
    expect(
      ['30 Feb 2026', '29 Feb 2028', '0 Jan 2026', '24 Nov 26', 'tomorrow', '', '2026-13-01'].map(typedDate),
    ).toEqual([null, '2028-02-29', null, null, null, null, null]);
  });
});
